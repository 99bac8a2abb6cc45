import { Button, Link, Stack, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Settings2 } from "lucide-react";
import { useEffect, useState } from "react";
import { presetsQuery, statusQuery } from "../api/queries";
import type { Schemas } from "../api/schemas";
import { Choice } from "../lib/Choice";
import { PictureButton } from "../lib/PictureButton";
import { Sheet } from "../lib/Sheet";
import { chooseUnits, offerUnits, type Quantity, useUnits } from "../lib/units";
import { useNewVersion } from "../offline/serviceWorker";
import { useInstall } from "./install";

/** Opens the settings from anywhere. */
const OPEN = "pinhole:settings";
export const openSettings = (): boolean => window.dispatchEvent(new Event(OPEN));

/** What is this device's own: units, and the page as an application. */
export function Settings() {
  const [isOpen, setOpen] = useState(false);
  const { data: presets } = useQuery(presetsQuery);
  useEffect(() => {
    const open = () => setOpen(true);
    window.addEventListener(OPEN, open);
    return () => window.removeEventListener(OPEN, open);
  }, []);
  useEffect(() => {
    if (presets) offerUnits(presets.units);
  }, [presets]);
  return (
    <>
      <PictureButton aria-label="Settings" isForDesk onClick={() => setOpen(true)}>
        <Settings2 />
      </PictureButton>
      <Sheet title="Settings of this device" isOpen={isOpen} onOpen={setOpen}>
        <Stack gap="5" pb="4">
          {presets && <Units offered={presets.units} />}
          <Application />
        </Stack>
      </Sheet>
    </>
  );
}

function Units({ offered }: { offered: Schemas["Offered"] }) {
  const queries = useQueryClient();
  const units = useUnits();
  const rows: [Quantity, string, readonly Schemas["Unit"][]][] = [
    ["speed", "Speed", offered.speeds],
    ["length", "Distance", offered.lengths],
    ["mass", "Weight", offered.masses],
  ];
  return (
    <Stack gap="3" role="group" aria-label="Units">
      {rows.map(([quantity, label, all]) => (
        <Choice
          key={quantity}
          label={label}
          options={all.map(({ name }) => ({ value: name, name }))}
          value={units[quantity].name}
          onChange={(name) => {
            const unit = all.find((u) => u.name === name);
            if (!unit) return;
            chooseUnits({ ...units, [quantity]: unit });
            void queries.invalidateQueries(); // what was said was said in the old unit
          }}
        />
      ))}
      <Text color="muted" fontSize="sm">
        Calipers stay in millimetres. Files keep m/s, metres and grams. Numbers, dates and clocks follow the language of
        this device.
      </Text>
    </Stack>
  );
}

function Application() {
  const install = useInstall();
  const update = useNewVersion();
  const { data: status } = useQuery(statusQuery);
  return (
    <Stack gap="2" role="group" aria-label="Application" align="flex-start">
      {update && <Button onClick={update}>Reload with the new version</Button>}
      {install ? (
        <Button variant="outline" onClick={install}>
          Install on this device
        </Button>
      ) : (
        <Text color="muted" fontSize="sm">
          To keep it as an application, use your browser’s menu: install, or add to the home screen.
        </Text>
      )}
      <Link href="/notices.txt" target="_blank" color="accent" minH="44px" alignItems="center">
        Licences of what this is built with
      </Link>
      <Link href="/api-docs.html" target="_blank" color="accent" minH="44px" alignItems="center">
        For other programs: the interface, with examples that run
      </Link>
      {status && (
        <Text color="muted" fontSize="sm">
          Pinhole {status.version}, rules {status.model}
        </Text>
      )}
    </Stack>
  );
}
