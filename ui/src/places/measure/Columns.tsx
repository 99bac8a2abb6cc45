import { Grid } from "@chakra-ui/react";
import type { ReactNode } from "react";

const SIDE_BY_SIDE = { "3:2": "minmax(0, 3fr) minmax(0, 2fr)", "1:1": "repeat(2, minmax(0, 1fr))" };

/**
 * Two parts of a measurement side by side, or one below the other on a small screen: never wider than that, also
 * when it is turned and a drawing in them is as wide as the screen was.
 */
export function Columns({ shares = "1:1", children }: { shares?: keyof typeof SIDE_BY_SIDE; children: ReactNode }) {
  return (
    <Grid gap="3" templateColumns={{ base: "minmax(0, 1fr)", lg: SIDE_BY_SIDE[shares] }}>
      {children}
    </Grid>
  );
}
