import { Button, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";

interface HereButtonProps {
  onHere: (latDeg: number, lonDeg: number) => void;
}

const WHY: Record<number, string> = {
  1: "This browser was not allowed to say where it is.",
  2: "This device does not know where it is.",
  3: "This device did not find where it is in time.",
};

/** Fills in where this device is, when it is pressed and not before. */
export function HereButton({ onHere }: HereButtonProps) {
  const [isLooking, setLooking] = useState(false);
  const [fault, setFault] = useState("");
  if (!("geolocation" in navigator)) return null;
  const look = () => {
    setFault("");
    setLooking(true);
    navigator.geolocation.getCurrentPosition(
      ({ coords }) => {
        setLooking(false);
        onHere(coords.latitude, coords.longitude);
      },
      ({ code }) => {
        setLooking(false);
        setFault(`${WHY[code] ?? WHY[2]} Type the place instead.`);
      },
      { timeout: 15_000, maximumAge: 60_000 },
    );
  };
  return (
    <Stack gap="1">
      <Button variant="outline" loading={isLooking} onClick={look}>
        Where I am
      </Button>
      {fault && (
        <Text role="alert" color="breaks">
          {fault}
        </Text>
      )}
    </Stack>
  );
}
