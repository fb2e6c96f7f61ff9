import { useCallback, useMemo, useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Kitchen, Schemas, Step } from "../api/client";
import { useNow } from "../api/clock";
import { useDayMoves } from "../api/day";
import { useWidth } from "../controls/width";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { clock, clockNear, ms } from "../words/format";
import { type RuleScale, ruleScale, spread } from "../words/scale";
import { HEIGHT, RuleEngraving } from "./RuleEngraving";
import { usePegDrag } from "./usePegDrag";

/** From an hour to four days: how far ahead the Rule reaches, and how near to now it is stretched [ms]; the far ones are even. */
const ZOOMS = [
  [1, 60],
  [6, 30],
  [14, 20],
  [36, 60],
  [60, 0],
  [96, 0],
].map(([ahead, tau]) => ({ ahead: ahead! * 3600e3, tau: tau! * 60e3, even: tau === 0 }));
const USUAL = 3;
const HEAD = 32;
const MOVABLE = new Set(["mix", "ball", "cold_in", "cold_out"]);
const CHIEF = new Set(["mix", "ball", "cold_in", "cold_out", "sponge"]);

const Strip = styled.div`
  position: relative;
  height: ${HEIGHT}px;
  background: var(--recess);
  border-bottom: 2px solid var(--ink);
  overflow: hidden;
  touch-action: pan-y;
  svg {
    display: block;
  }
  text {
    font-family: var(--mono);
    font-size: 17px;
    fill: var(--ink);
    letter-spacing: -0.03em;
    paint-order: stroke;
    stroke: var(--recess);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  text.day {
    font-family: var(--name);
    font-weight: 600;
    font-size: 18px;
    letter-spacing: 0;
  }
  text.air {
    font-weight: 700;
    font-size: 16px;
  }
`;
const Peg = styled(Link)`
  position: absolute;
  top: 0;
  width: 48px;
  height: 62px;
  margin-left: -24px;
  display: grid;
  place-items: start center;
  padding-top: 4px;
  text-decoration: none;
  color: var(--ink);
  touch-action: none;
  span {
    display: grid;
    place-items: center;
    width: ${HEAD}px;
    height: ${HEAD}px;
    background: var(--paper);
    border: 1.5px solid var(--ink);
  }
  &[data-state="next"] span {
    background: var(--brass-fill);
    color: var(--on-fill);
    border-width: 2px;
  }
  &[data-state="done"] span {
    background: var(--recess);
    color: var(--ink-2);
    border-color: var(--hair-2);
  }
  &[data-away="true"] span {
    clip-path: polygon(0 0, 100% 0, 100% 62%, 62% 100%, 0 100%);
    border-width: 3px;
  }
  &[data-pinned="true"] span {
    border-style: double;
    border-width: 4px;
  }
  &[data-movable="true"] {
    cursor: ew-resize;
  }
  &:hover span {
    outline: 2px solid var(--brass);
  }
`;
const Flag = styled.button`
  position: absolute;
  bottom: 0;
  width: 48px;
  height: 48px;
  margin-left: -14px;
  padding: 0;
  border: 0;
  background: none;
  cursor: ew-resize;
  touch-action: none;
  color: var(--ink);
`;
const Still = styled.div`
  position: absolute;
  bottom: 0;
  width: 30px;
  height: 36px;
  margin-left: -14px;
  pointer-events: none;
`;
const Held = styled.div`
  position: absolute;
  top: 38px;
  transform: translateX(-50%);
  background: var(--ink);
  color: var(--ground);
  padding: 3px 8px;
  font: 700 18px/1.1 var(--mono);
  z-index: 4;
  pointer-events: none;
  white-space: nowrap;
`;
const NowPlate = styled.div`
  position: absolute;
  top: 0;
  transform: translateX(-50%);
  background: var(--brass-fill);
  color: var(--on-fill);
  padding: 3px 9px;
  font: 700 20px/1.1 var(--mono);
  letter-spacing: -0.03em;
  pointer-events: none;
  z-index: 2;
`;

interface Props {
  steps: readonly Step[];
  kitchen: Kitchen;
  away: readonly Schemas["SpanRead"][];
}

/** The engraved time rule: now, a peg for each hand move, hours away, the kitchen's air, the table's flag. */
export function Rule({ steps, kitchen, away }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const now = useNow(15_000);
  const [zoom, setZoom] = useState(USUAL);
  const [shift, setShift] = useState(0);
  const narrow = width < 700;
  const needle = narrow ? 70 : 250;
  const { tau, ahead, even } = ZOOMS[zoom]!;
  const scale = useMemo(
    () => ruleScale(now + shift, width, needle, tau, ahead, even),
    [now, shift, width, needle, tau, ahead, even],
  );
  const nearer = () => setZoom((z) => Math.max(0, z - 1));
  const further = () => setZoom((z) => Math.min(ZOOMS.length - 1, z + 1));
  const onKeyDown = useCallback((e: React.KeyboardEvent) => {
    if (e.target !== e.currentTarget) return;
    if (e.key === "+" || e.key === "=") nearer();
    else if (e.key === "-") further();
    else if (e.key === "ArrowRight") setShift((s) => s + 30 * 60e3);
    else if (e.key === "ArrowLeft") setShift((s) => s - 30 * 60e3);
    else if (e.key === "Home") {
      setShift(0);
      setZoom(USUAL);
    } else return;
    e.preventDefault();
  }, []);
  const onWheel = (e: React.WheelEvent) => {
    if (Math.abs(e.deltaX) > Math.abs(e.deltaY)) setShift((s) => s + e.deltaX * 20e3);
    else if (e.deltaY > 0) further();
    else nearer();
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
      {width > 0 && <RuleEngraving scale={scale} now={now} width={width} kitchen={kitchen} steps={steps} away={away} />}
      <Pegs steps={steps} scale={scale} width={width} now={now} zone={kitchen.zone} />
      <NowPlate style={{ left: Math.min(Math.max(scale.x(now), 36), width - 36) }}>{clock(now, kitchen.zone)}</NowPlate>
    </Strip>
  );
}

interface PegsProps {
  steps: readonly Step[];
  scale: RuleScale;
  width: number;
  now: number;
  zone: string;
}

function Pegs({ steps, scale, width, now, zone }: PegsProps) {
  const { pin, serve } = useDayMoves();
  const inView = steps
    .filter((s) => s.key !== "serve" && ms(s.at) > scale.left && ms(s.at) < scale.right)
    .sort((a, b) => ms(a.at) - ms(b.at));
  const next = inView.find((s) => !s.done_at);
  // where there is no room for every peg, those that set the dough's clock stay, the soonest first
  const room = Math.max(Math.floor((width - scale.x(now) - 80) / (HEAD + 3)), 3);
  const crowded = inView.filter((s) => ms(s.at) > now).length > room * 0.6;
  const ahead = inView.filter((s) => ms(s.at) > now && (!crowded || s === next || CHIEF.has(s.key))).slice(0, room);
  const shown = [...inView.filter((s) => ms(s.at) <= now), ...ahead];
  const places = shown.map((s) => scale.x(ms(s.at)));
  // the plate of now keeps its own place: heads are spread on each side of it
  const needle = scale.x(now);
  const before = places.filter((p) => p < needle).length;
  const left = spread(
    places
      .slice(0, before)
      .map((p) => -p)
      .reverse(),
    HEAD + 3,
    -(needle - 54),
    -18,
  )
    .map((p) => -p)
    .reverse();
  const right = spread(
    places.slice(before).map((p) => Math.max(p, needle + 54)),
    HEAD + 3,
    needle + 54,
    width - 20,
  );
  const heads = [...left, ...right];
  const tables = steps.filter((s) => s.key === "serve" && ms(s.at) > scale.left && ms(s.at) < scale.right);
  // flags that crowd each other are only drawn: nearer in, each can be taken hold of
  const alone = (s: Step) =>
    tables.every((o) => o === s || Math.abs(scale.x(ms(o.at)) - scale.x(ms(s.at))) >= 50) &&
    scale.x(ms(s.at)) < width - 50;
  return (
    <>
      <svg
        width={width}
        height={HEIGHT}
        style={{ position: "absolute", inset: 0, pointerEvents: "none" }}
        aria-hidden="true"
      >
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
      {tables
        .filter((s) => !alone(s))
        .map((s) => (
          <Still key={s.bake_id} style={{ left: scale.x(ms(s.at)) }}>
            <FlagMark />
          </Still>
        ))}
      {tables.filter(alone).map((s) => (
        <Table
          key={s.bake_id}
          step={s}
          scale={scale}
          now={now}
          zone={zone}
          onMove={(t) => serve.mutate({ bake: s.bake_id, at: new Date(t).toISOString() })}
        />
      ))}
      {shown.map((s, i) => (
        <Move
          key={`${s.bake_id}-${s.key}`}
          step={s}
          state={s.done_at ? "done" : s === next ? "next" : "later"}
          head={heads[i]!}
          scale={scale}
          now={now}
          zone={zone}
          onMove={(t) => pin.mutate({ bake: s.bake_id, key: s.key, at: new Date(t).toISOString() })}
          onLetGo={() => pin.mutate({ bake: s.bake_id, key: s.key, at: null })}
        />
      ))}
    </>
  );
}

interface MoveProps {
  step: Step;
  state: string;
  head: number;
  scale: RuleScale;
  now: number;
  zone: string;
  onMove: (t: number) => void;
  onLetGo: () => void;
}

/** A peg: press it to open its leaf, drag it (or press the arrows) to hold the move elsewhere inside its window. */
function Move({ step: s, state, head, scale, now, zone, onMove, onLetGo }: MoveProps) {
  const movable = !s.done_at && MOVABLE.has(s.key);
  const at = ms(s.at);
  const drag = usePegDrag({
    at,
    scale,
    low: Math.max(s.not_before ? ms(s.not_before) : now, now + 60e3),
    high: s.can_wait_until ? ms(s.can_wait_until) : at + 12 * 3600e3,
    onMove: movable ? onMove : null,
  });
  const x = drag.to === null ? head : scale.x(drag.to);
  return (
    <>
      <Peg
        to={`/b/${s.bake_id}/${s.leaf}`}
        data-state={state}
        data-movable={movable}
        data-pinned={s.pinned}
        data-away={s.away !== null}
        style={{ left: x }}
        aria-label={`${s.name}, ${s.bake}, ${clockNear(drag.to ?? s.at, now, zone)}${s.done_at ? ", done" : ""}${s.away ? `, no free hands: ${s.away}` : ""}${s.pinned ? ", held here; Delete lets it go" : ""}${movable ? ". Arrow keys move it" : ""}`}
        {...drag.handlers}
        onKeyDown={(e) => {
          if (s.pinned && (e.key === "Delete" || e.key === "Backspace")) onLetGo();
          else drag.handlers.onKeyDown?.(e);
        }}
      >
        <span>
          <Glyph name={GLYPH_OF_STEP[s.key.replace(/\d+$/, "")] ?? "mix"} size={24} />
        </span>
      </Peg>
      {drag.to !== null && (
        <Held style={{ left: x }}>
          {s.name} {clockNear(drag.to, now, zone)}
        </Held>
      )}
    </>
  );
}

const FlagMark = () => (
  <svg
    width="30"
    height="36"
    viewBox="-14 -36 30 36"
    style={{ position: "absolute", bottom: 0, left: 0 }}
    aria-hidden="true"
  >
    <path d="M0 0V-34l14 8l-14 8" fill="var(--ink)" stroke="var(--ink)" strokeWidth={2} />
  </svg>
);

/** The table's flag: drag it, or press the arrows, to eat at another time. */
function Table({
  step: s,
  scale,
  now,
  zone,
  onMove,
}: {
  step: Step;
  scale: RuleScale;
  now: number;
  zone: string;
  onMove: (t: number) => void;
}) {
  const drag = usePegDrag({
    at: ms(s.at),
    scale,
    low: now + 10 * 60e3,
    high: now + 13 * 24 * 3600e3,
    onMove: s.done_at ? null : onMove,
  });
  const x = scale.x(drag.to ?? ms(s.at));
  return (
    <>
      <Flag
        type="button"
        style={{ left: x }}
        aria-label={`Table, ${s.bake}, ${clockNear(drag.to ?? s.at, now, zone)}. Arrow keys move it`}
        {...drag.handlers}
      >
        <FlagMark />
      </Flag>
      {drag.to !== null && <Held style={{ left: x }}>Table {clockNear(drag.to, now, zone)}</Held>}
    </>
  );
}
