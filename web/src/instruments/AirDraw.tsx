import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";
import { useState } from "react";
import { heatColour } from "../theme/temperature";

const H = 168;
const TOP = 16;
const BOTTOM = 128;
const LOW = 0;
const HIGH = 40;
type Point = [number, number];

/** Air drawn by hand: points along the stage that are pulled up and down; let go, it is the stage's own. */
export function AirDraw({
  width,
  points,
  degrees,
  onDrawn,
}: {
  width: number;
  points: readonly Point[];
  degrees: (c: number) => string;
  onDrawn: (points: Point[]) => void;
}) {
  const [draft, setDraft] = useState<Point[] | null>(null);
  const shown = draft ?? points;
  const last = shown.at(-1)![0];
  const x = scaleLinear()
    .domain([0, last])
    .range([40, width - 40]);
  const y = scaleLinear().domain([LOW, HIGH]).range([BOTTOM, TOP]).clamp(true);
  const moved = (i: number, c: number): Point[] =>
    shown.map((p, j) => (i === j ? [p[0], Math.round(Math.min(Math.max(c, LOW), HIGH) * 2) / 2] : [p[0], p[1]]));
  return (
    <svg width={width} height={H}>
      {[0, 10, 20, 30, 40].map((c) => (
        <g key={c}>
          <line x1={40} x2={width - 40} y1={y(c)} y2={y(c)} stroke="var(--hair)" />
          <text x={32} y={y(c) + 5} textAnchor="end" className="mono">
            {degrees(c).split(" ")[0]}
          </text>
        </g>
      ))}
      <path
        d={
          line<Point>()
            .x((p) => x(p[0]))
            .y((p) => y(p[1]))([...shown]) ?? ""
        }
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      {shown.map(([h, c], i) => (
        <g
          key={i}
          role="slider"
          tabIndex={0}
          aria-label={`Air at ${h.toFixed(1)} h`}
          aria-valuenow={c}
          aria-valuemin={LOW}
          aria-valuemax={HIGH}
          aria-valuetext={degrees(c)}
          aria-orientation="vertical"
          transform={`translate(${x(h)},${y(c)})`}
          style={{ cursor: "ns-resize", touchAction: "none" }}
          onPointerDown={(e) => {
            e.currentTarget.setPointerCapture(e.pointerId);
            setDraft(moved(i, c));
          }}
          onPointerMove={(e) =>
            e.currentTarget.hasPointerCapture(e.pointerId) &&
            setDraft(moved(i, y.invert(e.clientY - e.currentTarget.ownerSVGElement!.getBoundingClientRect().top)))
          }
          onPointerUp={() => {
            if (draft) onDrawn(draft);
            setDraft(null);
          }}
          onPointerCancel={() => setDraft(null)}
          onKeyDown={(e) => {
            const by = { ArrowUp: 0.5, ArrowDown: -0.5, PageUp: 2, PageDown: -2 }[e.key];
            if (by === undefined) return;
            e.preventDefault();
            onDrawn(moved(i, c + by));
          }}
        >
          <rect x={-24} y={-24} width={48} height={48} fill="transparent" />
          <circle r={11} fill={heatColour(c)} stroke="var(--ink)" strokeWidth={2.5} />
          <text y={-18} textAnchor="middle" className="halo strong">
            {degrees(c)}
          </text>
        </g>
      ))}
      {shown.map(([h], i) => (
        <text key={i} x={x(h)} y={H - 8} textAnchor="middle" className="mono">
          {h.toFixed(h % 1 ? 1 : 0)} h
        </text>
      ))}
    </svg>
  );
}
