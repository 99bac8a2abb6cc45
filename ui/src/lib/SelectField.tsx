import { Field, type FieldRootProps, NativeSelect } from "@chakra-ui/react";

interface SelectFieldProps extends Omit<FieldRootProps, "onChange" | "w"> {
  label: string;
  value: string;
  options: readonly { value: string; name: string }[];
  onChange: (value: string) => void;
  /** Width of the list itself; all there is by default. */
  w?: string;
}

/** A labelled list to choose one of. */
export function SelectField({ label, value, options, onChange, w, ...root }: SelectFieldProps) {
  return (
    <Field.Root {...root}>
      <Field.Label color="muted">{label}</Field.Label>
      <NativeSelect.Root flex="1" minW="0" {...(w && { w })}>
        <NativeSelect.Field
          h="44px"
          bg="panel"
          borderColor="edge"
          value={value}
          onChange={(e) => onChange(e.target.value)}
        >
          {options.map((option) => (
            <option key={option.value} value={option.value}>
              {option.name}
            </option>
          ))}
        </NativeSelect.Field>
        <NativeSelect.Indicator />
      </NativeSelect.Root>
    </Field.Root>
  );
}
