import { Button, Field, Wrap } from "@chakra-ui/react";

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
          const isOn = option.value === value;
          return (
            <Button
              key={option.value}
              size="sm"
              px="3"
              variant="outline"
              aria-pressed={isOn}
              bg={isOn ? "accent" : "panel"}
              color={isOn ? "onAccent" : "ink"}
              borderColor={isOn ? "accent" : "edge"}
              _hover={{ borderColor: "accent" }}
              onClick={() => onChange(option.value)}
            >
              {option.name}
            </Button>
          );
        })}
      </Wrap>
    </Field.Root>
  );
}
