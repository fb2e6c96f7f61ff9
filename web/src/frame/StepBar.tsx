import { useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import styled from "styled-components";
import type { Bake, Hearth, Schemas } from "../api/client";
import { useNow } from "../api/clock";
import { useTap, useTapEdits, useWaitingTap } from "../api/outbox";
import { Button } from "../controls/Button";
import { Field } from "../controls/Field";
import { Sheet } from "../controls/Sheet";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { clockNear, lower, ms, span } from "../words/format";
import { waits } from "../words/steps";
import { Strip } from "./Strip";
import { useWords } from "./units";
import { LATE_MS, useLasting } from "./useLasting";
import { SAY } from "../words/say/frame";

type TapKind = Schemas["TapCreate"]["kind"];
const DID: Partial<Record<TapKind, string>> = {
  weigh: "Weighed",
  mix: "Mixed",
  ball: "Balled",
  sponge: "Sponge made",
  cold_in: "In the cold",
  cold_out: SAY.outOfTheCold,
  preheat: "Heat is on",
  roll: "Rolling",
};

const isTap = (key: string): key is TapKind => key in DID;

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

/** The moves of a leaf at its foot: the one that is next stays in sight, those that are done follow what is above. */
export function LeafStrip({ bake, keys }: { bake: Bake; keys: readonly TapKind[] }) {
  const due = keys.filter((k) => bake.steps.some((s) => s.key === k && !s.done_at));
  const done = keys.filter((k) => !due.includes(k));
  return (
    <>
      <StepBar bake={bake} keys={done} />
      <Strip data-due={due.length > 0} data-print="no">
        <StepBar bake={bake} keys={due.slice(0, 1)} />
      </Strip>
    </>
  );
}

/** A bake's taps as they were told last, with the bake or with its hearth: the answer to a tap is the hearth. */
function useNewestTaps(bake: Bake): Hearth["taps"] {
  const cache = useQueryClient();
  const told = (what: "bake" | "hearth") => cache.getQueryState([what, bake.id])?.dataUpdatedAt ?? 0;
  const hearth = cache.getQueryData<Hearth>(["hearth", bake.id]);
  return hearth && told("hearth") > told("bake") ? hearth.taps : bake.taps;
}

/** What can be done with one move: mark it done now or earlier, move it, take it back. */
function useStep(bake: Bake, step: Schemas["StepRead"] | undefined) {
  const tap = useTap(bake.id);
  const edits = useTapEdits(bake.id);
  const [earlier, setEarlier] = useState(false);
  const key = step?.key ?? "";
  const unsent = useWaitingTap(bake.id, key);
  const made = useNewestTaps(bake).find((t) => t.kind === key) ?? unsent;
  const ahead = made !== null && !bake.taps.some((t) => t.key === made.key); // of the bake as it was told
  const did = isTap(key) ? (DID[key] ?? step!.name) : (step?.name ?? "");
  const said = (text: string) => {
    setEarlier(false);
    if (!text) return;
    if (made) edits.move(made, text);
    else if (isTap(key)) tap({ kind: key, at: text });
  };
  return {
    did,
    made,
    ahead,
    late: useLasting(unsent ? 1 : null, LATE_MS),
    earlier,
    setEarlier,
    said,
    markable: isTap(key) && !step?.done_at && !ahead,
    mark: () => isTap(key) && tap({ kind: key }),
    undo: () => made && edits.undo(made),
  };
}

/** How long a move can wait, in words; nothing where it cannot, or is done. */
function waitWords(step: Schemas["StepRead"], now: number, zone: string): string {
  const wait = step.done_at ? null : waits(step, now);
  return wait ? `${wait.words} until ${clockNear(wait.until, now, zone)}` : "";
}

function StepRow({ bake, step, isNext }: { bake: Bake; step: Schemas["StepRead"]; isNext: boolean }) {
  const { zone } = useWords();
  const now = useNow(10_000);
  const { did, made, ahead, late, earlier, setEarlier, said, markable, mark, undo } = useStep(bake, step);
  const at = ms(step.at);
  const wait = waitWords(step, now, zone);
  return (
    <Row data-now={isNext}>
      <Glyph name={GLYPH_OF_STEP[step.key] ?? "mix"} />
      <span className="when">{clockNear(step.at, now, zone)}</span>
      <span className="what">{step.done_at || ahead ? did : step.name}</span>
      <span className="wait" data-long={!step.done_at && step.can_wait_until !== null}>
        {step.done_at || ahead
          ? made
            ? `${late ? SAY.doneNotSent : "done"}${made.by ? `, ${made.by}` : ""}`
            : "taken as done"
          : at > now
            ? `in ${span(at - now)}`
            : "due"}
        {wait && !ahead && `; ${wait}`}
      </span>
      {markable && !earlier && <Mark did={did} first={isNext} onNow={mark} onEarlier={() => setEarlier(true)} />}
      {earlier && <Earlier label={made ? SAY.whenWasIt : `${did} when?`} onSaid={said} />}
      {made && !earlier && (
        <>
          <Button data-kind="bare" onPress={() => setEarlier(true)}>
            move…
          </Button>
          <Button data-kind="bare" onPress={undo}>
            undo
          </Button>
        </>
      )}
    </Row>
  );
}

/** The presses that mark a move as done: now, or earlier; `first` where it is the one thing to press. */
const Mark = ({
  did,
  first,
  onNow,
  onEarlier,
}: {
  did: string;
  first: boolean;
  onNow: () => void;
  onEarlier: () => void;
}) => (
  <>
    <Button data-kind={first ? "brass" : "plain"} onPress={onNow}>
      {did} now
    </Button>
    <Button data-kind="bare" onPress={onEarlier}>
      earlier…
    </Button>
  </>
);

const Earlier = ({ label, onSaid }: { label: string; onSaid: (text: string) => void }) => (
  <Field label={label} value="" placeholder="20 min ago" width="11em" onCommit={onSaid} />
);

const Card = styled.section`
  border-left: 2px solid var(--hair);
  padding-left: 20px;
  display: grid;
  gap: 6px;
  align-content: start;
  .move {
    display: flex;
    align-items: center;
    flex-wrap: wrap;
    gap: 4px 12px;
    font: 700 32px/1 var(--name);
  }
  .move[data-long="true"] {
    font-size: 23px;
  }
  .move .when {
    font: 700 24px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  .do {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: end;
  }
  .do button {
    padding: 0 12px;
  }
  .do [data-kind="bare"] {
    padding: 0 2px;
  }
  [data-kind="brass"] {
    min-height: 56px;
    padding: 0 14px;
    font-size: 22px;
  }
  @media (max-width: 1000px) {
    border-left: 0;
    padding-left: 0;
    .move {
      font-size: 28px;
    }
  }
`;

/** The next of a leaf's moves, large, with the press that marks it done; the others a press away. */
export function NextMove({
  bake,
  keys,
  plain = false,
  after,
}: {
  bake: Bake;
  keys: readonly TapKind[];
  /** Whether something else here is the one thing to press. */
  plain?: boolean;
  after?: ReactNode;
}) {
  const { zone } = useWords();
  const now = useNow(10_000);
  const [all, setAll] = useState(false);
  const open = bake.steps.filter((s) => !s.done_at && s.key !== "serve").sort((a, b) => ms(a.at) - ms(b.at));
  const step = open.find((s) => keys.includes(s.key as TapKind));
  const { did, ahead, late, earlier, setEarlier, said, mark, undo } = useStep(bake, step);
  const sooner = open.find((s) => s !== step && step && ms(s.at) < ms(step.at));
  return (
    <Card className="next" aria-label="Next move" data-print="no">
      {plain && after}
      {step ? (
        <span className="move" data-long={step.name.length > 8}>
          <Glyph name={GLYPH_OF_STEP[step.key] ?? "mix"} size={34} />
          {step.name}
          <span className="when">{clockNear(step.at, now, zone)}</span>
        </span>
      ) : (
        <span className="quiet">{SAY.everyMoveHereIsDone}</span>
      )}
      <div className="do">
        {step && !earlier && !ahead && (
          <Mark did={did} first={!plain} onNow={mark} onEarlier={() => setEarlier(true)} />
        )}
        {ahead && (
          <>
            <span>{late ? SAY.doneNotSent : "done"}</span>
            <Button data-kind="bare" onPress={undo}>
              undo
            </Button>
          </>
        )}
        {earlier && <Earlier label={`${did} when?`} onSaid={said} />}
        <Button data-kind="bare" onPress={() => setAll(true)}>
          all…
        </Button>
      </div>
      {!plain && after}
      {step && (
        <span>
          {[ms(step.at) > now ? `in ${span(ms(step.at) - now)}` : "due", waitWords(step, now, zone)]
            .filter(Boolean)
            .join("; ")}
          {sooner && (
            <span className="quiet">
              ; before it {lower(sooner.name)} at {clockNear(sooner.at, now, zone)}
            </span>
          )}
        </span>
      )}
      <Sheet title={SAY.movesOfThisLeaf} isOpen={all} onClose={() => setAll(false)}>
        <StepBar bake={bake} keys={keys} />
      </Sheet>
    </Card>
  );
}
