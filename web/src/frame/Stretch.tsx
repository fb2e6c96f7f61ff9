import { scaleTime } from "d3-scale";
import { Link } from "react-router";
import styled from "styled-components";
import type { Step } from "../api/client";
import { Sheet } from "../controls/Sheet";
import { useWidth } from "../controls/width";
import { Glyph, GLYPH_OF_STEP, Seal } from "../instruments/Glyph";
import { clock, ms, weekday } from "../words/format";
import { stepKind, stepPath } from "../words/steps";
import { handsOf } from "./hands";
import { SAY } from "../words/say/frame";

const List = styled.ul`
  display: grid;
  li a {
    display: grid;
    grid-template-columns: 26px 30px 4.2em minmax(0, 1fr) auto;
    gap: 10px;
    align-items: center;
    min-height: 52px;
    border-bottom: 1px solid var(--hair);
    text-decoration: none;
  }
  li a:hover {
    background: var(--brass-wash);
  }
  b {
    font: 700 19px/1 var(--mono);
    letter-spacing: -0.03em;
  }
`;
const HOUR = 3600e3;
const ROW = 30;

/** A crowded stretch of the Rule, opened: the hands of each cook on an even scale, and every move with its latest time. */
export function Stretch({
  steps,
  cooks,
  zone,
  onClose,
}: {
  steps: readonly Step[];
  cooks: number;
  zone: string;
  onClose: () => void;
}) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { rows, clashes } = handsOf(steps, cooks);
  const from = Math.min(...steps.map((s) => ms(s.at)));
  const to = Math.max(...rows.flat().map((h) => h.to), ...steps.map((s) => ms(s.at)), from + HOUR);
  const left = 68;
  const x = scaleTime()
    .domain([from, to])
    .range([left, Math.max(width - 10, left + 1)]);
  const bottom = 8 + cooks * ROW;
  return (
    <Sheet
      title={`${weekday(from, zone)} ${clock(from, zone)} to ${weekday(to, zone)} ${clock(to, zone)}`}
      isOpen
      onClose={onClose}
    >
      {clashes.length > 0 && (
        <p>
          <b>{SAY.moreHandsAreWantedThanThere}</b> at {clashes.map((t) => clock(t, zone)).join(", ")}.
        </p>
      )}
      <div ref={box}>
        {width > 0 && (
          <svg width={width} height={bottom + 26} role="img" aria-label={SAY.handsOfEachCookTheList}>
            {rows.map((row, cook) => (
              <g key={cook}>
                <text x={0} y={8 + cook * ROW + 18}>
                  cook {cook + 1}
                </text>
                <rect
                  x={left}
                  y={8 + cook * ROW + 4}
                  width={width - left - 10}
                  height={18}
                  fill="var(--paper)"
                  stroke="var(--hair-2)"
                />
                {row.map((h) => (
                  <rect
                    key={h.key}
                    x={x(h.from)}
                    y={8 + cook * ROW + 4}
                    width={Math.max(x(h.to) - x(h.from), 3)}
                    height={18}
                    fill={h.clash ? "var(--paper)" : "var(--ink)"}
                    stroke="var(--ink)"
                    strokeWidth={h.clash ? 4 : 1}
                  />
                ))}
              </g>
            ))}
            {x.ticks(Math.max(2, Math.floor((width - left) / 90))).map((t) => (
              <g key={t.getTime()}>
                <line x1={x(t)} x2={x(t)} y1={bottom} y2={bottom + 6} stroke="var(--ink)" />
                <text x={x(t)} y={bottom + 23} textAnchor="middle" className="mono">
                  {clock(t.getTime(), zone)}
                </text>
              </g>
            ))}
          </svg>
        )}
      </div>
      <List>
        {[...steps]
          .sort((a, b) => ms(a.at) - ms(b.at))
          .map((s) => (
            <li key={`${s.bake_id}-${s.key}-${s.at}`}>
              <Link to={stepPath(s)} onClick={onClose}>
                <Seal seal={s.seal} size={20} />
                <Glyph name={GLYPH_OF_STEP[stepKind(s.key)] ?? "mix"} />
                <b>{clock(s.at, zone)}</b>
                <span>
                  {s.name}, {s.bake}
                </span>
                <span className="quiet">
                  {s.done_at ? "done" : s.can_wait_until ? `by ${clock(s.can_wait_until, zone)}` : ""}
                </span>
              </Link>
            </li>
          ))}
      </List>
    </Sheet>
  );
}
