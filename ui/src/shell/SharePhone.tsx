import { Box, IconButton } from "@chakra-ui/react";
import { Smartphone } from "lucide-react";
import { lazy, Suspense, useState } from "react";
import { Sheet } from "../lib/Sheet";

// The code and the devices come when they are asked for.
const PhoneAccess = lazy(async () => ({ default: (await import("./PhoneAccess")).PhoneAccess }));

/** How to get to this from a telephone. */
export function SharePhone() {
  const [isOpen, setOpen] = useState(false);
  return (
    <Box hideBelow="md">
      <IconButton aria-label="On the phone" variant="ghost" onClick={() => setOpen(true)}>
        <Smartphone />
      </IconButton>
      <Sheet title="On the phone" isOpen={isOpen} onOpen={setOpen} size="lg">
        {isOpen && (
          <Suspense>
            <PhoneAccess />
          </Suspense>
        )}
      </Sheet>
    </Box>
  );
}
