import { Field, type FieldRootProps, NativeSelect } from "@chakra-ui/react";

interface SelectFieldProps extends Omit<FieldRootProps, "onChange" | "w"> {
  label: string;
  value: string;
  options: readonly { value: string; name: string }[];
  onChange: (value: string) => void;
  /** For lists whose place says what they are: the label is only read aloud. */
  isLabelHidden?: boolean;
  /** Width of the list itself; all there is by default. */
  w?: string;
}

/** A labelled list to choose one of. */
export function SelectField({ label, isLabelHidden, value, options, onChange, w, ...root }: SelectFieldProps) {
  return (
    <Field.Root {...root}>
      <Field.Label color="muted" srOnly={isLabelHidden}>
        {label}
      </Field.Label>
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
