import { type ScaleLinear, scaleLinear } from "d3-scale";
import { useMemo } from "react";
import { heatColour } from "../theme/temperature";
import { spread } from "../words/scale";
import { colourStretches, isoline, layerEdges, pocketLens } from "./carpetShapes";
import { STIPPLE, Stipples } from "./stipple";
import { SAY } from "../words/say/instruments";

interface Pin {
  name: string;
  s: number;
  strong: boolean;
}
interface Props {
  s: readonly number[];
  depthMm: readonly number[];
  tempC: readonly (readonly number[])[];
  pocket: readonly number[];
  bottom: readonly string[];
  top: readonly string[];
  turnS: number | null;
  offS: number;
  pins: readonly Pin[];
  startC: string;
  degrees: (c: number) => string;
  width: number;
}
interface Scales {
  x: ScaleLinear<number, number>;
  y: ScaleLinear<number, number>;
}
const BOX = { top: 74, bottom: 200 };
const SKIN = 14;
const INK = "#21272A"; // the heat's colours are the same by day and by night

/** Time across, depth through the bread up, colour is temperature; isolines, pins, the pocket as a lens. */
export function Carpet(p: Props) {
  const [left, right] = [64, p.width - 12];
  const end = Math.max(p.s.at(-1) ?? 1, p.offS);
  const thick = (p.depthMm.at(-1) ?? 1) + (p.depthMm[0] ?? 0);
  const x = scaleLinear().domain([0, end]).range([left, right]);
  const y = scaleLinear().domain([0, thick]).range([BOX.bottom, BOX.top]);
  const lens = pocketLens(p.pocket, p.s, thick, p.offS).map(([s, d]) => `${x(s)},${y(d)}`);
  return (
    <svg width={p.width} height={266} role="img" aria-label={SAY.howHeatGoesThroughTheBread}>
      <defs>
        <pattern id="left-on" width="12" height="12" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2.500" height="12" fill="var(--ink)" opacity="0.500" />
        </pattern>
        <Stipples />
      </defs>
      <Heat p={p} x={x} y={y} thick={thick} />
      <rect
        x={left}
        y={BOX.top}
        width={right - left}
        height={BOX.bottom - BOX.top}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <path
        d={lens.length ? `M${lens.join("L")}Z` : ""}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={2}
        data-testid="pocket"
      />
      <Isolines p={p} x={x} y={y} />
      <LeftOn from={x(p.offS)} right={right} />
      <Skin words={p.top} s={p.s} x={x} y={BOX.top - SKIN} until={p.offS} />
      <Skin words={p.bottom} s={p.s} x={x} y={BOX.bottom} until={p.offS} />
      <OnSurface p={p} x={x} />
      <Pins p={p} x={x} left={left} right={right} />
      <text x={left - 8} y={BOX.top + 14} textAnchor="end">
        side B
      </text>
      <text x={left - 8} y={BOX.bottom - 4} textAnchor="end">
        side A
      </text>
      <text x={left + 8} y={BOX.top + 22} className="halo strong">
        {p.startC}
      </text>
      {x.ticks(8).map((s) => (
        <g key={s}>
          <line
            x1={x(s)}
            x2={x(s)}
            y1={BOX.bottom + SKIN + 6}
            y2={BOX.bottom + SKIN + 13}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          <text x={x(s)} y={BOX.bottom + 44} textAnchor="middle" className="mono">
            {s}
          </text>
        </g>
      ))}
      <text x={right} y={BOX.bottom + 62} textAnchor="end">
        {SAY.secondsSpecksAreTheColourOf}
      </text>
    </svg>
  );
}

/** A column of coloured layers for each instant. */
function Heat({ p, x, y, thick }: Scales & { p: Props; thick: number }) {
  const edges = useMemo(() => layerEdges(p.depthMm, thick), [p.depthMm, thick]);
  return p.tempC.map((column, i) => {
    const from = x(i === 0 ? 0 : p.s[i - 1]!);
    return (
      <g key={i}>
        {column.map((c, j) => (
          <rect
            key={j}
            x={from}
            width={x(p.s[i]!) - from + 0.7}
            y={y(edges[j + 1]!)}
            height={y(edges[j]!) - y(edges[j + 1]!) + 0.6}
            fill={heatColour(c)}
          />
        ))}
      </g>
    );
  });
}

/** Where the crumb sets and where it steams, with their words. */
function Isolines({ p, x, y }: Scales & { p: Props }) {
  const lines = useMemo(
    () => [
      { at: 0.3, word: "sets", c: 70, dash: undefined, found: isoline(p.tempC, p.depthMm, 70) },
      { at: 0.75, word: "steam", c: 94, dash: "7 5", found: isoline(p.tempC, p.depthMm, 94) },
    ],
    [p.tempC, p.depthMm],
  );
  return lines.map(({ at, word, c, dash, found }) => {
    const there = found.flatMap((d, i) => (d === null ? [] : [{ d, s: p.s[i]! }]));
    const baked = there.filter((q) => q.s < p.offS);
    const here = baked[Math.floor(baked.length * at)];
    return (
      <g key={word}>
        <polyline
          points={there.map((q) => `${x(q.s)},${y(q.d)}`).join(" ")}
          fill="none"
          stroke={INK}
          strokeWidth={2.5}
          strokeDasharray={dash}
        />
        {here && (
          <text x={x(here.s) + 6} y={y(here.d) - 6} className="halo strong">
            {p.degrees(c)} {word}
          </text>
        )}
      </g>
    );
  });
}

/** What would come if it were left on, veiled. */
function LeftOn({ from, right }: { from: number; right: number }) {
  const box = { x: from, y: BOX.top, width: right - from, height: BOX.bottom - BOX.top };
  return (
    <>
      <rect {...box} fill="var(--ground)" opacity={0.55} />
      <rect {...box} fill="url(#left-on)" />
      {right - from > 70 && (
        <text x={(from + right) / 2} y={BOX.bottom - 12} textAnchor="middle" className="halo strong">
          if left on
        </text>
      )}
    </>
  );
}

/** The black edges: side A lies on the surface until the turn, side B after it. */
function OnSurface({ p, x }: { p: Props; x: Scales["x"] }) {
  const turn = p.turnS ?? p.offS;
  return (
    <>
      <rect x={x(0)} y={BOX.bottom + SKIN} width={x(turn) - x(0)} height={6} fill="var(--ink)" />
      {p.turnS !== null && (
        <rect x={x(turn)} y={BOX.top - SKIN - 6} width={x(p.offS) - x(turn)} height={6} fill="var(--ink)" />
      )}
    </>
  );
}

/** Events with their seconds on top, apart from each other; on a narrow page the chief ones. */
function Pins({ p, x, left, right }: { p: Props; x: Scales["x"]; left: number; right: number }) {
  const pins = p.pins.filter((q) => q.strong || p.width >= 480 || q.name === "opens").sort((a, b) => a.s - b.s);
  const heads = spread(
    pins.map((q) => x(q.s)),
    74,
    left + 20,
    right - 20,
  );
  return pins.map((q, i) => (
    <g key={q.name}>
      <path
        d={`M${heads[i]} 40V44L${x(q.s)} 52V${BOX.bottom}`}
        fill="none"
        stroke={INK}
        strokeWidth={q.strong ? 2.5 : 1.5}
      />
      <text x={heads[i]} y={17} textAnchor="middle" className="pin">
        {q.s.toFixed(0)}
      </text>
      <text x={heads[i]} y={35} textAnchor="middle" className={q.strong ? "strong" : ""}>
        {q.name}
      </text>
    </g>
  ));
}

/** The colour of one face through time: stretches of one word, stippled, the word where it fits. */
function Skin({
  words,
  s,
  x,
  y,
  until,
}: {
  words: readonly string[];
  s: readonly number[];
  x: (v: number) => number;
  y: number;
  until: number;
}) {
  return (
    <>
      {colourStretches(words, s, until).map((q) => (
        <g key={q.from}>
          <rect x={x(q.from)} y={y} width={Math.max(x(q.to) - x(q.from), 0)} height={SKIN} fill="var(--paper)" />
          <rect
            x={x(q.from)}
            y={y}
            width={Math.max(x(q.to) - x(q.from), 0)}
            height={SKIN}
            fill={STIPPLE[q.word] ? `url(#skin-${q.word})` : "none"}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
          {x(q.to) - x(q.from) > 62 && (
            <text x={(x(q.from) + x(q.to)) / 2} y={y + SKIN - 2} textAnchor="middle" className="halo strong">
              {q.word}
            </text>
          )}
        </g>
      ))}
    </>
  );
}
