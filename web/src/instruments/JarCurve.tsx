import { scaleLinear, scaleTime } from "d3-scale";
import { area, line } from "d3-shape";
import { SAY } from "../words/say/instruments";

interface Props {
  width: number;
  points: readonly { t: number; ratio: number; low: number; high: number }[];
  now: number;
  until: number | null;
  clock: (t: number) => string;
}
const H = 150;

/** A starter's height since its feed: the band, now, and how long it holds. */
export function JarCurve({ width, points, now, until, clock }: Props) {
  const x = scaleTime()
    .domain([points[0]!.t, points.at(-1)!.t])
    .range([56, width - 14]);
  const y = scaleLinear()
    .domain([0.9, Math.max(...points.map((p) => p.high)) * 1.05])
    .range([H - 30, 10]);
  const band = area<(typeof points)[number]>()
    .x((p) => x(p.t))
    .y0((p) => y(p.low))
    .y1((p) => y(p.high));
  const mid = line<(typeof points)[number]>()
    .x((p) => x(p.t))
    .y((p) => y(p.ratio));
  const shown = now > points[0]!.t && now < points.at(-1)!.t;
  return (
    <svg width={width} height={H} role="img" aria-label={SAY.heightOfTheStarterSinceIts}>
      {x.ticks(4).map((t) => (
        <g key={t.getTime()}>
          <line x1={x(t)} x2={x(t)} y1={8} y2={H - 30} stroke="var(--hair)" />
          <text x={x(t)} y={H - 10} textAnchor="middle" className="mono">
            {clock(t.getTime())}
          </text>
        </g>
      ))}
      {y.ticks(3).map((r) => (
        <text key={r} x={48} y={y(r) + 5} textAnchor="end" className="mono">
          {r}×
        </text>
      ))}
      <path d={band([...points]) ?? ""} fill="var(--recess)" stroke="var(--hair-2)" />
      <path d={mid([...points]) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
      {until && until < points.at(-1)!.t && (
        <line
          x1={x(until)}
          x2={x(until)}
          y1={8}
          y2={H - 30}
          stroke="var(--ink)"
          strokeWidth={1.5}
          strokeDasharray="7 5"
        />
      )}
      {shown && <line x1={x(now)} x2={x(now)} y1={4} y2={H - 30} stroke="var(--brass)" strokeWidth={3} />}
    </svg>
  );
}
