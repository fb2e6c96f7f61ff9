import type { ScaleLinear } from "d3-scale";
import { STIPPLE } from "./stipple";
import { SAY } from "../words/say/instruments";

interface Spell {
  word: string;
  from_s: number;
}
interface Props {
  bottom: readonly Spell[];
  top: readonly Spell[];
  turnS: number | null;
  offS: number;
  opensS: number | null;
  x: ScaleLinear<number, number>;
  width: number;
}
const [TALL, THIN, GAP, FACE] = [20, 8, 6, 26];

/** One way through the heat on an axis of seconds: each face's colour, tall while it lies on the surface and thin while it does not. */
export function FaceStrips({ bottom, top, turnS, offS, opensS, x, width }: Props) {
  const turn = turnS ?? offS;
  return (
    <svg
      width={width}
      height={2 * FACE + GAP + 4}
      role="img"
      aria-label={SAY.sideASideB(coloursWords(bottom), coloursWords(top))}
    >
      <Face spells={bottom} from={0} to={turn} off={offS} x={x} y={2} />
      <Face spells={top} from={turn} to={offS} off={offS} x={x} y={2 + FACE + GAP} />
      {opensS !== null && opensS <= offS && (
        <path d={lens(x(opensS), 2 + FACE + GAP / 2)} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.8} />
      )}
    </svg>
  );
}

const coloursWords = (spells: readonly Spell[]): string =>
  spells.map((s) => (s.from_s ? `${s.word} from ${s.from_s.toFixed(0)} s` : s.word)).join(", ");
const lens = (x: number, y: number): string => `M${x} ${y}q11 -9 22 0q-11 9 -22 0z`;

/** One face: tall from `from` to `to`, where it lies on the surface, thin elsewhere, stippled by its colour. */
function Face({
  spells,
  from,
  to,
  off,
  x,
  y,
}: {
  spells: readonly Spell[];
  from: number;
  to: number;
  off: number;
  x: ScaleLinear<number, number>;
  y: number;
}) {
  const cuts = [...new Set([0, from, to, off, ...spells.map((s) => s.from_s)])]
    .filter((s) => s <= off)
    .sort((a, b) => a - b);
  const word = (s: number) => spells.filter((q) => q.from_s <= s).at(-1)!.word;
  return (
    <>
      {cuts.slice(0, -1).map((s, i) => {
        const until = cuts[i + 1]!;
        const on = s >= from && s < to;
        const h = on ? TALL : THIN;
        const at = { x: x(s), y: y + (TALL - h) / 2, width: Math.max(x(until) - x(s), 0), height: h };
        return (
          <g key={s}>
            <rect {...at} fill="var(--paper)" />
            <rect
              {...at}
              fill={STIPPLE[word(s)] ? `url(#skin-${word(s)})` : "none"}
              stroke="var(--ink)"
              strokeWidth={on ? 1.8 : 1}
            />
          </g>
        );
      })}
      <rect x={x(from)} y={y + TALL} width={Math.max(x(to) - x(from), 0)} height={4} fill="var(--ink)" />
    </>
  );
}
