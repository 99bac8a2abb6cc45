import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { Schemas } from "../../api/schemas";
import { ACTIVITIES } from "../../lib/activities";
import { decimal } from "../../lib/locale";
import { SelectField } from "../../lib/SelectField";
import { useRigNames } from "./KeepWith";
import { useKeepCraft } from "./useKeepCraft";

type Activity = keyof typeof ACTIVITIES;

interface KeepShakeProps {
  gyro: Schemas["MeasuredGyroAnswer"];
  rig: Schemas["StoredRig"] | undefined;
  onRig: (id: string) => void;
}

/** Keeps a shake with a camera as it is held, by what it did, and a peak as what vibrates in it. */
export function KeepShake({ gyro, rig, onRig }: KeepShakeProps) {
  const names = useRigNames();
  const [activity, setActivity] = useState<Activity | "">("");
  const keep = useKeepCraft(rig);
  const { shakeDegS = 0, peaks } = gyro;
  const craft = rig?.craft ?? {};
  const shake = Number((shakeDegS ?? 0).toFixed(1));
  const shakes = (craft.shakes ?? []).filter((s) => s.activity !== activity);
  const known = craft.vibration;
  return (
    <Stack gap="2" mt="2">
      <Flex gap="2" align="flex-end" wrap="wrap">
        <SelectField
          label="The camera, as it was held"
          maxW="300px"
          value={rig?.id ?? ""}
          options={[{ value: "", name: "choose" }, ...names]}
          onChange={onRig}
        />
        <SelectField
          label="What it did"
          maxW="200px"
          value={activity}
          options={[
            { value: "", name: "what it usually does" },
            ...Object.entries(ACTIVITIES).map(([value, name]) => ({ value: value as Activity, name })),
          ]}
          onChange={(next) => setActivity(next as Activity | "")}
        />
        <Button
          disabled={!rig}
          loading={keep.isPending}
          onClick={() =>
            keep.mutate({
              ...craft,
              ...(activity ? { shakes: [...shakes, { activity, shakeDegS: shake }] } : { shakeDegS: shake }),
            })
          }
        >
          Save as its shake
        </Button>
      </Flex>
      {rig && peaks.length > 0 && (
        <Flex gap="2" align="center" wrap="wrap">
          <Text color="muted">Its vibration</Text>
          {peaks.slice(0, 3).map((p) => (
            <Button
              key={p.hz}
              variant="outline"
              disabled={keep.isPending}
              aria-label={`Save ${decimal(p.hz, 0)} Hz as its vibration`}
              onClick={() =>
                keep.mutate({
                  ...craft,
                  vibration: { hz: Number(p.hz.toFixed(1)), amplitudeDeg: Number(p.amplitudeDeg.toFixed(4)) },
                })
              }
            >
              {decimal(p.hz, 0)} Hz
            </Button>
          ))}
        </Flex>
      )}
      {craft.shakes?.map((s) => (
        <Known
          key={s.activity}
          isBusy={keep.isPending}
          onForget={() => keep.mutate({ ...craft, shakes: craft.shakes?.filter((other) => other !== s) })}
        >
          {ACTIVITIES[s.activity]}: {decimal(s.shakeDegS, 1)}°/s as measured
        </Known>
      ))}
      {known && (
        <Known
          isBusy={keep.isPending}
          onForget={() => {
            const { vibration: _, ...rest } = craft;
            keep.mutate(rest);
          }}
        >
          Vibration {decimal(known.hz ?? known.rpm ?? 0, 0)} {known.hz ? "Hz" : "turns a minute"},{" "}
          {decimal(known.amplitudeDeg, 3)}° to either side
        </Known>
      )}
    </Stack>
  );
}

interface KnownProps {
  children: React.ReactNode;
  isBusy: boolean;
  onForget: () => void;
}

function Known({ children, isBusy, onForget }: KnownProps) {
  return (
    <Flex gap="3" align="center">
      <Text flex="1">{children}</Text>
      <Button size="sm" variant="ghost" disabled={isBusy} onClick={onForget}>
        Forget
      </Button>
    </Flex>
  );
}
