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
  heatBottom: number;
  height: number;
  narrow: boolean;
}
const MINUTE = 60e3;
const HOUR = 60 * MINUTE;
const PLOT = { top: 18, bottom: 162 };
const HEAT_TOP = 218;
const HEAT_H = 34;
const COLD_H = 30;
const FOOT = 24;
/** A fall of the ratio that is a knock-back, not the noise of a curve. */
const KNOCKED = 0.12;
const STRIPS = 70;
/** Nearer than this [px] two targets' words would lie on each other. */
const WORDS = { high: 22, wide: 110, beside: 190 };

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

/** The scales of a rise drawn `width` px wide over `span` [ms]; a stay in the cold takes a band of its own. */
export function riseFrame(
  width: number,
  span: readonly [number, number],
  points: readonly RisePoint[],
  windows: readonly RiseWindow[],
  cold: boolean,
): RiseFrame {
  const narrow = width < 640;
  const [left, right] = [narrow ? 24 : 262, width - 14];
  const most = Math.max(...points.map((q) => q.high), ...windows.map((w) => w.target), 1.5) * 1.06;
  const temps = points.map((q) => q.doughC);
  const heatTop = HEAT_TOP + (cold ? COLD_H : 0);
  const heatBottom = heatTop + HEAT_H;
  return {
    x: scaleTime().domain(span).range([left, right]),
    y: scaleLinear().domain([0.9, most]).range([PLOT.bottom, PLOT.top]),
    heat: scaleLinear()
      .domain([Math.min(...temps) - 2, Math.max(...temps) + 1])
      .range([heatBottom, heatTop]),
    left,
    right,
    from: span[0],
    end: span[1],
    top: PLOT.top,
    bottom: PLOT.bottom,
    heatBottom,
    height: heatBottom + FOOT,
    narrow,
  };
}

/** The instant's place [px], held inside the plot. */
export const within = (f: RiseFrame, t: number): number => Math.min(Math.max(f.x(t), f.left), f.right);

/** Hours to write beneath, fewer when they carry their day, none so far right that it is cut. */
export const hourTicks = (f: RiseFrame): number[] => {
  const apart = f.end - f.from > 20 * HOUR ? 150 : 84;
  return f.x
    .ticks(Math.max(3, Math.floor((f.right - f.left) / apart)))
    .map((h) => h.getTime())
    .filter((h) => f.x(h) < f.right - 30);
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

/** Whether the words of window `i` would lie on those of the one before: two near targets of stages that begin close together. */
export function crowded(f: RiseFrame, windows: readonly RiseWindow[], i: number): boolean {
  const [a, b] = [windows[i - 1], windows[i]];
  return (
    a !== undefined &&
    b !== undefined &&
    Math.abs(f.y(a.target) - f.y(b.target)) < WORDS.high &&
    f.x(b.begins) - f.x(Math.max(a.begins, f.from)) < WORDS.wide
  );
}

/** Corners of a window's spindle [px]: ready, best from, best to, too far; and where its words go. */
export function spindle(
  f: RiseFrame,
  w: RiseWindow & { ready: number },
): { ready: number; from: number; to: number; tooFar: number; words: number; anchor: "start" | "end" } {
  const ready = within(f, w.ready);
  const tooFar = within(f, w.tooFar ?? f.end);
  const before = ready - f.left > WORDS.beside;
  const after = tooFar < f.x(f.end) - WORDS.beside;
  return {
    ready,
    from: within(f, w.from ?? w.ready),
    to: within(f, w.to ?? w.ready),
    tooFar,
    words: before ? ready - 10 : after ? tooFar + 8 : f.x(f.end) - 4,
    anchor: before || !after ? "end" : "start",
  };
}
