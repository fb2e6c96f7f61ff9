import { scaleLinear } from "d3-scale";
import { HeatColumn } from "./HeatColumn";

/** The kitchen's column: one temperature scale with a leader to each thing that has a temperature. */
export function Thermometer({
  marks,
  low,
  high,
  top = 36,
  height = 470,
  degrees,
  tick,
}: {
  marks: readonly { name: string; c: number; strong?: boolean }[];
  low: number;
  high: number;
  top?: number;
  height?: number;
  degrees: (c: number) => string;
  tick: (c: number) => string;
}) {
  const y = scaleLinear()
    .domain([0, top])
    .range([height - 12, 14]);
  const placed = [...marks].sort((a, b) => b.c - a.c).map((m) => ({ ...m, at: y(m.c) }));
  for (let i = 1; i < placed.length; i++) placed[i]!.at = Math.max(placed[i]!.at, placed[i - 1]!.at + 34);
  return (
    <svg width={330} height={height} role="img" aria-label={placed.map((m) => `${m.name} ${degrees(m.c)}`).join(", ")}>
      <HeatColumn x={70} width={34} high={top} y={y} />
      {Array.from({ length: top + 1 }, (_, c) => (
        <g key={c}>
          <line x1={c % 10 ? 62 : 56} x2={70} y1={y(c)} y2={y(c)} stroke="var(--ink)" strokeWidth={1.25} />
          {c % 10 === 0 && (
            <text x={50} y={y(c) + 6} textAnchor="end" className="mono">
              {tick(c)}
            </text>
          )}
        </g>
      ))}
      <path d={`M26 ${y(high)}h-6V${y(low)}h6`} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <text transform={`translate(12,${(y(high) + y(low)) / 2}) rotate(-90)`} textAnchor="middle">
        today
      </text>
      {placed.map((m) => (
        <g key={m.name}>
          <path
            d={`M104 ${y(m.c)}h8L122 ${m.at}h8`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={m.strong ? 2.5 : 1.5}
          />
          <text x={216} y={m.at + (m.strong ? 9 : 6)} textAnchor="end" className={m.strong ? "mono big" : "mono"}>
            {degrees(m.c)}
          </text>
          <text x={224} y={m.at + 6} className={m.strong ? "strong" : ""}>
            {m.name}
          </text>
        </g>
      ))}
    </svg>
  );
}
