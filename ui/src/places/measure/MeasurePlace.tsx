import { Button, Flex } from "@chakra-ui/react";
import { Link } from "react-router";
import { EmptyState } from "../../lib/EmptyState";
import { useTitle } from "../../lib/useTitle";

/** What does this file, this clip or this reading tell me? */
export function MeasurePlace() {
  useTitle("Measure");
  return (
    <EmptyState
      heading="Measure"
      says="Nothing is measured here yet: frames and clips cannot be read by this version. A photo can be read for its light in the day of a shoot, and a filter or a rig is measured by hand in Kit."
    >
      <Flex gap="2" wrap="wrap">
        <Button asChild variant="outline">
          <Link to="/shoot">Read the light of a photo</Link>
        </Button>
        <Button asChild variant="outline">
          <Link to="/kit">Enter a measured filter</Link>
        </Button>
        <Button asChild variant="outline">
          <Link to="/kit/fit">Record a fit test</Link>
        </Button>
      </Flex>
    </EmptyState>
  );
}
