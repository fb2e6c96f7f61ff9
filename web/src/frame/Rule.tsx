import { useCallback, useMemo, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Kitchen, Step } from "../api/client";
import { useNow } from "../api/clock";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { heatColour } from "../theme/temperature";
import { clock, clockNear, hourOfDay, ms, temp, weekday } from "../words/format";
import { hourMarks, ruleScale, spread } from "../words/scale";
import { useWidth } from "../controls/width";

const HEIGHT = 108;
const TRACE = { top: 50, bottom: 70 };
const TAUS = [10, 30, 60, 120, 360].map((m) => m * 60e3);
const HEAD = 32;

const Strip = styled.div`
  position: relative; height: ${HEIGHT}px; background: var(--recess); border-bottom: 2px solid var(--ink); overflow: hidden; touch-action: pan-y;
  svg { display: block; }
  text { font-family: var(--mono); font-size: 17px; fill: var(--ink); letter-spacing: -0.03em; paint-order: stroke; stroke: var(--recess); stroke-width: 4px; stroke-linejoin: round; }
  text.day { font-family: var(--name); font-weight: 600; font-size: 18px; letter-spacing: 0; }
  text.air { font-weight: 700; font-size: 16px; }
`;
const Peg = styled(Link)`
  position: absolute; top: 0; width: 48px; height: 62px; margin-left: -24px; display: grid; place-items: start center; padding-top: 4px; text-decoration: none; color: var(--ink);
  span { display: grid; place-items: center; width: ${HEAD}px; height: ${HEAD}px; background: var(--paper); border: 1.5px solid var(--ink); }
  &[data-state="next"] span { background: var(--brass-fill); color: var(--on-fill); border-width: 2px; }
  &[data-state="done"] span { background: var(--recess); color: var(--ink-2); border-color: var(--hair-2); }
  &:hover span { outline: 2px solid var(--brass); }
`;
const NowPlate = styled.div`
  position: absolute; top: 0; transform: translateX(-50%); background: var(--brass-fill); color: var(--on-fill); padding: 3px 9px;
  font: 700 20px/1.1 var(--mono); letter-spacing: -0.03em; pointer-events: none; z-index: 2;
`;

interface Props {
  steps: readonly Step[];
  kitchen: Kitchen;
}

/** The engraved time rule: now, a peg for each hand move, the kitchen's air, the table's flag. */
export function Rule({ steps, kitchen }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const now = useNow(15_000);
  const [zoom, setZoom] = useState(3);
  const [shift, setShift] = useState(0);
  const narrow = width < 700;
  const needle = narrow ? 70 : 250;
  const scale = useMemo(
    () => ruleScale(now + shift, width, needle, TAUS[zoom]!, 36 * 3600e3),
    [now, shift, width, needle, zoom],
  );
  const onKeyDown = useCallback((e: React.KeyboardEvent) => {
    if (e.target !== e.currentTarget) return;
    if (e.key === "+" || e.key === "=") setZoom((z) => Math.max(0, z - 1));
    else if (e.key === "-") setZoom((z) => Math.min(TAUS.length - 1, z + 1));
    else if (e.key === "ArrowRight") setShift((s) => s + 30 * 60e3);
    else if (e.key === "ArrowLeft") setShift((s) => s - 30 * 60e3);
    else if (e.key === "Home") setShift(0);
    else return;
    e.preventDefault();
  }, []);
  const onWheel = (e: React.WheelEvent) => {
    if (Math.abs(e.deltaX) > Math.abs(e.deltaY)) setShift((s) => s + e.deltaX * 20e3);
    else setZoom((z) => Math.min(TAUS.length - 1, Math.max(0, z + Math.sign(e.deltaY))));
  };
  return (
    <Strip
      ref={box}
      data-print="no"
      tabIndex={0}
      role="group"
      aria-label={`Time rule, ${clock(now, kitchen.zone)} now. Plus and minus zoom, arrows move, Home returns.`}
      onKeyDown={onKeyDown}
      onWheel={onWheel}
    >
      {width > 0 && <Engraving scale={scale} now={now} width={width} kitchen={kitchen} steps={steps} />}
      <Pegs steps={steps} scale={scale} width={width} now={now} zone={kitchen.zone} />
      <NowPlate style={{ left: Math.min(Math.max(scale.x(now), 36), width - 36) }}>{clock(now, kitchen.zone)}</NowPlate>
    </Strip>
  );
}

interface EngravingProps {
  scale: ReturnType<typeof ruleScale>;
  now: number;
  width: number;
  kitchen: Kitchen;
  steps: readonly Step[];
}

function Engraving({ scale, now, width, kitchen, steps }: EngravingProps) {
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
  const points = Array.from({ length: Math.ceil(width / 12) + 1 }, (_, i) => i * 12).map((px) => ({ px, c: air(scale.t(px)) }));
  const x = scale.x(now);
  const served = steps.filter((s) => s.key === "serve");
  return (
    <svg width={width} height={HEIGHT} aria-hidden="true">
      {points.slice(1).map((p, i) => (
        <rect key={p.px} x={points[i]!.px} width={12.5} y={y(p.c)} height={TRACE.bottom - y(p.c)} fill={heatColour(p.c)} opacity={0.75} />
      ))}
      <polyline points={points.map((p) => `${p.px},${y(p.c)}`).join(" ")} fill="none" stroke="var(--ink)" strokeWidth={1.25} />
      {all.map((t) => (
        <line key={t} x1={scale.x(t)} x2={scale.x(t)} y1={HEIGHT - 8} y2={HEIGHT} stroke="var(--ink)" strokeWidth={1.5} />
      ))}
      {marks.filter((t) => Math.abs(scale.x(t) - x) > 18).map((t) => {
        const hour = Math.round(hourOfDay(t, zone)) % 24;
        return (
          <g key={t} transform={`translate(${scale.x(t)},0)`}>
            <line y1={HEIGHT - 15} y2={HEIGHT} stroke="var(--ink)" strokeWidth={1.5} />
            <text y={HEIGHT - 19} textAnchor="middle" className={hour === 0 ? "day" : undefined}>{hour === 0 ? weekday(t, zone) : hour}</text>
          </g>
        );
      })}
      {served.map((s) => (
        <path key={s.bake_id} d={`M${scale.x(ms(s.at))} ${HEIGHT}V${HEIGHT - 34}l14 8l-14 8`} fill="var(--ink)" stroke="var(--ink)" strokeWidth={2} />
      ))}
      <text className="air" x={Math.max(x - 9, 46)} y={TRACE.top - 4} textAnchor="end">{temp(air(now), { mass: kitchen.mass_unit, temp: kitchen.temp_unit }, 1)}°</text>
      <line x1={x} x2={x} y1={26} y2={HEIGHT} stroke="var(--brass)" strokeWidth={3} />
      <path d={`M${x - 8} ${HEIGHT}h16l-8 -11z`} fill="var(--brass)" />
    </svg>
  );
}

interface PegsProps {
  steps: readonly Step[];
  scale: ReturnType<typeof ruleScale>;
  width: number;
  now: number;
  zone: string;
}

function Pegs({ steps, scale, width, now, zone }: PegsProps) {
  const shown = steps.filter((s) => s.key !== "serve" && ms(s.at) > scale.left && ms(s.at) < scale.right).sort((a, b) => ms(a.at) - ms(b.at));
  const next = shown.find((s) => !s.done_at);
  const places = shown.map((s) => scale.x(ms(s.at)));
  // the plate of now keeps its own place: heads are spread on each side of it
  const needle = scale.x(now);
  const before = places.filter((p) => p < needle).length;
  const left = spread(places.slice(0, before).map((p) => -p).reverse(), HEAD + 3, -(needle - 54), -18).map((p) => -p).reverse();
  const right = spread(places.slice(before).map((p) => Math.max(p, needle + 54)), HEAD + 3, needle + 54, width - 20);
  const heads = [...left, ...right];
  return (
    <>
      <svg width={width} height={HEIGHT} style={{ position: "absolute", inset: 0, pointerEvents: "none" }} aria-hidden="true">
        {shown.map((s, i) => (
          <path
            key={`${s.bake_id}-${s.key}`}
            d={`M${heads[i]} ${HEAD + 4}V42L${places[i]} 52V${HEIGHT}`}
            fill="none"
            stroke={s.done_at ? "var(--hair-2)" : "var(--ink)"}
            strokeWidth={s === next ? 2.5 : 1.5}
          />
        ))}
      </svg>
      {shown.map((s, i) => (
        <Peg
          key={`${s.bake_id}-${s.key}`}
          to={`/b/${s.bake_id}/${s.leaf}`}
          data-state={s.done_at ? "done" : s === next ? "next" : "later"}
          style={{ left: heads[i] }}
          aria-label={`${s.name}, ${s.bake}, ${clockNear(s.at, now, zone)}${s.done_at ? ", done" : ""}`}
        >
          <span>
            <Glyph name={GLYPH_OF_STEP[s.key] ?? "mix"} size={24} />
          </span>
        </Peg>
      ))}
    </>
  );
}
