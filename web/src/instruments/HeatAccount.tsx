import { type ScaleLinear, scaleLinear } from "d3-scale";
import { heatColour } from "../theme/temperature";
import { spread, wrapped } from "../words/scale";
import { SAY } from "../words/say/instruments";

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
const SCALE_H = 386;
const ROW = 40;
const MARK = 46;
/** What brings or takes less than this [J] is not drawn. */
const LEAST_J = 60;

/** What each thing in the bowl brings, as a bar of heat, and where the bowl lands on the scale. */
export function HeatAccount(p: Props) {
  const shown = p.rows.filter((r) => Math.abs(r.joules) > LEAST_J).sort((a, b) => b.joules - a.joules);
  const narrow = p.width < 620;
  const height = narrow ? SCALE_H + 60 + shown.length * ROW : SCALE_H;
  return (
    <svg width={p.width} height={height} role="img" aria-label={SAY.theBowlLandsAtTheTable(p.degrees(p.doughC))}>
      <Scale p={p} />
      <Bars rows={shown} narrow={narrow} height={height} right={p.width - 16} />
    </svg>
  );
}

/** The temperature scale up to what is too hot, with a leader to the dough, the liquid and the flour. */
function Scale({ p }: { p: Props }) {
  const top = Math.max(p.limitC + 6, (p.liquidC ?? 0) + 4, 40);
  const y = scaleLinear()
    .domain([0, top])
    .range([SCALE_H - 26, 18]);
  return (
    <>
      <defs>
        <pattern id="limit" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="8" height="8" fill="var(--ground)" />
          <rect width="3" height="8" fill="var(--ink)" />
        </pattern>
      </defs>
      {Array.from({ length: Math.ceil(top) }, (_, c) => (
        <rect key={c} x={20} width={40} y={y(c + 1)} height={y(c) - y(c + 1) + 0.5} fill={heatColour(c + 0.5)} />
      ))}
      <rect x={20} width={40} y={y(top)} height={y(p.limitC) - y(top)} fill="url(#limit)" />
      <rect x={20} width={40} y={y(top)} height={y(0) - y(top)} fill="none" stroke="var(--ink)" strokeWidth={2} />
      {[0, 10, 20, 30, 40, 50]
        .filter((c) => c <= top)
        .map((c) => (
          <line key={c} x1={10} x2={20} y1={y(c)} y2={y(c)} stroke="var(--ink)" strokeWidth={1.5} />
        ))}
      <text x={68} y={y(p.limitC) - 8}>
        {p.yeasted ? "yeast suffers from" : SAY.tooHotForTheBowlFrom} {p.degrees(p.limitC)}
      </text>
      <Leaders p={p} y={y} />
    </>
  );
}

function Leaders({ p, y }: { p: Props; y: ScaleLinear<number, number> }) {
  const marks = [
    { c: p.doughC, name: "dough lands", strong: true },
    ...(p.liquidC === null ? [] : [{ c: p.liquidC, name: "liquid", strong: false }]),
    { c: p.flourC, name: "flour", strong: false },
  ].sort((a, b) => b.c - a.c);
  const places = spread(
    marks.map((m) => y(m.c)),
    MARK,
    20,
    SCALE_H - 30,
  );
  return marks.map((m, i) => (
    <g key={m.name}>
      <path
        d={`M60 ${y(m.c)}H72L84 ${places[i]}H94`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={m.strong ? 3 : 1.5}
      />
      <text x={98} y={places[i]! + 6} className={m.strong ? "figure" : "strong"}>
        {p.degrees(m.c)}
      </text>
      <text x={m.strong ? 98 : 158} y={places[i]! + (m.strong ? 26 : 6)}>
        {m.name}
      </text>
    </g>
  ));
}

/** A bar for each part of the bowl: to the right what it brings, to the left what it takes, in kJ. */
function Bars({
  rows,
  narrow,
  height,
  right,
}: {
  rows: Props["rows"];
  narrow: boolean;
  height: number;
  right: number;
}) {
  const [top, left, label] = narrow ? [SCALE_H + 8, 0, 124] : [0, 262, 182];
  const step = narrow ? ROW : Math.min(ROW, (height - 60) / Math.max(rows.length, 1));
  const most = Math.max(...rows.map((r) => Math.abs(r.joules)), 1);
  const x = scaleLinear()
    .domain([-most, most])
    .range([left + label + 10, right]);
  const mid = x(0);
  return (
    <>
      <line x1={mid} x2={mid} y1={top + 14} y2={top + 22 + rows.length * step} stroke="var(--ink)" strokeWidth={2} />
      <text x={mid - 8} y={height - 20} textAnchor="end">
        takes heat
      </text>
      <text x={mid + 8} y={height - 20}>
        brings heat, kJ
      </text>
      {rows.map((r, i) => {
        const at = top + 22 + i * step;
        const a = Math.min(mid, x(r.joules));
        const w = Math.abs(x(r.joules) - mid);
        return (
          <g key={r.name}>
            <Name name={r.name} x={left} y={at + 18} most={narrow ? 17 : 24} />
            <rect
              x={a}
              y={at + 3}
              width={Math.max(w, 1)}
              height={step - 14}
              fill={r.joules > 0 ? "var(--ink)" : "var(--paper)"}
              stroke="var(--ink)"
              strokeWidth={2}
              className="bar"
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
    </>
  );
}

/** A name whole: on one line, or smaller on as many as it takes, about the middle of its row. */
function Name({ name, x, y, most }: { name: string; x: number; y: number; most: number }) {
  const lines = wrapped(name, name.length > most - 2 ? most : name.length);
  const size = lines.length === 1 ? 17 : lines.length === 2 ? 15 : 13;
  return (
    <text x={x} className="strong" style={{ fontSize: size }}>
      {lines.map((line, i) => (
        <tspan key={i} x={x} y={y + (i - (lines.length - 1) / 2) * size}>
          {line}
        </tspan>
      ))}
    </text>
  );
}
const signed = (kj: number): string => `${kj < 0 ? "−" : "+"}${Math.abs(kj).toFixed(1)}`;
