import type { Step } from "../api/client";
import { ms } from "../words/format";
import { apart, type RuleScale } from "../words/scale";

/** The side of a peg's head, what a finger needs of it, and how far a head may be pushed off its time before it folds [px]. */
export const HEAD = 34;
const TOUCH = 44;
const FAN = 50;
const PUSHED = 26;
const FLAG = 50;
const NEAR = 100; // moves further apart than that are no fan [px]

export interface Placed {
  key: string;
  /** When [ms]. */
  at: number;
  done: boolean;
}
/** A move of a bake, as it is placed on the Rule. */
export interface Timed extends Placed {
  bake: number;
  name: string;
  seal: string;
  step: Step;
}
export const timedOf = (steps: readonly Step[]): Timed[] =>
  steps.map((s) => ({
    key: s.key,
    at: ms(s.at),
    done: s.done_at !== null,
    bake: s.bake_id,
    name: s.bake,
    seal: s.seal,
    step: s,
  }));

/** What stands at one head: a move, or a fan of several; where its head stands, and the true place of each [px]. */
export interface Head<S> {
  steps: S[];
  places: number[];
  x: number;
}

const wide = (n: number) => (n > 1 ? FAN : TOUCH);
const mean = (xs: readonly number[]) => xs.reduce((a, b) => a + b, 0) / xs.length;

/**
 * The heads of the moves in view, in the order of their times. One that would be pushed off its time folds with its neighbour into
 * a fan; the next move never folds, and nothing folds across now.
 */
export function headsIn<S extends Placed>(
  steps: readonly S[],
  scale: RuleScale,
  now: number,
  left: number,
  width: number,
): { heads: Head<S>[]; next: S | undefined } {
  const inView = steps
    .filter((s) => s.key !== "serve" && scale.x(s.at) > left - TOUCH / 2 && s.at < scale.right)
    .sort((a, b) => a.at - b.at);
  const next = inView.find((s) => !s.done);
  const needle = scale.x(now);
  const past = inView.filter((s) => s.at <= now && s !== next);
  const ahead = inView.filter((s) => s.at > now || s === next);
  return {
    heads: [
      ...folded(past, scale, next, left, needle - 2),
      ...folded(ahead, scale, next, past.length ? needle + 2 : left, width),
    ],
    next,
  };
}

function folded<S extends Placed>(
  steps: readonly S[],
  scale: RuleScale,
  next: S | undefined,
  low: number,
  high: number,
): Head<S>[] {
  const groups = steps.map((s) => [s]);
  const isNext = (g: readonly S[]) => g.length === 1 && g[0] === next;
  for (;;) {
    const places = groups.map((g) => g.map((s) => scale.x(s.at)));
    const at = places.map(mean);
    const xs = apart(
      groups.map((g, i) => ({ at: at[i]!, wide: wide(g.length) })),
      low,
      high,
      1,
    );
    const heads = groups.map((g, i) => ({ steps: g, places: places[i]!, x: xs[i]! }));
    const room = groups.reduce((sum, g) => sum + wide(g.length) + 1, 0) <= high - low;
    const pushed = heads
      .map((h, i) => ({ i, by: Math.abs(h.x - at[i]!) }))
      .filter(({ i, by }) => !isNext(groups[i]!) && (by > PUSHED || !room))
      .sort((a, b) => b.by - a.by);
    const merge = pushed
      .map(({ i }) => {
        const touches = (n: number) =>
          (!room || Math.abs(at[n]! - at[i]!) < NEAR) &&
          Math.abs(xs[n]! - xs[i]!) <= (wide(groups[n]!.length) + wide(groups[i]!.length)) / 2 + 2;
        const beside = [i - 1, i + 1].filter((n) => groups[n] && !isNext(groups[n]!) && touches(n));
        const nearest = beside.sort((a, b) => Math.abs(at[a]! - at[i]!) - Math.abs(at[b]! - at[i]!))[0];
        return nearest === undefined ? null : ([Math.min(i, nearest), Math.max(i, nearest)] as const);
      })
      .find((m) => m !== null);
    if (!merge) return heads;
    groups.splice(merge[0], 2, [...groups[merge[0]]!, ...groups[merge[1]]!]);
  }
}

/** Whether a flag at `x` [px] can be taken hold of: none of the others crowds it, and it does not stand at the Rule's end. */
export const standsAlone = (x: number, others: readonly number[], width: number): boolean =>
  x < width - FLAG && others.every((o) => Math.abs(o - x) >= FLAG);

/** A bake's stretch on the Rule: its moves from the first to serving. */
export interface Lane<S> {
  id: number;
  name: string;
  seal: string;
  steps: S[];
  from: number;
  to: number;
  lane: number;
}

/** A lane for each bake; bakes that do not overlap share one. Where there are more than `most`, the furthest share the last. */
export function lanesOf<S extends Placed & { bake: number; name: string; seal: string }>(
  steps: readonly S[],
  most: number,
): Lane<S>[] {
  const bakes = new Map<number, S[]>();
  for (const s of steps) bakes.set(s.bake, [...(bakes.get(s.bake) ?? []), s]);
  const all = [...bakes].map(([id, own]) => {
    const sorted = [...own].sort((a, b) => a.at - b.at);
    const [first, last] = [sorted[0]!, sorted.at(-1)!];
    return { id, name: first.name, seal: first.seal, steps: sorted, from: first.at, to: last.at, lane: 0 };
  });
  const ends: number[] = [];
  for (const b of all.sort((a, z) => a.from - z.from)) {
    const free = ends.findIndex((end) => end <= b.from);
    b.lane = free >= 0 ? free : Math.min(ends.length, most - 1);
    ends[b.lane] = Math.max(ends[b.lane] ?? -Infinity, b.to);
  }
  return all;
}
