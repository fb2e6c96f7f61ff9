import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import type { Figures } from "../../api/logbook";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { SealShape } from "../../instruments/Glyph";
import { dayName, monthName, ms, percent } from "../../words/format";
import { SAY } from "../../words/say/logbook";
import { monthsIn, placeOf, stretches, type Stretch } from "./brokenTime";
import { Instrument } from "./Instrument";
import { useMarks } from "./useMarks";

const LEFT = 190;
const HIGH = 116;
const TOP = 16;
const LANE = 32;
const LANES = 4;
export const Drawing = styled.div`
  svg {
    display: block;
    overflow: visible;
  }
  [data-mark]:focus-visible {
    outline: 3px solid var(--brass);
    outline-offset: 3px;
  }
`;
export const percentOf = (share: number): string => `${percent(share)} %`;

/** Full pockets bake by bake with the rate that is believed, and a lane for each cause beneath: where it cost breads, what was changed, how long it is silent since. */
export function Pockets({
  figures,
  chosen,
  onChoose,
}: {
  figures: Figures;
  chosen: readonly number[];
  onChoose: (bake: number) => void;
}) {
  const { zone } = useWords();
  const [box, width] = useWidth<HTMLDivElement>();
  const marks = figures.pockets;
  const right = Math.max(width - 60, LEFT + 100);
  const narrow = width < 700;
  const left = narrow ? 44 : LEFT;
  const at = marks.map((m) => ms(m.at));
  const all = stretches(at, left, right);
  const x = (iso: string) => placeOf(ms(iso), all);
  const y = scaleLinear([0, 1], [TOP + HIGH, TOP]);
  const keys = useMarks(marks.length, (i) => marks[i]!.bake_id !== null && onChoose(marks[i]!.bake_id!));
  const lanes = figures.lanes.slice(0, LANES);
  const lost = lanes.flatMap((lane) => lane.marks);
  const laneKeys = useMarks(lost.length, (i) => onChoose(lost[i]!.bake_id));
  const bottom = TOP + HIGH + 26;
  const now = marks.at(-1);
  return (
    <Instrument
      name="Full pockets"
      figure={now && <span className="figure">{percentOf(now.mean)}</span>}
      about={now ? SAY.believedNow(percentOf(now.low), percentOf(now.high)) : SAY.noPocketIsJudged}
      table={{
        head: ["when", "bake", "full", "judged", "believed", "8 in 10"],
        rows: marks.map((m) => [
          m.bake_id === null ? monthName(m.at, zone) : dayName(m.at, zone),
          m.bake_id === null ? SAY.bakes(m.bakes) : m.name,
          String(m.full),
          String(m.judged),
          percentOf(m.mean),
          `${percentOf(m.low)} to ${percentOf(m.high)}`,
        ]),
      }}
    >
      <Drawing ref={box}>
        {width > 0 && marks.length > 0 && (
          <svg
            width={width}
            height={bottom + lanes.length * LANE + 8}
            role="group"
            aria-label={SAY.fullPocketsBakeByBake}
          >
            {(
              [
                [0, "none"],
                [0.5, "half"],
                [1, "all"],
              ] as const
            ).map(([v, text]) => (
              <g key={text}>
                <path d={`M${left} ${y(v)}H${right}`} stroke="var(--hair)" />
                <text x={left - 8} y={y(v) + 5} textAnchor="end">
                  {text}
                </text>
              </g>
            ))}
            <Believed figures={figures} all={all} y={y} />
            <g ref={keys.box} onKeyDown={keys.onKeyDown}>
              {marks.map((m, i) => (
                <g
                  key={m.at}
                  {...keys.of(i)}
                  aria-label={SAY.markOf(
                    m.bake_id === null
                      ? `${monthName(m.at, zone)}, ${SAY.bakes(m.bakes)}`
                      : `${m.name}, ${dayName(m.at, zone)}`,
                    m.full,
                    m.judged,
                  )}
                >
                  <path d={`M${x(m.at)} ${y(0)}V${y(m.full / m.judged)}`} stroke="var(--hair)" />
                  <rect x={x(m.at) - 11} y={y(m.full / m.judged) - 22} width={22} height={44} fill="transparent" />
                  <SealShape
                    seal={m.seal || "round"}
                    x={x(m.at)}
                    y={y(m.full / m.judged)}
                    size={chosen.includes(m.bake_id ?? -1) ? 22 : 15}
                    fill={chosen.includes(m.bake_id ?? -1) ? "var(--brass-fill)" : "var(--paper)"}
                  />
                  {chosen.includes(m.bake_id ?? -1) && chosen.length > 1 && (
                    <text className="strong halo" x={x(m.at)} y={y(m.full / m.judged) - 16} textAnchor="middle">
                      {"AB"[chosen.indexOf(m.bake_id!)]}
                    </text>
                  )}
                </g>
              ))}
            </g>
            <Axis all={all} y={TOP + HIGH} zone={zone} />
            <g ref={laneKeys.box} onKeyDown={laneKeys.onKeyDown}>
              {lanes.map((lane, k) => {
                const mid = bottom + k * LANE + LANE / 2;
                const last = lane.changes.at(-1);
                return (
                  <g key={lane.cause}>
                    <LaneName name={lane.name} x={narrow ? left : left - 12} y={mid} narrow={narrow} />
                    {all.map((s) => (
                      <path key={s.from} d={`M${s.left} ${mid}H${s.right}`} stroke="var(--hair)" />
                    ))}
                    {lane.marks.map((m) => (
                      <rect
                        key={m.bake_id}
                        {...laneKeys.of(lost.indexOf(m))}
                        aria-label={SAY.laneMark(lane.name, m.lost, dayName(m.at, zone))}
                        x={x(m.at) - 4}
                        y={mid - 3 - Math.min(m.lost, 8) / 2}
                        width={8}
                        height={6 + Math.min(m.lost, 8)}
                        fill="var(--ink)"
                      />
                    ))}
                    {last && (
                      <g>
                        <path d={`M${x(last.at)} ${mid - 9}v18`} stroke="var(--brass)" strokeWidth={3} />
                        <text className="halo" x={x(last.at) + 8} y={mid + 5} style={{ fontSize: 14 }}>
                          {SAY.since(last.text, lane.silent)}
                        </text>
                      </g>
                    )}
                    <text x={right + 12} y={mid + 5} className="mono strong">
                      {lane.lost}
                    </text>
                  </g>
                );
              })}
            </g>
            {lanes.length > 0 && (
              <text x={right + 60} y={bottom - 8} textAnchor="end" className="quiet" style={{ fontSize: 14 }}>
                breads lost
              </text>
            )}
          </svg>
        )}
      </Drawing>
    </Instrument>
  );
}

/** A cause's name before its lane, on two lines where it is long; above it where there is no room before. */
function LaneName({ name, x, y, narrow }: { name: string; x: number; y: number; narrow: boolean }) {
  if (narrow)
    return (
      <text x={x} y={y - 7} style={{ fontSize: 13 }}>
        {name}
      </text>
    );
  const words = name.split(" ");
  const half = words.findIndex((_, i) => words.slice(0, i + 1).join(" ").length >= name.length / 2) + 1;
  const lines = name.length > 24 ? [words.slice(0, half).join(" "), words.slice(half).join(" ")] : [name];
  return (
    <text textAnchor="end" style={{ fontSize: 15 }}>
      {lines.map((line, i) => (
        <tspan key={line} x={x} y={y + 5 + (i - (lines.length - 1) / 2) * 15}>
          {line}
        </tspan>
      ))}
    </text>
  );
}

function Believed({ figures, all, y }: { figures: Figures; all: readonly Stretch[]; y: (v: number) => number }) {
  return all.map((s) => {
    const own = figures.pockets.filter((m) => ms(m.at) >= s.from && ms(m.at) <= s.to);
    const at = (m: (typeof own)[number]) => placeOf(ms(m.at), all);
    const line = (of: (m: (typeof own)[number]) => number, rows = own) =>
      rows.map((m) => `${at(m).toFixed(1)} ${y(of(m)).toFixed(1)}`).join("L");
    if (own.length < 2) return null;
    return (
      <g key={s.from}>
        <path
          d={`M${line((m) => m.high)}L${line((m) => m.low, [...own].reverse())}Z`}
          fill="var(--recess)"
          stroke="var(--hair-2)"
          strokeWidth={1}
        />
        <path d={`M${line((m) => m.mean)}`} fill="none" stroke="var(--ink)" strokeWidth={2.5} />
      </g>
    );
  });
}

/** The months along a broken axis, and a tear where a silence was cut out. */
export function Axis({ all, y, zone }: { all: readonly Stretch[]; y: number; zone: string }) {
  let last = -Infinity;
  return (
    <g>
      {all.map((s, i) => (
        <g key={s.from}>
          <path d={`M${s.left} ${y}H${s.right}`} stroke="var(--ink)" strokeWidth={2} />
          {i > 0 && (
            <path
              d={`M${s.left - 18} ${y - 10}l4 5l-4 5l4 5M${s.left - 12} ${y - 10}l4 5l-4 5l4 5`}
              fill="none"
              stroke="var(--hair-2)"
              strokeWidth={1.5}
            />
          )}
        </g>
      ))}
      {monthsIn(all).map((t, i, every) => {
        const x = placeOf(t, all);
        if (x - last < 44) return null;
        const year = i === 0 || new Date(t).getUTCFullYear() !== new Date(every[i - 1]!).getUTCFullYear();
        const text = monthName(t + 6 * 24 * 3600e3, zone, year);
        last = x + (year ? 34 : 0);
        return (
          <g key={t}>
            <path d={`M${x} ${y}v6`} stroke="var(--ink)" strokeWidth={2} />
            <text x={x + 3} y={y + 18}>
              {text}
            </text>
          </g>
        );
      })}
    </g>
  );
}
