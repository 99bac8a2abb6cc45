import { Button, Flex, Text } from "@chakra-ui/react";

interface FormEndProps {
  /** What storing it is called. */
  label: string;
  isBusy: boolean;
  error: Error | null;
  onCancel?: (() => void) | undefined;
  children?: React.ReactNode;
}

/** The end of a form: what went wrong, the button that stores it, and the way out. */
export function FormEnd({ label, isBusy, error, onCancel, children }: FormEndProps) {
  return (
    <>
      {error && (
        <Text color="breaks" role="alert">
          {error.message}
        </Text>
      )}
      <Flex gap="2">
        <Button type="submit" loading={isBusy}>
          {label}
        </Button>
        {onCancel && (
          <Button variant="ghost" onClick={onCancel}>
            Cancel
          </Button>
        )}
        {children}
      </Flex>
    </>
  );
}
