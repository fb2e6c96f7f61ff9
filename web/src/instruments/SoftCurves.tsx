import { scaleLinear, scaleLog } from "d3-scale";
import { area, curveMonotoneX, line } from "d3-shape";
import { SAY } from "../words/say/instruments";

interface Curve {
  wrap: string;
  h: readonly number[];
  soft: readonly number[];
  low: readonly number[];
  high: readonly number[];
}
/** Marks of softness and the word beneath each, as the core has them. */
const WORDS = [
  [87, "soft"],
  [65, "pliable"],
  [45, "firm"],
  [27, "stiff"],
  [9, "hard"],
] as const;
const EDGES = [75, 55, 35, 18];
const HOURS: readonly (readonly [number, string])[] = [
  [1 / 6, "10 min"],
  [1, "1 h"],
  [6, "6 h"],
  [24, "1 day"],
  [48, "2"],
  [72, "3"],
];
/** Five minutes: before, a bread is too hot to say. */
const FIRST_H = 0.08;
const H = 230;
const TOP = 10;
const BOTTOM = 196;

/** Softness over three days: the chosen way with its band, the others thin beside it; the hour now as a mark. */
export function SoftCurves({
  width,
  curves,
  band,
  chosen,
  names,
  nowH,
}: {
  width: number;
  curves: readonly Curve[];
  band: Curve;
  chosen: string;
  names: Record<string, string>;
  nowH: number | null;
}) {
  const left = 66;
  const right = width - 12;
  const x = scaleLog().domain([FIRST_H, 72]).range([left, right]).clamp(true);
  const y = scaleLinear().domain([0, 100]).range([BOTTOM, TOP]);
  const rows = (c: Curve) =>
    c.h
      .map((h, i) => ({ h, soft: c.soft[i]!, low: c.low[i] ?? 0, high: c.high[i] ?? 0 }))
      .filter((d) => d.h >= FIRST_H);
  type Row = ReturnType<typeof rows>[number];
  const path = line<Row>()
    .x((d) => x(d.h))
    .y((d) => y(d.soft))
    .curve(curveMonotoneX);
  const about = area<Row>()
    .x((d) => x(d.h))
    .y0((d) => y(d.low))
    .y1((d) => y(d.high))
    .curve(curveMonotoneX);
  const said = WORDS.find(([mark]) => (band.soft.at(-1) ?? 0) >= mark - 12)?.[1] ?? "hard";
  return (
    <svg width={width} height={H} role="img" aria-label={SAY.softnessOverThreeDaysInThe(names[chosen] ?? chosen, said)}>
      {EDGES.map((mark) => (
        <line key={mark} x1={left} x2={right} y1={y(mark)} y2={y(mark)} stroke="var(--hair-2)" />
      ))}
      {WORDS.map(([mark, word]) => (
        <text key={word} x={left - 8} y={y(mark) + 5} textAnchor="end">
          {word}
        </text>
      ))}
      <path d={about(rows(band)) ?? ""} fill="var(--recess)" />
      {curves
        .filter((c) => c.wrap !== chosen)
        .map((c) => (
          <path key={c.wrap} d={path(rows(c)) ?? ""} fill="none" stroke="var(--hair-2)" strokeWidth={1.5} />
        ))}
      <path d={path(rows(band)) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={3.5} />
      {nowH !== null && nowH > FIRST_H && (
        <g>
          <line x1={x(nowH)} x2={x(nowH)} y1={TOP} y2={BOTTOM} stroke="var(--brass)" strokeWidth={3} />
          <text
            x={x(nowH) + (x(nowH) > right - 44 ? -6 : 6)}
            y={TOP + 12}
            textAnchor={x(nowH) > right - 44 ? "end" : "start"}
            className="strong halo"
          >
            now
          </text>
        </g>
      )}
      <line x1={left} x2={right} y1={BOTTOM} y2={BOTTOM} stroke="var(--ink)" strokeWidth={2} />
      {HOURS.map(([h, word]) => (
        <g key={word}>
          <line x1={x(h)} x2={x(h)} y1={BOTTOM} y2={BOTTOM + 6} stroke="var(--ink)" />
          <text x={x(h)} y={BOTTOM + 24} textAnchor="middle">
            {word}
          </text>
        </g>
      ))}
    </svg>
  );
}
