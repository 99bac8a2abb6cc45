import { Skeleton, Text } from "@chakra-ui/react";
import { Results } from "./Results";
import { Setup } from "./Setup";
import { StepPanel } from "./StepPanel";
import { stepsOf } from "./steps";
import { useComparison } from "./useComparison";

/** A case of filters compared in one go: what to shoot, frame by frame, and what came out. */
export function SessionView() {
  const { state, start, put, takeBack, end } = useComparison();
  if (!state) return <Skeleton h="300px" aria-busy="true" />;
  const { comparison, taken, fault } = state;
  const steps = comparison ? stepsOf(comparison) : [];
  const next = steps.find((step) => !taken.has(step.key));
  return (
    <>
      {fault && (
        <Text role="alert" color="breaks">
          The comparison is not kept on this device and ends with this page: {fault}
        </Text>
      )}
      {!comparison && <Setup onStart={start} />}
      {comparison && next && (
        <StepPanel
          comparison={comparison}
          steps={steps}
          step={next}
          taken={taken}
          onTaken={put}
          onBack={takeBack}
          onEnd={end}
        />
      )}
      {comparison && !next && (
        <Results comparison={comparison} steps={steps} taken={taken} onBack={takeBack} onEnd={end} />
      )}
    </>
  );
}
