import { CloseButton, Dialog, Portal } from "@chakra-ui/react";
import { useOnce } from "./useOnce";

interface SheetProps {
  title: string;
  isOpen: boolean;
  onOpen: (isOpen: boolean) => void;
  size?: "md" | "lg" | "xl" | { base: "full"; md: "lg" };
  children: React.ReactNode;
}

/** A titled sheet over the page, closed by its cross, Escape or a press beside it. */
export function Sheet({ title, isOpen, onOpen, size = "md", children }: SheetProps) {
  const wasOpened = useOnce(isOpen);
  if (!wasOpened) return null;
  return (
    <Dialog.Root open={isOpen} onOpenChange={(e) => onOpen(e.open)} scrollBehavior="inside" size={size}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content bg="panel" color="ink">
            <Dialog.Header>
              <Dialog.Title>{title}</Dialog.Title>
            </Dialog.Header>
            <Dialog.Body tabIndex={0}>{children}</Dialog.Body>
            <Dialog.CloseTrigger asChild>
              <CloseButton size="lg" />
            </Dialog.CloseTrigger>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}
