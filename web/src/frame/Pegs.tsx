import { lazy, Suspense, useState } from "react";
import type { Kitchen, Step } from "../api/client";
import { useDayMoves } from "../api/day";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { clockNear, ms } from "../words/format";
import type { RuleScale } from "../words/scale";
import { stepKind, stepPath } from "../words/steps";
import { HEAD, headsIn, lanesOf, standsAlone, type Timed, timedOf } from "./pegPlaces";
import { Fan, Flag, Held, Peg, Still } from "./pegStyles";
import { laneY } from "./RuleEngraving";
import type { RuleLanes } from "./ruleLanes";
import { usePegDrag } from "./usePegDrag";
import { SAY } from "../words/say/frame";

const Stretch = lazy(() => import("./Stretch").then((m) => ({ default: m.Stretch })));
const MOVABLE = new Set(["mix", "ball", "cold_in", "cold_out"]);

interface PegsProps {
  steps: readonly Step[];
  scale: RuleScale;
  width: number;
  now: number;
  kitchen: Kitchen;
  lanes: RuleLanes;
}

/** A peg for each hand move that is in view, crowded ones as a fan with their count, and a flag for each serving. */
export function Pegs({ steps, scale, width, now, kitchen, lanes }: PegsProps) {
  const { pin, serve } = useDayMoves();
  const zone = kitchen.zone;
  const [stretch, setStretch] = useState<Step[] | null>(null);
  const timed = timedOf(steps);
  const { heads, next } = headsIn(timed, scale, now, lanes.gutter, width);
  const laneOf = new Map(lanesOf(timed, lanes.most).map((l) => [l.id, l.lane]));
  const flagY = (bake: number) => laneY(lanes, laneOf.get(bake) ?? 0);
  const tables = timed.filter((s) => s.key === "serve" && scale.x(s.at) > lanes.gutter && s.at < scale.right);
  // flags that crowd each other are only drawn: nearer in, each can be taken hold of
  const alone = (s: Timed) =>
    standsAlone(
      scale.x(s.at),
      tables.filter((o) => o !== s).map((o) => scale.x(o.at)),
      width,
    );
  return (
    <>
      <svg
        width={width}
        height={lanes.height}
        style={{ position: "absolute", inset: 0, pointerEvents: "none" }}
        aria-hidden="true"
      >
        {heads.map((h) => {
          const done = h.steps.every((s) => s.done);
          return (
            <path
              key={`${h.steps[0]!.bake}-${h.steps[0]!.key}`}
              d={h.places.map((p) => `M${h.x} ${HEAD + 3}L${Math.max(p, lanes.gutter + 2)} ${lanes.stems}v4`).join("")}
              fill="none"
              stroke={done ? "var(--hair-2)" : "var(--ink)"}
              strokeWidth={h.steps[0] === next ? 2.5 : 1.25}
            />
          );
        })}
      </svg>
      {tables
        .filter((s) => !alone(s))
        .map((s) => (
          <Still key={s.bake} style={{ left: scale.x(s.at), top: flagY(s.bake) - FLAG_H }}>
            <FlagMark />
          </Still>
        ))}
      {tables.filter(alone).map(({ step: s, bake }) => (
        <Serving
          key={s.bake_id}
          step={s}
          y={flagY(bake)}
          scale={scale}
          now={now}
          zone={zone}
          onMove={(t) => serve.mutate({ bake: s.bake_id, at: new Date(t).toISOString() })}
        />
      ))}
      {heads.map((h) => {
        const [s] = h.steps as [Timed];
        return h.steps.length > 1 ? (
          <Fan
            key={`fan-${s.bake}-${s.key}`}
            type="button"
            style={{ left: h.x }}
            data-done={h.steps.every((x) => x.done)}
            aria-label={`${h.steps.length} moves: ${h.steps.map((x) => `${x.step.name}, ${x.name}, ${clockNear(x.at, now, zone)}${x.done ? ", done" : ""}`).join("; ")}`}
            onClick={() => setStretch(h.steps.map((x) => x.step))}
          >
            <span>{h.steps.length}</span>
          </Fan>
        ) : (
          <Move
            key={`${s.bake}-${s.key}`}
            step={s.step}
            state={s.done ? "done" : s === next ? "next" : "later"}
            head={h.x}
            scale={scale}
            now={now}
            zone={zone}
            onMove={(t) => pin.mutate({ bake: s.bake, key: s.key, at: new Date(t).toISOString() })}
            onLetGo={() => pin.mutate({ bake: s.bake, key: s.key, at: null })}
          />
        );
      })}
      <Suspense>
        {stretch && <Stretch steps={stretch} cooks={kitchen.cooks} zone={zone} onClose={() => setStretch(null)} />}
      </Suspense>
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
        to={stepPath(s)}
        data-state={state}
        data-movable={movable}
        data-pinned={s.pinned}
        data-away={s.away !== null}
        style={{ left: x }}
        aria-label={`${s.name}, ${s.bake}, ${clockNear(drag.to ?? s.at, now, zone)}${s.done_at ? ", done" : ""}${s.away ? `, no free hands: ${s.away}` : ""}${s.pinned ? SAY.heldHereDeleteLetsItGo : ""}${movable ? SAY.arrowKeysMoveIt : ""}`}
        {...drag.handlers}
        onKeyDown={(e) => {
          if (s.pinned && (e.key === "Delete" || e.key === "Backspace")) onLetGo();
          else drag.handlers.onKeyDown?.(e);
        }}
      >
        <span>
          <Glyph name={GLYPH_OF_STEP[stepKind(s.key)] ?? "mix"} size={24} />
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

/** How far a flag rises above its lane [px]. */
const FLAG_H = 20;
const FlagMark = () => (
  <svg
    width="30"
    height="22"
    viewBox="-14 -20 30 22"
    style={{ position: "absolute", top: 0, left: 0 }}
    aria-hidden="true"
  >
    <path d="M0 0V-17l10 5l-10 5" fill="var(--ink)" stroke="var(--ink)" strokeWidth={2} />
  </svg>
);

/** The flag of a serving: drag it, or press the arrows, to eat at another time. */
function Serving({
  step: s,
  scale,
  now,
  zone,
  y,
  onMove,
}: {
  step: Step;
  y: number;
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
        style={{ left: x, top: y - FLAG_H }}
        aria-label={SAY.serveArrowKeysMoveIt(s.bake, clockNear(drag.to ?? s.at, now, zone))}
        {...drag.handlers}
      >
        <FlagMark />
      </Flag>
      {drag.to !== null && <Held style={{ left: x }}>Serve {clockNear(drag.to, now, zone)}</Held>}
    </>
  );
}
