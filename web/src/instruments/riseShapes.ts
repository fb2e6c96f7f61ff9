import { type ScaleLinear, scaleLinear, type ScaleTime, scaleTime } from "d3-scale";

export interface RisePoint {
  t: number;
  ratio: number;
  low: number;
  high: number;
  doughC: number;
}
export interface RiseWindow {
  name: string;
  begins: number;
  target: number;
  ready: number | null;
  from: number | null;
  to: number | null;
  tooFar: number | null;
}
/** What a rise is drawn by: scales of time, of height and of temperature, and the edges of the plot [px]. */
export interface RiseFrame {
  x: ScaleTime<number, number>;
  y: ScaleLinear<number, number>;
  heat: ScaleLinear<number, number>;
  left: number;
  right: number;
  from: number;
  end: number;
  top: number;
  bottom: number;
  windowsY: number;
  coldY: number;
  movesY: number;
  heatTop: number;
  heatBottom: number;
  height: number;
  narrow: boolean;
  /** The stage that is over: until when, where its strip ends, and the gap behind it. */
  fold: { until: number; x: number; gap: number } | null;
}
const MINUTE = 60e3;
const HOUR = 60 * MINUTE;
/** Heights of the lanes, from above: plates, plot, one for each window, the cold, moves, dough, hours [px]. */
const PLATES = 34;
const PLOT_H = { wide: 98, narrow: 84 };
const WINDOW_H = 26;
const COLD_H = 40;
const MOVES_H = 38;
const HEAT_H = 32;
const FOOT = 22;
/** How wide a stage that is over is drawn, and the gap behind it [px]. */
const FOLD = { wide: 76, gap: 20 };
/** Px a letter takes, rounded up: words are placed before they are drawn. */
const LETTER = 8.6;
/** A fall of the ratio that is a knock-back, not the noise of a curve. */
const KNOCKED = 0.12;
const STRIPS = 70;
/** The stretch of time [ms] that shows the rise, the table, and the last window's end within an hour of the last point. */
export function riseSpan(
  points: readonly RisePoint[],
  windows: readonly RiseWindow[],
  serve: number,
  now: number,
): [number, number] {
  const last = points.at(-1)?.t ?? now;
  const ends = Math.max(...windows.map((w) => w.to ?? 0), 0);
  return [points[0]?.t ?? now, Math.max(last, serve, Math.min(ends, last + HOUR)) + 6 * MINUTE];
}

/** What decides the lanes: how many windows are ahead, whether there is a stay in the cold, and until when a stage is over. */
export interface RiseLanes {
  ahead: number;
  cold: boolean;
  moves: boolean;
  over: number | null;
}

/** The scales of a rise drawn `width` px wide over `span` [ms]; a stage that is over folds into a narrow strip. */
export function riseFrame(
  width: number,
  span: readonly [number, number],
  points: readonly RisePoint[],
  windows: readonly RiseWindow[],
  lanes: RiseLanes,
): RiseFrame {
  const narrow = width < 640;
  const [left, right] = [narrow ? 24 : 232, width - (narrow ? 14 : 52)];
  const most = Math.max(...points.map((q) => q.high), ...windows.map((w) => w.target), 1.5) * 1.06;
  const temps = points.map((q) => q.doughC);
  const bottom = PLATES + 6 + (narrow ? PLOT_H.narrow : PLOT_H.wide);
  const windowsY = bottom + 6 + WINDOW_H / 2;
  const coldY = windowsY + (lanes.ahead - 0.5) * WINDOW_H;
  const movesY = coldY + (lanes.cold ? COLD_H : 0);
  const heatTop = movesY + (lanes.moves ? MOVES_H : 0) + 4;
  const heatBottom = heatTop + HEAT_H;
  const over = lanes.over;
  const share = over === null ? 0 : (over - span[0]) / (span[1] - span[0]);
  const folds = over !== null && share > 0 && (right - left) * share > FOLD.wide + FOLD.gap;
  return {
    x: folds
      ? scaleTime()
          .domain([span[0], over, over + 1, span[1]])
          .range([left, left + FOLD.wide, left + FOLD.wide + FOLD.gap, right])
      : scaleTime().domain(span).range([left, right]),
    y: scaleLinear()
      .domain([0.9, most])
      .range([bottom, PLATES + 6]),
    heat: scaleLinear()
      .domain([Math.min(...temps) - 2, Math.max(...temps) + 1])
      .range([heatBottom, heatTop]),
    left,
    right,
    from: span[0],
    end: span[1],
    top: PLATES + 6,
    bottom,
    windowsY,
    coldY,
    movesY,
    heatTop,
    heatBottom,
    height: heatBottom + FOOT,
    narrow,
    fold: folds ? { until: over, x: left + FOLD.wide, gap: FOLD.gap } : null,
  };
}

/** The height of the lane of window `i` of those ahead [px]. */
export const windowLane = (f: RiseFrame, i: number): number => f.windowsY + i * WINDOW_H;

/** The instant's place [px], held inside the plot. */
export const within = (f: RiseFrame, t: number): number => Math.min(Math.max(f.x(t), f.left), f.right);

/** Hours to write beneath, `least` px apart; none in a folded stage, none so far right that it is cut. */
export const hourTicks = (f: RiseFrame, least = 66): number[] => {
  const from = f.fold?.until ?? f.from;
  const begin = f.fold ? f.fold.x + f.fold.gap + 30 : f.left;
  const scale = scaleTime().domain([from, f.end]);
  for (let n = 12; n > 1; n--) {
    const ticks = scale
      .ticks(n)
      .map((h) => h.getTime())
      .filter((h) => f.x(h) < f.right - 30 && f.x(h) >= begin);
    if (ticks.every((h, i) => i === 0 || f.x(h) - f.x(ticks[i - 1]!) >= least)) return ticks;
  }
  return [];
};

/** The curve cut where the dough was knocked back: two points at one instant begin a new stretch. */
export function stretches(points: readonly RisePoint[]): RisePoint[][] {
  const out: RisePoint[][] = [[]];
  points.forEach((q, i) => {
    const before = points[i - 1];
    if (before && before.ratio - q.ratio > KNOCKED) out.push([]);
    out.at(-1)!.push(q);
  });
  return out;
}

/** Few enough strips of the dough's temperature to be drawn while a finger moves; the last point always stays. */
export function strips(points: readonly RisePoint[]): readonly RisePoint[] {
  const every = Math.ceil(points.length / STRIPS);
  return points.filter((_, i) => i % every === 0 || i === points.length - 1);
}

/** Corners of a window's spindle [px]: ready, best from, best to, too far. */
export function spindle(
  f: RiseFrame,
  w: RiseWindow & { ready: number },
): { ready: number; from: number; to: number; tooFar: number } {
  return {
    ready: within(f, w.ready),
    from: within(f, w.from ?? w.ready),
    to: within(f, w.to ?? w.ready),
    tooFar: within(f, w.tooFar ?? f.end),
  };
}

export interface LaneWord {
  text: string;
  x: number;
  anchor: "start" | "middle" | "end";
  /** Whether it stands on the spindle itself. */
  on: boolean;
}
const wide = (text: string) => text.length * LETTER;

/**
 * Words of a window in its lane: when ready before it, when best on it, when too far behind it; what has no room of its own joins
 * the roomier side, and is left to the figures beside where that has none either.
 */
export function laneWords(
  f: RiseFrame,
  s: ReturnType<typeof spindle>,
  say: { ready: string; best: string; short: string; far: string },
): LaneWord[] {
  const before = s.ready - 12 - (f.fold ? f.fold.x + f.fold.gap : f.left);
  const behind = f.right + (f.narrow ? 0 : 44) - s.tooFar - 12;
  const on = wide(say.best) + 12 < s.to - s.from;
  const found: LaneWord[] = on ? [{ text: say.best, x: (s.from + s.to) / 2, anchor: "middle", on: true }] : [];
  const left: LaneWord = { text: say.ready, x: s.ready - 10, anchor: "end", on: false };
  const right: LaneWord = { text: say.far, x: s.tooFar + 10, anchor: "start", on: false };
  const fits = { left: wide(say.ready) < before, right: wide(say.far) < behind };
  if (fits.left) found.push(left);
  if (fits.right) found.push(right);
  const rest = [fits.left ? "" : say.ready, on ? "" : say.short, fits.right ? "" : say.far].filter(Boolean);
  if (rest.length === 0) return found;
  for (const [side, free, had] of [
    [left, before, fits.left],
    [right, behind, fits.right],
  ] as const) {
    for (let n = rest.length; n > 0; n--) {
      const words = rest.slice(0, n).join(", ");
      const whole = had ? `${side.text}, ${words}` : words;
      if (wide(whole) < free) return [...found.filter((w) => w.x !== side.x), { ...side, text: whole }];
    }
  }
  return found;
}

/** A hand move on the chart. */
interface Move {
  key: string;
  at: number;
  done: boolean;
  next: boolean;
}
/** The chart is told this. */
export interface RiseProps {
  width: number;
  points: readonly RisePoint[];
  windows: readonly RiseWindow[];
  readings: readonly { t: number; ratio: number; id: number }[];
  moves?: readonly Move[];
  now: number;
  serve: number;
  ratioNow: number | null;
  doughNow: number | null;
  stage: number;
  clock: (t: number) => string;
  degrees: (c: number) => string;
  /** The curve as it stands, while another is tried. */
  ghost?: readonly RisePoint[];
  cold?: { into: number; out: number } | null;
  onServe?: (t: number) => void;
  onCold?: (into: number, out: number) => void;
}

/** A part of the chart is drawn from this. */
export interface Part {
  p: RiseProps;
  f: RiseFrame;
}
