import { scaleLinear } from "d3-scale";
import { numbered } from "../words/format";
import { SAY } from "../words/say/instruments";

export interface LineTask {
  move: string;
  round: number;
  mark: string;
  spot: number;
  cook: number;
  s: number;
  hands: number;
}
interface Props {
  tasks: readonly LineTask[];
  spots: number;
  grilled: boolean;
  width: number;
  clock: (s: number) => string;
  recoverS: number;
  /** Names of the spots, where they lie on several surfaces. */
  places?: readonly string[];
}
const LEFT = 92;
const RAIL = 26;
const LANE = 40;
/** Rolling and brushing are outlined: the bread is not on the heat. */
const BESIDE = new Set(["roll", "top", "brush"]);

/** Where the rails, the lanes and the towel of a line lie [px]. */
function placesOf({ tasks, spots, grilled, width }: Props) {
  const end = Math.max(...tasks.map((t) => t.s), 1) + 12;
  const right = width - 14;
  const cooks = Math.max(...tasks.map((t) => t.cook), 1);
  const under = RAIL + cooks * 26;
  const lanes = spots + (grilled ? 1 : 0);
  return {
    x: scaleLinear().domain([0, end]).range([LEFT, right]),
    end,
    right,
    cooks,
    under,
    lanes,
    lane: (spot: number) => under + 22 + (spot - 1) * LANE,
    towel: under + 22 + lanes * LANE + 6,
  };
}
type At = ReturnType<typeof placesOf>;

/** Each bread is one thread: hands, its spot, the towel. The hands' rail runs on top. */
export function LinePlan(p: Props) {
  const at = placesOf(p);
  const rounds = [...new Set(p.tasks.map((t) => t.round))];
  return (
    <svg
      width={p.width}
      height={at.towel + 22}
      role="img"
      aria-label={SAY.roundsOnLastOffAfterMin(
        numbered(rounds.length, "round"),
        numbered(p.spots, "spot"),
        Math.round(at.end / 60),
      )}
    >
      <Hands p={p} at={at} />
      <Lanes p={p} at={at} />
      {rounds.map((n) => (
        <Thread key={n} tasks={p.tasks.filter((t) => t.round === n)} p={p} at={at} />
      ))}
      {[0, at.end / 2, at.end - 12].map((s, i) => (
        <text key={i} x={at.x(s)} y={18} textAnchor={i === 0 ? "start" : i === 1 ? "middle" : "end"} className="mono">
          {p.clock(s)}
        </text>
      ))}
    </svg>
  );
}

/** A rail for each cook, with a bar as long as the hands are busy. */
function Hands({ p, at }: { p: Props; at: At }) {
  return (
    <>
      {Array.from({ length: at.cooks }, (_, i) => (
        <g key={i}>
          <text x={LEFT - 10} y={RAIL + 18 + i * 26} textAnchor="end" className="strong">
            {at.cooks > 1 ? `cook ${i + 1}` : "hands"}
          </text>
          <rect
            x={LEFT}
            y={RAIL + i * 26}
            width={at.right - LEFT}
            height={22}
            fill="var(--paper)"
            stroke="var(--hair-2)"
          />
        </g>
      ))}
      {p.tasks.map((t) => {
        const heat = !BESIDE.has(t.move);
        return (
          <rect
            key={`${t.round}-${t.move}`}
            x={at.x(t.s)}
            y={RAIL + (t.cook - 1) * 26 + (heat ? 0 : 5)}
            width={Math.max(at.x(t.hands) - at.x(0) - 1, 2)}
            height={heat ? 22 : 12}
            fill={heat ? "var(--ink)" : "none"}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        );
      })}
    </>
  );
}

/** A lane for each spot, for the grill where there is one, and the towel beneath. */
function Lanes({ p, at }: { p: Props; at: At }) {
  return (
    <>
      {Array.from({ length: at.lanes }, (_, i) => (
        <g key={i}>
          <text x={LEFT - 10} y={at.lane(i + 1) + 4} textAnchor="end">
            {i < p.spots ? (p.places?.[i] ?? `spot ${i + 1}`) : "grill"}
          </text>
          <line
            x1={LEFT}
            x2={at.right}
            y1={at.lane(i + 1) + 10}
            y2={at.lane(i + 1) + 10}
            stroke="var(--ink)"
            strokeWidth={2}
          />
        </g>
      ))}
      <text x={LEFT - 10} y={at.towel + 6} textAnchor="end">
        towel
      </text>
      <line x1={LEFT} x2={at.right} y1={at.towel + 8} y2={at.towel + 8} stroke="var(--hair-2)" />
    </>
  );
}

/** The outline of a bread [path] that lies at height `y` from `a` to `b` px and swells from `swell` px on. */
const swelling = (a: number, b: number, swell: number, y: number): string =>
  `M${a + 3} ${y}V${y - 4}H${swell}C${swell + 10} ${y - 4} ${swell + 8} ${y - 22} ${swell + 22} ${y - 22}H${b - 4}Q${b} ${y - 22} ${b} ${y - 14}V${y}Z`;

/** One bread from the hands over its spot (and the grill) to the towel. */
function Thread({ tasks, p, at }: { tasks: readonly LineTask[]; p: Props; at: At }) {
  const { x, under, lane, towel } = at;
  const of = (move: string) => tasks.find((t) => t.move === move);
  const load = of("load");
  if (!load) return null; // so far it is in the hands only
  const off = of("off") ?? { s: at.end }; // still there
  const turn = of("turn");
  const y = lane(load.spot) + 8;
  const a = x(load.s);
  const leftS = p.grilled && turn ? turn.s : off.s; // a grilled bread leaves its pan
  const b = x(leftS);
  const swell = x(load.s + (leftS - load.s) * 0.62);
  return (
    <g>
      <path
        d={`M${a} ${under - 4}L${a + 3} ${y}H${b}L${x(off.s) + 3} ${towel + 6}`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.25}
      />
      <path d={swelling(a, b, swell, y)} fill="var(--ink)" />
      {p.grilled && turn && (
        <rect
          x={x(turn.s)}
          y={lane(p.spots + 1) - 8}
          width={Math.max(x(off.s) - x(turn.s) - 2, 3)}
          height={16}
          fill="var(--ink)"
        />
      )}
      {turn && !p.grilled && (
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
        width={Math.max(x(leftS + p.recoverS) - b - 4, 0)}
        height={12}
        fill="none"
        stroke="var(--hair-2)"
        strokeDasharray="4 3"
      />
      <path d={`M${x(off.s) - 6} ${towel + 8}a9 7 0 0 1 18 0z`} fill="var(--ink)" />
    </g>
  );
}
