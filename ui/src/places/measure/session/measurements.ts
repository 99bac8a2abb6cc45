import { measureHere, type Part } from "../../../api/here/measure";
import type { Schemas } from "../../../api/schemas";
import { type Comparison, pairOf, type Taken } from "./steps";

/** What came out of one filter; undefined was not shot. */
export interface FilterResult {
  filterId: string;
  /** The names of the files with the filter: a simulated frame says so in its name. */
  from: string;
  filter?: Schemas["MeasuredFilterAnswer"];
  corners?: Schemas["MeasuredCornersAnswer"];
  sharpness?: Schemas["MeasuredSharpnessAnswer"];
  flare?: Schemas["MeasuredFlareAnswer"];
}

const filePart = (option: string, { file }: Taken): Part[] => (file ? [{ option, file }] : []);

/** A pair as the measurement of a filter is given it, with the frame that closes the session. */
export function partsOf({ without, withIt, closing, share }: NonNullable<ReturnType<typeof pairOf>>): Part[] {
  const all = closing ? [without, closing] : [without];
  // Exposures are told for all frames of a side or for none.
  const side = (option: string, taken: readonly Taken[]): Part[] =>
    taken.every((t) => t.exposure) ? taken.map((t) => ({ option, text: t.exposure ?? "" })) : [];
  return [
    ...all.flatMap((t) => filePart("without", t)),
    ...filePart("with", withIt),
    ...side("without-exposure", all),
    ...side("with-exposure", [withIt]),
    ...(closing ? [{ option: "share", text: String(share) }] : []),
  ];
}

/** Measures all that was shot of a filter. */
export async function measureFilter(
  comparison: Comparison,
  taken: ReadonlyMap<string, Taken>,
  filterId: string,
  signal: AbortSignal,
): Promise<FilterResult> {
  const names = comparison.targets.flatMap((t) => taken.get(`${t} ${filterId}`)?.file?.name ?? []);
  const result: FilterResult = { filterId, from: names.join(", ") };
  const wall = pairOf(comparison, taken, "wall", filterId);
  if (wall) {
    result.filter = await measureHere("filter", partsOf(wall), signal);
    result.corners = await measureHere("corners", plain(wall), signal);
  }
  const edge = pairOf(comparison, taken, "edge", filterId);
  if (edge) result.sharpness = await measureHere("sharpness", plain(edge), signal);
  const lamp = pairOf(comparison, taken, "lamp", filterId);
  if (lamp) result.flare = await measureHere("flare", plain(lamp), signal);
  return result;
}

/** A pair without its exposures. */
const plain = ({ without, withIt }: NonNullable<ReturnType<typeof pairOf>>): Part[] => [
  ...filePart("without", without),
  ...filePart("with", withIt),
];
