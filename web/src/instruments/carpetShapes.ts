/** Geometry of the heat in a bread: depths in mm from side A up, times in s from the load. Pure. */

/** Edges of the layers whose middles are `mids`, from 0 to `thick` [mm]. */
export const layerEdges = (mids: readonly number[], thick: number): number[] => [
  0,
  ...mids.slice(1).map((m, i) => (m + mids[i]!) / 2),
  thick,
];

/** Depth [mm] at which a column first falls below `level` [C] going up from side A; null when it does not. */
export function isoline(
  columns: readonly (readonly number[])[],
  mids: readonly number[],
  level: number,
): (number | null)[] {
  return columns.map((column) => {
    for (let j = 1; j < column.length; j++) {
      const a = column[j - 1]!;
      const b = column[j]!;
      if (a >= level && b < level) return mids[j - 1]! + ((a - level) / (a - b)) * (mids[j]! - mids[j - 1]!);
    }
    return null;
  });
}

export interface Stretch {
  word: string;
  from: number;
  to: number;
}

/** Stretches of time of one colour word, none past `until` [s]. `words[i]` holds from the instant before to `s[i]`. */
export function colourStretches(words: readonly string[], s: readonly number[], until: number): Stretch[] {
  const out: Stretch[] = [];
  words.forEach((word, i) => {
    const from = i === 0 ? 0 : s[i - 1]!;
    const last = out.at(-1);
    if (from >= until) return;
    if (last?.word === word) last.to = Math.min(s[i]!, until);
    else out.push({ word, from, to: Math.min(s[i]!, until) });
  });
  return out;
}

/** A full pocket takes so much of the bread's height above and below its middle. */
const LENS = 0.17;

/** The pocket as a lens about the middle of the bread: corners in s and mm, upper edge first; empty while it is shut. */
export function pocketLens(
  pocket: readonly number[],
  s: readonly number[],
  thick: number,
  until: number,
): [number, number][] {
  const open = pocket.map((v, i) => ({ v, s: s[i]! })).filter((q) => q.v > 0.01 && q.s <= until + 0.5);
  if (open.length < 2) return [];
  const half = (v: number) => v * thick * LENS;
  return [
    [Math.max(open[0]!.s - 1, 0), thick / 2],
    ...open.map((q): [number, number] => [q.s, thick / 2 + half(q.v)]),
    ...[...open].reverse().map((q): [number, number] => [q.s, thick / 2 - half(q.v)]),
  ];
}
