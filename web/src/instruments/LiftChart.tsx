import { scaleLinear } from "d3-scale";
import { area, line } from "d3-shape";
import { SAY } from "../words/say/instruments";

interface Wait {
  h: number;
  low_h: number;
  high_h: number;
  best_lift: number;
  curve: { h: number[]; lift: number[]; low: number[]; high: number[] };
}
const H = 250;
const TOP = 26;
const BOTTOM = 196;

interface Props {
  width: number;
  here: Wait;
  fridge: Wait | null;
  from: number;
  cookH: number;
  nowH: number;
  clock: (t: number) => string;
}

/** The lift that is left when the dough is cooked after so long: a waning band, half of it marked, the plan's own hour on it. */
export function LiftChart({ width, here, fridge, from, cookH, nowH, clock }: Props) {
  const left = 150;
  const right = width - 16;
  const end = Math.max(here.curve.h.at(-1) ?? 1, cookH * 1.15, 0.2);
  const x = scaleLinear().domain([0, end]).range([left, right]).clamp(true);
  const top = here.best_lift * 1.04;
  const y = scaleLinear().domain([1, top]).range([BOTTOM, TOP]);
  const half = 1 + (here.best_lift - 1) / 2;
  const rows = here.curve.h.map((h, i) => ({
    h,
    mid: here.curve.lift[i]!,
    low: here.curve.low[i]!,
    high: here.curve.high[i]!,
  }));
  const band = area<(typeof rows)[number]>()
    .x((r) => x(r.h))
    .y0((r) => y(r.low))
    .y1((r) => y(r.high));
  const mid = line<(typeof rows)[number]>()
    .x((r) => x(r.h))
    .y((r) => y(r.mid));
  return (
    <svg
      width={width}
      height={H}
      role="img"
      aria-label={SAY.liftWhenCookedAtOnceHalf(
        here.best_lift.toFixed(2),
        here.low_h.toFixed(1),
        here.high_h.toFixed(1),
      )}
    >
      {x.ticks(width < 640 ? 4 : 8).map((h) => (
        <g key={h}>
          <line x1={x(h)} x2={x(h)} y1={TOP} y2={BOTTOM} stroke="var(--hair)" />
          <text x={x(h)} y={BOTTOM + 22} textAnchor="middle" className="mono">
            {clock(from + h * 3600e3)}
          </text>
        </g>
      ))}
      <path d={band(rows) ?? ""} fill="var(--recess)" stroke="var(--hair-2)" />
      <path d={mid(rows) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
      <line
        x1={left}
        x2={right}
        y1={y(half)}
        y2={y(half)}
        stroke="var(--ink)"
        strokeWidth={1.5}
        strokeDasharray="7 5"
      />
      <text x={left - 10} y={y(half) + 5} textAnchor="end">
        half the lift
      </text>
      <text x={left - 10} y={y(here.best_lift) + 12} textAnchor="end" className="strong">
        {here.best_lift.toFixed(1)} × at once
      </text>
      <line x1={left} x2={right} y1={BOTTOM} y2={BOTTOM} stroke="var(--ink)" strokeWidth={2} />
      <text x={left - 10} y={BOTTOM} textAnchor="end">
        no lift
      </text>
      <path
        d={`M${x(here.low_h)} ${BOTTOM + 40}L${x(here.h)} ${BOTTOM + 32}L${x(here.high_h)} ${BOTTOM + 40}L${x(here.h)} ${BOTTOM + 48}Z`}
        fill="var(--ink)"
      />
      <text x={left - 10} y={BOTTOM + 46} textAnchor="end">
        half is gone
      </text>
      {fridge && (
        <text x={right} y={TOP - 8} textAnchor="end">
          in the fridge: {fridge.low_h.toFixed(0)} to {fridge.high_h.toFixed(0)} h
        </text>
      )}
      <g>
        <line
          x1={x(cookH)}
          x2={x(cookH)}
          y1={TOP}
          y2={BOTTOM}
          stroke="var(--brass)"
          strokeWidth={2}
          strokeDasharray="6 5"
        />
        <text x={x(cookH) + 8} y={TOP + 14} className="strong halo">
          on the heat {clock(from + cookH * 3600e3)}
        </text>
      </g>
      {nowH > 0 && nowH < end && (
        <line x1={x(nowH)} x2={x(nowH)} y1={TOP - 10} y2={BOTTOM} stroke="var(--brass)" strokeWidth={3} />
      )}
    </svg>
  );
}
