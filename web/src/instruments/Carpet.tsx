import { scaleLinear } from "d3-scale";
import { useMemo } from "react";
import { heatColour } from "../theme/temperature";
import { spread } from "../words/scale";
import { STIPPLE, Stipples } from "./stipple";

interface Props {
  s: readonly number[];
  depthMm: readonly number[];
  tempC: readonly (readonly number[])[];
  pocket: readonly number[];
  bottom: readonly string[];
  top: readonly string[];
  turnS: number | null;
  offS: number;
  pins: readonly { name: string; s: number; strong: boolean }[];
  startC: string;
  degrees: (c: number) => string;
  width: number;
}
const BOX = { top: 74, bottom: 200 };
const SKIN = 14;
/** Time across, depth through the bread up, colour is temperature; isolines, pins, the pocket as a lens. */
export function Carpet(p: Props) {
  const left = 64;
  const right = p.width - 12;
  const end = Math.max(p.s.at(-1) ?? 1, p.offS);
  const x = scaleLinear().domain([0, end]).range([left, right]);
  const thick = (p.depthMm.at(-1) ?? 1) + (p.depthMm[0] ?? 0);
  const y = scaleLinear().domain([0, thick]).range([BOX.bottom, BOX.top]);
  const edges = useMemo(() => edgesOf(p.depthMm, thick), [p.depthMm, thick]);
  const lines = useMemo(
    () => ({ set: isoline(p.tempC, p.depthMm, 70), steam: isoline(p.tempC, p.depthMm, 94) }),
    [p.tempC, p.depthMm],
  );
  const narrow = p.width < 480;
  const pins = p.pins.filter((q) => q.strong || !narrow || q.name === "opens").sort((a, b) => a.s - b.s);
  const heads = spread(
    pins.map((q) => x(q.s)),
    74,
    left + 20,
    right - 20,
  );
  const turn = p.turnS ?? p.offS;
  const path = (found: readonly (number | null)[]) =>
    found
      .map((d, i) => (d === null ? null : `${x(p.s[i]!)},${y(d)}`))
      .filter(Boolean)
      .join(" ");
  const lens = lensOf(p, x, y, thick);
  const offX = x(p.offS);
  return (
    <svg
      width={p.width}
      height={266}
      role="img"
      aria-label="How heat goes through the bread over time. The table below holds the events."
    >
      <defs>
        <pattern id="left-on" width="12" height="12" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2.500" height="12" fill="var(--ink)" opacity="0.500" />
        </pattern>
        <Stipples />
      </defs>
      {p.tempC.map((column, i) => {
        const x0 = x(i === 0 ? 0 : p.s[i - 1]!);
        const w = x(p.s[i]!) - x0 + 0.7;
        return (
          <g key={i}>
            {column.map((c, j) => (
              <rect
                key={j}
                x={x0}
                width={w}
                y={y(edges[j + 1]!)}
                height={y(edges[j]!) - y(edges[j + 1]!) + 0.6}
                fill={heatColour(c)}
              />
            ))}
          </g>
        );
      })}
      <rect
        x={left}
        y={BOX.top}
        width={right - left}
        height={BOX.bottom - BOX.top}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <path d={lens} fill="var(--paper)" stroke="var(--ink)" strokeWidth={2} />
      <polyline points={path(lines.set)} fill="none" stroke="#21272A" strokeWidth={2.5} />
      <polyline points={path(lines.steam)} fill="none" stroke="#21272A" strokeWidth={2.5} strokeDasharray="7 5" />
      <IsoWord found={lines.set} p={p} x={x} y={y} word={`${p.degrees(70)} sets`} at={0.3} />
      <IsoWord found={lines.steam} p={p} x={x} y={y} word={`${p.degrees(94)} steam`} at={0.75} />
      <rect
        x={offX}
        y={BOX.top}
        width={right - offX}
        height={BOX.bottom - BOX.top}
        fill="var(--ground)"
        opacity={0.55}
      />
      <rect x={offX} y={BOX.top} width={right - offX} height={BOX.bottom - BOX.top} fill="url(#left-on)" />
      {right - offX > 70 && (
        <text x={(offX + right) / 2} y={BOX.bottom - 12} textAnchor="middle" className="halo strong">
          if left on
        </text>
      )}
      <Skin words={p.top} s={p.s} x={x} y={BOX.top - SKIN} until={p.offS} />
      <Skin words={p.bottom} s={p.s} x={x} y={BOX.bottom} until={p.offS} />
      <rect x={left} y={BOX.bottom + SKIN} width={x(turn) - left} height={6} fill="var(--ink)" />
      {p.turnS !== null && (
        <rect x={x(turn)} y={BOX.top - SKIN - 6} width={offX - x(turn)} height={6} fill="var(--ink)" />
      )}
      {pins.map((q, i) => (
        <g key={q.name}>
          <path
            d={`M${heads[i]} 40V44L${x(q.s)} 52V${BOX.bottom}`}
            fill="none"
            stroke="#21272A"
            strokeWidth={q.strong ? 2.5 : 1.5}
          />
          <text x={heads[i]} y={17} textAnchor="middle" className="pin">
            {q.s.toFixed(0)}
          </text>
          <text x={heads[i]} y={35} textAnchor="middle" className={q.strong ? "strong" : ""}>
            {q.name}
          </text>
        </g>
      ))}
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
        seconds; specks are the colour of each side, the black edge lies on the surface
      </text>
    </svg>
  );
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
  const stretches: { word: string; from: number; to: number }[] = [];
  words.forEach((word, i) => {
    const from = i === 0 ? 0 : s[i - 1]!;
    const last = stretches.at(-1);
    if (from >= until) return;
    if (last?.word === word) last.to = Math.min(s[i]!, until);
    else stretches.push({ word, from, to: Math.min(s[i]!, until) });
  });
  return (
    <>
      {stretches.map((q) => (
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

function IsoWord({
  found,
  p,
  x,
  y,
  word,
  at,
}: {
  found: readonly (number | null)[];
  p: Props;
  x: (v: number) => number;
  y: (v: number) => number;
  word: string;
  at: number;
}) {
  const there = found.map((d, i) => ({ d, i })).filter((q) => q.d !== null && p.s[q.i]! < p.offS);
  const q = there[Math.floor(there.length * at)];
  if (!q || q.d === null) return null;
  return (
    <text x={x(p.s[q.i]!) + 6} y={y(q.d) - 6} className="halo strong">
      {word}
    </text>
  );
}

function edgesOf(mids: readonly number[], thick: number): number[] {
  return [0, ...mids.slice(1).map((m, i) => (m + mids[i]!) / 2), thick];
}

/** Depth [mm] at which a column first falls below `level` going up from side A; null when it does not. */
function isoline(columns: readonly (readonly number[])[], mids: readonly number[], level: number): (number | null)[] {
  return columns.map((column) => {
    for (let j = 1; j < column.length; j++) {
      const a = column[j - 1]!;
      const b = column[j]!;
      if (a >= level && b < level) return mids[j - 1]! + ((a - level) / (a - b)) * (mids[j]! - mids[j - 1]!);
    }
    return null;
  });
}

function lensOf(p: Props, x: (v: number) => number, y: (v: number) => number, thick: number): string {
  const open = p.pocket.map((v, i) => ({ v, s: p.s[i]! })).filter((q) => q.v > 0.01 && q.s <= p.offS + 0.5);
  if (open.length < 2) return "";
  const half = (v: number) => v * thick * 0.17;
  const upper = open.map((q) => `${x(q.s)},${y(thick / 2 + half(q.v))}`);
  const lower = [...open].reverse().map((q) => `${x(q.s)},${y(thick / 2 - half(q.v))}`);
  return `M${x(Math.max(open[0]!.s - 1, 0))},${y(thick / 2)}L${upper.join("L")}L${lower.join("L")}Z`;
}
