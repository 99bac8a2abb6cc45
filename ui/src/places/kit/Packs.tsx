import { Button, Flex, Heading, IconButton, Stack, Text } from "@chakra-ui/react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Trash2 } from "lucide-react";
import { useState } from "react";
import { api, unwrap } from "../../api/client";
import { filtersQuery, packsQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { faultsOf } from "../../lib/faults";
import { decimal } from "../../lib/locale";
import { NumberField } from "../../lib/NumberField";
import { Table } from "../../lib/Table";
import cell from "../../lib/Table.module.css";
import { TextField } from "../../lib/TextField";
import { useDelete } from "../../lib/useDelete";
import { toaster } from "../../shell/toaster";
import { paint } from "../../theme/paint";
import { useLabelsIn } from "./useLabelsIn";

interface PacksProps {
  covered: Schemas["Covered"];
  cameraId: string;
}

/** Packs that are thought of buying, beside what is owned: what each would close, at what price. */
export function Packs({ covered, cameraId }: PacksProps) {
  const { data: packs } = useQuery(packsQuery);
  const gains = covered.packs ?? [];
  return (
    <Stack as="section" gap="2" aria-label="Considering">
      <Heading as="h3" size="sm">
        Considering
      </Heading>
      <Text color="muted" fontSize="sm">
        Packs you do not own yet. None of them counts as a filter at hand until you have bought it.
      </Text>
      {gains.length > 0 && (
        <Table label="Packs side by side" heads={["Pack", "What it adds", "Price", "A cell costs", ""]}>
          {gains.map((gain) => {
            const pack = packs?.find((p) => p.id === gain.id);
            return pack && <PackRow key={gain.id} gain={gain} pack={pack} />;
          })}
        </Table>
      )}
      <PackForm key={cameraId} cameraId={cameraId} />
    </Stack>
  );
}

const money = (price: number | undefined): string => (price === undefined ? "not known" : decimal(price, 2));

function PackRow({ gain, pack }: { gain: Schemas["PackGain"]; pack: Schemas["StoredPack"] }) {
  const queries = useQueryClient();
  const buy = useMutation({
    mutationFn: () => unwrap(api.POST("/api/kit/buy", { body: { packId: pack.id, version: pack.version } })),
    onSuccess: ({ filters }) =>
      toaster.create({ title: `${pack.name} is in your kit`, description: `${filters.length} filters, in Gear` }),
    onError: (error) => toaster.create({ title: `${pack.name} was not added`, description: error.message }),
    onSettled: () => {
      queries.invalidateQueries({ queryKey: filtersQuery.queryKey });
      queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
  const remove = useDelete({
    what: pack.name,
    queryKey: ["bench"],
    remove: () =>
      unwrap(api.DELETE("/api/packs/{id}", { params: { path: { id: pack.id }, query: { version: pack.version } } })),
    restore: (version) =>
      unwrap(api.POST("/api/packs/{id}/restore", { params: { path: { id: pack.id }, query: { version } } })),
  });
  return (
    <tr>
      <td className={cell.strong}>
        {pack.name}
        <span className={cell.second} style={{ color: paint.muted }}>
          {pack.labels.join(", ")}
        </span>
      </td>
      <td className={cell.words}>{gain.words}</td>
      <td>{money(pack.price)}</td>
      <td>
        {gain.cellPrice === undefined ? "–" : money(gain.cellPrice)}
        {gain.isCheapest && (
          <span className={cell.second}>
            <b>cheapest</b>
          </span>
        )}
      </td>
      <td className={cell.actions}>
        <Button size="sm" minH="44px" variant="outline" loading={buy.isPending} onClick={() => buy.mutate()}>
          Bought
        </Button>
        <IconButton
          variant="ghost"
          minW="44px"
          color="muted"
          aria-label={`Delete ${pack.name}`}
          onClick={() => remove.mutate()}
        >
          <Trash2 />
        </IconButton>
      </td>
    </tr>
  );
}

/** Takes a pack by its name, its price and one line of labels. */
function PackForm({ cameraId }: { cameraId: string }) {
  const queries = useQueryClient();
  const [name, setName] = useState("");
  const [text, setText] = useState("");
  const [price, setPrice] = useState<number>();
  const labels = useLabelsIn(text);
  const add = useMutation({
    mutationFn: () =>
      unwrap(
        api.POST("/api/packs", {
          body: {
            name: name.trim() || labels.join(" "),
            labels,
            cameras: [cameraId],
            ...(price !== undefined && { price }),
          },
        }),
      ),
    onSuccess: () => {
      setName("");
      setText("");
      setPrice(undefined);
      queries.invalidateQueries({ queryKey: ["bench"] });
    },
  });
  const fault = faultsOf(add.error);
  return (
    <form
      aria-label="Consider a pack"
      onSubmit={(e) => {
        e.preventDefault();
        add.mutate();
      }}
    >
      <Flex gap="3" wrap="wrap" align="flex-start">
        <TextField
          label="Labels in the pack"
          w="260px"
          value={text}
          onChange={setText}
          fault={fault("labels")}
          helper={labels.length > 0 ? `${labels.length}: ${labels.join(", ")}` : "4 8 16 64/PL"}
        />
        <TextField label="Its name" w="180px" value={name} onChange={setName} fault={fault("name")} />
        <NumberField label="Price of all" w="140px" value={price} onChange={setPrice} fault={fault("price")} />
        <Button type="submit" mt="6" variant="outline" disabled={labels.length === 0} loading={add.isPending}>
          Compare it
        </Button>
      </Flex>
      {add.error && !["labels", "name", "price"].some(fault) && (
        <Text color="breaks" role="alert">
          {add.error.message}
        </Text>
      )}
    </form>
  );
}
