import { type RuleScale, spread } from "../words/scale";
import { stepKind } from "../words/steps";

/** The side of a peg's head in px, the least gap between two, and what the plate of now takes on each side of its needle. */
export const HEAD = 32;
const GAP = HEAD + 3;
const PLATE = 54;
const FLAG = 50;
const CHIEF = new Set(["mix", "ball", "cold_in", "cold_out", "sponge", "take_out", "heat"]);

export interface Placed {
  key: string;
  /** When [ms]. */
  at: number;
  done: boolean;
}

/**
 * The pegs that the Rule has room for, in the order of their times. Where there is no room for every one ahead, the next, those
 * that set the dough's clock and those of the freezer stay, the soonest first.
 */
export function pegsShown<S extends Placed>(
  steps: readonly S[],
  scale: RuleScale,
  width: number,
  now: number,
): { shown: S[]; next: S | undefined } {
  const inView = steps
    .filter((s) => s.key !== "serve" && s.at > scale.left && s.at < scale.right)
    .sort((a, b) => a.at - b.at);
  const next = inView.find((s) => !s.done);
  const room = Math.max(Math.floor((width - scale.x(now) - 80) / GAP), 3);
  const ahead = inView.filter((s) => s.at > now);
  const crowded = ahead.length > room * 0.6;
  const kept = ahead.filter((s) => !crowded || s === next || CHIEF.has(stepKind(s.key))).slice(0, room);
  return { shown: [...inView.filter((s) => s.at <= now), ...kept], next };
}

/** Where the heads of pegs stand [px] whose stems stand at `places`: apart from each other, and clear of the plate of now. */
export function headsOf(places: readonly number[], needle: number, width: number): number[] {
  const before = places.filter((p) => p < needle).length;
  const mirrored = places
    .slice(0, before)
    .map((p) => -p)
    .reverse();
  const left = spread(mirrored, GAP, PLATE - needle, -18).map((p) => -p);
  const ahead = places.slice(before).map((p) => Math.max(p, needle + PLATE));
  return [...left.reverse(), ...spread(ahead, GAP, needle + PLATE, width - 20)];
}

/** Whether a flag at `x` [px] can be taken hold of: none of the others crowds it, and it does not stand at the Rule's end. */
export const standsAlone = (x: number, others: readonly number[], width: number): boolean =>
  x < width - FLAG && others.every((o) => Math.abs(o - x) >= FLAG);
