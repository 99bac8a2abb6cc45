import { Field, Input, type InputProps } from "@chakra-ui/react";

interface TextFieldProps extends Omit<InputProps, "onChange" | "value" | "w"> {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** What is wrong with the value, in words. */
  fault?: string | undefined;
  helper?: string | undefined;
  /** Width of the field; all there is by default. */
  w?: string;
  ref?: React.Ref<HTMLInputElement> | undefined;
}

/** A labelled text field that shows its fault beneath. */
export function TextField({ label, value, onChange, fault, helper, w = "100%", ...input }: TextFieldProps) {
  return (
    <Field.Root invalid={Boolean(fault)} w={w}>
      <Field.Label color="muted">{label}</Field.Label>
      <Input
        value={value}
        onChange={(e) => onChange(e.target.value)}
        h="44px"
        bg="panel"
        borderColor="edge"
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        {...input}
      />
      {fault ? (
        <Field.ErrorText color="breaks">{fault}</Field.ErrorText>
      ) : (
        helper && <Field.HelperText color="muted">{helper}</Field.HelperText>
      )}
    </Field.Root>
  );
}
