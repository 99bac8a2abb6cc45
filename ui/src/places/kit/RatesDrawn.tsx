import { Flex } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type Control, type FieldValues, useWatch } from "react-hook-form";
import { ratesQuery } from "../../api/queries";
import type { Schemas } from "../../api/schemas";
import { StickCurve } from "../../instruments/stick-curve/StickCurve";

type Axis = Schemas["AxisStick"]["axis"];
type Stick = Schemas["StickFields"];

const AXES: readonly Axis[] = ["pan", "pitch", "roll"];

/** The rates of a form as they are typed, one curve over the other. */
export function RatesDrawn({ control }: { control: Control<FieldValues> }) {
  const craft = useWatch({ control, name: "craft" }) as Schemas["Craft"] | undefined;
  return (
    <Flex gap="4" wrap="wrap">
      {AXES.map((axis) => (
        <AxisDrawn key={axis} axis={axis} own={craft?.rates?.[axis]} over={craft?.compared?.[axis]} />
      ))}
    </Flex>
  );
}

function AxisDrawn({ axis, own, over }: { axis: Axis; own: Stick | undefined; over: Stick | undefined }) {
  const { data: rates } = useQuery(ratesQuery(whole(own)));
  const { data: compared } = useQuery(ratesQuery(whole(over)));
  return rates && whole(own) && <StickCurve stick={{ axis, rates, ...(whole(over) && compared && { compared }) }} />;
}

/** Rates of which every figure is there, null while some are missing. */
function whole(stick: Stick | undefined): Stick | null {
  const all = [stick?.centreDegS, stick?.maxDegS, stick?.expo];
  return stick && all.every((v) => typeof v === "number") ? stick : null;
}
