import { Button, Code, Flex, List, Stack, Switch, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { DatabaseBackup } from "lucide-react";
import { useEffect, useState } from "react";
import { api, unwrap } from "../api/client";
import { backupsQuery, statusQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { octets } from "../api/upload";
import { FileButton } from "../lib/FileButton";
import { bytes, moment } from "../lib/format";
import { useWaiting } from "../lib/handOver";
import { PictureButton } from "../lib/PictureButton";
import { Sheet } from "../lib/Sheet";
import { ArchiveFile } from "./ArchiveFile";
import { Bin } from "./Bin";
import { FieldLogSize } from "./FieldLogSize";
import { toaster } from "./toaster";

/** Copies of everything: made, taken away, and put back; at the desk alone. */
export function Backups() {
  const [isOpen, setOpen] = useState(false);
  const { data: status } = useQuery(statusQuery);
  const isWaiting = useWaiting("archive");
  useEffect(() => {
    if (isWaiting) setOpen(true);
  }, [isWaiting]);
  if (!status?.atDesk) return null;
  return (
    <>
      <PictureButton aria-label="Backups and bin" title="Backups and bin" isForDesk onClick={() => setOpen(true)}>
        <DatabaseBackup />
      </PictureButton>
      <Sheet title="Backups and bin" isOpen={isOpen} onOpen={setOpen} size="lg">
        <BackupList />
      </Sheet>
    </>
  );
}

function BackupList() {
  const queries = useQueryClient();
  const { data: backups } = useQuery(backupsQuery);
  const [asked, setAsked] = useState<Asked>();
  const keep = (state: Schemas["Backups"]) => queries.setQueryData(backupsQuery.queryKey, state);
  const failed = (error: Error) => toaster.create({ title: error.message, type: "error" });
  const daily = useMutation({
    mutationFn: (isDaily: boolean) => unwrap(api.POST("/api/backups/daily", { body: { isDaily } })),
    onSuccess: keep,
    onError: failed,
  });
  const make = useMutation({ mutationFn: () => unwrap(api.POST("/api/backups")), onSuccess: keep, onError: failed });
  const remove = useMutation({
    mutationFn: (name: string) => unwrap(api.DELETE("/api/backups/{name}", { params: { path: { name } } })),
    onSuccess: keep,
    onError: failed,
  });
  const restore = useMutation({
    mutationFn: ({ from }: Asked) =>
      unwrap(
        typeof from === "string"
          ? api.POST("/api/backups/{name}/restore", { params: { path: { name: from } } })
          : api.POST("/api/import/backup", octets(from)),
      ),
    onSuccess: async ({ aside }) => {
      setAsked(undefined);
      await queries.invalidateQueries();
      toaster.create({ title: "Restored", description: `What was there is kept in ${aside}`, duration: 30_000 });
    },
    onError: failed,
  });
  if (!backups) return null;
  return (
    <Stack gap="4" pb="4">
      <Text>
        A copy holds all gear, shoots, shots and what was done in the field, as it is at one instant. Now{" "}
        {bytes(backups.bytes)}.
      </Text>
      <Flex gap="2" wrap="wrap">
        <Button loading={make.isPending} onClick={() => make.mutate()}>
          Make a copy
        </Button>
        <Button asChild variant="outline">
          <a href="/api/backups/file" download>
            Take a copy away
          </a>
        </Button>
        <FileButton
          variant="outline"
          label="Backup file"
          accept=".db"
          onFile={(file) => setAsked({ from: file, title: file.name })}
        >
          Restore a file
        </FileButton>
      </Flex>
      {asked && (
        <Stack borderWidth="2px" borderColor="accent" rounded="lg" p="3" role="group" aria-label="Restore">
          <Text>
            Put <b>{asked.title}</b> in place of everything that is there now? What is there is kept in a file of its
            own first.
          </Text>
          <Flex gap="2">
            <Button loading={restore.isPending} onClick={() => restore.mutate(asked)}>
              Restore it
            </Button>
            <Button variant="ghost" onClick={() => setAsked(undefined)}>
              Leave all as it is
            </Button>
          </Flex>
        </Stack>
      )}
      <Switch.Root
        checked={backups.isDaily}
        disabled={daily.isPending}
        onCheckedChange={(e) => daily.mutate(e.checked)}
      >
        <Switch.HiddenInput />
        <Switch.Control _checked={{ bg: "accent" }} />
        <Switch.Label>A copy each day; the last seven days and four weeks are kept</Switch.Label>
      </Switch.Root>
      {backups.copies.length === 0 ? (
        <Text color="muted">There is no copy yet.</Text>
      ) : (
        <List.Root variant="plain" gap="1" aria-label="Copies">
          {backups.copies.map((copy) => (
            <List.Item key={copy.name} display="flex" alignItems="center" gap="2">
              <Text flex="1">
                {moment(copy.at)} · {bytes(copy.bytes)}
                {copy.isDaily && " · by itself"}
              </Text>
              <Button
                size="sm"
                variant="outline"
                onClick={() => setAsked({ from: copy.name, title: `the copy of ${moment(copy.at)}` })}
              >
                Restore
              </Button>
              <Button size="sm" variant="ghost" disabled={remove.isPending} onClick={() => remove.mutate(copy.name)}>
                Remove
              </Button>
            </List.Item>
          ))}
        </List.Root>
      )}
      <Text color="muted" fontSize="sm">
        They lie in <Code>{backups.folder}</Code>. To be safe from a lost machine, take one away.
      </Text>
      <ArchiveFile />
      <Bin />
      <FieldLogSize />
    </Stack>
  );
}

interface Asked {
  /** A copy by its name, or a file of one's own. */
  from: string | File;
  title: string;
}
