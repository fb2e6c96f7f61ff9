/** The Rule's stretched time scale: an even minute near now, hours packed further out. Pure. */
export interface RuleScale {
  x: (t: number) => number;
  t: (x: number) => number;
  left: number;
  right: number;
}

/** Pixels of a time [ms] on a rule `width` wide whose needle stands at `needle`; `tau` [ms] is the stretch. */
export function ruleScale(
  now: number,
  width: number,
  needle: number,
  tau: number,
  aheadMs: number,
  linear = false,
): RuleScale {
  const ahead = width - needle - 24;
  const s = linear ? ahead / aheadMs : ahead / Math.asinh(aheadMs / tau);
  const past = linear ? s : s * 0.55;
  const x = (t: number) => {
    const d = t - now;
    if (linear) return needle + s * d;
    return needle + (d < 0 ? past : s) * Math.asinh(d / tau);
  };
  const t = (px: number) => {
    const d = px - needle;
    if (linear) return now + d / s;
    return now + tau * Math.sinh(d / (d < 0 ? past : s));
  };
  return { x, t, left: t(0), right: t(width) };
}

/** Whole-hour marks between two instants, thinned so that labels keep `gap` pixels. */
export function hourMarks(scale: RuleScale, from: number, to: number, gap: number): number[] {
  const hour = 3600e3;
  const marks: number[] = [];
  let last = -Infinity;
  for (let t = Math.ceil(from / hour) * hour; t <= to; t += hour) {
    const px = scale.x(t);
    if (px - last >= gap) {
      marks.push(t);
      last = px;
    }
  }
  return marks;
}

/** Push heads apart so that none overlaps, each as near its own place as the others allow (isotonic blocks). */
export const spread = (places: readonly number[], gap: number, low: number, high: number): number[] =>
  apart(
    places.map((at) => ({ at, wide: gap })),
    low - gap / 2,
    high + gap / 2,
    0,
  );

/** Centres of things `wide` px each, `gap` apart, none outside low to high, each as near its own place as the others allow. */
export function apart(
  things: readonly { at: number; wide: number }[],
  low: number,
  high: number,
  gap: number,
): number[] {
  // the distance of each centre from the first one's, when they stand in a row
  const offsets = things.map(() => 0);
  for (let i = 1; i < things.length; i++)
    offsets[i] = offsets[i - 1]! + (things[i - 1]!.wide + things[i]!.wide) / 2 + gap;
  const blocks: { sum: number; count: number }[] = [];
  things.forEach(({ at }, i) => {
    let block = { sum: at - offsets[i]!, count: 1 };
    for (let last = blocks.at(-1); last && last.sum / last.count > block.sum / block.count; last = blocks.at(-1)) {
      blocks.pop();
      block = { sum: last.sum + block.sum, count: last.count + block.count };
    }
    blocks.push(block);
  });
  const least = low + (things[0]?.wide ?? 0) / 2;
  const most = high - (things.at(-1)?.wide ?? 0) / 2 - (offsets.at(-1) ?? 0);
  return blocks
    .flatMap((b) => Array.from({ length: b.count }, () => b.sum / b.count))
    .map((v, i) => Math.max(Math.min(v, most), least) + offsets[i]!);
}

const MINUTE_MS = 60e3;
export const PEG_STEP_MS = 5 * MINUTE_MS;

/** Returns the next time on the grid of five minutes [ms] that lies a minute or more from `t`, later (`way` 1) or earlier (-1). */
export function nextPegTime(t: number, way: 1 | -1): number {
  return way === 1
    ? (Math.floor((t + MINUTE_MS) / PEG_STEP_MS) + 1) * PEG_STEP_MS
    : (Math.ceil((t - MINUTE_MS) / PEG_STEP_MS) - 1) * PEG_STEP_MS;
}

/**
 * Returns the time in ms at which a peg pulled to `t` stands: on the grid of five minutes where the window from `low` to
 * `high` holds such a point, at the whole minute inside the window's end where it does not.
 */
export function pegTime(t: number, low: number, high: number): number {
  const first = Math.ceil(low / MINUTE_MS) * MINUTE_MS;
  const last = Math.floor(high / MINUTE_MS) * MINUTE_MS;
  return Math.min(Math.max(Math.round(t / PEG_STEP_MS) * PEG_STEP_MS, first), last);
}

/** A text on lines of at most `most` letters, broken between words. */
export function wrapped(text: string, most: number): string[] {
  const lines: string[] = [];
  for (const word of text.split(" ")) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + 1 + word.length <= most) lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines;
}
