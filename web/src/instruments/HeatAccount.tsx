import { scaleLinear } from "d3-scale";
import { heatColour } from "../theme/temperature";

interface Props {
  rows: readonly { name: string; joules: number }[];
  doughC: number;
  liquidC: number | null;
  flourC: number;
  limitC: number;
  /** Whether the limit is that of yeast. */
  yeasted: boolean;
  degrees: (c: number) => string;
  width: number;
}

/** What each thing in the bowl brings, as a bar of heat, and where the bowl lands on the scale. */
export function HeatAccount({ rows, doughC, liquidC, flourC, limitC, yeasted, degrees, width }: Props) {
  const shown = [...rows].filter((r) => Math.abs(r.joules) > 60).sort((a, b) => b.joules - a.joules);
  const top = Math.max(limitC + 6, (liquidC ?? 0) + 4, 40);
  const narrow = width < 620;
  const scaleHeight = 386;
  const H = narrow ? scaleHeight + 60 + shown.length * 40 : scaleHeight;
  const barsTop = narrow ? scaleHeight + 8 : 0;
  const y = scaleLinear()
    .domain([0, top])
    .range([scaleHeight - 26, 18]);
  const barsLeft = narrow ? 0 : 262;
  const label = narrow ? 118 : 168;
  const right = width - 16;
  const most = Math.max(...shown.map((r) => Math.abs(r.joules)), 1);

  const x = scaleLinear()
    .domain([-most, most])
    .range([barsLeft + label + 10, right]);
  const mid = x(0);
  const steps = Array.from({ length: Math.ceil(top) }, (_, i) => i);
  const marks = [
    { c: doughC, name: "dough lands", strong: true },
    ...(liquidC === null ? [] : [{ c: liquidC, name: "liquid", strong: false }]),
    { c: flourC, name: "flour", strong: false },
  ];
  const places = spaced(marks.map((m) => y(m.c)));
  const step = narrow ? 40 : Math.min(40, (H - 60) / Math.max(shown.length, 1));
  return (
    <svg
      width={width}
      height={H}
      role="img"
      aria-label={`The bowl lands at ${degrees(doughC)}. The table holds what each part brings.`}
    >
      <defs>
        <pattern id="limit" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" fill="var(--ground)" />
          <rect width="3" height="8" fill="var(--ink)" />
        </pattern>
      </defs>
      {steps.map((c) => (
        <rect key={c} x={20} width={40} y={y(c + 1)} height={y(c) - y(c + 1) + 0.5} fill={heatColour(c + 0.5)} />
      ))}
      <rect x={20} width={40} y={y(top)} height={y(limitC) - y(top)} fill="url(#limit)" />
      <rect x={20} width={40} y={y(top)} height={y(0) - y(top)} fill="none" stroke="var(--ink)" strokeWidth={2} />
      {[0, 10, 20, 30, 40, 50]
        .filter((c) => c <= top)
        .map((c) => (
          <line key={c} x1={10} x2={20} y1={y(c)} y2={y(c)} stroke="var(--ink)" strokeWidth={1.5} />
        ))}
      <text x={68} y={y(limitC) - 8}>
        {yeasted ? "yeast suffers from" : "too hot for the bowl from"} {degrees(limitC)}
      </text>
      {marks.map((m, i) => (
        <g key={m.name}>
          <path
            d={`M60 ${y(m.c)}H72L84 ${places[i]}H94`}
            fill="none"
            stroke="var(--ink)"
            strokeWidth={m.strong ? 3 : 1.5}
          />
          <text x={98} y={places[i]! + 6} className={m.strong ? "figure" : "strong"}>
            {degrees(m.c)}
          </text>
          <text x={m.strong ? 98 : 158} y={places[i]! + (m.strong ? 26 : 6)}>
            {m.name}
          </text>
        </g>
      ))}
      <line
        x1={mid}
        x2={mid}
        y1={barsTop + 14}
        y2={barsTop + 22 + shown.length * step}
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <text x={mid - 8} y={H - 20} textAnchor="end">
        takes heat
      </text>
      <text x={mid + 8} y={H - 20}>
        brings heat, kJ
      </text>
      {shown.map((r, i) => {
        const at = barsTop + 22 + i * step;
        const a = Math.min(x(0), x(r.joules));
        const w = Math.abs(x(r.joules) - x(0));
        return (
          <g key={r.name}>
            <text x={barsLeft} y={at + 18} className="strong">
              {short(r.name, narrow ? 14 : 22)}
            </text>
            <rect
              x={a}
              y={at + 3}
              width={Math.max(w, 1)}
              height={step - 14}
              fill={r.joules > 0 ? "var(--ink)" : "var(--paper)"}
              stroke="var(--ink)"
              strokeWidth={2}
            />
            <text
              x={r.joules > 0 ? a - 8 : a + w + 8}
              y={at + 18}
              textAnchor={r.joules > 0 ? "end" : "start"}
              className="mono"
            >
              {signed(r.joules / 1000)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

const short = (name: string, most: number): string => (name.length > most ? `${name.slice(0, most - 1)}…` : name);
const signed = (kj: number): string => `${kj < 0 ? "−" : "+"}${Math.abs(kj).toFixed(1)}`;

function spaced(places: number[]): number[] {
  const order = places.map((p, i) => ({ p, i })).sort((a, b) => a.p - b.p);
  for (let k = 1; k < order.length; k++) order[k]!.p = Math.max(order[k]!.p, order[k - 1]!.p + 46);
  const out = [...places];
  for (const { p, i } of order) out[i] = p;
  return out;
}
