import type { Schemas } from "../../api/schemas";
import type { CardWork, Turn } from "./useCardWork";

/** The parts of a card's request that belong to one turn. */
export const shotOf = (work: CardWork, turn: Turn): Schemas["CardShot"] | undefined =>
  work.request.shots.find((s) => s.id === turn.shot);

export const plannedOf = (work: CardWork, turn: Turn): Schemas["OutingShot"] | undefined =>
  work.request.outing.shots.find((s) => s.id === turn.shot);

export const benchOf = (work: CardWork, turn: Turn, camera: string): Schemas["CardBench"] | undefined =>
  work.request.benches.find((b) => b.cameraId === camera && (b.rigId ?? "") === (plannedOf(work, turn)?.rigId ?? ""));
