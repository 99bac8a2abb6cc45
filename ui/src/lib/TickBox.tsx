import { Checkbox } from "@chakra-ui/react";

interface TickBoxProps {
  isOn: boolean;
  onChange: (isOn: boolean) => void;
  children: React.ReactNode;
}

/** A box to tick that a cold thumb meets. */
export function TickBox({ isOn, onChange, children }: TickBoxProps) {
  return (
    <Checkbox.Root checked={isOn} minH="44px" pe="3" onCheckedChange={({ checked }) => onChange(checked === true)}>
      <Checkbox.HiddenInput />
      <Checkbox.Control borderColor="muted" _checked={{ bg: "accent", borderColor: "accent", color: "onAccent" }} />
      <Checkbox.Label>{children}</Checkbox.Label>
    </Checkbox.Root>
  );
}
