import { Smartphone } from "lucide-react";
import { useState } from "react";
import { lazily } from "../lib/lazily";
import { PictureButton } from "../lib/PictureButton";
import { Sheet } from "../lib/Sheet";

// The code and the devices come when they are asked for.
const PhoneAccess = lazily(async () => (await import("./PhoneAccess")).PhoneAccess);

/** How to get to this from a telephone. */
export function SharePhone() {
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <PictureButton aria-label="On the phone" isForDesk onClick={() => setOpen(true)}>
        <Smartphone />
      </PictureButton>
      <Sheet title="On the phone" isOpen={isOpen} onOpen={setOpen} size="lg">
        {isOpen && <PhoneAccess />}
      </Sheet>
    </>
  );
}
