import { heatColour } from "../theme/temperature";
import { apart } from "../words/scale";
import { SAY } from "../words/say/instruments";
import { Grip } from "./Grip";
import { type Part, type RiseFrame, type RiseProps, within } from "./riseShapes";

type Hold = (holding: boolean) => void;

const QUARTER = 15 * 60e3;
const PLATE_H = 28;
/** Width of a letter of a plate's words [px]. */
export const LETTER = 9.6;

const gripOf = (p: RiseProps, f: RiseFrame, onHold: Hold) => ({
  x: (t: number) => within(f, t),
  t: (px: number) => f.x.invert(px).getTime(),
  onHold,
  say: p.clock,
});

/** The stay in the fridge with a handle at each end; it never gets shorter than a quarter of an hour. */
export function ColdStay({ cold, p, f, onHold }: Part & { cold: { into: number; out: number }; onHold: Hold }) {
  const [a, b] = [within(f, cold.into), within(f, cold.out)];
  const { onCold } = p;
  const grip = { ...gripOf(p, f, onHold), y: f.coldY + 20 };
  const words = `fridge ${p.clock(cold.into)} to ${p.clock(cold.out)}`;
  const on = b - a > words.length * 8.6 + 48;
  const before = a - f.left > words.length * 8.6 + 30;
  return (
    <g>
      <rect
        x={a}
        y={f.coldY + 8}
        width={Math.max(b - a, 2)}
        height={24}
        fill={heatColour(4)}
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
      <text
        x={on ? (a + b) / 2 : before ? a - 26 : b + 26}
        y={f.coldY + 26}
        textAnchor={on ? "middle" : before ? "end" : "start"}
        style={on ? { fill: "#FBF8F0" } : undefined}
      >
        {words}
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
            label={SAY.outOfTheFridge}
            at={cold.out}
            onMove={(t) => onCold(cold.into, Math.max(t, cold.into + QUARTER))}
          />
        </>
      )}
    </g>
  );
}

/** The plates of now and of serving above the plot, apart from each other, each with its needle; serving is a handle. */
export function Plates({ p, f, onHold }: Part & { onHold: Hold }) {
  const shows = p.now > (p.points[0]?.t ?? p.now) && p.now < f.end;
  const [nowX, serveX] = [f.x(p.now), f.x(p.serve)];
  const nowWords = p.clock(p.now);
  const serveWords = f.narrow ? p.clock(p.serve) : `serve at ${p.clock(p.serve)}`;
  const wide = { now: nowWords.length * LETTER + 12, serve: serveWords.length * LETTER + (p.onServe ? 46 : 16) };
  const both = [
    ...(shows ? [{ id: "now", at: nowX, wide: wide.now }] : []),
    { id: "serve", at: serveX, wide: wide.serve },
  ].sort((a, b) => a.at - b.at);
  const centres = apart(both, f.fold ? f.fold.x + f.fold.gap : f.left - 20, p.width, 8);
  const centre = (id: string) => centres[both.findIndex((b) => b.id === id)]!;
  const serveAt = centre("serve");
  const y = 2;
  return (
    <g>
      <line
        x1={serveX}
        x2={serveX}
        y1={f.top - 8}
        y2={f.bottom}
        stroke="var(--brass)"
        strokeWidth={2}
        strokeDasharray="6 5"
      />
      <path d={`M${serveX - 8} ${y + PLATE_H}h16l-8 9z`} fill="var(--ink)" />
      <rect
        x={serveAt - wide.serve / 2}
        y={y}
        width={wide.serve}
        height={PLATE_H}
        fill="var(--brass-fill)"
        stroke="var(--fill-edge)"
        strokeWidth={2}
      />
      <text
        x={serveAt - wide.serve / 2 + 8}
        y={y + 20}
        className="strong"
        style={{ fill: "var(--on-fill)" }}
        data-plate="serve"
      >
        {serveWords}
      </text>
      {p.onServe && (
        <Grip
          {...gripOf(p, f, onHold)}
          x={() => serveAt + wide.serve / 2 - 18}
          grab={serveX}
          label="Serve at"
          at={p.serve}
          y={y + PLATE_H / 2}
          onMove={p.onServe}
        />
      )}
      {shows && (
        <>
          <line x1={nowX} x2={nowX} y1={f.top - 8} y2={f.bottom} stroke="var(--brass)" strokeWidth={3} />
          <line x1={nowX} x2={nowX} y1={f.heatTop} y2={f.heatBottom} stroke="var(--brass)" strokeWidth={3} />
          <path d={`M${nowX - 7} ${f.heatBottom + 9}h14l-7 -9z`} fill="var(--brass)" />
          <rect
            x={centre("now") - wide.now / 2}
            y={y}
            width={wide.now}
            height={PLATE_H}
            fill="var(--brass-fill)"
            stroke="var(--brass)"
            strokeWidth={2}
          />
          <path d={`M${centre("now")} ${y + PLATE_H}L${nowX} ${f.top - 6}`} stroke="var(--brass)" strokeWidth={3} />
          <text
            x={centre("now")}
            y={y + 20}
            textAnchor="middle"
            className="mono"
            style={{ fontWeight: 700, fontSize: 17, fill: "var(--on-fill)" }}
          >
            {nowWords}
          </text>
        </>
      )}
    </g>
  );
}
