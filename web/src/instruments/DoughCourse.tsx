import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

interface Props {
  h: readonly number[];
  levels: readonly number[];
  at: number;
  readyH: number | null;
  pastH: number | null;
  width: number;
  about: string;
}
const H = 170;

/** The height of a dough through its hours, with ready and past its best as lines, and the look. */
export function DoughCourse({ h, levels, at, readyH, pastH, width, about }: Props) {
  const x = scaleLinear()
    .domain([0, h.at(-1) ?? 1])
    .range([44, width - 12]);
  const y = scaleLinear()
    .domain([1, Math.max(...levels) * 1.04])
    .range([H - 28, 12]);
  const path = line<number>()
    .x((_, i) => x(h[i]!))
    .y((v) => y(v))([...levels]);
  const marks = [
    { h: readyH, text: "ready" },
    { h: pastH, text: "past" },
  ].filter((m): m is { h: number; text: string } => m.h !== null && m.h <= (h.at(-1) ?? 0));
  return (
    <svg width={width} height={H} role="img" aria-label={about}>
      {y.ticks(3).map((r) => (
        <text key={r} x={36} y={y(r) + 5} textAnchor="end" className="mono">
          {r}×
        </text>
      ))}
      {x.ticks(5).map((t) => (
        <text key={t} x={x(t)} y={H - 6} textAnchor="middle" className="mono">
          {t} h
        </text>
      ))}
      <line x1={44} x2={width - 12} y1={H - 27} y2={H - 27} stroke="var(--ink)" strokeWidth={2} />
      {marks.map((m) => (
        <g key={m.text}>
          <path
            d={`M${x(m.h)} 14V${H - 28}`}
            stroke="var(--ink)"
            strokeWidth={2}
            strokeDasharray={m.text === "past" ? "7 5" : undefined}
          />
          <text
            x={x(m.h) + (m.text === "ready" ? -5 : 5)}
            y={H - 36}
            textAnchor={m.text === "ready" ? "end" : "start"}
            className="halo"
          >
            {m.text}
          </text>
        </g>
      ))}
      <path d={path ?? ""} fill="none" stroke="var(--ink)" strokeWidth={3} />
      <path d={`M${x(at)} 4V${H - 28}`} stroke="var(--brass)" strokeWidth={4} />
    </svg>
  );
}
