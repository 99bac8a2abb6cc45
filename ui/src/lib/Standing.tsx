import { Flex, Text } from "@chakra-ui/react";
import type { Schemas } from "../api/schemas";

export type Standing = Schemas["FitCell"]["standing"];

interface Look {
  word: string;
  color: string;
  shape: React.ReactNode;
}

const diamond = "M8 1l7 7-7 7-7-7z";

/** A word, a colour and a shape of its own for each standing: told apart without colour. */
const LOOKS: Record<Standing, Look> = {
  tried: { word: "tested", color: "holds", shape: <circle cx="8" cy="8" r="7" fill="currentColor" /> },
  computed: {
    word: "should fit",
    color: "unknown",
    shape: (
      <>
        <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="2" />
        <circle cx="8" cy="8" r="2" fill="currentColor" />
      </>
    ),
  },
  tight: {
    word: "fits with limits",
    color: "tight",
    shape: (
      <>
        <path d={diamond} fill="none" stroke="currentColor" strokeWidth="2" />
        <path d="M8 1v14l-7-7z" fill="currentColor" />
      </>
    ),
  },
  loose: {
    word: "may come off",
    color: "tight",
    shape: (
      <>
        <path d={diamond} fill="none" stroke="currentColor" strokeWidth="2" />
        <path d="M4 8h8" stroke="currentColor" strokeWidth="2" />
      </>
    ),
  },
  "does not go": {
    word: "does not fit",
    color: "breaks",
    shape: <path d="M2.5 2.5l11 11M13.5 2.5l-11 11" stroke="currentColor" strokeWidth="3.4" strokeLinecap="round" />,
  },
  unknown: {
    word: "not tested",
    color: "unknown",
    shape: <circle cx="8" cy="8" r="6" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3 3" />,
  },
};

export const standingWord = (standing: Standing): string => LOOKS[standing].word;
export const standingColor = (standing: Standing): string => LOOKS[standing].color;

/** The shape of a standing, without its word. */
export function StandingShape({ standing }: { standing: Standing }) {
  return (
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" style={{ flexShrink: 0, width: 16, height: 16 }}>
      {LOOKS[standing].shape}
    </svg>
  );
}

/** A standing by shape, word and colour, with what decides it. */
export function StandingMark({ standing, children }: { standing: Standing; children?: React.ReactNode }) {
  const { word, color } = LOOKS[standing];
  return (
    <Flex bg={`${color}Soft`} color={color} rounded="md" px="3" py="1.5" gap="2" align="center">
      <StandingShape standing={standing} />
      <Text as="span" fontWeight="bold">
        {word}
      </Text>
      {children && <Text as="span">{children}</Text>}
    </Flex>
  );
}
