import { Button, Flex, List, Stack, Text, Textarea } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, unwrap } from "../../api/client";
import { camerasQuery, filtersQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { FileButton } from "../../lib/FileButton";
import { bytes } from "../../lib/format";
import { useHandedOver, useWaiting } from "../../lib/handOver";
import { readText } from "../../lib/readText";
import { StateMark } from "../../lib/StateMark";
import { useSettled } from "../../lib/useSettled";
import { toaster } from "../../shell/toaster";

/** The whole kit out as a file, and in from one: looked at first, then added. */
export function KitFile() {
  const [isOpen, setOpen] = useState(false);
  const isWaiting = useWaiting("kit");
  useEffect(() => {
    if (isWaiting) setOpen(true);
  }, [isWaiting]);
  return (
    <Stack gap="3">
      <Flex gap="2" wrap="wrap">
        <Button variant="outline" onClick={() => setOpen(!isOpen)} aria-expanded={isOpen}>
          Import a kit
        </Button>
        <Button asChild variant="ghost">
          <a href="/api/kit/export?format=csv" download>
            Export as CSV
          </a>
        </Button>
        <Button asChild variant="ghost">
          <a href="/api/kit/export?format=json" download>
            Export as JSON
          </a>
        </Button>
      </Flex>
      {isOpen && <ImportForm onDone={() => setOpen(false)} />}
    </Stack>
  );
}

/** The most that the server takes for a kit; a larger file is not even read. */
const MOST_BYTES = 900_000;

/** Written before the last key was pressed: a table is read when its typing rests. */
const REST_MS = 300;

const formatOf = (text: string): "csv" | "json" => (text.trimStart().startsWith("{") ? "json" : "csv");

const imported = (text: string, apply: boolean) =>
  unwrap(api.POST("/api/kit/import", { body: { format: formatOf(text), text, apply } }));

function ImportForm({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [tooLarge, setTooLarge] = useState("");
  const settled = useSettled(text, REST_MS);
  const look = useQuery({
    queryKey: ["kit import", settled],
    queryFn: () => imported(settled, false),
    enabled: settled.trim() !== "",
    placeholderData: (before) => before,
    retry: false,
    gcTime: 0,
  });
  const add = useMutation({
    mutationFn: () => imported(text, true),
    onSuccess: (done) => {
      queries.invalidateQueries({ queryKey: camerasQuery.queryKey });
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
      toaster.create({ title: `${done.addedFilters.length} filters added`, description: "Ctrl+Z takes them back" });
      onDone();
    },
  });
  const open = async (file: File) => {
    setTooLarge(file.size > MOST_BYTES ? `${file.name} has ${bytes(file.size)}` : "");
    if (file.size <= MOST_BYTES) setText(await readText(file));
  };
  useHandedOver("kit", open);
  const error = add.error ?? look.error;
  return (
    <Stack gap="2" borderWidth="1px" borderColor="edge" rounded="md" p="3" role="group" aria-label="Import a kit">
      <Textarea
        aria-label="Labels one a line, a table from a spreadsheet, or a JSON kit"
        placeholder={"Paste from a spreadsheet, or type:\nlabel,cameras,slot\nND16,Row walker,A2"}
        rows={6}
        bg="panel"
        borderColor="edge"
        value={text}
        onChange={(e) => {
          setText(e.target.value);
          add.reset();
        }}
      />
      <Flex gap="2" wrap="wrap">
        <FileButton variant="outline" label="A kit file" accept=".csv,.json,text/csv,application/json" onFile={open}>
          From a file
        </FileButton>
        <Button variant="ghost" onClick={onDone}>
          Cancel
        </Button>
      </Flex>
      {tooLarge && (
        <Text role="alert" color="breaks">
          Nothing was imported. {tooLarge}: a kit takes {bytes(MOST_BYTES)} at most.
        </Text>
      )}
      {error && text.trim() !== "" && (
        <Text role="alert" color="breaks">
          Nothing was imported. {error.message}
        </Text>
      )}
      {look.data && !look.error && text.trim() !== "" && (
        <Preview
          seen={look.data}
          onAdd={() => add.mutate()}
          isBusy={add.isPending || settled !== text || look.isPlaceholderData}
        />
      )}
    </Stack>
  );
}

function Preview({ seen, onAdd, isBusy }: { seen: Schemas["Imported"]; onAdd: () => void; isBusy: boolean }) {
  const known = seen.rows.filter((r) => r.known).length;
  return (
    <Stack gap="2" data-testid="import-preview">
      <Text>
        {seen.good} to add{known > 0 && `, ${known} in the kit already`}
        {seen.newCameras.length > 0 && `, with the cameras ${seen.newCameras.join(", ")}`}
      </Text>
      {seen.leftOut.length > 0 && (
        <Text color="muted">Columns left out, as they say nothing of a filter: {seen.leftOut.join(", ")}</Text>
      )}
      {seen.bad > 0 && <StateMark state="breaks">{seen.bad} rows cannot be read and are left out</StateMark>}
      <List.Root gap="0.5" ps="4" maxH="240px" overflowY="auto" tabIndex={0} aria-label="Rows of the file">
        {seen.rows.map((row) => (
          <List.Item key={row.line} _marker={{ color: "muted" }}>
            line {row.line}:{" "}
            {row.fault
              ? `${row.fault.field} ${JSON.stringify(row.fault.value ?? "")}: ${row.fault.allowed}`
              : `${row.title}, ${row.says}${row.known ? ", in the kit already" : ""}`}
          </List.Item>
        ))}
      </List.Root>
      <Button
        alignSelf="flex-start"
        disabled={seen.good === 0 && seen.newCameras.length === 0}
        loading={isBusy}
        onClick={onAdd}
      >
        Add {seen.good} filters
      </Button>
    </Stack>
  );
}
