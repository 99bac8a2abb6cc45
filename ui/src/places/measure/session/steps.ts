import type { operations } from "../../../api/schema.gen";

/** What the camera is pointed at. */
export type Target = operations["simulate-target"]["parameters"]["path"]["target"];

/** What is compared: filters on one rig, by some targets, the wall always among them. */
export interface Comparison {
  rigId: string;
  filterIds: readonly string[];
  targets: readonly Target[];
}

/** One frame to take. */
export interface Step {
  key: string;
  target: Target;
  /** The filter that is on, none for a frame without. */
  filterId?: string;
}

/** A frame that was taken; without a file it was left out. */
export interface Taken {
  file?: File;
  /** As it is typed, where EXIF does not say. */
  exposure?: string;
}

/**
 * The frames in the order in which they are taken: for each target one without a filter and one
 * with each, the camera left standing, and for the wall one without at the end, which shows how
 * the light drifted.
 */
export function stepsOf({ filterIds, targets }: Comparison): Step[] {
  return targets.flatMap((target) => {
    const steps: Step[] = [{ key: `${target} first`, target }];
    for (const filterId of filterIds) steps.push({ key: `${target} ${filterId}`, target, filterId });
    if (target === "wall") steps.push({ key: "wall last", target });
    return steps;
  });
}

/** The frames that one measurement of a filter takes; undefined where one is missing. */
export function pairOf(
  comparison: Comparison,
  taken: ReadonlyMap<string, Taken>,
  target: Target,
  filterId: string,
): { without: Taken; withIt: Taken; closing?: Taken; share: number } | undefined {
  const without = taken.get(`${target} first`);
  const withIt = taken.get(`${target} ${filterId}`);
  if (!without?.file || !withIt?.file) return undefined;
  const closing = target === "wall" ? taken.get("wall last") : undefined;
  const order = comparison.filterIds.indexOf(filterId) + 1;
  return {
    without,
    withIt,
    ...(closing?.file && { closing }),
    share: order / (comparison.filterIds.length + 1),
  };
}
