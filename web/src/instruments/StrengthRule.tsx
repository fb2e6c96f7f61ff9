import { scaleLog } from "d3-scale";
import { Z10 } from "../words/format";

const W = 300;
const H = 44;

/** A strength on a rule from a third to three: the middle as a notch, eight in ten as a bar. */
export function StrengthRule({ mean, sdLog, label }: { mean: number; sdLog: number; label: string }) {
  const x = scaleLog()
    .domain([0.33, 3])
    .range([10, W - 10])
    .clamp(true);
  const low = x(mean * Math.exp(-Z10 * sdLog));
  const high = x(mean * Math.exp(Z10 * sdLog));
  return (
    <svg width={W} height={H} role="img" aria-label={label}>
      <line x1={10} x2={W - 10} y1={18} y2={18} stroke="var(--ink)" strokeWidth={1.5} />
      {[0.5, 1, 2].map((t) => (
        <g key={t}>
          <line x1={x(t)} x2={x(t)} y1={12} y2={24} stroke="var(--ink)" strokeWidth={t === 1 ? 2.5 : 1.5} />
          <text x={x(t)} y={41} textAnchor="middle" className="mono" style={{ fontSize: 14 }}>
            {t}
          </text>
        </g>
      ))}
      <rect x={low} y={12} width={high - low} height={12} fill="var(--recess)" stroke="var(--ink)" strokeWidth={1.5} />
      <path d={`M${x(mean)} 8l5 10l-5 10l-5 -10z`} fill="var(--ink)" />
    </svg>
  );
}
