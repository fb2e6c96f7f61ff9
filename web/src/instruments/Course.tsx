import { scaleLinear } from "d3-scale";

const WIDTH = 220;
const HEIGHT = 44;
const PAD = 3;
const LEAST_SPAN = 1; // of the values: less is drawn as flat as it is

interface Props {
  /** (ms, value), in order. */
  points: readonly (readonly [number, number])[];
  from: number;
  until: number;
  label: string;
}

/** The last hours of an instrument as a line. */
export function Course({ points, from, until, label }: Props) {
  if (points.length < 2) return null;
  const values = points.map(([, v]) => v);
  const middle = (Math.min(...values) + Math.max(...values)) / 2;
  const half = Math.max(Math.max(...values) - Math.min(...values), LEAST_SPAN) / 2;
  const x = scaleLinear([from, until], [PAD, WIDTH - PAD]);
  const y = scaleLinear([middle - half, middle + half], [HEIGHT - PAD, PAD]);
  const path = points.map(([t, v], i) => `${i ? "L" : "M"}${x(t).toFixed(1)} ${y(v).toFixed(1)}`).join("");
  const [endX, endY] = [x(points.at(-1)![0]), y(points.at(-1)![1])];
  return (
    <svg width={WIDTH} height={HEIGHT} role="img" aria-label={label}>
      <path d={`M${PAD} ${HEIGHT - 1}H${WIDTH - PAD}`} stroke="var(--hair)" />
      <path d={path} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="round" />
      <circle cx={endX} cy={endY} r={3.5} fill="currentColor" />
    </svg>
  );
}
