import { Button } from "@chakra-ui/react";
import { Link } from "react-router";
import { EmptyState } from "../../lib/EmptyState";
import { useTitle } from "../../lib/useTitle";

/** Can I do it in my head? */
export function PracticePlace() {
  useTitle("Practice");
  return (
    <EmptyState
      heading="Practice"
      says="No questions yet: this version does not ask any. Guess the filter before you look, on any shot, and see how far off you were."
    >
      <Button asChild variant="outline">
        <Link to="/shoot">To the shots</Link>
      </Button>
    </EmptyState>
  );
}
