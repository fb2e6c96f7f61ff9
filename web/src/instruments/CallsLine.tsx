import { scaleLinear } from "d3-scale";
import { mean } from "../words/format";

export interface CallRow {
  name: string;
  told: string;
  misses: readonly number[];
  /** The newest is marked. */
  marked?: boolean;
}
const [ROW, RING] = [86, 7];
const REACH = 15; // s to each side, at the least

/** Misses on one line of seconds: early to the left, late to the right, a ring for each bread, rings of one place stacked. */
export function CallsLine({ rows, width, about }: { rows: readonly CallRow[]; width: number; about: string }) {
  const all = rows.flatMap((r) => r.misses);
  const most = Math.max(REACH, Math.ceil(Math.max(0, ...all.map(Math.abs)) / 5) * 5);
  const x = scaleLinear()
    .domain([-most, most])
    .range([14, width - 14])
    .clamp(true);
  const per = (2 * most * (2 * RING + 1)) / width; // s that a ring takes
  return (
    <svg width={width} height={rows.length * ROW + 26} role="img" aria-label={about}>
      {rows.map((row, n) => {
        const base = (n + 1) * ROW - 22;
        const stack = new Map<number, number>();
        return (
          <g key={row.name}>
            <rect x={x(-1.5)} y={base - 44} width={x(1.5) - x(-1.5)} height={44} fill="var(--recess)" />
            <text x={0} y={base - 50}>
              {row.name}
            </text>
            <text x={width} y={base - 50} textAnchor="end" className="strong">
              {row.told}
            </text>
            <line x1={4} x2={width - 4} y1={base} y2={base} stroke="var(--ink)" strokeWidth={2} />
            <path d={`M${x(0)} ${base}v7`} stroke="var(--ink)" strokeWidth={2} />
            {row.misses.map((s, i) => {
              const place = Math.round(s / per);
              const high = stack.get(place) ?? 0;
              stack.set(place, high + 1);
              const newest = row.marked && i === row.misses.length - 1;
              return (
                <circle
                  key={i}
                  cx={x(place * per)}
                  cy={base - RING - 2 - Math.min(high, 2) * (2 * RING + 1)}
                  r={RING}
                  fill={newest ? "var(--brass-fill)" : "var(--paper)"}
                  stroke="var(--ink)"
                  strokeWidth={newest ? 3 : 2}
                />
              );
            })}
            {row.misses.length > 0 && <path d={`M${x(mean(row.misses))} ${base + 3}l6 9h-12z`} fill="var(--ink)" />}
          </g>
        );
      })}
      {[-most, 0, most].map((s) => (
        <text
          key={s}
          x={s === 0 ? x(0) : s < 0 ? 4 : width - 4}
          y={rows.length * ROW + 14}
          textAnchor={s === 0 ? "middle" : s < 0 ? "start" : "end"}
        >
          {s === 0 ? "right" : `${most} s ${s < 0 ? "early" : "late"}`}
        </text>
      ))}
    </svg>
  );
}
