import { Button, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import { WHY_BINNED, type WhyBinned } from "./whyBinned";

type Grade = "good" | "usable" | "bad";

const GRADES = [
  { grade: "good", name: "Good" },
  { grade: "usable", name: "Usable" },
  { grade: "bad", name: "Bad" },
] as const;

const REASONS = Object.keys(WHY_BINNED) as WhyBinned[];

interface GradeTakeProps {
  isBusy?: boolean;
  onGrade: (grade: Grade, why?: string) => void;
}

/** A take is judged with one thumb; of a bad one a word of why may be said. */
export function GradeTake({ isBusy = false, onGrade }: GradeTakeProps) {
  const [isBad, setBad] = useState(false);
  const judge = (grade: Grade, why?: string) => {
    setBad(false);
    onGrade(grade, why);
  };
  return (
    <>
      <Flex gap="2" align="center" wrap="wrap" mt="1">
        <Text color="muted">This take is</Text>
        {GRADES.map(({ grade, name }) => (
          <Button
            key={grade}
            variant="outline"
            minH="44px"
            loading={isBusy}
            aria-expanded={grade === "bad" ? isBad : undefined}
            onClick={() => (grade === "bad" ? setBad(!isBad) : judge(grade))}
          >
            {name}
          </Button>
        ))}
      </Flex>
      {isBad && (
        <Flex gap="2" align="center" wrap="wrap">
          <Text color="muted">It was</Text>
          {REASONS.map((why) => (
            <Button key={why} size="sm" minH="44px" variant="outline" onClick={() => judge("bad", why)}>
              {WHY_BINNED[why]}
            </Button>
          ))}
          <Button size="sm" minH="44px" variant="ghost" onClick={() => judge("bad")}>
            just bad
          </Button>
        </Flex>
      )}
    </>
  );
}
