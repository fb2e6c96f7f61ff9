import { useMemo, useRef } from "react";
import { type Alarm, useDueAlarms } from "../../alarms/due";
import type { Call } from "../../alarms/sound";
import type { Bake, Hearth, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useTap, useTapEdits } from "../../api/outbox";
import { programOf, roundMark, roundName } from "../../api/rounds";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { HandsList } from "../../instruments/HandsList";
import { ms } from "../../words/format";
import { moveLower, moveVerb } from "../../words/surfaces";
import { DueBar } from "./DueBar";
import { Facts } from "./Facts";
import { HearthMap } from "./HearthMap";
import { rolled, sessionNote } from "./liveNotes";
import { Live } from "./liveStyles";
import { Sound } from "./Sound";
import { useAwake } from "./useAwake";
import { useHearthKeys, useOnce } from "./useHearthKeys";
import { SAY } from "../../words/say/fire";

type Due = Schemas["MoveRead"];
const CALL: Record<string, Call> = { load: "load", turn: "turn", off: "off" };

/** The hearth as it lies, one big bar for the next due move, and undo. */
export function FireLive({ bake, hearth, onPlan }: { bake: Bake; hearth: Hearth; onPlan: () => void }) {
  const now = useNow(250);
  const tap = useTap(bake.id);
  const edits = useTapEdits(bake.id);
  const bar = useRef<HTMLButtonElement>(null);
  const once = useOnce();
  const moves = hearth.taps.filter((t) => t.round_no !== null);
  const last = moves.reduce<(typeof moves)[number] | undefined>((a, b) => (a && a.id > b.id ? a : b), undefined);
  const act = (due: Due, on: string, at: number) =>
    once(on, at, () => tap({ kind: due.move, round_no: due.round_no, spot: due.spot }));
  const undo = (at: number) => once("undo", at, () => last && edits.undo(last));
  const note = sessionNote(hearth, now, useWords());
  useAwake();
  useDueAlarms(useAlarms(bake.id, hearth));
  useHearthKeys(hearth, bar, act, undo);
  const verdicts = hearth.finished ? [] : (hearth.program.verdicts ?? []);
  return (
    <Live data-told={verdicts.length > 0}>
      <div>
        {verdicts.map((v) => (
          <Plate key={v.code} role="note">
            {v.text}
          </Plate>
        ))}
      </div>
      <div className="stage">
        <Waiting hearth={hearth} now={now} />
        <HearthMap hearth={hearth} now={now} onAct={(due, at) => act(due, `spot ${due.spot}`, at)} />
        <Towel hearth={hearth} />
      </div>
      <div className="facts">
        <Facts hearth={hearth} onFact={(kind, round, spot) => tap({ kind, round_no: round, spot })} />
        <div className="aside">
          <Sound test={!hearth.started} />
          <Button data-kind="bare" onPress={onPlan}>
            the plan
          </Button>
        </div>
        {note && (
          <p className="quiet note" role="note">
            {note}
          </p>
        )}
      </div>
      <DueBar
        hearth={hearth}
        now={now}
        bar={bar}
        last={last}
        onAct={(due, at) => act(due, "bar", at)}
        onUndo={undo}
        onDone={(at) => once("bar", at, onPlan)}
      />
    </Live>
  );
}

/** An alarm for each move that is due, once the first bread is on. */
const useAlarms = (bake: number, hearth: Hearth): Alarm[] =>
  useMemo(
    () =>
      hearth.started
        ? hearth.due.map((d) => ({
            id: `${bake}-${d.move}-${d.round_no}`,
            at: ms(d.at),
            call: CALL[d.move] ?? "step",
            title: `${moveVerb(d.move, programOf(hearth, d.round_no))} ${roundName(hearth, d.round_no)}`,
          }))
        : [],
    [bake, hearth],
  );

/** The breads that wait, and what the hands do next. */
function Waiting({ hearth, now }: { hearth: Hearth; now: number }) {
  return (
    <div className="side">
      <h2>
        Waiting <span>{hearth.waiting.length}</span>
      </h2>
      <div className="queue">
        {hearth.waiting.slice(0, 6).map((n) => (
          <span
            key={n}
            className={rolled(hearth, n) ? "round" : "round ball"}
            title={rolled(hearth, n) ? "rolled, relaxing" : "still a ball"}
          >
            {roundMark(hearth, n)}
          </span>
        ))}
      </div>
      {hearth.line.length > 0 && <h2>Hands</h2>}
      <HandsList
        most={5}
        label={SAY.whatTheHandsDoNext}
        ahead={hearth.line.map((t) => ({
          move: t.move,
          words: moveLower(t.move, programOf(hearth, t.round_no)),
          round: roundMark(hearth, t.round_no),
          cook: t.cook,
          inMs: ms(t.at) - now,
        }))}
      />
    </div>
  );
}

/** What lies in the towel, the last on top. */
function Towel({ hearth }: { hearth: Hearth }) {
  return (
    <div className="side">
      <h2>
        Towel <span>{hearth.off.length}</span>
      </h2>
      {hearth.off.length > 0 && <p className="quiet">{SAY.steamBurnsTearFacingAway}</p>}
      {[...hearth.towel]
        .reverse()
        .slice(0, 6)
        .map((t) => (
          <span key={t.round_no} className="stack">
            <span className="round dome">{roundMark(hearth, t.round_no)}</span>
            {t.feel !== "soft" && <small>{t.feel}</small>}
          </span>
        ))}
    </div>
  );
}
