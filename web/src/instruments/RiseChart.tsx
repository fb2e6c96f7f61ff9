import { scaleLinear, scaleTime } from "d3-scale";
import { area, line } from "d3-shape";
import { heatColour } from "../theme/temperature";
import { Jar } from "./Jar";

export interface RisePoint {
  t: number;
  ratio: number;
  low: number;
  high: number;
  doughC: number;
}
export interface RiseWindow {
  name: string;
  begins: number;
  target: number;
  ready: number | null;
  from: number | null;
  to: number | null;
  tooFar: number | null;
}
interface Props {
  width: number;
  points: readonly RisePoint[];
  windows: readonly RiseWindow[];
  readings: readonly { t: number; ratio: number; id: number }[];
  now: number;
  serve: number;
  ratioNow: number | null;
  doughNow: number | null;
  stage: number;
  clock: (t: number) => string;
  degrees: (c: number) => string;
}

const H = 276;
const PLOT = { top: 18, bottom: 162 };
const WINDOWS_Y = 182;
const TEMP = { top: 218, bottom: 252 };

/** The jar beside the rise curve, over the dough's temperature; windows as spindles under the plot. */
export function RiseChart(p: Props) {
  const narrow = p.width < 640;
  const jarW = narrow ? 0 : 118;
  const left = narrow ? 24 : 262;
  const right = p.width - 14;
  const current = p.windows[p.stage] ?? p.windows[0];
  const last = p.points.at(-1)?.t ?? p.now;
  const ends = p.windows.flatMap((w) => [w.to ?? 0]);
  const begin = p.points[0]?.t ?? p.now;
  const end = Math.max(last, p.serve, Math.min(Math.max(...ends, 0), last + 3600e3)) + 6 * 60e3;
  const x = scaleTime().domain([begin, end]).range([left, right]);
  const top = Math.max(...p.points.map((q) => q.high), ...p.windows.map((w) => w.target), 1.5) * 1.06;
  const y = scaleLinear().domain([0.9, top]).range([PLOT.bottom, PLOT.top]);
  const temps = p.points.map((q) => q.doughC);
  const tMin = Math.min(...temps) - 1;
  const tMax = Math.max(...temps) + 1;
  const yT = scaleLinear().domain([tMin, tMax]).range([TEMP.bottom, TEMP.top]);
  // a knock-back is two points at one instant: the curve is drawn in one stretch per stage
  const stretches = split(p.points);
  const band = area<RisePoint>().x((q) => x(q.t)).y0((q) => y(q.low)).y1((q) => y(q.high));
  const curve = line<RisePoint>().x((q) => x(q.t)).y((q) => y(q.ratio));
  const hours = x.ticks(narrow ? 4 : 9);
  const nowX = x(p.now);
  const shown = p.now > begin && p.now < end;
  return (
    <svg width={p.width} height={H} role="img" aria-label="Rise curve with its band, windows and dough temperature. The table below holds the same.">
      {hours.map((h) => (
        <g key={h.getTime()}>
          <line x1={x(h)} x2={x(h)} y1={PLOT.top - 8} y2={TEMP.bottom} stroke="var(--hair)" />
          <text x={x(h)} y={H - 6} textAnchor={x(h) > right - 40 ? "end" : "middle"} className="mono tick">{p.clock(h.getTime())}</text>
        </g>
      ))}
      {stretches.map((s, i) => (
        <g key={i}>
          <path d={band(s) ?? ""} fill="var(--recess)" stroke="var(--hair-2)" strokeWidth={1} />
          <path d={curve(s) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
        </g>
      ))}
      {p.windows.map((w, i) => {
        const stop = p.windows[i + 1]?.begins ?? end;
        const x1 = i === p.stage && !narrow ? 0 : x(w.begins);
        return (
          <g key={w.name}>
            <line x1={x1} x2={x(Math.min(stop, end))} y1={y(w.target)} y2={y(w.target)} stroke="var(--ink)" strokeWidth={i === p.stage ? 2.5 : 1.5} strokeDasharray={i === p.stage ? undefined : "2 4"} />
            <text x={x(w.begins) + 6} y={y(w.target) - 6} className={i === p.stage ? "strong" : ""}>{w.name} {w.target}×</text>
          </g>
        );
      })}
      {p.windows.map((w, i) => <Spindle key={w.name} w={w} i={i} x={x} left={left} end={end} p={p} />)}
      {p.readings.map((r) => (
        <g key={r.id} transform={`translate(${x(r.t)},${y(r.ratio)})`}>
          <line y1={-13} y2={13} stroke="var(--ink)" strokeWidth={1.5} />
          <circle r={7} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2.5} />
        </g>
      ))}
      <g>
        {p.points.slice(1).map((q, i) => {
          const a = p.points[i]!;
          const wide = x(q.t) - x(a.t);
          return wide > 0 ? <rect key={i} x={x(a.t)} width={wide + 0.6} y={yT(q.doughC)} height={TEMP.bottom - yT(q.doughC)} fill={heatColour(q.doughC)} /> : null;
        })}
        <path d={line<RisePoint>().x((q) => x(q.t)).y((q) => yT(q.doughC))([...p.points]) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
        <line x1={left} x2={right} y1={TEMP.bottom} y2={TEMP.bottom} stroke="var(--ink)" strokeWidth={2} />
        <text x={x(begin) + 6} y={TEMP.bottom - 8} className="halo strong">dough {p.degrees(temps[0] ?? 0)}</text>
        <text x={x(last) - 6} y={TEMP.bottom - 8} textAnchor="end" className="halo strong">{p.degrees(temps.at(-1) ?? 0)}</text>
      </g>
      <line x1={x(p.serve)} x2={x(p.serve)} y1={PLOT.top} y2={TEMP.bottom} stroke="var(--brass)" strokeWidth={2} strokeDasharray="6 5" />
      <text x={x(p.serve) - 6} y={PLOT.top + 4} textAnchor="end" className="strong halo">table {p.clock(p.serve)}</text>
      {shown && (
        <g>
          <line x1={nowX} x2={nowX} y1={PLOT.top - 12} y2={TEMP.bottom} stroke="var(--brass)" strokeWidth={3} />
          <path d={`M${nowX - 8} ${PLOT.top - 14}h16l-8 11z`} fill="var(--brass)" />
        </g>
      )}
      {jarW > 0 && current && (
        <g transform="translate(34,0)">
          <Jar y={y} bottom={PLOT.bottom + 8} top={PLOT.top - 6} width={jarW} level={p.ratioNow} ready={current.target} tooFar={null} doughC={p.doughNow ?? 21} />
          <text x={jarW + 16} y={y(current.target) - 8} className="strong">ready</text>
          <text x={jarW + 16} y={y(1) - 6}>start</text>
        </g>
      )}
    </svg>
  );
}

function Spindle({ w, i, x, left, end, p }: { w: RiseWindow; i: number; x: (t: number) => number; left: number; end: number; p: Props }) {
  if (w.ready === null) return <text x={left} y={WINDOWS_Y + i * 18}>{w.name}: does not get there</text>;
  const a = x(w.ready);
  const b = x(w.from ?? w.ready);
  const c = x(Math.min(w.to ?? w.ready, end));
  const d = x(Math.min(w.tooFar ?? end, end));
  const at = WINDOWS_Y + i * 18;
  const label = `${w.name}: ready ${p.clock(w.ready)}`;
  const before = a - left > 190;
  const past = i < p.stage;
  return (
    <g>
      <path d={`M${a} ${at}L${b} ${at - 9}H${c}L${d} ${at}L${c} ${at + 9}H${b}Z`} fill={past ? "var(--recess)" : "var(--ink)"} stroke="var(--ink)" strokeWidth={1} />
      <text x={before ? a - 10 : d + 8} y={at + 6} textAnchor={before ? "end" : "start"} className="halo">{label}</text>
    </g>
  );
}

function split(points: readonly RisePoint[]): RisePoint[][] {
  const out: RisePoint[][] = [[]];
  points.forEach((q, i) => {
    const before = points[i - 1];
    if (before && before.ratio - q.ratio > 0.12) out.push([]);
    out.at(-1)!.push(q);
  });
  return out;
}
