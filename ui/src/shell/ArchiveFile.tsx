import { Button, Flex, Heading, List, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, unwrap } from "../api/client";
import type { Schemas } from "../api/schemas";
import { octets } from "../api/upload";
import { FileButton } from "../lib/FileButton";
import { moment } from "../lib/format";
import { useHandedOver } from "../lib/handOver";
import { toaster } from "./toaster";

type Take = "ours" | "theirs";
interface Bringing {
  file: File;
  take?: Take;
  look?: boolean;
}

/** Everything out as one open file, and in from one: looked at first, then brought in. */
export function ArchiveFile() {
  const queries = useQueryClient();
  const [looked, setLooked] = useState<{ file: File; brings: Schemas["StoredMerged"] }>();
  const bring = useMutation({
    mutationFn: ({ file, take, look }: Bringing) =>
      unwrap(
        api.POST("/api/import/archive", {
          params: { query: { ...(take && { take }), ...(look && { look }) } },
          ...octets(file),
        }),
      ),
    onSuccess: async (brings, { file, look }) => {
      if (look) {
        setLooked({ file, brings });
        return;
      }
      setLooked(undefined);
      await queries.invalidateQueries();
      toaster.create({ title: "Brought in", description: countWords(brings) });
    },
    onError: (error) => toaster.create({ title: error.message, type: "error" }),
  });
  const look = (file: File) => bring.mutate({ file, look: true });
  useHandedOver("archive", look);
  const clashes = looked?.brings.clashes ?? [];
  const take = (take?: Take) => looked && bring.mutate({ file: looked.file, ...(take && { take }) });
  return (
    <Stack gap="2">
      <Heading as="h3" size="md">
        An open archive
      </Heading>
      <Text color="muted" fontSize="sm">
        JSON documents and tables in a zip file, for other programs or another data file.
      </Text>
      <Flex gap="2" wrap="wrap">
        <Button asChild variant="outline">
          <a href="/api/archive" download>
            Export everything
          </a>
        </Button>
        <FileButton variant="outline" label="Archive file" accept=".zip" loading={bring.isPending} onFile={look}>
          Import an archive
        </FileButton>
      </Flex>
      {looked && (
        <Stack borderWidth="2px" borderColor="accent" rounded="lg" p="3" role="group" aria-label="Import">
          <Text>
            <b>{looked.file.name}</b> brings {countWords(looked.brings)}.
          </Text>
          {clashes.length > 0 && (
            <>
              <Text>Changed both here and there:</Text>
              <List.Root ps="5" maxH="160px" overflow="auto">
                {clashes.map((c) => (
                  <List.Item key={c.id}>
                    {c.name || c.id} ({c.kind}): here {moment(c.ours)}, there {moment(c.theirs)}
                  </List.Item>
                ))}
              </List.Root>
            </>
          )}
          <Flex gap="2" wrap="wrap">
            {clashes.length === 0 ? (
              <Button loading={bring.isPending} onClick={() => take()}>
                Bring it in
              </Button>
            ) : (
              <>
                <Button loading={bring.isPending} onClick={() => take("ours")}>
                  Bring it in, ours where both changed
                </Button>
                <Button variant="outline" loading={bring.isPending} onClick={() => take("theirs")}>
                  Theirs where both changed
                </Button>
              </>
            )}
            <Button variant="ghost" onClick={() => setLooked(undefined)}>
              Leave all as it is
            </Button>
          </Flex>
        </Stack>
      )}
    </Stack>
  );
}

const countWords = (m: Schemas["StoredMerged"]): string =>
  [`${m.new} new`, `${m.changed} later there`, `${m.kept} later here`, `${m.same} the same`].join(", ");
