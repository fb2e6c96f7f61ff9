import { area, line } from "d3-shape";
import { useRef, useState } from "react";
import { heatColour } from "../theme/temperature";
import { apart } from "../words/scale";
import { Glyph, GLYPH_OF_STEP } from "./Glyph";
import { Jar } from "./Jar";
import { ColdStay, LETTER, Plates } from "./RiseHandles";
import {
  hourTicks,
  laneWords,
  type Part,
  riseFrame,
  type RisePoint,
  type RiseProps,
  riseSpan,
  type RiseWindow,
  spindle,
  stretches,
  strips,
  windowLane,
  within,
} from "./riseShapes";
import { SAY } from "../words/say/instruments";

/**
 * The jar beside the rise curve, each kind of words in a lane of its own: plates of now and of serving above the plot, windows,
 * moves, the dough's heat and hours beneath it. The needle of now is cut where words stand.
 */
export function RiseChart(p: RiseProps) {
  const fits = riseSpan(p.points, p.windows, p.serve, p.now);
  // while a handle is held the picture keeps its scale, so that the handle stays under the finger
  const held = useRef(fits);
  const [holding, setHolding] = useState(false);
  if (!holding) held.current = fits;
  const ahead = p.windows.slice(p.stage);
  const f = riseFrame(p.width, held.current, p.points, p.windows, {
    ahead: ahead.length,
    cold: Boolean(p.cold),
    moves: (p.moves ?? []).length > 0,
    over: p.stage > 0 ? (p.windows[p.stage]?.begins ?? null) : null,
  });
  return (
    <svg
      width={p.width}
      height={f.height}
      role={p.onServe ? "group" : "img"}
      aria-label={SAY.riseCurveWithItsBandWindows}
    >
      {hourTicks(f, p.clock(f.end).length * LETTER + 14).map((h) => (
        <g key={h}>
          <line x1={f.x(h)} x2={f.x(h)} y1={f.top} y2={f.bottom} stroke="var(--hair)" />
          <line x1={f.x(h)} x2={f.x(h)} y1={f.heatBottom} y2={f.heatBottom + 5} stroke="var(--ink)" />
          <text x={f.x(h)} y={f.height - 4} textAnchor="middle" className="mono tick">
            {p.clock(h)}
          </text>
        </g>
      ))}
      <clipPath id="rise-plot">
        <rect x={f.left} y={0} width={f.right - f.left} height={f.height} />
      </clipPath>
      <Folded p={p} f={f} />
      <Curves p={p} f={f} />
      <Targets p={p} f={f} />
      {ahead.map((w, i) => (
        <Spindle key={w.name} w={w} lane={i} named={ahead.length > 1} f={f} p={p} />
      ))}
      {p.readings.map((r) => (
        <g key={r.id} transform={`translate(${f.x(r.t)},${f.y(r.ratio)})`}>
          <line y1={-13} y2={13} stroke="var(--ink)" strokeWidth={1.5} />
          <circle r={7} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2.5} />
        </g>
      ))}
      <DoughHeat p={p} f={f} />
      <Moves p={p} f={f} />
      {p.cold && <ColdStay cold={p.cold} p={p} f={f} onHold={setHolding} />}
      <Plates p={p} f={f} onHold={setHolding} />
      {!f.narrow && <JarBeside p={p} f={f} />}
    </svg>
  );
}
/** A stage that is over, in a strip of its own with its name, torn off from what is ahead. */
function Folded({ p, f }: Part) {
  if (!f.fold) return null;
  const { x, gap } = f.fold;
  const over = p.windows[p.stage - 1];
  const zigzag = (at: number) =>
    `M${at} ${f.top}${Array.from({ length: 9 }, (_, i) => `l${i % 2 ? -6 : 6} ${(f.bottom - f.top) / 9}`).join("")}`;
  return (
    <g>
      <rect x={f.left} y={f.top} width={x - f.left} height={f.bottom - f.top} fill="var(--recess)" opacity={0.6} />
      <text x={f.left + 6} y={f.top - 8} className="tick">
        {over?.name ?? ""} to {over?.target}×
      </text>
      <path d={zigzag(x + gap / 2 - 5)} fill="none" stroke="var(--hair-2)" strokeWidth={1.5} />
      <path d={zigzag(x + gap / 2 + 3)} fill="none" stroke="var(--hair-2)" strokeWidth={1.5} />
    </g>
  );
}

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

/** The height each stage rises to, across its own stretch of time, its figure at the right edge. */
function Targets({ p, f }: Part) {
  const shown = p.windows.map((w, i) => ({ w, i })).filter(({ w }) => (f.fold ? w.begins >= f.fold.until : true));
  const heights = shown.map(({ w }, n) => ({ at: f.y(w.target), wide: 17, n }));
  const sorted = [...heights].sort((a, b) => a.at - b.at);
  const placed = apart(sorted, f.top - 8, f.bottom + 8, 0);
  const figureY = (n: number) => placed[sorted.findIndex((h) => h.n === n)]!;
  return shown.map(({ w, i }, n) => {
    const stop = p.windows[i + 1]?.begins ?? f.end;
    if (stop <= f.from) return null;
    const here = i === p.stage;
    return (
      <g key={w.name}>
        <line
          x1={here && !f.narrow ? f.left - 84 : f.x(Math.max(w.begins, f.from))}
          x2={f.x(Math.min(stop, f.end))}
          y1={f.y(w.target)}
          y2={f.y(w.target)}
          stroke="var(--ink)"
          strokeWidth={here ? 2.5 : 1.5}
          strokeDasharray={here ? undefined : "2 4"}
        />
        {!f.narrow && (
          <text x={f.right + 6} y={figureY(n) + 6} className={here ? "strong" : ""}>
            {w.target}×
          </text>
        )}
      </g>
    );
  });
}

function Spindle({ w, lane, named, p, f }: Part & { w: RiseWindow; lane: number; named: boolean }) {
  const at = windowLane(f, lane);
  const name = named ? `${w.name}: ` : "";
  if (w.ready === null)
    return (
      <text x={f.fold ? f.fold.x + f.fold.gap : f.left} y={at + 6}>
        {w.name} {SAY.doesNotGetThere}
      </text>
    );
  const s = spindle(f, { ...w, ready: w.ready });
  const words = laneWords(f, s, {
    ready: `${name}ready ${p.clock(w.ready)}`,
    best: w.from !== null && w.to !== null ? `best from ${p.clock(w.from)} to ${p.clock(w.to)}` : "",
    short: w.to !== null ? `best until ${p.clock(w.to)}` : "",
    far: w.tooFar !== null && w.tooFar < f.end ? `too ripe ${p.clock(w.tooFar)}` : "",
  });
  return (
    <g>
      <path
        d={`M${s.ready} ${at}L${s.from} ${at - 10}H${s.to}L${s.tooFar} ${at}L${s.to} ${at + 10}H${s.from}Z`}
        fill={lane === 0 ? "var(--ink)" : "var(--recess)"}
        stroke="var(--ink)"
        strokeWidth={1}
      />
      {words.map((x) => (
        <text
          key={x.text}
          x={x.x}
          y={at + 6}
          textAnchor={x.anchor}
          className={x.on ? "" : "strong"}
          style={x.on && lane === 0 ? { fill: "var(--ground)" } : undefined}
        >
          {x.text}
        </text>
      ))}
    </g>
  );
}

/** The dough's temperature through the rise: strips in its colours under a line, its figures at the edges. */
function DoughHeat({ p, f }: Part) {
  const last = p.points.at(-1);
  const first = p.points[0];
  const path = line<RisePoint>()
    .x((q) => f.x(q.t))
    .y((q) => f.heat(q.doughC));
  return (
    <g>
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
      </g>
      <line x1={f.left} x2={f.right} y1={f.heatBottom} y2={f.heatBottom} stroke="var(--ink)" strokeWidth={2} />
      {f.narrow ? (
        <text x={f.left + 4} y={f.heatBottom - 8} className="halo strong">
          dough {p.degrees(p.doughNow ?? first?.doughC ?? 0)}
        </text>
      ) : (
        <>
          <text x={f.left - 12} y={f.heatBottom - 8} textAnchor="end">
            dough {p.degrees(p.doughNow ?? first?.doughC ?? 0)}
          </text>
          <text x={f.right + 6} y={f.heatBottom - 8} className="tick">
            {p.degrees(last?.doughC ?? 0).replace(/ ?°?[CF]$/, "°")}
          </text>
        </>
      )}
    </g>
  );
}

const HEAD = 30;

/** The moves of the rise as heads in a lane of their own, a ray to the time of each. */
function Moves({ p, f }: Part) {
  const all = [...(p.moves ?? [])].filter((m) => m.at >= f.from && m.at <= f.end).sort((a, b) => a.at - b.at);
  if (all.length === 0) return null;
  const heads = apart(
    all.map((m) => ({ at: within(f, m.at), wide: HEAD })),
    f.left - 4,
    f.right + 8,
    3,
  );
  const y = f.movesY;
  return (
    <g aria-hidden="true">
      {!f.narrow && (
        <text x={f.left - 12} y={y + 21} textAnchor="end" className="tick">
          moves
        </text>
      )}
      <line x1={f.left} x2={f.right} y1={f.heatTop - 4} y2={f.heatTop - 4} stroke="var(--hair-2)" />
      {all.map((m, i) => (
        <g key={m.key} style={{ color: m.done ? "var(--ink-2)" : m.next ? "var(--on-fill)" : "var(--ink)" }}>
          <path
            d={`M${heads[i]!} ${y + HEAD}L${within(f, m.at)} ${f.heatTop - 4}`}
            stroke={m.done ? "var(--hair-2)" : "var(--ink)"}
            strokeWidth={m.next ? 2.5 : 1.5}
          />
          <rect
            x={heads[i]! - HEAD / 2}
            y={y}
            width={HEAD}
            height={HEAD}
            fill={m.next ? "var(--brass-fill)" : m.done ? "var(--recess)" : "var(--paper)"}
            stroke={m.done ? "var(--hair-2)" : "var(--ink)"}
            strokeWidth={m.next ? 2 : 1.5}
          />
          <g transform={`translate(${heads[i]! - 11},${y + 4})`}>
            <Glyph name={GLYPH_OF_STEP[m.key] ?? "mix"} size={22} />
          </g>
        </g>
      ))}
    </g>
  );
}

const JAR_W = 112;

function JarBeside({ p, f }: Part) {
  const current = p.windows[p.stage] ?? p.windows[0];
  if (!current) return null;
  return (
    <g transform="translate(30,0)">
      <Jar
        y={f.y}
        bottom={f.bottom + 8}
        top={f.top - 8}
        width={JAR_W}
        level={p.ratioNow}
        ready={current.target}
        tooFar={null}
        doughC={p.doughNow ?? 21}
      />
      <text x={JAR_W + 12} y={f.y(current.target) - 8} className="strong">
        ready
      </text>
      <text x={JAR_W + 12} y={Math.max(f.y(1) - 2, f.y(current.target) + 18)}>
        start
      </text>
    </g>
  );
}
