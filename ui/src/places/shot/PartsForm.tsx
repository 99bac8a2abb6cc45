import { Button, Flex, List, Skeleton, Stack, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { presetsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { Choice } from "../../lib/Choice";
import type { FaultOf } from "../../lib/faults";
import { stops } from "../../lib/format";
import { decimal } from "../../lib/locale";
import { NumberField } from "../../lib/NumberField";
import type { Answer } from "./draft";

type Scene = Schemas["ShotScene"];
type Parts = Schemas["PartsFields"];

const FOR: { value: Parts["exposeFor"]; name: string }[] = [
  { value: "subject", name: "The subject" },
  { value: "between", name: "Between" },
  { value: "bright", name: "The bright part" },
];

interface PartsFormProps {
  parts: Parts | undefined;
  answer: Answer;
  faultOf: FaultOf;
  onChange: (part: Partial<Scene>) => void;
  /** Takes the aim as the light of the shot. */
  onAim: (change: Record<string, unknown>) => void;
}

/** Light that differs inside one frame: what to expose for, and what that loses. */
export function PartsForm({ parts, answer, faultOf, onChange, onAim }: PartsFormProps) {
  const { data: presets } = useQuery(presetsQuery);
  if (!presets) return <Skeleton h="80px" />;
  if (!parts) {
    const ev = Number(answer.reading.ev100.toFixed(1));
    const { brightStops, darkStops } = presets.starts;
    const start: Parts = {
      subjectEv100: ev,
      brightEv100: ev + brightStops,
      darkEv100: ev + darkStops,
      exposeFor: "between",
    };
    return (
      <Stack gap="2" align="flex-start">
        <Text color="muted">A subject in shade before a bright wall: read the parts on their own.</Text>
        <Button variant="outline" onClick={() => onChange({ parts: start })}>
          Read the parts of the frame
        </Button>
      </Stack>
    );
  }
  const set = (part: Partial<Parts>) => onChange({ parts: { ...parts, ...part } });
  const field = (key: "brightEv100" | "subjectEv100" | "darkEv100", label: string) => (
    <NumberField
      label={label}
      value={parts[key]}
      fault={faultOf(`scene.parts.${key}`)}
      onChange={(v) => set({ [key]: v ?? 0 })}
    />
  );
  return (
    <Stack gap="3">
      <Flex gap="3" wrap="wrap">
        {field("brightEv100", "Brightest, EV")}
        {field("subjectEv100", "Subject, EV")}
        {field("darkEv100", "Darkest, EV")}
      </Flex>
      <Choice label="Expose for" options={FOR} value={parts.exposeFor} onChange={(exposeFor) => set({ exposeFor })} />
      {answer.contrast && (
        <Stack gap="1" aria-live="polite" data-testid="contrast-words">
          <Text fontWeight="bold">
            Expose for EV {decimal(answer.contrast.aimEv100, 1)}: highlights lose{" "}
            {stops(answer.contrast.lostHighlightStops)}, shadows {stops(answer.contrast.lostShadowStops)}
          </Text>
          <List.Root gap="1" ps="4">
            {answer.contrast.words.map((words) => (
              <List.Item key={words} _marker={{ color: "muted" }}>
                {words}
              </List.Item>
            ))}
          </List.Root>
          {answer.contrast.use && (
            <Button alignSelf="flex-start" variant="outline" onClick={() => onAim(answer.contrast?.use ?? {})}>
              Use this exposure
            </Button>
          )}
        </Stack>
      )}
      <Button alignSelf="flex-start" variant="ghost" onClick={() => onChange({ parts: undefined })}>
        Remove the parts
      </Button>
    </Stack>
  );
}
