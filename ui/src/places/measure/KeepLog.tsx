import { Box, Button, Flex, Text } from "@chakra-ui/react";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { shootsQuery, shotsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { decimal } from "../../lib/locale";
import { shutterText } from "../../lib/measured";
import { SelectField } from "../../lib/SelectField";
import { sayNotSaved, toaster } from "../../shell/toaster";
import { useKeepOutcome } from "./useKeepOutcome";

/** What a stand-in wrote says so in its name, and stays marked as simulated. */
const sourceOf = (name: string) => (name.startsWith("simulated") ? "simulated" : "real");

interface AsReadingProps {
  reading: Schemas["MeasuredLogReading"];
  name: string;
}

/** Offers the light of a log as a reading of a shoot. */
export function AsReading({ reading, name }: AsReadingProps) {
  const { data: shoots = [] } = useQuery(shootsQuery);
  const [shootId, setShootId] = useState("");
  const ev100 = Number(reading.ev100.toFixed(2));
  const spreadStops = Number(reading.spreadStops.toFixed(2));
  const keep = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/light-readings", {
          body: {
            shootId,
            takenAt: new Date().toISOString(),
            kind: "auto",
            source: sourceOf(name),
            words: `${name}: median of its light`.slice(0, 200),
            ev100,
            spreadStops,
          },
        }),
      ),
    onSuccess: () => toaster.create({ title: "Saved as a reading of the day" }),
    onError: sayNotSaved,
  });
  return (
    <Box>
      <Text>
        Light EV {decimal(ev100, 1)} in the middle of it, ±{decimal(spreadStops, 1)}
      </Text>
      <Flex gap="2" align="flex-end" wrap="wrap" mt="1">
        <SelectField
          label="As a reading of"
          maxW="240px"
          value={shootId}
          options={[{ value: "", name: "choose a shoot" }, ...shoots.map((s) => ({ value: s.id, name: s.name }))]}
          onChange={setShootId}
        />
        <Button variant="outline" disabled={!shootId} loading={keep.isPending} onClick={() => keep.mutate()}>
          Save reading
        </Button>
      </Flex>
    </Box>
  );
}

/** Offers what a log says of the shutter as the outcome of a shot: it stands in the log of its shoot. */
export function AsOutcome({ log, name }: { log: Schemas["MeasuredTelemetryAnswer"]; name: string }) {
  const { data: shots = [] } = useQuery(shotsQuery);
  const [shotId, setShotId] = useState("");
  const shot = shots.find((s) => s.id === shotId);
  const keep = useKeepOutcome(shot);
  const { withinShare, targetS, shutter } = log;
  const share = withinShare == null ? "" : `, ${decimal(100 * withinShare, 0)} % within half a stop of the target`;
  const save = () =>
    keep.mutate({
      words: `shutter ${shutterText(shutter?.medianS ?? 0)}${share}; ${name}`,
      outcome: {
        ...(withinShare != null && { withinShare }),
        ...(targetS != null && { targetS }),
        ...(shutter && { medianS: shutter.medianS }),
      },
    });
  return (
    <Flex gap="2" align="flex-end" wrap="wrap">
      <SelectField
        label="As the outcome of"
        maxW="260px"
        value={shotId}
        options={[
          { value: "", name: "choose a shot" },
          ...shots.filter((s) => s.shootId).map((s) => ({ value: s.id, name: s.name })),
        ]}
        onChange={setShotId}
      />
      <Button variant="outline" disabled={!shot} loading={keep.isPending} onClick={save}>
        Save outcome
      </Button>
    </Flex>
  );
}
