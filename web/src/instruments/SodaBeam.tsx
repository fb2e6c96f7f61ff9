import { SAY } from "../words/say/instruments";
export interface BeamSide {
  name: string;
  mmol: number;
  flour: boolean;
}
interface Props {
  soda: readonly BeamSide[];
  acid: readonly BeamSide[];
  /** Soda left over [g per 100 g flour]; negative is acid. */
  excess: number;
  width: number;
}
const UNIT_MMOL = 3.4;
const MOST = 30;
const BASE = 96;

/** How many weights of the unit a side carries, and what share of the last one is filled. */
function weights(sides: readonly BeamSide[]): { flour: boolean }[] {
  const out: { flour: boolean }[] = [];
  for (const s of sides) for (let i = 0; i < Math.round(s.mmol / UNIT_MMOL); i += 1) out.push({ flour: s.flour });
  return out.slice(0, MOST);
}

/** A balance beam: soda's squares on one pan, acid's triangles on the other; it tilts with what is left over. */
export function SodaBeam({ soda, acid, excess, width }: Props) {
  const tilt = Math.max(-18, Math.min(18, (excess / 0.13) * 9));
  const arm = width / 2 - 62;
  const drop = Math.sin((tilt * Math.PI) / 180) * arm;
  const centre = width / 2;
  const pan = (x: number, y: number, side: "soda" | "acid", items: { flour: boolean }[]) => {
    const perRow = 6;
    return (
      <g transform={`translate(${x},${y})`}>
        <path d={`M0 0L-42 54H42Z`} fill="none" stroke="var(--hair-2)" strokeWidth={1.25} />
        <path d="M-48 54H48" stroke="var(--ink)" strokeWidth={3} />
        {items.map((w, i) => {
          const px = -38 + (i % perRow) * 13;
          const py = 51 - Math.floor(i / perRow) * 12;
          return side === "soda" ? (
            <rect key={i} x={px} y={py - 9} width={9} height={9} fill="var(--ink)" />
          ) : (
            <path
              key={i}
              d={`M${px} ${py}l5 -10l5 10z`}
              fill={w.flour ? "none" : "var(--ink)"}
              stroke="var(--ink)"
              strokeWidth={1.5}
            />
          );
        })}
      </g>
    );
  };
  const total = (s: readonly BeamSide[]) => s.reduce((a, b) => a + b.mmol, 0);
  return (
    <svg
      width={width}
      height={206}
      role="img"
      aria-label={SAY.sodaAgainstAcidMillimoleGOf(
        total(soda).toFixed(0),
        total(acid).toFixed(0),
        Math.abs(excess).toFixed(2),
        excess < 0 ? "acid, as soda," : "soda",
      )}
    >
      <path
        d={`M${centre - 15} 200L${centre} ${BASE}l15 104z`}
        fill="var(--recess)"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <path d={`M${centre - 46} 200H${centre + 46}`} stroke="var(--ink)" strokeWidth={3} />
      <path d={`M${centre - arm} ${BASE - drop}L${centre + arm} ${BASE + drop}`} stroke="var(--ink)" strokeWidth={5} />
      <circle cx={centre} cy={BASE} r={6} fill="var(--brass)" />
      {pan(centre - arm, BASE - drop, "acid", weights(acid))}
      {pan(centre + arm, BASE + drop, "soda", weights(soda))}
      <text x={centre - arm} y={20} textAnchor="middle" className="strong">
        acid
      </text>
      <text x={centre + arm} y={20} textAnchor="middle" className="strong">
        soda
      </text>
    </svg>
  );
}
