import { Button, Flex } from "@chakra-ui/react";
import { useCallback, useEffect, useMemo, useState } from "react";
import { type Control, Controller, type FieldValues, type Path } from "react-hook-form";
import { withoutUnit } from "../locale";
import { SelectField } from "../SelectField";
import { TextField } from "../TextField";
import { type Quantity, useUnits } from "../units";
import { amount, type Format, NOT_READ } from "./formats";

/** One field of a form: where its value stands, what it is called, how it is written. */
export interface FieldSpec {
  /** The path of the value in what is sent: "profile.lens.hfovDeg". */
  path: string;
  label: string;
  w: string;
  helper?: string;
  // biome-ignore lint/suspicious/noExplicitAny: a list of fields holds formats of several types.
  format?: Format<any>;
  /** What it measures, where it is typed in the unit that was chosen: the label gets that unit. */
  quantity?: Quantity;
  /** For a field that is chosen, not typed; "" stands for nothing. */
  options?: Record<string, string>;
  /** Whether it is chosen as yes or no. */
  isFlag?: boolean;
  /** Where a value that is typed usually comes from; left out, nobody asks. */
  source?: Source;
}

export type Source = "printed" | "measured" | "assumed";
const SOURCES: readonly Source[] = ["printed", "measured", "assumed"];

interface FieldsProps<T extends FieldValues> {
  control: Control<T>;
  specs: readonly FieldSpec[];
  /** Where values come from, by the path of their field after the prefix. */
  sources?: { of: Record<string, string>; prefix: string; onChange: (of: Record<string, string>) => void };
}

/** The fields of a form, in rows. */
export function Fields<T extends FieldValues>({ control, specs, sources }: FieldsProps<T>) {
  return (
    <Flex gap="3" wrap="wrap" align="flex-start">
      {specs.map((spec) => {
        const key = spec.path.slice(sources?.prefix.length ?? 0);
        const note = (source: string) => sources?.onChange({ ...sources.of, [key]: source });
        return (
          <Flex key={spec.path} w={spec.w} maxW="100%" gap="1" align="flex-start">
            <Controller
              control={control}
              name={spec.path as Path<T>}
              rules={{ validate: (value) => (value as unknown) !== NOT_READ || (spec.format?.how ?? "") }}
              render={({ field, fieldState }) => (
                <Input
                  spec={spec}
                  value={field.value}
                  fault={fieldState.error?.message}
                  onChange={(value) => {
                    field.onChange(value);
                    if (spec.source && sources?.of[key] !== "measured") note(spec.source);
                  }}
                  onBlur={field.onBlur}
                  inputRef={field.ref}
                />
              )}
            />
            {sources && spec.source && <SourceButton label={spec.label} source={sources.of[key]} onChange={note} />}
          </Flex>
        );
      })}
    </Flex>
  );
}

interface InputProps {
  spec: FieldSpec;
  value: unknown;
  fault: string | undefined;
  onChange: (value: unknown) => void;
  onBlur: () => void;
  inputRef: React.Ref<HTMLInputElement>;
}

function Input({ spec, value, fault, onChange, onBlur, inputRef }: InputProps) {
  if (spec.isFlag)
    return (
      <SelectField
        label={spec.label}
        value={value ? "yes" : "no"}
        options={[
          { value: "no", name: "no" },
          { value: "yes", name: "yes" },
        ]}
        onChange={(v) => onChange(v === "yes" || undefined)}
      />
    );
  if (spec.options)
    return (
      <SelectField
        label={spec.label}
        value={typeof value === "string" ? value : ""}
        options={Object.entries(spec.options).map(([v, name]) => ({ value: v, name }))}
        onChange={(v) => onChange(v === "" ? undefined : v)}
      />
    );
  return <Typed {...{ spec, value, fault, onChange, onBlur, inputRef }} />;
}

/** A text that is kept as it is typed, beside the value it is read as. */
function Typed({ spec, value, fault, onChange, onBlur, inputRef }: InputProps) {
  const units = useUnits();
  const { quantity } = spec;
  const unit = quantity && units[quantity];
  const format = useMemo(
    () => (quantity && unit ? amount(quantity) : spec.format) as Format<unknown>,
    [quantity, unit, spec.format],
  );
  const label = unit ? `${spec.label}, ${unit.name}` : spec.label;
  const read = useCallback(
    (text: string) => format.read(format.isNumeric ? withoutUnit(text, label) : text),
    [format, label],
  );
  const [typed, setTyped] = useState(() => format.write(value === NOT_READ ? undefined : value));
  // What comes from outside replaces what was typed, unless it reads the same.
  useEffect(() => {
    if (value === NOT_READ) return;
    setTyped((now) => (same(read(now), value) ? now : format.write(value)));
  }, [value, format, read]);
  return (
    <TextField
      label={label}
      helper={spec.helper}
      value={typed}
      fault={fault}
      ref={inputRef}
      inputMode={format.isNumeric ? "decimal" : undefined}
      onChange={(next) => {
        setTyped(next);
        onChange(read(next));
      }}
      onBlur={onBlur}
    />
  );
}

const same = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === "object" && typeof b === "object" && JSON.stringify(a) === JSON.stringify(b));

/** Says where a value comes from; a press says another. */
function SourceButton({
  label,
  source,
  onChange,
}: {
  label: string;
  source: string | undefined;
  onChange: (source: Source) => void;
}) {
  const next = SOURCES[(SOURCES.indexOf(source as Source) + 1) % SOURCES.length] ?? "printed";
  return (
    <Button
      variant="ghost"
      size="xs"
      px="2"
      mt="26px"
      minW="78px"
      fontWeight="normal"
      color={source === "assumed" ? "unknown" : "ink"}
      fontStyle={source === "assumed" ? "italic" : undefined}
      aria-label={`${label}: ${source ?? "source not said"}. Press for ${next}`}
      onClick={() => onChange(next)}
    >
      {source ?? "from?"}
    </Button>
  );
}
