import { scaleLinear } from "d3-scale";
import { heatColour } from "../theme/temperature";

/** A straight jar of dough with its level on a scale of heights after mixing; domed where its top stands up in the middle. */
export function DoughJar({
  level,
  mark,
  domed,
  doughC,
  about,
}: {
  level: number;
  mark: number | null;
  domed: boolean;
  doughC: number;
  about: string;
}) {
  const y = scaleLinear().domain([0, 3.4]).range([292, 20]);
  const glass = domed ? level / 1.15 : level;
  const top = y(glass) - (y(glass) - y(level)) * (domed ? 2 : 1) - (domed ? 0 : 8);
  return (
    <svg width={250} height={310} viewBox="0 0 250 310" role="img" aria-label={about}>
      <path
        d={`M62 ${y(glass)}Q120 ${top} 178 ${y(glass)}V284Q178 290 170 290H70Q62 290 62 284Z`}
        fill={heatColour(doughC)}
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      <path d="M56 12V282Q56 296 70 296H170Q184 296 184 282V12" fill="none" stroke="var(--ink)" strokeWidth={3} />
      {[1, 2, 3].map((r) => (
        <g key={r}>
          <path
            d={`M44 ${y(r)}H${r === 1 ? 196 : 58}`}
            stroke="var(--ink)"
            strokeWidth={2}
            strokeDasharray={r === 1 ? "2 5" : undefined}
          />
          <text x={38} y={y(r) + 6} textAnchor="end" className="mono">
            {r}×
          </text>
        </g>
      ))}
      {mark !== null && (
        <g>
          <path d={`M50 ${y(mark)}H190`} stroke="var(--ink)" strokeWidth={4} />
          <text x={196} y={y(mark) + 6} className="strong">
            ready
          </text>
        </g>
      )}
    </svg>
  );
}
