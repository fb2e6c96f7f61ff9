import { scaleLinear } from "d3-scale";
import { SAY } from "../words/say/instruments";

export interface SaidRow {
  name: string;
  said: number | null;
  p10: number | null;
  p90: number | null;
  was: number | null;
  inside: boolean | null;
}
const ROW = 34;
const TOP = 8;
const LEFT = 118;
const FIGURES = 104;

/** Seconds that were said (a tick in its band) and that were (a ring inside the band, a square outside), on one axis. */
export function SaidAxis({ rows, width }: { rows: readonly SaidRow[]; width: number }) {
  const all = rows.flatMap((r) => [r.said, r.p10, r.p90, r.was]).filter((v): v is number => v !== null);
  const [low, high] = [Math.min(...all), Math.max(...all)];
  const right = width - FIGURES;
  const x = scaleLinear()
    .domain([low, Math.max(high, low + 1)])
    .nice()
    .range([LEFT, right]);
  const bottom = TOP + rows.length * ROW;
  const y = (i: number) => TOP + i * ROW + ROW / 2;
  const line = (of: (r: SaidRow) => number | null) =>
    rows.flatMap((r, i) => (of(r) === null ? [] : [`${x(of(r)!)},${y(i)}`])).join(" ");
  return (
    <svg
      width={width}
      height={bottom + 30}
      role="img"
      aria-label={SAY.saidAndWasInSeconds(
        rows.map((r) => `${r.name} ${figure(r.said)} and ${figure(r.was)}`).join("; "),
      )}
    >
      {x.ticks(Math.max(2, Math.floor((right - LEFT) / 52))).map((s) => (
        <g key={s}>
          <line x1={x(s)} x2={x(s)} y1={TOP} y2={bottom} stroke="var(--hair)" />
          <text x={x(s)} y={bottom + 22} textAnchor="middle" className="mono">
            {s}
          </text>
        </g>
      ))}
      <line x1={LEFT} x2={right} y1={bottom} y2={bottom} stroke="var(--ink)" strokeWidth={1.5} />
      <polyline points={line((r) => r.said)} fill="none" stroke="var(--ink-2)" strokeDasharray="2 4" />
      <polyline points={line((r) => r.was)} fill="none" stroke="var(--ink)" strokeWidth={1.5} data-testid="was" />
      {rows.map((r, i) => (
        <g key={r.name}>
          <text x={0} y={y(i) + 6} className={r.inside === false ? "strong" : ""}>
            {r.name}
          </text>
          {r.p10 !== null && r.p90 !== null && (
            <rect
              x={x(r.p10)}
              width={Math.max(x(r.p90) - x(r.p10), 1)}
              y={y(i) - 9}
              height={18}
              fill="var(--recess)"
              stroke="var(--hair-2)"
              className="band"
            />
          )}
          {r.said !== null && (
            <line x1={x(r.said)} x2={x(r.said)} y1={y(i) - 11} y2={y(i) + 11} stroke="var(--ink)" strokeWidth={1.5} />
          )}
          {r.was !== null && r.inside === false && (
            <rect x={x(r.was) - 6} y={y(i) - 6} width={12} height={12} fill="var(--ink)" className="outside" />
          )}
          {r.was !== null && r.inside !== false && (
            <circle cx={x(r.was)} cy={y(i)} r={6.5} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2.5} />
          )}
          <text x={right + 52} y={y(i) + 6} textAnchor="end" className="mono">
            {figure(r.said)}
          </text>
          <text x={width} y={y(i) + 6} textAnchor="end" className="mono strong">
            {figure(r.was)}
          </text>
        </g>
      ))}
    </svg>
  );
}

const figure = (s: number | null): string => (s === null ? "–" : `${s.toFixed(0)} s`);
