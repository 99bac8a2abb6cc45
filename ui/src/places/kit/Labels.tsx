import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useState } from "react";
import { NumberField } from "../../lib/NumberField";

const LIMITS = { width: [12, 90], height: [8, 60] } as const;

const fault = (value: number | undefined, [least, most]: readonly [number, number]): string | undefined =>
  value === undefined || value < least || value > most ? `${least} to ${most} mm` : undefined;

/** Slot labels on paper, at true size. */
export function Labels() {
  const [width, setWidth] = useState<number | undefined>(24);
  const [height, setHeight] = useState<number | undefined>(14);
  const faults = { width: fault(width, LIMITS.width), height: fault(height, LIMITS.height) };
  const isGood = !faults.width && !faults.height;
  return (
    <Stack gap="3">
      <Text>
        One label for each filter: its slot and name, what is printed and measured, and the cameras it goes on. Print at
        100 % on A4; a line on the sheet shows whether the scale is right.
      </Text>
      <Flex gap="3" align="flex-start" wrap="wrap">
        <NumberField label="Label width, mm" w="150px" value={width} fault={faults.width} onChange={setWidth} />
        <NumberField label="Label height, mm" w="150px" value={height} fault={faults.height} onChange={setHeight} />
        {isGood ? (
          <Button asChild mt="26px">
            <a href={`/api/kit/labels.pdf?widthMm=${width}&heightMm=${height}`} target="_blank" rel="noreferrer">
              Print labels
            </a>
          </Button>
        ) : (
          <Button mt="26px" disabled>
            Print labels
          </Button>
        )}
      </Flex>
    </Stack>
  );
}
