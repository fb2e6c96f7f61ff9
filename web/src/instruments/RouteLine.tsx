import { scaleTime } from "d3-scale";
import { heatColour } from "../theme/temperature";
import { Glyph, GLYPH_OF_STEP } from "./Glyph";

interface Step {
  key: string;
  name: string;
  at: string;
}
const H = 58;
const SHOWN = ["weigh", "sponge", "mix", "ball", "cold_in", "cold_out", "roll", "serve"];

/** A way to the table as one line: hand moves where they fall, the stretch in the fridge drawn cold. */
export function RouteLine({
  steps,
  width,
  clock,
}: {
  steps: readonly Step[];
  width: number;
  clock: (iso: string) => string;
}) {
  const shown = steps.filter((s) => SHOWN.includes(s.key)).map((s) => ({ ...s, t: Date.parse(s.at) }));
  const times = shown.map((s) => s.t);
  const x = scaleTime()
    .domain([Math.min(...times), Math.max(...times)])
    .range([14, width - 14]);
  const into = shown.find((s) => s.key === "cold_in");
  const out = shown.find((s) => s.key === "cold_out");
  let glyph = -99;
  let word = -99;
  return (
    <svg width={width} height={H} role="img" aria-label={shown.map((s) => `${s.name} ${clock(s.at)}`).join(", ")}>
      <line x1={14} x2={width - 14} y1={30} y2={30} stroke="var(--ink)" strokeWidth={2} />
      {into && out && (
        <rect
          x={x(into.t)}
          y={25}
          width={x(out.t) - x(into.t)}
          height={10}
          fill={heatColour(4)}
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      )}
      {shown.map((s) => {
        const at = x(s.t);
        const room = at - glyph > 26;
        if (room) glyph = at;
        const write = room && at - word > 50;
        if (write) word = at;
        return (
          <g key={s.key}>
            <line x1={at} x2={at} y1={24} y2={36} stroke="var(--ink)" strokeWidth={2} />
            {room && (
              <g transform={`translate(${at - 11},0)`}>
                <Glyph name={GLYPH_OF_STEP[s.key] ?? "mix"} size={22} />
              </g>
            )}
            {write && (
              <text
                x={Math.min(Math.max(at, 20), width - 20)}
                y={54}
                textAnchor="middle"
                className="mono"
                style={{ fontSize: 14 }}
              >
                {clock(s.at).slice(-5)}
              </text>
            )}
          </g>
        );
      })}
    </svg>
  );
}
