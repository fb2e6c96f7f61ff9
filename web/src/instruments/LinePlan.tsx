import { scaleLinear } from "d3-scale";

export interface LineTask {
  move: string;
  round: number;
  mark: string;
  spot: number;
  cook: number;
  s: number;
  hands: number;
}

/** Each bread is one thread: hands, its spot, the towel. The hands' rail runs on top. */
export function LinePlan({
  tasks,
  spots,
  grilled,
  width,
  clock,
  recoverS,
  places,
}: {
  tasks: readonly LineTask[];
  spots: number;
  grilled: boolean;
  width: number;
  clock: (s: number) => string;
  recoverS: number;
  /** Names of the spots, where they lie on several surfaces. */
  places?: readonly string[];
}) {
  const end = Math.max(...tasks.map((t) => t.s), 1) + 12;
  const left = 92;
  const x = scaleLinear()
    .domain([0, end])
    .range([left, width - 14]);
  const rail = 26;
  const cooks = Math.max(...tasks.map((t) => t.cook), 1);
  const under = rail + cooks * 26;
  const lane = (spot: number) => under + 22 + (spot - 1) * 40;
  const lanes = spots + (grilled ? 1 : 0);
  const towel = under + 22 + lanes * 40 + 6;
  const rounds = [...new Set(tasks.map((t) => t.round))];
  const of = (round: number, move: string) => tasks.find((t) => t.round === round && t.move === move);
  return (
    <svg
      width={width}
      height={towel + 22}
      role="img"
      aria-label={`${rounds.length} rounds on ${spots} ${spots === 1 ? "spot" : "spots"}, last off after ${Math.round(end / 60)} min`}
    >
      {Array.from({ length: cooks }, (_, i) => (
        <g key={i}>
          <text x={left - 10} y={rail + 18 + i * 26} textAnchor="end" className="strong">
            {cooks > 1 ? `cook ${i + 1}` : "hands"}
          </text>
          <rect
            x={left}
            y={rail + i * 26}
            width={width - 14 - left}
            height={22}
            fill="var(--paper)"
            stroke="var(--hair-2)"
          />
        </g>
      ))}
      {tasks.map((t) => {
        const heat = t.move !== "roll" && t.move !== "top" && t.move !== "brush"; // rolling and brushing are outlined: the bread is not on the heat
        const w = Math.max(x(t.hands) - x(0) - 1, 2);
        return (
          <rect
            key={`${t.round}-${t.move}`}
            x={x(t.s)}
            y={rail + (t.cook - 1) * 26 + (heat ? 0 : 5)}
            width={w}
            height={heat ? 22 : 12}
            fill={heat ? "var(--ink)" : "none"}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        );
      })}
      {Array.from({ length: lanes }, (_, i) => (
        <g key={i}>
          <text x={left - 10} y={lane(i + 1) + 4} textAnchor="end">
            {i < spots ? (places?.[i] ?? `spot ${i + 1}`) : "grill"}
          </text>
          <line
            x1={left}
            x2={width - 14}
            y1={lane(i + 1) + 10}
            y2={lane(i + 1) + 10}
            stroke="var(--ink)"
            strokeWidth={2}
          />
        </g>
      ))}
      <text x={left - 10} y={towel + 6} textAnchor="end">
        towel
      </text>
      <line x1={left} x2={width - 14} y1={towel + 8} y2={towel + 8} stroke="var(--hair-2)" />
      {rounds.map((n) => {
        const load = of(n, "load")!;
        const off = of(n, "off")!;
        const turn = of(n, "turn");
        const y = lane(load.spot) + 8;
        const a = x(load.s);
        const leftS = grilled && turn ? turn.s : off.s; // a grilled bread leaves its pan
        const b = x(leftS);
        const swell = x(load.s + (leftS - load.s) * 0.62);
        return (
          <g key={n}>
            <path
              d={`M${a} ${under - 4}L${a + 3} ${y}H${b}L${x(off.s) + 3} ${towel + 6}`}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={1.25}
            />
            <path
              d={`M${a + 3} ${y}V${y - 4}H${swell}C${swell + 10} ${y - 4} ${swell + 8} ${y - 22} ${swell + 22} ${y - 22}H${b - 4}Q${b} ${y - 22} ${b} ${y - 14}V${y}Z`}
              fill="var(--ink)"
            />
            {grilled && turn && (
              <rect
                x={x(turn.s)}
                y={lane(spots + 1) - 8}
                width={Math.max(x(off.s) - x(turn.s) - 2, 3)}
                height={16}
                fill="var(--ink)"
              />
            )}
            {turn && !grilled && (
              <path d={`M${x(turn.s) - 8} ${y - 8}a8 8 0 0 1 16 0`} fill="none" stroke="var(--ink)" strokeWidth={2} />
            )}
            <text
              x={Math.max(b - 14, swell + 10)}
              y={y - 5}
              textAnchor="middle"
              style={{ fill: "var(--ground)", fontWeight: 700 }}
            >
              {load.mark}
            </text>
            <rect
              x={b + 2}
              y={y - 12}
              width={Math.max(x(leftS + recoverS) - b - 4, 0)}
              height={12}
              fill="none"
              stroke="var(--hair-2)"
              strokeDasharray="4 3"
            />
            <path d={`M${x(off.s) - 6} ${towel + 8}a9 7 0 0 1 18 0z`} fill="var(--ink)" />
          </g>
        );
      })}
      {[0, end / 2, end - 12].map((s, i) => (
        <text key={i} x={x(s)} y={18} textAnchor={i === 0 ? "start" : i === 1 ? "middle" : "end"} className="mono">
          {clock(s)}
        </text>
      ))}
    </svg>
  );
}
