/** The Rule's stretched time scale: an even minute near now, hours packed further out. Pure. */
export interface RuleScale {
  x: (t: number) => number;
  t: (x: number) => number;
  left: number;
  right: number;
}

/** Pixels of a time [ms] on a rule `width` wide whose needle stands at `needle`; `tau` [ms] is the stretch. */
export function ruleScale(now: number, width: number, needle: number, tau: number, aheadMs: number, linear = false): RuleScale {
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

/** Push heads apart so that none overlaps; each keeps its order and leans to its true place. */
export function spread(places: number[], gap: number, low: number, high: number): number[] {
  const out = [...places];
  for (let i = 1; i < out.length; i++) out[i] = Math.max(out[i]!, out[i - 1]! + gap);
  const over = (out.at(-1) ?? 0) - high;
  if (over > 0) {
    out[out.length - 1] = high;
    for (let i = out.length - 2; i >= 0; i--) out[i] = Math.min(out[i]!, out[i + 1]! - gap);
  }
  return out.map((v) => Math.max(v, low));
}
