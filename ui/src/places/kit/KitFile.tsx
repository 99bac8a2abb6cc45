import { Button, Flex, List, Stack, Text, Textarea } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, unwrap } from "../../api/client";
import { camerasQuery, filtersQuery } from "../../api/queries";
import { FileButton } from "../../lib/FileButton";
import { bytes } from "../../lib/format";
import { StateMark } from "../../lib/StateMark";
import { toaster } from "../../shell/toaster";

/** The whole kit out as a file, and in from one: looked at first, then added. */
export function KitFile() {
  const [isOpen, setOpen] = useState(false);
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

const formatOf = (text: string): "csv" | "json" => (text.trimStart().startsWith("{") ? "json" : "csv");

function ImportForm({ onDone }: { onDone: () => void }) {
  const queries = useQueryClient();
  const [text, setText] = useState("");
  const [tooLarge, setTooLarge] = useState("");
  const send = useMutation({
    mutationFn: (apply: boolean) =>
      unwrap(api.POST("/api/kit/import", { body: { format: formatOf(text), text, apply } })),
    onSuccess: (done, apply) => {
      if (!apply) return;
      queries.invalidateQueries({ queryKey: camerasQuery.queryKey });
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
      toaster.create({ title: `${done.addedFilters} filters added` });
      onDone();
    },
  });
  const change = (next: string) => {
    setText(next);
    send.reset();
  };
  const seen = send.data;
  return (
    <Stack gap="2" borderWidth="1px" borderColor="edge" rounded="md" p="3" role="group" aria-label="Import a kit">
      <Textarea
        aria-label="Labels one a line, a CSV table, or a JSON kit"
        placeholder={"label,cameras,slot\nND16,Row walker,A2"}
        rows={6}
        bg="panel"
        borderColor="edge"
        value={text}
        onChange={(e) => change(e.target.value)}
      />
      <Flex gap="2" wrap="wrap">
        <FileButton
          variant="outline"
          label="A kit file"
          accept=".csv,.json,text/csv,application/json"
          onFile={async (file) => {
            setTooLarge(file.size > MOST_BYTES ? `${file.name} has ${bytes(file.size)}` : "");
            if (file.size <= MOST_BYTES) change(await file.text());
          }}
        >
          From a file
        </FileButton>
        <Button disabled={text.trim() === ""} loading={send.isPending} onClick={() => send.mutate(false)}>
          Look at it
        </Button>
        <Button variant="ghost" onClick={onDone}>
          Cancel
        </Button>
      </Flex>
      {tooLarge && (
        <Text role="alert" color="breaks">
          Nothing was imported. {tooLarge}: a kit takes {bytes(MOST_BYTES)} at most.
        </Text>
      )}
      {send.error && (
        <Text role="alert" color="breaks">
          Nothing was imported. {send.error.message}
        </Text>
      )}
      {seen && <Preview seen={seen} onAdd={() => send.mutate(true)} isBusy={send.isPending} />}
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
