import { Link } from "react-router";
import styled from "styled-components";
import type { Bench } from "../api/client";
import { useNow } from "../api/clock";
import { Glyph, GLYPH_OF_STEP, Seal } from "../instruments/Glyph";
import { clock, clockNear, lower, span } from "../words/format";
import { stepKind, stepPath } from "../words/steps";
import { SAY } from "../words/say/frame";
import { lanesOf } from "./pegPlaces";
import { useWords } from "./units";
import { type UprightRow, uprightRows } from "./uprightRows";

const ROW = 52;
const GAP = 34;
const LANE = 22;
const MOST_LANES = 3;
const MOST_ROWS = 14; // more stand in the Day
const Box = styled.section`
  position: relative;
  h2 {
    border-bottom: 2px solid var(--ink);
    padding-bottom: 4px;
  }
  > svg {
    position: absolute;
    left: 0;
  }
  li {
    display: flex;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    min-width: 0;
  }
  a {
    flex: 1;
    min-width: 0;
    height: 100%;
    display: grid;
    grid-template-columns: 30px auto minmax(0, 1fr);
    gap: 8px;
    align-items: center;
    padding-left: 8px;
    text-decoration: none;
    line-height: 1.05;
  }
  li[data-first="true"] a {
    background: var(--brass-wash);
    box-shadow: inset 6px 0 0 var(--brass);
    font-weight: 650;
  }
  b {
    font: 700 20px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  li[data-kind="away"] {
    background: repeating-linear-gradient(45deg, transparent 0 6px, var(--hair) 6px 7px);
  }
  .more a {
    min-height: 48px;
    display: inline-flex;
    align-items: center;
    height: auto;
  }
  .gap {
    background: var(--ground);
    color: var(--ink-2);
    font-size: 16px;
    padding: 2px 10px;
  }
`;
const heightOf = (row: UprightRow) => (row.kind === "move" ? ROW : GAP);

/** The Rule upright, for a window that is narrow: moves from the next one down, a thread for each bake, hours away and free ones named. */
export function Upright({ bench }: { bench: Bench }) {
  const { zone } = useWords();
  const now = useNow(20_000);
  const all = uprightRows(bench, now);
  const rows = all.slice(0, MOST_ROWS);
  const tops = rows.reduce<number[]>((sums, row) => [...sums, sums.at(-1)! + heightOf(row)], [0]);
  const lanes = lanesOf(
    rows.flatMap((r) => (r.kind === "move" ? [r.move] : [])),
    MOST_LANES,
  );
  const gutter = 10 + LANE * Math.max(1, ...lanes.map((l) => l.lane + 1));
  const middle = (key: string, bake: number) => {
    const i = rows.findIndex((r) => r.kind === "move" && r.move.key === key && r.move.bake === bake);
    return tops[i]! + ROW / 2;
  };
  const first = rows.findIndex((r) => r.kind === "move");
  if (first < 0) return null;
  return (
    <Box aria-label="Next moves">
      <h2>Next moves</h2>
      <svg width={gutter} height={tops.at(-1)} aria-hidden="true" fill="none" stroke="var(--ink)">
        {lanes.map((l) => {
          const x = 12 + l.lane * LANE;
          const at = l.steps.map((s) => middle(s.key, s.bake));
          const [top, bottom] = [Math.min(...at), Math.max(...at)];
          return (
            <g key={l.id}>
              <line x1={x} x2={x} y1={top} y2={bottom} strokeWidth={1.75} />
              {l.steps.map((s, i) =>
                s.key === "serve" ? (
                  <path key={s.key} d={`M${x} ${at[i]! - 12}l11 5l-11 5z`} fill="var(--ink)" />
                ) : (
                  <line key={s.key} x1={x - 6} x2={x + 6} y1={at[i]} y2={at[i]} strokeWidth={3} />
                ),
              )}
              <g transform={`translate(${x - 8},${top - 24})`}>
                <rect x={-1} y={-1} width={18} height={18} fill="var(--ground)" stroke="none" />
                <Seal seal={l.seal} size={16} />
              </g>
            </g>
          );
        })}
      </svg>
      <ol>
        {rows.map((row, i) => (
          <li
            key={row.kind === "move" ? `${row.move.bake}-${row.move.key}` : `${row.kind}-${row.at}`}
            data-kind={row.kind}
            data-first={i === first}
            style={{ height: heightOf(row), marginLeft: gutter }}
          >
            {row.kind === "move" ? (
              <Link to={stepPath(row.move.step)}>
                <Glyph name={GLYPH_OF_STEP[stepKind(row.move.key)] ?? "mix"} size={28} />
                <b>{clockNear(row.at, now, zone)}</b>
                <span>
                  {row.move.step.name}, {lower(row.move.step.bake)}
                </span>
              </Link>
            ) : (
              <span className="gap">
                {row.kind === "away"
                  ? `${row.name} ${clock(row.at, zone)} to ${clock(row.until, zone)}`
                  : `free ${span(row.until - row.at)}`}
              </span>
            )}
          </li>
        ))}
      </ol>
      {all.length > rows.length && (
        <p className="more">
          <Link to={`/k/${bench.kitchen.id}/day`}>{SAY.theRestStandsInTheDay}</Link>
        </p>
      )}
    </Box>
  );
}
