import { scaleLinear } from "d3-scale";
import { useState } from "react";
import type { Figures } from "../../api/logbook";
import { Pick } from "../../controls/Pick";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { dayName, mass, mean, ms, temp, tempUnit, Z10 } from "../../words/format";
import { SAY } from "../../words/say/logbook";
import { Axis, Drawing, percentOf } from "./Pockets";
import { placeOf, stretches } from "./brokenTime";
import { Instrument } from "./Instrument";
import { useMarks } from "./useMarks";

const HIGH = 168;
const LEFT = 52;
const FOOT = 26;
const hours = (h: number): string => (h < 10 ? h.toFixed(1) : h.toFixed(0));

/** Time to ready against the kitchen's air: what was said of each as a bar, what it was as a mark. */
export function Ready({
  figures,
  chosen,
  onChoose,
}: {
  figures: Figures;
  chosen: readonly number[];
  onChoose: (bake: number) => void;
}) {
  const units = useWords();
  const [box, width] = useWidth<HTMLDivElement>();
  const marks = figures.ready;
  const air = marks.map((m) => m.room_c);
  const x = scaleLinear([Math.min(...air) - 0.5, Math.max(...air) + 0.5], [LEFT, width - 12]);
  const most = Math.max(...marks.flatMap((m) => [m.was, m.p90]), 1);
  const least = Math.min(...marks.flatMap((m) => [m.was, m.p10]), most);
  const y = (h: number) =>
    10 + (HIGH - 10) * (1 - Math.log(h / (least * 0.9)) / Math.log((most * 1.05) / (least * 0.9)));
  const keys = useMarks(marks.length, (i) => onChoose(marks[i]!.bake_id));
  const ticks = [0.5, 1, 2, 4, 8, 16, 32].filter((h) => h >= least * 0.9 && h <= most * 1.05);
  return (
    <Instrument
      name="Time to ready"
      about={marks.length ? SAY.heldInside(figures.ready_inside, figures.ready_of) : SAY.noRiseIsTimed}
      table={{
        head: ["when", "bake", `air ${tempUnit(units)}`, "said h", "8 in 10", "was h"],
        rows: marks.map((m) => [
          dayName(m.at, units.zone),
          m.name,
          temp(m.room_c, units, 1),
          hours(m.p50),
          `${hours(m.p10)} to ${hours(m.p90)}`,
          hours(m.was),
        ]),
      }}
    >
      <Drawing ref={box}>
        {width > 0 && marks.length > 0 && (
          <svg width={width} height={HIGH + FOOT} role="group" aria-label={SAY.readyByTheAir}>
            {ticks.map((h) => (
              <g key={h}>
                <path d={`M${LEFT} ${y(h)}H${width}`} stroke="var(--hair)" />
                <text x={LEFT - 8} y={y(h) + 5} textAnchor="end">
                  {h} h
                </text>
              </g>
            ))}
            {x.ticks(Math.max(3, Math.floor(width / 90))).map((c) => (
              <text key={c} x={x(c)} y={HIGH + 20} textAnchor="middle" className="mono">
                {temp(c, units)}°
              </text>
            ))}
            {marks.map((m) => (
              <path
                key={m.bake_id}
                d={`M${x(m.room_c)} ${y(m.p10)}V${y(m.p90)}`}
                stroke="var(--hair-2)"
                strokeWidth={5}
                opacity={0.55}
              />
            ))}
            <g ref={keys.box} onKeyDown={keys.onKeyDown}>
              {marks.map((m, i) => {
                const inside = m.p10 <= m.was && m.was <= m.p90;
                const big = chosen.includes(m.bake_id);
                return (
                  <g
                    key={m.bake_id}
                    {...keys.of(i)}
                    aria-label={SAY.readyMark(
                      `${m.name}, ${dayName(m.at, units.zone)}`,
                      hours(m.was),
                      hours(m.p10),
                      hours(m.p90),
                    )}
                  >
                    <rect x={x(m.room_c) - 11} y={y(m.was) - 22} width={22} height={44} fill="transparent" />
                    {inside ? (
                      <circle
                        cx={x(m.room_c)}
                        cy={y(m.was)}
                        r={big ? 8 : 4.5}
                        fill={big ? "var(--brass-fill)" : "var(--paper)"}
                        stroke="var(--ink)"
                        strokeWidth={2}
                      />
                    ) : (
                      <rect
                        x={x(m.room_c) - (big ? 8 : 5)}
                        y={y(m.was) - (big ? 8 : 5)}
                        width={big ? 16 : 10}
                        height={big ? 16 : 10}
                        fill={big ? "var(--brass-fill)" : "var(--ink)"}
                        stroke="var(--ink)"
                        strokeWidth={2}
                      />
                    )}
                  </g>
                );
              })}
            </g>
          </svg>
        )}
      </Drawing>
    </Instrument>
  );
}

interface Band {
  at: string;
  mean: number;
  low: number;
  high: number;
  /** The mark in words. */
  told: string;
  seen?: number;
  set?: number;
}

function Bands({
  rows,
  label,
  tick,
  level,
}: {
  rows: readonly Band[];
  label: string;
  tick: (v: number) => string;
  level?: number;
}) {
  const { zone } = useWords();
  const [box, width] = useWidth<HTMLDivElement>();
  const all = stretches(
    rows.map((r) => ms(r.at)),
    LEFT,
    width - 10,
  );
  const values = rows.flatMap((r) => [
    r.low,
    r.high,
    ...(r.seen === undefined ? [] : [r.seen]),
    ...(r.set === undefined ? [] : [r.set]),
  ]);
  const y = scaleLinear(
    [Math.min(...values, level ?? Infinity), Math.max(...values, level ?? -Infinity)],
    [HIGH - 4, 10],
  ).nice(4);
  const x = (r: Band) => placeOf(ms(r.at), all);
  const keys = useMarks(rows.length, () => undefined);
  const steps = rows.filter((r, i) => i === 0 || r.set !== rows[i - 1]!.set);
  return (
    <Drawing ref={box}>
      {width > 0 && rows.length > 0 && (
        <svg width={width} height={HIGH + FOOT} role="group" aria-label={label}>
          {y.ticks(4).map((v) => (
            <g key={v}>
              <path d={`M${LEFT} ${y(v)}H${width}`} stroke="var(--hair)" />
              <text x={LEFT - 8} y={y(v) + 5} textAnchor="end" className="mono">
                {tick(v)}
              </text>
            </g>
          ))}
          {rows.map((r) => (
            <path
              key={`b${r.at}`}
              d={`M${x(r)} ${y(r.low)}V${y(r.high)}`}
              stroke="var(--hair-2)"
              strokeWidth={6}
              opacity={0.5}
            />
          ))}
          {steps.map((s, i) =>
            s.set === undefined ? null : (
              <path
                key={`s${s.at}`}
                d={`M${x(s)} ${y(s.set)}H${steps[i + 1] ? x(steps[i + 1]!) : width - 4}`}
                stroke="var(--brass)"
                strokeWidth={3}
                fill="none"
              />
            ),
          )}
          {rows.map((r) => (
            <path key={`m${r.at}`} d={`M${x(r) - 4} ${y(r.mean)}h8`} stroke="var(--ink)" strokeWidth={3} />
          ))}
          {rows.map(
            (r) =>
              r.seen !== undefined && (
                <circle
                  key={`o${r.at}`}
                  cx={x(r)}
                  cy={y(r.seen)}
                  r={4}
                  fill="var(--paper)"
                  stroke="var(--ink)"
                  strokeWidth={2}
                />
              ),
          )}
          <g ref={keys.box} onKeyDown={keys.onKeyDown}>
            {rows.map((r, i) => (
              <g key={`k${r.at}`} {...keys.of(i)} role="img" aria-label={r.told}>
                <rect x={x(r) - 6} y={10} width={12} height={HIGH - 10} fill="transparent" />
              </g>
            ))}
          </g>
          <Axis all={all} y={HIGH} zone={zone} />
        </svg>
      )}
    </Drawing>
  );
}

/** What was believed of a surface or of a leaven, bake by bake; which one is chosen. */
export function Believed({ figures }: { figures: Figures }) {
  const units = useWords();
  const [open, setOpen] = useState<string | null>(null);
  const options = [
    ...figures.heats.map((h) => ({ id: `heat ${h.surface_id}`, text: h.name })),
    ...figures.strengths.map((s) => ({ id: `leaven ${s.key}`, text: s.name })),
    ...figures.rests.map((r) => ({ id: `rest ${r.surface_id}`, text: SAY.restsOf(r.name) })),
  ];
  const shown = options.find((o) => o.id === open) ?? options[0];
  const heat = figures.heats.find((h) => `heat ${h.surface_id}` === shown?.id);
  const leaven = figures.strengths.find((s) => `leaven ${s.key}` === shown?.id);
  const rest = figures.rests.find((r) => `rest ${r.surface_id}` === shown?.id);
  const k = heat?.marks.at(-1)?.shift_k ?? 0;
  const degrees = `${temp(Math.abs(k) * (units.temp === "F" ? 1.8 : 1), { ...units, temp: "C" })} ${tempUnit(units)}`;
  const about = heat
    ? Math.abs(k) < 2
      ? SAY.believedAsSet
      : k > 0
        ? SAY.believedOver(degrees)
        : SAY.believedUnder(degrees)
    : leaven
      ? SAY.asStrongAs(percentOf(leaven.marks.at(-1)!.mean))
      : rest
        ? SAY.restsLately(percentOf(mean(rest.marks.slice(-3).map((m) => m.share))))
        : SAY.nothingIsLearnedOfAny;
  const rows: Band[] = heat
    ? heat.marks.map((m) => ({
        at: m.at,
        mean: m.set_c + m.shift_k,
        low: m.set_c + m.shift_k - Z10 * m.sd_k,
        high: m.set_c + m.shift_k + Z10 * m.sd_k,
        told: SAY.heatMark(
          dayName(m.at, units.zone),
          `${temp(m.set_c, units)}°`,
          `${temp(m.set_c + m.shift_k, units)}°`,
        ),
        set: m.set_c,
      }))
    : rest
      ? rest.marks.map((m) => ({
          at: m.at,
          mean: m.share,
          low: 0,
          high: m.share,
          told: SAY.restMark(`${m.name}, ${dayName(m.at, units.zone)}`, percentOf(m.share)),
        }))
      : (leaven?.marks.map((m) => ({
          at: m.at,
          mean: m.mean,
          low: m.mean * Math.exp(-Z10 * m.sd),
          high: m.mean * Math.exp(Z10 * m.sd),
          told: SAY.strengthMark(dayName(m.at, units.zone), m.seen.toFixed(2), m.mean.toFixed(2)),
          seen: m.seen,
        })) ?? []);
  const tick = (v: number) => (heat ? `${temp(v, units)}°` : rest ? percentOf(v) : `${v.toFixed(2)}×`);
  return (
    <Instrument
      name="Heat and leaven"
      about={about}
      table={{
        head: heat
          ? ["when", "set", "believed", "8 in 10"]
          : rest
            ? ["when", "rest"]
            : ["when", "seen", "believed", "8 in 10"],
        rows: rows.map((r) =>
          rest
            ? [dayName(r.at, units.zone), tick(r.mean)]
            : [
                dayName(r.at, units.zone),
                r.set !== undefined ? tick(r.set) : r.seen !== undefined ? `${r.seen.toFixed(2)}×` : "",
                heat ? tick(r.mean) : `${r.mean.toFixed(2)}×`,
                `${tick(r.low)} to ${tick(r.high)}`,
              ],
        ),
      }}
    >
      <div>
        {shown && <Pick label="Surface or leaven" hideLabel value={shown.id} options={options} onChange={setOpen} />}
        <Bands
          rows={rows}
          label={
            heat
              ? SAY.heatBakeByBake(heat.name)
              : rest
                ? SAY.restsBakeByBake(rest.name)
                : SAY.strengthBakeByBake(leaven?.name ?? "")
          }
          tick={tick}
          {...(heat ? {} : { level: 1 })}
        />
      </div>
    </Instrument>
  );
}

/** What each bake took of hands and flour. */
export function Costs({ figures }: { figures: Figures }) {
  const units = useWords();
  const rows = figures.costs;
  return (
    <Instrument
      name="Cost"
      about={
        rows.length
          ? SAY.handsOfABake(
              Math.round(mean(rows.map((r) => r.hands_min))),
              `${mass(mean(rows.map((r) => r.flour_g)), units)} ${units.mass}`,
            )
          : ""
      }
      table={{
        head: ["when", "bake", "hands min", `flour ${units.mass}`, "breads"],
        rows: rows.map((r) => [
          dayName(r.at, units.zone),
          r.name,
          r.hands_min.toFixed(0),
          mass(r.flour_g, units),
          String(r.judged),
        ]),
      }}
    >
      <Bands
        rows={rows.map((r) => ({
          at: r.at,
          mean: r.hands_min,
          low: 0,
          high: r.hands_min,
          told: SAY.costMark(`${r.name}, ${dayName(r.at, units.zone)}`, r.hands_min.toFixed(0)),
        }))}
        label={SAY.handsBakeByBake}
        tick={(v) => v.toFixed(0)}
        level={0}
      />
    </Instrument>
  );
}
