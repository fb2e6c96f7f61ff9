import { scaleLinear, scaleTime } from "d3-scale";
import { area, line } from "d3-shape";
import { useRef, useState } from "react";
import { Grip } from "./Grip";
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
  /** The curve as it stands, while another is tried. */
  ghost?: readonly RisePoint[];
  cold?: { into: number; out: number } | null;
  onServe?: (t: number) => void;
  onCold?: (into: number, out: number) => void;
}

const H = 276;
const COLD_H = 30;
const MINUTE = 60e3;
const PLOT = { top: 18, bottom: 162 };
const WINDOWS_Y = 182;
const TEMP_H = 34;

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
  const fits: [number, number] = [
    begin,
    Math.max(last, p.serve, Math.min(Math.max(...ends, 0), last + 3600e3)) + 6 * MINUTE,
  ];
  // while a handle is held the picture keeps its scale, so that the handle stays under the finger
  const held = useRef(fits);
  const [holding, setHolding] = useState(false);
  if (!holding) held.current = fits;
  const [from, end] = held.current;
  const x = scaleTime().domain([from, end]).range([left, right]);
  const inside = (t: number) => Math.min(Math.max(x(t), left), right);
  const grip = { x: inside, t: (px: number) => x.invert(px).getTime(), onHold: setHolding, say: p.clock };
  const top = Math.max(...p.points.map((q) => q.high), ...p.windows.map((w) => w.target), 1.5) * 1.06;
  const y = scaleLinear().domain([0.9, top]).range([PLOT.bottom, PLOT.top]);
  const temps = p.points.map((q) => q.doughC);
  const tMin = Math.min(...temps) - 2;
  const tMax = Math.max(...temps) + 1;
  // a knock-back is two points at one instant: the curve is drawn in one stretch per stage
  const stretches = split(p.points);
  const ghosts = p.ghost ? split(p.ghost) : [];
  const band = area<RisePoint>()
    .x((q) => x(q.t))
    .y0((q) => y(q.low))
    .y1((q) => y(q.high));
  const curve = line<RisePoint>()
    .x((q) => x(q.t))
    .y((q) => y(q.ratio));
  const TEMP = { top: 218 + (p.cold ? COLD_H : 0), bottom: 218 + TEMP_H + (p.cold ? COLD_H : 0) };
  const height = H + (p.cold ? COLD_H : 0);
  const yT = scaleLinear().domain([tMin, tMax]).range([TEMP.bottom, TEMP.top]);
  const days = end - from > 20 * 3600e3;
  const hours = x.ticks(Math.max(3, Math.floor((right - left) / (days ? 150 : 84)))).filter((h) => x(h) < right - 30);
  // two targets near each other, of stages that begin close together: the second one's words go beneath its line
  const crowded = (i: number) => {
    const [a, b] = [p.windows[i - 1], p.windows[i]];
    return (
      a !== undefined &&
      b !== undefined &&
      Math.abs(y(a.target) - y(b.target)) < 22 &&
      x(b.begins) - x(Math.max(a.begins, from)) < 110
    );
  };
  const nowX = x(p.now);
  const shown = p.now > begin && p.now < end;
  return (
    <svg
      width={p.width}
      height={height}
      role={p.onServe ? "group" : "img"}
      aria-label="Rise curve with its band, windows and dough temperature. The table below holds the same."
    >
      {hours.map((h) => (
        <g key={h.getTime()}>
          <line x1={x(h)} x2={x(h)} y1={PLOT.top - 8} y2={TEMP.bottom} stroke="var(--hair)" />
          <text x={x(h)} y={height - 6} textAnchor="middle" className="mono tick">
            {p.clock(h.getTime())}
          </text>
        </g>
      ))}
      <clipPath id="rise-plot">
        <rect x={left} y={0} width={right - left + 14} height={height} />
      </clipPath>
      <g clipPath="url(#rise-plot)">
        {ghosts.map((s, i) => (
          <path key={i} d={curve(s) ?? ""} fill="none" stroke="var(--hair-2)" strokeWidth={2} strokeDasharray="3 5" />
        ))}
        {stretches.map((s, i) => (
          <g key={i}>
            <path d={band(s) ?? ""} fill="var(--recess)" stroke="var(--hair-2)" strokeWidth={1} />
            <path d={curve(s) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
          </g>
        ))}
      </g>
      {p.windows.map((w, i) => {
        const stop = p.windows[i + 1]?.begins ?? end;
        if (stop <= from) return null;
        const x1 = i === p.stage && !narrow ? 0 : x(Math.max(w.begins, from));
        return (
          <g key={w.name}>
            <line
              x1={x1}
              x2={x(Math.min(stop, end))}
              y1={y(w.target)}
              y2={y(w.target)}
              stroke="var(--ink)"
              strokeWidth={i === p.stage ? 2.5 : 1.5}
              strokeDasharray={i === p.stage ? undefined : "2 4"}
            />
            <text
              x={x(Math.max(w.begins, from)) + 6}
              y={y(w.target) + (crowded(i) ? 20 : -6)}
              className={i === p.stage ? "strong" : ""}
            >
              {w.name} {w.target}×
            </text>
          </g>
        );
      })}
      {p.windows.map((w, i) => (
        <Spindle key={w.name} w={w} i={i} x={x} left={left} end={end} p={p} />
      ))}
      {p.readings.map((r) => (
        <g key={r.id} transform={`translate(${x(r.t)},${y(r.ratio)})`}>
          <line y1={-13} y2={13} stroke="var(--ink)" strokeWidth={1.5} />
          <circle r={7} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2.5} />
        </g>
      ))}
      <g clipPath="url(#rise-plot)">
        {strips(p.points).map((q, i, all) => {
          const a = all[i - 1] ?? q;
          const wide = x(q.t) - x(a.t);
          return wide > 0 ? (
            <rect
              key={i}
              x={x(a.t)}
              width={wide + 0.6}
              y={yT(q.doughC)}
              height={TEMP.bottom - yT(q.doughC)}
              fill={heatColour(q.doughC)}
            />
          ) : null;
        })}
        <path
          d={
            line<RisePoint>()
              .x((q) => x(q.t))
              .y((q) => yT(q.doughC))([...p.points]) ?? ""
          }
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
        <line x1={left} x2={right} y1={TEMP.bottom} y2={TEMP.bottom} stroke="var(--ink)" strokeWidth={2} />
        <text x={x(Math.max(begin, from)) + 6} y={TEMP.bottom - 8} className="halo strong">
          dough {p.degrees(temps[0] ?? 0)}
        </text>
        <text x={x(last) - 6} y={TEMP.bottom - 8} textAnchor="end" className="halo strong">
          {p.degrees(temps.at(-1) ?? 0)}
        </text>
      </g>
      <line
        x1={x(p.serve)}
        x2={x(p.serve)}
        y1={PLOT.top}
        y2={TEMP.bottom}
        stroke="var(--brass)"
        strokeWidth={2}
        strokeDasharray="6 5"
      />
      <text x={x(p.serve) - 14} y={PLOT.top + 4} textAnchor="end" className="strong halo">
        table {p.clock(p.serve)}
      </text>
      {p.cold && (
        <g>
          <rect
            x={inside(p.cold.into)}
            y={TEMP.top - 30}
            width={Math.max(inside(p.cold.out) - inside(p.cold.into), 2)}
            height={8}
            fill={heatColour(4)}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <text
            x={(inside(p.cold.into) + inside(p.cold.out)) / 2}
            y={TEMP.top - 8}
            textAnchor="middle"
            className="halo"
          >
            fridge {p.clock(p.cold.into)} to {p.clock(p.cold.out)}
          </text>
          {p.onCold && (
            <>
              <Grip
                {...grip}
                label="Into the fridge"
                at={p.cold.into}
                y={TEMP.top - 26}
                onMove={(t) => p.onCold!(Math.min(t, p.cold!.out - 15 * MINUTE), p.cold!.out)}
              />
              <Grip
                {...grip}
                label="Out of the fridge"
                at={p.cold.out}
                y={TEMP.top - 26}
                onMove={(t) => p.onCold!(p.cold!.into, Math.max(t, p.cold!.into + 15 * MINUTE))}
              />
            </>
          )}
        </g>
      )}
      {p.onServe && <Grip {...grip} label="Table" at={p.serve} y={PLOT.top + 18} onMove={p.onServe} />}
      {shown && (
        <g>
          <line x1={nowX} x2={nowX} y1={PLOT.top - 12} y2={TEMP.bottom} stroke="var(--brass)" strokeWidth={3} />
          <path d={`M${nowX - 8} ${PLOT.top - 14}h16l-8 11z`} fill="var(--brass)" />
        </g>
      )}
      {jarW > 0 && current && (
        <g transform="translate(34,0)">
          <Jar
            y={y}
            bottom={PLOT.bottom + 8}
            top={PLOT.top - 6}
            width={jarW}
            level={p.ratioNow}
            ready={current.target}
            tooFar={null}
            doughC={p.doughNow ?? 21}
          />
          <text x={jarW + 16} y={y(current.target) - 8} className="strong">
            ready
          </text>
          <text x={jarW + 16} y={y(1) - 6}>
            start
          </text>
        </g>
      )}
    </svg>
  );
}

function Spindle({
  w,
  i,
  x,
  left,
  end,
  p,
}: {
  w: RiseWindow;
  i: number;
  x: (t: number) => number;
  left: number;
  end: number;
  p: Props;
}) {
  if (w.ready === null)
    return (
      <text x={left} y={WINDOWS_Y + i * 18}>
        {w.name}: does not get there
      </text>
    );
  const a = Math.max(x(w.ready), left);
  const b = Math.max(x(w.from ?? w.ready), left);
  const c = Math.max(x(Math.min(w.to ?? w.ready, end)), left);
  const d = x(Math.min(w.tooFar ?? end, end));
  const at = WINDOWS_Y + i * 18;
  const label = `${w.name}: ready ${p.clock(w.ready)}`;
  const before = a - left > 190;
  const after = d < x(end) - 190;
  const past = i < p.stage;
  return (
    <g>
      <path
        d={`M${a} ${at}L${b} ${at - 9}H${c}L${d} ${at}L${c} ${at + 9}H${b}Z`}
        fill={past ? "var(--recess)" : "var(--ink)"}
        stroke="var(--ink)"
        strokeWidth={1}
      />
      <text
        x={before ? a - 10 : after ? d + 8 : x(end) - 4}
        y={at + 6}
        textAnchor={before || !after ? "end" : "start"}
        className="halo"
      >
        {label}
      </text>
    </g>
  );
}

/** Few enough strips of the dough's temperature to be drawn while a finger moves. */
function strips(points: readonly RisePoint[]): readonly RisePoint[] {
  const every = Math.ceil(points.length / 70);
  return points.filter((_, i) => i % every === 0 || i === points.length - 1);
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
