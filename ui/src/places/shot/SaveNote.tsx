import { Alert, Button, HStack, Stack, Text } from "@chakra-ui/react";
import { memo } from "react";
import { clock } from "../../lib/format";
import type { Draft } from "./draft";
import type { SaveState, Storable } from "./useAutosave";

/** A quiet word on whether the shot is stored. */
export const SaveNote = memo(function SaveNote({ state, storable }: { state: SaveState; storable: Storable }) {
  return (
    <Text
      fontSize="sm"
      color={state.status === "failed" ? "breaks" : "muted"}
      aria-live="polite"
      data-testid="save-note"
    >
      {noteOf(state, storable)}
    </Text>
  );
});

function noteOf(state: SaveState, storable: Storable): string {
  switch (state.status) {
    case "saved":
      return `saved ${clock(state.at)}`;
    case "failed":
      return `not saved: ${state.why} Trying again.`;
    case "conflict":
      return "not saved";
    default:
      return storable === "no" ? "not saved until it can be answered" : "saving…";
  }
}

interface ConflictNoteProps {
  state: SaveState;
  onKeepMine: () => void;
  onTakeTheirs: () => void;
}

/** Says that the shot was changed elsewhere, shows how, and asks which to keep. */
export function ConflictNote({ state, onKeepMine, onTakeTheirs }: ConflictNoteProps) {
  if (state.status !== "conflict") return null;
  const { theirs } = state;
  return (
    <Alert.Root status="warning" bg="breaksSoft" color="breaks" mb="3" alignItems="flex-start" role="alert">
      <Stack gap="2" flex="1">
        <Alert.Title>
          This shot was changed elsewhere at {clock(theirs.updatedAt)}. Yours is still here and not stored.
        </Alert.Title>
        <Alert.Description color="ink">Stored there: {summary(theirs)}</Alert.Description>
        <HStack>
          <Button size="sm" onClick={onKeepMine}>
            Keep mine
          </Button>
          <Button size="sm" variant="outline" onClick={onTakeTheirs}>
            Take theirs
          </Button>
        </HStack>
      </Stack>
    </Alert.Root>
  );
}

function summary(draft: Draft): string {
  const { look, light, name } = draft;
  const read = light.at?.text || light.at?.shutter || light.at?.bias || `${light.looks?.length ?? 0} looks`;
  return `“${name}”, ${look.fps} fps ${look.target}, ${light.kind} ${read}`;
}
