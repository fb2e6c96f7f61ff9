import { area, line } from "d3-shape";
import { useRef, useState } from "react";
import { heatColour } from "../theme/temperature";
import { Grip } from "./Grip";
import { Jar } from "./Jar";
import {
  crowded,
  hourTicks,
  type RiseFrame,
  riseFrame,
  type RisePoint,
  riseSpan,
  type RiseWindow,
  spindle,
  stretches,
  strips,
  within,
} from "./riseShapes";

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
type Hold = (holding: boolean) => void;

const QUARTER = 15 * 60e3;
const WINDOWS_Y = 182;

/** The jar beside the rise curve, over the dough's temperature; windows as spindles under the plot. */
export function RiseChart(p: Props) {
  const fits = riseSpan(p.points, p.windows, p.serve, p.now);
  // while a handle is held the picture keeps its scale, so that the handle stays under the finger
  const held = useRef(fits);
  const [holding, setHolding] = useState(false);
  if (!holding) held.current = fits;
  const f = riseFrame(p.width, held.current, p.points, p.windows, Boolean(p.cold));
  const hours = hourTicks(f);
  return (
    <svg
      width={p.width}
      height={f.height}
      role={p.onServe ? "group" : "img"}
      aria-label="Rise curve with its band, windows and dough temperature. The table below holds the same."
    >
      {hours.map((h) => (
        <g key={h}>
          <line x1={f.x(h)} x2={f.x(h)} y1={f.top - 8} y2={f.heatBottom} stroke="var(--hair)" />
          <text x={f.x(h)} y={f.height - 6} textAnchor="middle" className="mono tick">
            {p.clock(h)}
          </text>
        </g>
      ))}
      <clipPath id="rise-plot">
        <rect x={f.left} y={0} width={f.right - f.left + 14} height={f.height} />
      </clipPath>
      <Curves p={p} f={f} />
      <Targets p={p} f={f} />
      {p.windows.map((w, i) => (
        <Spindle key={w.name} w={w} i={i} f={f} p={p} />
      ))}
      {p.readings.map((r) => (
        <g key={r.id} transform={`translate(${f.x(r.t)},${f.y(r.ratio)})`}>
          <line y1={-13} y2={13} stroke="var(--ink)" strokeWidth={1.5} />
          <circle r={7} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2.5} />
        </g>
      ))}
      <DoughHeat p={p} f={f} />
      <Serving p={p} f={f} />
      {p.cold && <ColdStay cold={p.cold} p={p} f={f} onHold={setHolding} />}
      {p.onServe && <Grip {...gripOf(p, f, setHolding)} label="Table" at={p.serve} y={f.top + 18} onMove={p.onServe} />}
      <NowMark p={p} f={f} />
      {!f.narrow && <JarBeside p={p} f={f} />}
    </svg>
  );
}

interface Part {
  p: Props;
  f: RiseFrame;
}
const gripOf = (p: Props, f: RiseFrame, onHold: Hold) => ({
  x: (t: number) => within(f, t),
  t: (px: number) => f.x.invert(px).getTime(),
  onHold,
  say: p.clock,
});

/** The band and the curve, one stretch per stage, and the curve as it stood while another is tried. */
function Curves({ p, f }: Part) {
  const band = area<RisePoint>()
    .x((q) => f.x(q.t))
    .y0((q) => f.y(q.low))
    .y1((q) => f.y(q.high));
  const curve = line<RisePoint>()
    .x((q) => f.x(q.t))
    .y((q) => f.y(q.ratio));
  return (
    <g clipPath="url(#rise-plot)">
      {(p.ghost ? stretches(p.ghost) : []).map((s, i) => (
        <path key={i} d={curve(s) ?? ""} fill="none" stroke="var(--hair-2)" strokeWidth={2} strokeDasharray="3 5" />
      ))}
      {stretches(p.points).map((s, i) => (
        <g key={i}>
          <path d={band(s) ?? ""} fill="var(--recess)" stroke="var(--hair-2)" strokeWidth={1} />
          <path d={curve(s) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
        </g>
      ))}
    </g>
  );
}

/** The height each stage rises to, across its own stretch of time. */
function Targets({ p, f }: Part) {
  return p.windows.map((w, i) => {
    const stop = p.windows[i + 1]?.begins ?? f.end;
    if (stop <= f.from) return null;
    const begins = f.x(Math.max(w.begins, f.from));
    const here = i === p.stage;
    return (
      <g key={w.name}>
        <line
          x1={here && !f.narrow ? 0 : begins}
          x2={f.x(Math.min(stop, f.end))}
          y1={f.y(w.target)}
          y2={f.y(w.target)}
          stroke="var(--ink)"
          strokeWidth={here ? 2.5 : 1.5}
          strokeDasharray={here ? undefined : "2 4"}
        />
        <text x={begins + 6} y={f.y(w.target) + (crowded(f, p.windows, i) ? 20 : -6)} className={here ? "strong" : ""}>
          {w.name} {w.target}×
        </text>
      </g>
    );
  });
}

function Spindle({ w, i, p, f }: Part & { w: RiseWindow; i: number }) {
  const at = WINDOWS_Y + i * 18;
  if (w.ready === null)
    return (
      <text x={f.left} y={at}>
        {w.name}: does not get there
      </text>
    );
  const s = spindle(f, { ...w, ready: w.ready });
  return (
    <g>
      <path
        d={`M${s.ready} ${at}L${s.from} ${at - 9}H${s.to}L${s.tooFar} ${at}L${s.to} ${at + 9}H${s.from}Z`}
        fill={i < p.stage ? "var(--recess)" : "var(--ink)"}
        stroke="var(--ink)"
        strokeWidth={1}
      />
      <text x={s.words} y={at + 6} textAnchor={s.anchor} className="halo">
        {w.name}: ready {p.clock(w.ready)}
      </text>
    </g>
  );
}

/** The dough's temperature through the rise: strips in its colours under a line. */
function DoughHeat({ p, f }: Part) {
  const first = p.points[0];
  const last = p.points.at(-1);
  const path = line<RisePoint>()
    .x((q) => f.x(q.t))
    .y((q) => f.heat(q.doughC));
  return (
    <g clipPath="url(#rise-plot)">
      {strips(p.points).map((q, i, all) => {
        const a = all[i - 1] ?? q;
        const wide = f.x(q.t) - f.x(a.t);
        return wide > 0 ? (
          <rect
            key={i}
            x={f.x(a.t)}
            width={wide + 0.6}
            y={f.heat(q.doughC)}
            height={f.heatBottom - f.heat(q.doughC)}
            fill={heatColour(q.doughC)}
          />
        ) : null;
      })}
      <path d={path([...p.points]) ?? ""} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
      <line x1={f.left} x2={f.right} y1={f.heatBottom} y2={f.heatBottom} stroke="var(--ink)" strokeWidth={2} />
      <text x={f.x(Math.max(first?.t ?? p.now, f.from)) + 6} y={f.heatBottom - 8} className="halo strong">
        dough {p.degrees(first?.doughC ?? 0)}
      </text>
      <text x={f.x(last?.t ?? p.now) - 6} y={f.heatBottom - 8} textAnchor="end" className="halo strong">
        {p.degrees(last?.doughC ?? 0)}
      </text>
    </g>
  );
}

function Serving({ p, f }: Part) {
  const x = f.x(p.serve);
  return (
    <>
      <line x1={x} x2={x} y1={f.top} y2={f.heatBottom} stroke="var(--brass)" strokeWidth={2} strokeDasharray="6 5" />
      <text x={x - 14} y={f.top + 4} textAnchor="end" className="strong halo">
        table {p.clock(p.serve)}
      </text>
    </>
  );
}

/** The stay in the fridge with a handle at each end; it never gets shorter than a quarter of an hour. */
function ColdStay({ cold, p, f, onHold }: Part & { cold: { into: number; out: number }; onHold: Hold }) {
  const [a, b] = [within(f, cold.into), within(f, cold.out)];
  const heatTop = f.heat.range()[1]!;
  const { onCold } = p;
  const grip = { ...gripOf(p, f, onHold), y: heatTop - 26 };
  return (
    <g>
      <rect
        x={a}
        y={heatTop - 30}
        width={Math.max(b - a, 2)}
        height={8}
        fill={heatColour(4)}
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
      <text x={(a + b) / 2} y={heatTop - 8} textAnchor="middle" className="halo">
        fridge {p.clock(cold.into)} to {p.clock(cold.out)}
      </text>
      {onCold && (
        <>
          <Grip
            {...grip}
            label="Into the fridge"
            at={cold.into}
            onMove={(t) => onCold(Math.min(t, cold.out - QUARTER), cold.out)}
          />
          <Grip
            {...grip}
            label="Out of the fridge"
            at={cold.out}
            onMove={(t) => onCold(cold.into, Math.max(t, cold.into + QUARTER))}
          />
        </>
      )}
    </g>
  );
}

function NowMark({ p, f }: Part) {
  if (p.now <= (p.points[0]?.t ?? p.now) || p.now >= f.end) return null;
  const x = f.x(p.now);
  return (
    <g>
      <line x1={x} x2={x} y1={f.top - 12} y2={f.heatBottom} stroke="var(--brass)" strokeWidth={3} />
      <path d={`M${x - 8} ${f.top - 14}h16l-8 11z`} fill="var(--brass)" />
    </g>
  );
}

const JAR_W = 118;

function JarBeside({ p, f }: Part) {
  const current = p.windows[p.stage] ?? p.windows[0];
  if (!current) return null;
  return (
    <g transform="translate(34,0)">
      <Jar
        y={f.y}
        bottom={f.bottom + 8}
        top={f.top - 6}
        width={JAR_W}
        level={p.ratioNow}
        ready={current.target}
        tooFar={null}
        doughC={p.doughNow ?? 21}
      />
      <text x={JAR_W + 16} y={f.y(current.target) - 8} className="strong">
        ready
      </text>
      <text x={JAR_W + 16} y={f.y(1) - 6}>
        start
      </text>
    </g>
  );
}
