import { Button, Flex, HStack, Stack, Text } from "@chakra-ui/react";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import type { FaultOf } from "../../lib/faults";
import { stops } from "../../lib/format";
import { LIGHT_SOURCES } from "../../lib/lightSources";
import { PressButton } from "../../lib/PressButton";
import { CLEAR, SKIES, SkyForm } from "../../lib/SkyForm";
import { TextField } from "../../lib/TextField";
import { TickBox } from "../../lib/TickBox";
import type { Bench, LightKind } from "./draft";
import { SimulatedCamera } from "./SimulatedCamera";

type Light = Schemas["ShotLight"];
type Entry = Schemas["Entry"];

const KINDS = (Object.keys(LIGHT_SOURCES) as LightKind[]).map((value) => ({ value, name: LIGHT_SOURCES[value] }));

interface LightFormProps {
  light: Light;
  fps: string;
  /** The light as it stands, in EV at ISO 100. */
  ev: number;
  bench: Bench;
  faultOf: FaultOf;
  onChange: (light: Light) => void;
  /** Another kind of reading was chosen; the light stays what it is. */
  onKind: (kind: LightKind) => void;
}

/** The light, in whichever form it was read. */
export function LightForm({ light, fps, ev, bench, faultOf, onChange, onKind }: LightFormProps) {
  // What is typed by hand is no longer what a simulated device said.
  const byHand = (next: Light) => {
    const { source: _, ...rest } = next;
    onChange(rest);
  };
  const entry = (role: "at" | "low", name: string) => (
    <EntryFields
      key={role}
      name={name}
      kind={light.kind}
      entry={light[role] ?? {}}
      bench={bench}
      faultOf={(field) =>
        faultOf(`light.${role}.${field}`) ?? (field === "text" && role === "low" ? faultOf("light.low") : undefined)
      }
      onChange={(next) => byHand({ ...light, [role]: next })}
    />
  );
  return (
    <Stack gap="3">
      <Choice
        label="Read from"
        options={KINDS}
        value={light.kind}
        onChange={(kind) => kind !== light.kind && onKind(kind)}
      />
      {light.kind === "looks" && <Looks light={light} fault={faultOf("light.looks")} onChange={byHand} />}
      {light.kind === "sky" && <SkyForm sight={light.sky ?? CLEAR} onChange={(sky) => byHand({ kind: "sky", sky })} />}
      {light.kind !== "looks" && light.kind !== "sky" && (
        <>
          {entry("at", light.low ? "Brightest" : "")}
          {light.low && entry("low", "Darkest")}
          {light.kind === "auto" && (
            <SimulatedCamera
              bench={bench}
              fps={fps}
              ev={ev}
              glass={light.at?.glass ?? []}
              onRead={(at) => onChange({ kind: "auto", at, source: "simulated" })}
            />
          )}
          <TickBox
            isOn={Boolean(light.low)}
            onChange={(isOn) => byHand(isOn ? { ...light, low: { ...light.at } } : withoutLow(light))}
          >
            The light changes during the shot
          </TickBox>
        </>
      )}
    </Stack>
  );
}

function withoutLow(light: Light): Light {
  const { low: _, ...rest } = light;
  return rest;
}

interface EntryFieldsProps {
  name: string;
  kind: LightKind;
  entry: Entry;
  bench: Bench;
  faultOf: FaultOf;
  onChange: (entry: Entry) => void;
}

function EntryFields({ name, kind, entry, bench, faultOf, onChange }: EntryFieldsProps) {
  const label = (text: string) => (name ? `${name}: ${text}` : text);
  const field = (
    key: "text" | "shutter" | "iso" | "bias",
    text: string,
    rest: { placeholder?: string; helper?: string } = {},
  ) => (
    <TextField
      key={key}
      label={label(text)}
      value={entry[key] ?? ""}
      fault={faultOf(key)}
      onChange={(value) => onChange({ ...entry, [key]: value })}
      {...rest}
    />
  );
  if (kind === "meter") return field("text", "what the meter says", { helper: "f2 1/1250 iso50, or EV 14.3" });
  if (kind === "lux") return field("text", "lux at the subject", { helper: "6400, or 6.4 klx" });
  return (
    <Stack gap="2">
      <Flex gap="2" wrap={{ base: "wrap", sm: "nowrap" }}>
        {kind === "bias" && field("bias", "bias shown", { helper: "+ is too bright" })}
        {field("shutter", kind === "bias" ? "locked shutter" : "shutter it chose", {
          placeholder: kind === "bias" ? "the target" : "1/1250",
        })}
        {field("iso", "ISO", { placeholder: String(bench.optics.isoBase) })}
      </Flex>
      <GlassOn
        label={label("filters that were on")}
        bench={bench}
        on={entry.glass ?? []}
        fault={faultOf("glass")}
        onChange={(glass) => onChange({ ...entry, glass })}
      />
    </Stack>
  );
}

interface GlassOnProps {
  label: string;
  bench: Bench;
  on: string[];
  fault: string | undefined;
  onChange: (ids: string[]) => void;
}

function GlassOn({ label, bench, on, fault, onChange }: GlassOnProps) {
  const loose = bench.filters.filter((f) => !bench.camera.mounted.includes(f.id) && f.reads.kind !== "variable");
  return (
    <Stack gap="1" role="group" aria-label={label}>
      <Text fontSize="sm" fontWeight="medium" color="muted">
        {label}
      </Text>
      <Flex gap="1.5" wrap="wrap">
        {loose.map((f) => {
          const isOn = on.includes(f.id);
          return (
            <PressButton
              key={f.id}
              isOn={isOn}
              onClick={() => onChange(isOn ? on.filter((id) => id !== f.id) : [...on, f.id])}
            >
              {f.title}
            </PressButton>
          );
        })}
      </Flex>
      {fault && (
        <Text fontSize="sm" color="breaks">
          {fault}
        </Text>
      )}
    </Stack>
  );
}

const SAW = { dark: "too dark", right: "right", bright: "too bright" } as const;

/** The looks so far, to be taken back one by one. */
function Looks({
  light,
  fault,
  onChange,
}: {
  light: Light;
  fault: string | undefined;
  onChange: (light: Light) => void;
}) {
  const looks = light.looks ?? [];
  const { sky, ...blind } = light;
  return (
    <Stack gap="2">
      <Choice
        label="Sky, to begin with"
        options={[{ value: "", name: "not said" }, ...SKIES]}
        value={sky?.sky ?? ""}
        onChange={(seen) => onChange(seen === "" ? blind : { ...light, sky: { ...sky, sky: seen } })}
      />
      <Text color="muted" fontSize="sm">
        Lock the camera at its target, fit the filter shown, judge the picture.
      </Text>
      {looks.map((look, index) => (
        // Looks have no identity beyond their place in the order they were taken.
        // biome-ignore lint/suspicious/noArrayIndexKey: only the last one is ever removed
        <Text key={index}>
          {index + 1}. {look.stops < 0.05 ? "no filter" : `${stops(look.stops)} of ND`}: <b>{SAW[look.saw]}</b>
        </Text>
      ))}
      {fault && <Text color="breaks">{fault}</Text>}
      {looks.length > 0 && (
        <HStack>
          <Button size="sm" variant="outline" onClick={() => onChange({ ...light, looks: looks.slice(0, -1) })}>
            Take back the last look
          </Button>
          <Button size="sm" variant="ghost" onClick={() => onChange({ ...light, looks: [] })}>
            Start again
          </Button>
        </HStack>
      )}
    </Stack>
  );
}
