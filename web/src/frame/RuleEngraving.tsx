import { useId } from "react";
import type { Kitchen, Schemas, Step } from "../api/client";
import { heatColour } from "../theme/temperature";
import { hourOfDay, ms, temp, weekday } from "../words/format";
import { hourMarks, type RuleScale } from "../words/scale";

export const HEIGHT = 108;
const TRACE = { top: 50, bottom: 70 };

interface Props {
  scale: RuleScale;
  now: number;
  width: number;
  kitchen: Kitchen;
  steps: readonly Step[];
  away: readonly Schemas["SpanRead"][];
}

/** What is cut into the Rule: the air, the hours, the hours in which hands are away, the windows of the moves. */
export function RuleEngraving({ scale, now, width, kitchen, steps, away }: Props) {
  const zone = kitchen.zone;
  const gap = width < 700 ? 34 : 40;
  const marks = hourMarks(scale, scale.t(14), scale.t(width - 14), gap);
  const all = hourMarks(scale, scale.left, scale.right, 7);
  const air = (t: number) => {
    const h = hourOfDay(t, zone);
    const low = Math.floor(h) % 24;
    const share = h - Math.floor(h);
    return kitchen.hourly_c[low]! * (1 - share) + kitchen.hourly_c[(low + 1) % 24]! * share;
  };
  const min = Math.min(...kitchen.hourly_c);
  const max = Math.max(...kitchen.hourly_c, min + 1);
  const y = (c: number) => TRACE.bottom - 2 - ((c - min) / (max - min)) * (TRACE.bottom - TRACE.top - 4);
  const points = Array.from({ length: Math.ceil(width / 12) + 1 }, (_, i) => i * 12).map((px) => ({
    px,
    c: air(scale.t(px)),
  }));
  const x = scale.x(now);
  return (
    <svg width={width} height={HEIGHT} aria-hidden="true">
      {points.slice(1).map((p, i) => (
        <rect
          key={p.px}
          x={points[i]!.px}
          width={12.5}
          y={y(p.c)}
          height={TRACE.bottom - y(p.c)}
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
      <Away away={away} scale={scale} width={width} cooks={kitchen.cooks} />
      <Windows steps={steps} scale={scale} width={width} />
      {all.map((t) => (
        <line
          key={t}
          x1={scale.x(t)}
          x2={scale.x(t)}
          y1={HEIGHT - 8}
          y2={HEIGHT}
          stroke="var(--ink)"
          strokeWidth={1.5}
        />
      ))}
      {marks
        .filter((t) => Math.abs(scale.x(t) - x) > 18)
        .map((t) => {
          const hour = Math.round(hourOfDay(t, zone)) % 24;
          return (
            <g key={t} transform={`translate(${scale.x(t)},0)`}>
              <line y1={HEIGHT - 15} y2={HEIGHT} stroke="var(--ink)" strokeWidth={1.5} />
              <text y={HEIGHT - 19} textAnchor="middle" className={hour === 0 ? "day" : undefined}>
                {hour === 0 ? weekday(t, zone) : hour}
              </text>
            </g>
          );
        })}
      <text className="air" x={Math.max(x - 9, 46)} y={TRACE.top - 4} textAnchor="end">
        {temp(air(now), { mass: kitchen.mass_unit, temp: kitchen.temp_unit }, 1)}°
      </text>
      <line x1={x} x2={x} y1={26} y2={HEIGHT} stroke="var(--brass)" strokeWidth={3} />
      <path d={`M${x - 8} ${HEIGHT}h16l-8 -11z`} fill="var(--brass)" />
    </svg>
  );
}

/** Hours in which hands are away: crossed strokes for all of them, one way for some. */
function Away({
  away,
  scale,
  width,
  cooks,
}: {
  away: readonly Schemas["SpanRead"][];
  scale: RuleScale;
  width: number;
  cooks: number;
}) {
  const id = useId();
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
            y={TRACE.bottom}
            width={b.z - b.a}
            height={HEIGHT - TRACE.bottom}
            fill={`url(#${id}${b.all ? "all" : "some"})`}
            opacity={0.5}
          />
          <path
            d={`M${b.a} ${TRACE.bottom - 4}V${HEIGHT}M${b.z} ${TRACE.bottom - 4}V${HEIGHT}`}
            stroke="var(--ink)"
            strokeWidth={1.5}
          />
        </g>
      ))}
    </>
  );
}

/** From when until when each move may be made: a line with its ends ticked, the move's stem across it. */
function Windows({ steps, scale, width }: { steps: readonly Step[]; scale: RuleScale; width: number }) {
  const spans = steps
    .filter((s) => !s.done_at && s.key !== "serve" && s.key !== "preheat" && s.can_wait_until)
    .map((s) => ({
      key: `${s.bake_id}-${s.key}`,
      a: scale.x(ms(s.not_before ?? s.at)),
      z: scale.x(ms(s.can_wait_until!)),
    }))
    .filter((s) => s.z > 0 && s.a < width && s.z - s.a > 3);
  return (
    <g stroke="var(--ink)" strokeWidth={2} fill="none">
      {spans.map((s, i) => {
        const level = TRACE.bottom + 2 + (i % 3) * 5;
        return (
          <path
            key={s.key}
            d={`M${Math.max(s.a, 0)} ${level - 3}V${level + 3}M${Math.max(s.a, 0)} ${level}H${Math.min(s.z, width)}M${Math.min(s.z, width)} ${level - 3}V${level + 3}`}
          />
        );
      })}
    </g>
  );
}
