import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { ChevronRight } from "lucide-react";

const Details = chakra("details");
const Summary = chakra("summary");

interface DrawerProps {
  heading: string;
  /** What it comes to, in a few words: read without opening it. */
  result?: React.ReactNode;
  children: React.ReactNode;
  /** Within a panel, without a frame of its own. */
  isPlain?: boolean;
}

/** A part of a place that stays closed until it is wanted, headed by its result. */
export function Drawer({ heading, result, children, isPlain }: DrawerProps) {
  return (
    <Details
      role="group"
      aria-label={heading}
      minW="0"
      {...(!isPlain && { bg: "panel", borderWidth: "1px", borderColor: "edge", rounded: "xl" })}
      css={{
        "&[open] > summary .chevron": { transform: "rotate(90deg)" },
        // Beside others it is a line; opened it takes the whole width.
        "&[open]": { gridColumn: "1 / -1" },
      }}
    >
      <Summary
        minH="44px"
        px={isPlain ? "0" : "3"}
        display="flex"
        alignItems="center"
        gap="2"
        cursor="pointer"
        listStyleType="none"
        css={{ "&::-webkit-details-marker": { display: "none" } }}
      >
        <Box className="chevron" color="accent" flexShrink="0">
          <ChevronRight size={18} aria-hidden />
        </Box>
        <Flex gap="2" align="baseline" minW="0" flex="1">
          <Text as="span" fontWeight="bold" fontSize="sm" whiteSpace="nowrap">
            {heading}
          </Text>
          {result && (
            <Text as="span" color="muted" fontSize="sm" truncate>
              {result}
            </Text>
          )}
        </Flex>
      </Summary>
      <Box px={isPlain ? "0" : "3"} pb="3">
        {children}
      </Box>
    </Details>
  );
}
