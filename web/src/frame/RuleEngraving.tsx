import { useId } from "react";
import type { Kitchen, Schemas, Step } from "../api/client";
import { heatColour } from "../theme/temperature";
import { hourOfDay, ms, temp, weekday } from "../words/format";
import { hourMarks, type RuleScale } from "../words/scale";
import { type Lane, lanesOf, type Timed, timedOf } from "./pegPlaces";
import type { RuleLanes } from "./ruleLanes";

interface Props {
  scale: RuleScale;
  now: number;
  width: number;
  kitchen: Kitchen;
  steps: readonly Step[];
  away: readonly Schemas["SpanRead"][];
  lanes: RuleLanes;
}
/** How wide the plate of now is, on each side of its needle [px]. */
export const PLATE = 56;

/** What is cut into the Rule, each in a lane of its own: bakes, hours in which hands are away, the air, the hours. */
export function RuleEngraving({ scale, now, width, kitchen, steps, away, lanes }: Props) {
  const zone = kitchen.zone;
  const gap = width < 700 ? 34 : 40;
  const left = lanes.gutter;
  const marks = hourMarks(scale, scale.t(left + 12), scale.t(width - 14), gap);
  const all = hourMarks(scale, scale.t(left), scale.right, 7);
  const air = (t: number) => {
    const h = hourOfDay(t, zone);
    const low = Math.floor(h) % 24;
    const share = h - Math.floor(h);
    return kitchen.hourly_c[low]! * (1 - share) + kitchen.hourly_c[(low + 1) % 24]! * share;
  };
  const x = scale.x(now);
  const id = useId();
  return (
    <svg width={width} height={lanes.height} aria-hidden="true">
      <clipPath id={`${id}in`}>
        <rect x={left} y={0} width={Math.max(width - left, 0)} height={lanes.height} />
      </clipPath>
      <g clipPath={`url(#${id}in)`}>
        <Air air={air} kitchen={kitchen} scale={scale} width={width} lanes={lanes} />
        <Away away={away} scale={scale} width={width} cooks={kitchen.cooks} lanes={lanes} />
        <Bakes steps={steps} scale={scale} width={width} lanes={lanes} now={now} />
        {all.map((t) => (
          <line
            key={t}
            x1={scale.x(t)}
            x2={scale.x(t)}
            y1={lanes.height - 6}
            y2={lanes.height}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        ))}
        {marks
          .filter((t) => Math.abs(scale.x(t) - x) > PLATE + 14)
          .map((t) => {
            const hour = Math.round(hourOfDay(t, zone)) % 24;
            return (
              <text
                key={t}
                x={scale.x(t)}
                y={lanes.height - 9}
                textAnchor="middle"
                className={hour === 0 ? "day" : undefined}
              >
                {hour === 0 ? weekday(t, zone) : hour}
              </text>
            );
          })}
        <line x1={x} x2={x} y1={0} y2={lanes.hours + 4} stroke="var(--brass)" strokeWidth={3} />
        <path d={`M${x - 8} 0h16l-8 11z`} fill="var(--brass)" />
      </g>
      <line x1={left} x2={left} y1={0} y2={lanes.height} stroke="var(--hair-2)" />
      {lanes.named && (
        <>
          <text x={left - 10} y={28} textAnchor="end" className="lane">
            moves
          </text>
          <text
            x={left - 10}
            y={lanes.bakes + ((lanes.most - 1) * lanes.pitch) / 2 + 5}
            textAnchor="end"
            className="lane"
          >
            bakes
          </text>
          <text x={left - 10} y={lanes.away + 8} textAnchor="end" className="lane">
            away
          </text>
        </>
      )}
      <text x={left - 8} y={lanes.height - 9} textAnchor="end" className="air">
        {lanes.gutter > 60 ? "air " : ""}
        {temp(air(now), { mass: kitchen.mass_unit, temp: kitchen.temp_unit }, 1)}°
      </text>
    </svg>
  );
}

type Part = Pick<Props, "scale" | "width" | "lanes">;

/** The kitchen's air in its own lane, in the colours of its temperature. */
function Air({ air, kitchen, scale, width, lanes }: Part & { air: (t: number) => number; kitchen: Kitchen }) {
  const { top, bottom } = lanes.air;
  const min = Math.min(...kitchen.hourly_c);
  const max = Math.max(...kitchen.hourly_c, min + 1);
  const y = (c: number) => bottom - 2 - ((c - min) / (max - min)) * (bottom - top - 2);
  const points = Array.from({ length: Math.ceil(width / 12) + 1 }, (_, i) => i * 12).map((px) => ({
    px,
    c: air(scale.t(px)),
  }));
  return (
    <>
      {points.slice(1).map((p, i) => (
        <rect
          key={p.px}
          x={points[i]!.px}
          width={12.5}
          y={y(p.c)}
          height={bottom - y(p.c)}
          fill={heatColour(p.c)}
          opacity={0.75}
        />
      ))}
      <polyline
        points={points.map((p) => `${p.px},${y(p.c)}`).join(" ")}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={1.25}
      />
    </>
  );
}

/** Hours in which hands are away: crossed strokes for all of them, one way for some. */
function Away({
  away,
  scale,
  width,
  cooks,
  lanes,
}: Part & {
  away: readonly Schemas["SpanRead"][];
  cooks: number;
}) {
  const id = useId();
  const y = lanes.away;
  const shown = away
    .map((b) => ({
      ...b,
      a: Math.max(scale.x(ms(b.start)), 0),
      z: Math.min(scale.x(ms(b.end)), width),
      all: b.hands === null || b.hands >= cooks,
    }))
    .filter((b) => b.z - b.a > 1);
  return (
    <>
      <defs>
        <pattern id={`${id}some`} width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V9" stroke="var(--ink)" strokeWidth="1.4" />
        </pattern>
        <pattern id={`${id}all`} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V7M0 0H7" stroke="var(--ink)" strokeWidth="1.6" />
        </pattern>
      </defs>
      {shown.map((b) => (
        <g key={b.start + b.end + b.name} data-testid="away">
          <rect
            x={b.a}
            y={y}
            width={b.z - b.a}
            height={10}
            fill={`url(#${id}${b.all ? "all" : "some"})`}
            opacity={0.6}
          />
          <path d={`M${b.a} ${y - 2}v14M${b.z} ${y - 2}v14`} stroke="var(--ink)" strokeWidth={1.5} />
        </g>
      ))}
    </>
  );
}

const LETTER = 8.4;

/** How many lanes the bakes of these moves take, of `most` at the most. */
export const lanesUsed = (steps: readonly Step[], most: number): number =>
  Math.max(0, ...lanesOf(timedOf(steps), most).map((l) => l.lane + 1));

/** Each bake's stretch: a line to its serving, a tick for each move, a bar from when until when its next move may be made. */
function Bakes({ steps, scale, width, lanes, now }: Part & { steps: readonly Step[]; now: number }) {
  return lanesOf(timedOf(steps), lanes.most).map((b) => (
    <Bake key={`${b.id} ${b.name}`} bake={b} scale={scale} width={width} lanes={lanes} now={now} />
  ));
}

function Bake({ bake: b, scale, width, lanes, now }: Part & { bake: Lane<Timed>; now: number }) {
  const y = laneY(lanes, b.lane);
  const [a, z] = [Math.max(scale.x(b.from), lanes.gutter), Math.min(scale.x(b.to), width)];
  if (z <= lanes.gutter || a >= width) return null;
  const over = b.to < now;
  const ink = over ? "var(--hair-2)" : "var(--ink)";
  const next = b.steps.find((s) => !s.done && s.key !== "serve" && s.key !== "preheat");
  const wait = next?.step.can_wait_until;
  const bar = wait ? [scale.x(ms(next.step.not_before ?? next.step.at)), scale.x(ms(wait))] : null;
  const free = freeRun(
    b.steps.map((s) => scale.x(s.at)),
    bar,
    Math.max(a, lanes.gutter + 8),
    z,
  );
  const words = lanes.named && free !== null && free[1] - free[0] > b.name.length * LETTER + 14;
  return (
    <g>
      <path d={`M${a} ${y}H${z}`} stroke={ink} strokeWidth={1.25} />
      {bar && bar[1]! - bar[0]! > 3 && (
        <rect
          x={bar[0]}
          y={y - 3.5}
          width={bar[1]! - bar[0]!}
          height={7}
          fill="var(--paper)"
          stroke={ink}
          strokeWidth={1.5}
        />
      )}
      {b.steps
        .filter((s) => s.key !== "serve")
        .map((s) => (
          <path
            key={s.key}
            d={`M${scale.x(s.at)} ${y - 5}v10`}
            stroke={s.done ? "var(--hair-2)" : "var(--ink)"}
            strokeWidth={2}
          />
        ))}
      {words && (
        <text x={(free[0] + free[1]) / 2} y={y + 5} textAnchor="middle" className="bake">
          {b.name}
        </text>
      )}
    </g>
  );
}

/** The height of a bake's lane [px]. */
export const laneY = (lanes: RuleLanes, lane: number): number => lanes.bakes + lane * lanes.pitch;

/** The longest stretch of a lane without a tick or a bar [px]; null where there is none. */
function freeRun(
  ticks: readonly number[],
  bar: readonly number[] | null,
  from: number,
  to: number,
): readonly [number, number] | null {
  const stops = [from, ...ticks.flatMap((t) => [t - 6, t + 6]), ...(bar ? [bar[0]!, bar[1]!] : []), to]
    .filter((t) => t >= from && t <= to)
    .sort((a, b) => a - b);
  const inBar = (t: number) => bar !== null && t > bar[0]! && t < bar[1]!;
  let best: readonly [number, number] | null = null;
  for (const [i, end] of stops.slice(1).entries()) {
    const begin = stops[i]!;
    const middle = (begin + end) / 2;
    if (inBar(middle) || ticks.some((t) => Math.abs(t - middle) < 6)) continue;
    if (!best || end - begin > best[1] - best[0]) best = [begin, end];
  }
  return best;
}
