import { scaleLinear } from "d3-scale";
import { BreadFace, type Look } from "./BreadFace";

export interface Framed {
  s: number;
  kind: "right" | "yours";
}
interface Props {
  lookAt: (s: number) => Look;
  endS: number;
  framed: readonly Framed[];
  signs: readonly { s: number; text: string }[];
  width: number;
  about: string;
}
const [DISC, GAP, AXIS] = [68, 6, 88];
const LETTER = 8.4; // px of a sign's letter, on the safe side

/** Rows for labels that begin at these places and are so long, so that none lies on another. */
export function rowsOf(labels: readonly { x: number; w: number }[]): number[] {
  const ends: number[] = [];
  return labels.map(({ x, w }) => {
    const free = ends.findIndex((end) => end <= x);
    const row = free < 0 ? ends.length : free;
    ends[row] = x + w + 8;
    return row;
  });
}

/** Places in their order, at least so far apart, as near as can be to where they belong, none past the ends. */
export function spread(at: readonly number[], apart: number, low: number, high: number): number[] {
  const found = [...at];
  for (let i = 0; i < found.length; i++) found[i] = Math.max(found[i]!, i ? found[i - 1]! + apart : low);
  for (let i = found.length - 1; i >= 0; i--)
    found[i] = Math.min(found[i]!, i < found.length - 1 ? found[i + 1]! - apart : high);
  return found;
}

/** A bread at its seconds, as many pictures as there is room for; the right moments are framed in ink, yours in brass; signs beneath. */
export function FilmStrip({ lookAt, endS, framed, signs, width, about }: Props) {
  const x = scaleLinear()
    .domain([0, endS])
    .range([DISC / 2, width - DISC / 2]);
  const inOrder = [...framed].sort((a, b) => a.s - b.s);
  const taken = spread(
    inOrder.map((f) => x(f.s)),
    DISC + GAP + 2,
    DISC / 2 + 4,
    width - DISC / 2 - 4,
  );
  const count = Math.floor(width / (DISC + GAP));
  const between = Array.from({ length: count }, (_, i) => ((i + 0.5) / count) * endS).filter((s) =>
    taken.every((t) => Math.abs(t - x(s)) > DISC + GAP),
  );
  const shown = [
    ...between.map((s) => ({ s, kind: null, at: x(s) })),
    ...inOrder.map((f, i) => ({ ...f, at: taken[i]! })),
  ];
  const labels = signs.map((g) => {
    const text = `${g.s.toFixed(0)} ${g.text}`;
    const w = text.length * LETTER;
    return { text, w, x: Math.min(x(g.s), width - w), at: x(g.s) };
  });
  const rows = rowsOf(labels);
  const high = Math.max(0, ...rows) + 1;
  return (
    <svg width={width} height={AXIS + 26 + high * 20} role="img" aria-label={about}>
      {shown.map((f) => (
        <g key={`${f.s}-${f.kind}`} transform={`translate(${f.at - DISC / 2} 4)`}>
          {f.kind && (
            <rect
              x={f.kind === "yours" ? -3 : 1}
              y={f.kind === "yours" ? -3 : 1}
              width={DISC - 2 + (f.kind === "yours" ? 8 : 0)}
              height={DISC + (f.kind === "yours" ? 8 : 0)}
              fill="var(--ground)"
              stroke={f.kind === "yours" ? "var(--brass)" : "var(--ink)"}
              strokeWidth={f.kind === "yours" ? 4 : 3}
              strokeDasharray={f.kind === "yours" ? "10 5" : undefined}
            />
          )}
          <svg x={5} y={5} width={DISC - 10} height={DISC - 8} viewBox="0 0 200 200">
            <BreadFace look={lookAt(f.s)} size={200} />
          </svg>
          <path
            d={`M${DISC / 2} ${DISC + 4}L${DISC / 2 + x(f.s) - f.at} ${AXIS - 4}`}
            stroke={f.kind === "yours" ? "var(--brass)" : "var(--ink)"}
            strokeWidth={f.kind ? 3 : 1}
          />
        </g>
      ))}
      <line x1={0} x2={width} y1={AXIS} y2={AXIS} stroke="var(--ink)" strokeWidth={2} />
      {x.ticks(Math.min(count, 10)).map((s) => (
        <g key={s}>
          <path d={`M${x(s)} ${AXIS}v6`} stroke="var(--ink)" />
          <text x={x(s)} y={AXIS + 21} textAnchor="middle" className="mono">
            {s}
          </text>
        </g>
      ))}
      {labels.map((g, i) => (
        <path key={g.text} d={`M${g.at} ${AXIS}v${28 + rows[i]! * 20 - 6}`} stroke="var(--hair-2)" />
      ))}
      {labels.map((g, i) => (
        <text key={g.text} x={g.x} y={AXIS + 40 + rows[i]! * 20} className="halo">
          {g.text}
        </text>
      ))}
    </svg>
  );
}
