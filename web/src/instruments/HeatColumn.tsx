import { heatColour } from "../theme/temperature";

/** A column in the colours of its temperatures [C], a band for each degree, framed. */
export function HeatColumn({
  x,
  width,
  low = 0,
  high,
  y,
}: {
  x: number;
  width: number;
  low?: number;
  high: number;
  y: (c: number) => number;
}) {
  return (
    <>
      {Array.from({ length: Math.ceil(high) - low }, (_, i) => i + low).map((c) => (
        <rect key={c} x={x} width={width} y={y(c + 1)} height={y(c) - y(c + 1) + 0.5} fill={heatColour(c + 0.5)} />
      ))}
      <rect x={x} width={width} y={y(high)} height={y(low) - y(high)} fill="none" stroke="var(--ink)" strokeWidth={2} />
    </>
  );
}
