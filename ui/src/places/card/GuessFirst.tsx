import { Button, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { decimal } from "../../lib/locale";

/** Guesses are in halves of a stop; it begins with a bright shade, whatever is expected. */
const STEP = 0.5;
const FIRST = 12;
const LOWEST = -6;
const HIGHEST = 18;

interface GuessFirstProps {
  onGuess: (ev100: number | null) => void;
}

/** The light is guessed before it is read, while nothing on the screen tells it. */
export function GuessFirst({ onGuess }: GuessFirstProps) {
  const [ev, setEV] = useState(FIRST);
  const move = (by: number) => setEV(Math.min(HIGHEST, Math.max(LOWEST, ev + by)));
  return (
    <Flex direction="column" gap="2" role="group" aria-label="Guess the light" data-testid="guess">
      <Text fontSize="lg">Look at the subject, without a meter. How bright is it?</Text>
      <Flex gap="2" align="center">
        <Button variant="outline" size="2xl" flex="1" h="64px" onClick={() => move(-STEP)}>
          Darker
        </Button>
        <Text fontSize="3xl" fontWeight="bold" minW="120px" textAlign="center" aria-live="polite">
          EV {decimal(ev, 1)}
        </Text>
        <Button variant="outline" size="2xl" flex="1" h="64px" onClick={() => move(STEP)}>
          Brighter
        </Button>
      </Flex>
      <Button size="2xl" h="64px" onClick={() => onGuess(ev)}>
        This is my guess
      </Button>
      <Button variant="ghost" minH="44px" onClick={() => onGuess(null)}>
        Read it without a guess
      </Button>
    </Flex>
  );
}

/** How far a guess was off, once the light is read. */
export function guessWords(guess: number, ev100: number): string {
  const off = guess - ev100;
  if (Math.abs(off) < 0.05) return `Your guess, EV ${decimal(guess, 1)}, is what was read.`;
  return `Your guess, EV ${decimal(guess, 1)}, was ${decimal(Math.abs(off), 1)} stops too ${off > 0 ? "bright" : "dark"}.`;
}
