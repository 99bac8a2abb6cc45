import { Button, type ButtonProps } from "@chakra-ui/react";

interface PressButtonProps extends ButtonProps {
  isOn: boolean;
  ref?: React.Ref<HTMLButtonElement> | undefined;
}

/** A button that stays pressed, and looks it. */
export function PressButton({ isOn, ...button }: PressButtonProps) {
  return (
    <Button
      variant="outline"
      aria-pressed={isOn}
      bg={isOn ? "accent" : "panel"}
      color={isOn ? "onAccent" : "ink"}
      borderColor={isOn ? "accent" : "edge"}
      _hover={{ borderColor: "accent" }}
      {...button}
    />
  );
}
