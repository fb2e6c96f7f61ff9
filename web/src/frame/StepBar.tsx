import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake, Hearth, Schemas } from "../api/client";
import { useNow } from "../api/clock";
import { useTap } from "../api/outbox";
import { sent, settle, tell } from "../api/queue";
import { renew } from "../api/stale";
import { moveTap, undoTap } from "../api/fire";
import { Button } from "../controls/Button";
import { Field } from "../controls/Field";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { clockNear, ms, span } from "../words/format";
import { useWords } from "./units";

type Tap = Schemas["TapRead"];
type TapKind = Schemas["TapCreate"]["kind"];
const DID: Partial<Record<TapKind, string>> = {
  weigh: "Weighed",
  mix: "Mixed",
  ball: "Balled",
  sponge: "Sponge made",
  cold_in: "In the cold",
  cold_out: "Out of the cold",
  preheat: "Heat is on",
  roll: "Rolling",
};

const isTap = (key: string): key is TapKind => key in DID;

const DOUGH_KEEPS = new Set(["ball", "roll", "line"]);

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  padding: 4px 0;
  border-bottom: 1px solid var(--hair);
  min-height: 56px;
  &[data-now="true"] {
    background: var(--brass-wash);
    box-shadow: -6px 0 0 var(--brass);
    padding-left: 8px;
  }
  .when {
    font: 700 22px/1 var(--mono);
    min-width: 3.6em;
    letter-spacing: -0.03em;
  }
  .what {
    font-weight: 650;
    min-width: 4.6em;
  }
  .wait {
    color: var(--ink-2);
    font-size: 16px;
    flex: 1 1 4em;
    &[data-long="true"] {
      flex-basis: 12em;
    }
  }
`;

/** Undo or move a tap, and put the new hearth and bake where the screens read them. */
export function useTapEdits(bake: number) {
  const cache = useQueryClient();
  /** A tap is known by its key: one still on its way gets its id when it has landed. */
  const stored = async (tap: Tap) => {
    await sent(tap.key);
    return cache.getQueryData<Hearth>(["hearth", bake])?.taps.find((t) => t.key === tap.key)?.id ?? tap.id;
  };
  const run = (work: (id: number) => Promise<Hearth>, tap: Tap): void =>
    void stored(tap)
      .then(work)
      .then((hearth) => {
        tell(null);
        settle();
        cache.setQueryData(["hearth", bake], hearth);
        return Promise.all([cache.invalidateQueries({ queryKey: ["bake", bake] }), renew(cache, "tap")]);
      })
      .catch((fault: Error) => tell(fault.message));
  return {
    undo: (tap: Tap) => run((id) => undoTap(bake, id), tap),
    move: (tap: Tap, at: string) => run((id) => moveTap(bake, id, at), tap),
  };
}

/** The hand moves that belong to a leaf: mark each done now or earlier, move it, take it back. */
export function StepBar({ bake, keys }: { bake: Bake; keys: readonly TapKind[] }) {
  const next = bake.steps.find((s) => !s.done_at && s.key !== "serve");
  const steps = keys
    .map((k) => bake.steps.find((s) => s.key === k))
    .filter((s) => s !== undefined)
    .sort((a, b) => Number(a.done_at !== null) - Number(b.done_at !== null) || ms(a.at) - ms(b.at));
  return (
    <div data-print="no">
      {steps.map((s) => (
        <StepRow key={s.key} bake={bake} step={s} isNext={s === next} />
      ))}
    </div>
  );
}

function StepRow({ bake, step, isNext }: { bake: Bake; step: Schemas["StepRead"]; isNext: boolean }) {
  const { zone } = useWords();
  const now = useNow(10_000);
  const tap = useTap(bake.id);
  const edits = useTapEdits(bake.id);
  const [earlier, setEarlier] = useState(false);
  const made = bake.taps.find((t) => t.kind === step.key);
  const at = ms(step.at);
  const { key } = step;
  const did = isTap(key) ? (DID[key] ?? step.name) : step.name;
  return (
    <Row data-now={isNext}>
      <Glyph name={GLYPH_OF_STEP[step.key] ?? "mix"} />
      <span className="when">{clockNear(step.at, now, zone)}</span>
      <span className="what">{step.done_at ? did : step.name}</span>
      <span className="wait" data-long={!step.done_at && step.can_wait_until !== null}>
        {step.done_at ? (made ? "done" : "taken as done") : at > now ? `in ${span(at - now)}` : "due"}
        {!step.done_at && step.can_wait_until && step.key !== "preheat" && ms(step.can_wait_until) - at > 60e3
          ? `; ${DOUGH_KEEPS.has(step.key) ? "dough keeps" : "can wait"} until ${clockNear(step.can_wait_until, now, zone)}`
          : ""}
      </span>
      {isTap(key) && !step.done_at && !earlier && (
        <>
          <Button data-kind={isNext ? "brass" : "plain"} onPress={() => tap({ kind: key })}>
            {did} now
          </Button>
          <Button data-kind="bare" onPress={() => setEarlier(true)}>
            earlier…
          </Button>
        </>
      )}
      {earlier && (
        <Field
          label={made ? "When was it?" : `${did} when?`}
          value=""
          placeholder="20 min ago"
          width="11em"
          onCommit={(text) => {
            setEarlier(false);
            if (!text) return;
            if (made) edits.move(made, text);
            else if (isTap(key)) tap({ kind: key, at: text });
          }}
        />
      )}
      {made && !earlier && (
        <>
          <Button data-kind="bare" onPress={() => setEarlier(true)}>
            move…
          </Button>
          <Button data-kind="bare" onPress={() => edits.undo(made)}>
            undo
          </Button>
        </>
      )}
    </Row>
  );
}
