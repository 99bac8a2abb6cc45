import { Field, Wrap } from "@chakra-ui/react";
import { PressButton } from "./PressButton";

interface ChoiceProps<T extends string> {
  label: string;
  options: readonly { value: T; name: string }[];
  value: T | undefined;
  onChange: (value: T) => void;
}

/** A few alternatives side by side, one of them pressed. */
export function Choice<T extends string>({ label, options, value, onChange }: ChoiceProps<T>) {
  return (
    <Field.Root role="group" aria-label={label} w="auto">
      <Field.Label as="span" color="muted">
        {label}
      </Field.Label>
      <Wrap gap="1.5">
        {options.map((option) => {
          return (
            <PressButton
              key={option.value}
              isOn={option.value === value}
              size="sm"
              px="3"
              onClick={() => onChange(option.value)}
            >
              {option.name}
            </PressButton>
          );
        })}
      </Wrap>
    </Field.Root>
  );
}
