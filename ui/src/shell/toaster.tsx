import { Button, createToaster, Stack, Toast, Toaster } from "@chakra-ui/react";

/** Short notes that pass, such as the offer to undo. */
export const toaster = createToaster({ placement: "bottom", pauseOnPageIdle: true, offsets: "88px" });

/**
 * Says that something was done and offers to undo it. `act` names what may go on, as when a key is pressed
 * again: while its note stands, that one takes back all of it.
 */
export function offerUndo(what: string, undo: () => void, act?: string): void {
  if (act && toaster.isVisible(act)) return;
  toaster.create({
    ...(act && { id: act }), // an undefined one would be taken for an id
    title: what,
    duration: 15_000,
    closable: true,
    action: { label: "Undo", onClick: undo },
  });
}

/** Says that something was not stored, and why; one note, however often it is tried. */
export function sayNotSaved(cause: Error): void {
  toaster.create({ id: "not saved", title: "Not saved", description: cause.message });
}

/** Says that the page has a new version; nothing changes under the hands until it is taken. */
export function offerNewVersion(take: () => void): void {
  toaster.create({
    title: "A new version is here",
    duration: 60_000,
    closable: true,
    action: { label: "Reload", onClick: take },
  });
}

/** Where the notes appear. */
export function Toasts() {
  return (
    <Toaster toaster={toaster} insetInline={{ mdDown: "4" }}>
      {(toast) => (
        <Toast.Root width="min(100vw - 32px, 24rem)" bg="ink" color="page">
          <Stack gap="1" flex="1" minW="0" overflowWrap="break-word">
            {toast.title && <Toast.Title>{toast.title}</Toast.Title>}
            {toast.description && <Toast.Description>{toast.description}</Toast.Description>}
          </Stack>
          {toast.action && (
            <Toast.ActionTrigger asChild>
              <Button size="sm" bg="page" color="ink">
                {toast.action.label}
              </Button>
            </Toast.ActionTrigger>
          )}
          {toast.closable && <Toast.CloseTrigger />}
        </Toast.Root>
      )}
    </Toaster>
  );
}
