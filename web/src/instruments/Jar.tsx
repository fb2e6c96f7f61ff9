import { heatColour } from "../theme/temperature";

interface Props {
  /** Pixel of a ratio, shared with the curve beside it. */
  y: (ratio: number) => number;
  bottom: number;
  top: number;
  width: number;
  level: number | null;
  ready: number;
  tooFar: number | null;
  doughC: number;
}

/** A straight glass: the level now, the ready mark, the too-far mark. Draws inside an svg. */
export function Jar({ y, bottom, top, width, level, ready, tooFar, doughC }: Props) {
  const w = width;
  const surface = level === null ? null : y(level);
  return (
    <g>
      {surface !== null && (
        <path
          d={`M3 ${surface} Q${w / 2} ${surface - 9} ${w - 3} ${surface} V${bottom - 8} Q${w - 3} ${bottom - 3} ${w - 9} ${bottom - 3} H9 Q3 ${bottom - 3} 3 ${bottom - 8} Z`}
          fill={heatColour(doughC)}
          stroke="var(--ink)"
          strokeWidth={2}
        />
      )}
      <path
        d={`M0 ${top} V${bottom - 8} Q0 ${bottom} 8 ${bottom} H${w - 8} Q${w} ${bottom} ${w} ${bottom - 8} V${top}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={2.5}
      />
      <line x1={-7} x2={w + 7} y1={top} y2={top} stroke="var(--ink)" strokeWidth={3} />
      <line x1={0} x2={w} y1={y(1)} y2={y(1)} stroke="var(--ink)" strokeWidth={1.5} strokeDasharray="2 5" />
      <line x1={-7} x2={w + 7} y1={y(ready)} y2={y(ready)} stroke="var(--ink)" strokeWidth={3} />
      {tooFar !== null && (
        <line
          x1={-7}
          x2={w + 7}
          y1={y(tooFar)}
          y2={y(tooFar)}
          stroke="var(--ink)"
          strokeWidth={2}
          strokeDasharray="7 5"
        />
      )}
      {surface !== null && <path d={`M-22 ${surface - 8} v16 l14 -8z`} fill="var(--brass)" />}
    </g>
  );
}
