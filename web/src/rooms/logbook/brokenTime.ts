/** A time axis whose long silences are cut out: bakes of two winters stand beside each other without the summer. */

const SILENCE_MS = 60 * 24 * 3600e3;
const CUT_PX = 30;
const LEAST_PX = 60;

/** A stretch of time that is drawn: from and until [ms], and where [px]. */
export interface Stretch {
  from: number;
  to: number;
  left: number;
  right: number;
}

/** Stretches of the instants (ascending) between two edges, each as wide as it is long. */
export function stretches(at: readonly number[], left: number, right: number): Stretch[] {
  if (at.length === 0) return [];
  const runs: [number, number][] = [[at[0]!, at[0]!]];
  for (const t of at.slice(1)) {
    const last = runs.at(-1)!;
    if (t - last[1] > SILENCE_MS) runs.push([t, t]);
    else last[1] = t;
  }
  const room = right - left - CUT_PX * (runs.length - 1);
  const least = Math.min(LEAST_PX, room / runs.length);
  const whole = runs.reduce((sum, [a, b]) => sum + (b - a), 0);
  const free = room - least * runs.length;
  let x = left;
  return runs.map(([from, to]) => {
    const width = least + (whole > 0 ? (free * (to - from)) / whole : free / runs.length);
    const found = { from, to, left: x, right: x + width };
    x += width + CUT_PX;
    return found;
  });
}

/** Where an instant stands [px]. */
export function placeOf(t: number, all: readonly Stretch[]): number {
  const own = all.find((s) => t <= s.to) ?? all.at(-1);
  if (!own) return 0;
  if (own.to === own.from) return (own.left + own.right) / 2;
  const share = Math.min(Math.max((t - own.from) / (own.to - own.from), 0), 1);
  return own.left + share * (own.right - own.left);
}

const DAY_MS = 24 * 3600e3;
/** Firsts of the months within the stretches [ms], in UTC: to the day, which is enough for a name on an axis. */
export function monthsIn(all: readonly Stretch[]): number[] {
  const found: number[] = [];
  for (const s of all) {
    const first = new Date(s.from);
    for (let m = 0; ; m += 1) {
      const t = Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + m, 1);
      if (t > s.to) break;
      if (t >= s.from - 5 * DAY_MS) found.push(Math.max(t, s.from));
    }
  }
  return found;
}
