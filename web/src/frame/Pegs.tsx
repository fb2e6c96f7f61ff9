import type { Step } from "../api/client";
import { useDayMoves } from "../api/day";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { clockNear, ms } from "../words/format";
import type { RuleScale } from "../words/scale";
import { stepKind, stepPath } from "../words/steps";
import { HEAD, headsOf, pegsShown, standsAlone } from "./pegPlaces";
import { Flag, Held, Peg, Still } from "./pegStyles";
import { HEIGHT } from "./RuleEngraving";
import { usePegDrag } from "./usePegDrag";

const MOVABLE = new Set(["mix", "ball", "cold_in", "cold_out"]);

interface PegsProps {
  steps: readonly Step[];
  scale: RuleScale;
  width: number;
  now: number;
  zone: string;
}

/** A peg for each hand move that is in view, and a flag for each table. */
export function Pegs({ steps, scale, width, now, zone }: PegsProps) {
  const { pin, serve } = useDayMoves();
  const timed = steps.map((s) => ({ step: s, key: s.key, at: ms(s.at), done: s.done_at != null }));
  const { shown, next } = pegsShown(timed, scale, width, now);
  const places = shown.map((s) => scale.x(s.at));
  const heads = headsOf(places, scale.x(now), width);
  const tables = timed.filter((s) => s.key === "serve" && s.at > scale.left && s.at < scale.right);
  // flags that crowd each other are only drawn: nearer in, each can be taken hold of
  const alone = (s: (typeof timed)[number]) =>
    standsAlone(
      scale.x(s.at),
      tables.filter((o) => o !== s).map((o) => scale.x(o.at)),
      width,
    );
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
            key={`${s.step.bake_id}-${s.key}`}
            d={`M${heads[i]} ${HEAD + 4}V42L${places[i]} 52V${HEIGHT}`}
            fill="none"
            stroke={s.done ? "var(--hair-2)" : "var(--ink)"}
            strokeWidth={s === next ? 2.5 : 1.5}
          />
        ))}
      </svg>
      {tables
        .filter((s) => !alone(s))
        .map((s) => (
          <Still key={s.step.bake_id} style={{ left: scale.x(s.at) }}>
            <FlagMark />
          </Still>
        ))}
      {tables.filter(alone).map(({ step: s }) => (
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
          key={`${s.step.bake_id}-${s.key}`}
          step={s.step}
          state={s.done ? "done" : s === next ? "next" : "later"}
          head={heads[i]!}
          scale={scale}
          now={now}
          zone={zone}
          onMove={(t) => pin.mutate({ bake: s.step.bake_id, key: s.key, at: new Date(t).toISOString() })}
          onLetGo={() => pin.mutate({ bake: s.step.bake_id, key: s.key, at: null })}
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
        to={stepPath(s)}
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
