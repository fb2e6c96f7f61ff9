import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import { spread } from "../words/scale";
import { Seal } from "./Glyph";
import { HeatColumn } from "./HeatColumn";

const ROW = 48; // of a thing to press [px]
const LOW = -2;
const TOP = 36;
const Box = styled.div`
  position: relative;
  min-height: 0;
  button {
    position: absolute;
    left: 108px;
    right: 0;
    height: ${ROW}px;
    display: flex;
    align-items: center;
    gap: 10px;
    padding: 0 6px 0 0;
    border: 0;
    border-bottom: 1.5px solid var(--ink);
    background: transparent;
    text-align: left;
    font: 500 18px/1.1 var(--text);
  }
  button b {
    min-width: 76px;
    text-align: right;
    font: 700 21px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  button[aria-pressed="true"] {
    background: var(--brass-wash);
    box-shadow: inset 0 -5px 0 var(--brass);
    font-weight: 700;
  }
  button:hover {
    text-decoration: underline;
  }
  .stands {
    margin-left: auto;
    display: inline-flex;
    gap: 4px;
    align-items: center;
  }
`;

export interface PlaceMark {
  key: string;
  name: string;
  c: number;
  low: number;
  high: number;
  /** The doughs that stand there: name and seal. */
  stands: readonly { name: string; seal: string }[];
}

/** Every place at its own temperature on one scale: how warm now, how far it swings, what stands there; each opens its settings. */
export function PlaceScale({
  marks,
  height,
  chosen,
  degrees,
  tick,
  onChoose,
}: {
  marks: readonly PlaceMark[];
  height: number;
  chosen: string | null;
  degrees: (c: number) => string;
  tick: (c: number) => string;
  onChoose: (key: string) => void;
}) {
  const y = scaleLinear()
    .domain([LOW, TOP])
    .range([height - 10, 10])
    .clamp(true);
  const shown = [...marks].sort((a, b) => b.c - a.c);
  const rows = spread(
    shown.map((m) => y(m.c)),
    ROW,
    ROW / 2,
    height - ROW / 2,
  );
  return (
    <Box style={{ height }}>
      <svg width={108} height={height} aria-hidden="true">
        <HeatColumn x={34} width={26} low={LOW} high={TOP} y={y} />
        {[0, 10, 20, 30].map((c) => (
          <g key={c}>
            <line x1={27} x2={34} y1={y(c)} y2={y(c)} stroke="var(--ink)" strokeWidth={1.5} />
            <text x={24} y={y(c) + 6} textAnchor="end" className="mono">
              {tick(c)}
            </text>
          </g>
        ))}
        {shown.map((m, i) => (
          <g key={m.key} fill="none" stroke="var(--ink)">
            <path d={`M60 ${y(m.c)}H84L98 ${rows[i]! + ROW / 2}H108`} strokeWidth={m.key === "bench" ? 3 : 1.5} />
            {m.high > m.low && <path d={`M68 ${y(m.high)}h8m-4 0V${y(m.low)}m-4 0h8`} strokeWidth={1.5} />}
            <circle cx={72} cy={y(m.c)} r={4} fill="var(--ground)" strokeWidth={2} />
          </g>
        ))}
      </svg>
      {shown.map((m, i) => (
        <button
          key={m.key}
          type="button"
          aria-pressed={m.key === chosen}
          style={{ top: rows[i]! - ROW / 2 }}
          onClick={() => onChoose(m.key)}
        >
          <b>{degrees(m.c)}</b>
          <span>{m.name}</span>
          {m.stands.length > 0 && (
            <span className="stands" title={m.stands.map((s) => s.name).join(", ")}>
              {m.stands.slice(0, 3).map((s, n) => (
                <Seal key={n} seal={s.seal} size={22} />
              ))}
              <span className="unseen">with {m.stands.map((s) => s.name).join(", ")}</span>
            </span>
          )}
        </button>
      ))}
    </Box>
  );
}
