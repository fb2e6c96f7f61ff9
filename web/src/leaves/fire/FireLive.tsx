import { useLayoutEffect, useMemo, useRef } from "react";
import { useDueAlarms, type Alarm } from "../../alarms/due";
import type { Call } from "../../alarms/sound";
import type { Bake, Hearth, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useTap } from "../../api/outbox";
import { useTapEdits } from "../../frame/StepBar";
import { isTyping, keysOn } from "../../frame/Keys";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { Glyph, GLYPH_OF_STEP } from "../../instruments/Glyph";
import { HandsList } from "../../instruments/HandsList";
import { countdown, ms } from "../../words/format";
import { placeName, programOf, roundMark, roundName } from "../../api/rounds";
import { moveLower as lower, moveVerb as verb } from "../../words/surfaces";
import { HearthMap } from "./HearthMap";
import { Facts } from "./Facts";
import { Bar, Big, Live, Undo } from "./liveStyles";
import { besides, measured, rolled, sessionNote } from "./liveNotes";
import { Sound } from "./Sound";
import { useAwake } from "./useAwake";

type Due = Schemas["MoveRead"];

/** Digits choose a spot; 0, - and = the tenth to the twelfth. */
const SPOT_KEYS = [..."1234567890-="];
/** A second press on the same place so soon is a finger that bounced, not the next move: nobody has read that yet. By the events' own time, however late the screen comes to them. */
const BOUNCE_MS = 300;
const CALL: Record<string, Call> = { load: "load", turn: "turn", off: "off" };

/** The hearth as it lies, one big bar for the next due move, and undo. */
export function FireLive({ bake, hearth, onPlan }: { bake: Bake; hearth: Hearth; onPlan: () => void }) {
  const now = useNow(250);
  const tap = useTap(bake.id);
  const edits = useTapEdits(bake.id);
  const bar = useRef<HTMLButtonElement>(null);
  const first = hearth.due[0];
  const moves = hearth.taps.filter((t) => t.round_no !== null);
  const last = moves.reduce<(typeof moves)[number] | undefined>((a, b) => (a && a.id > b.id ? a : b), undefined);
  const pressed = useRef({ on: "", at: -Infinity });
  const once = (on: string, at: number, go: () => void) => {
    const bounced = pressed.current.on === on && at - pressed.current.at < BOUNCE_MS;
    pressed.current = { on, at };
    if (!bounced) go();
  };
  const act = (due: Due, on: string, at: number) =>
    once(on, at, () => tap({ kind: due.move, round_no: due.round_no, spot: due.spot }));
  const undo = (at: number) => once("undo", at, () => last && edits.undo(last));
  const units = useWords();
  const note = sessionNote(hearth, now, units);
  useAwake();
  const alarms = useMemo<Alarm[]>(
    () =>
      hearth.started
        ? hearth.due.map((d) => ({
            id: `${bake.id}-${d.move}-${d.round_no}`,
            at: ms(d.at),
            call: CALL[d.move] ?? "step",
            title: `${verb(d.move, programOf(hearth, d.round_no))} ${roundName(hearth, d.round_no)}`,
          }))
        : [],
    [bake.id, hearth],
  );
  useDueAlarms(alarms);
  // before the eye sees the next move, the key does it
  useLayoutEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      const free =
        document.activeElement === document.body ||
        document.activeElement === bar.current ||
        document.activeElement === null;
      if (e.key === " " && free && first) {
        e.preventDefault();
        act(first, "bar", e.timeStamp);
      } else if (keysOn() && SPOT_KEYS.includes(e.key)) {
        const due = hearth.due.find((d) => d.spot === SPOT_KEYS.indexOf(e.key) + 1);
        if (due) act(due, `spot ${due.spot}`, e.timeStamp);
      } else if (keysOn() && e.key === "u") undo(e.timeStamp);
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  });
  const left = first ? ms(first.at) - now : 0;
  return (
    <Live data-told={!hearth.finished && (hearth.program.verdicts?.length ?? 0) > 0}>
      <div>
        {!hearth.finished &&
          hearth.program.verdicts?.map((v) => (
            <Plate key={v.code} role="note">
              {v.text}
            </Plate>
          ))}
      </div>
      <div className="stage">
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
            label="What the hands do next"
            ahead={hearth.line.map((t) => ({
              move: t.move,
              words: lower(t.move, programOf(hearth, t.round_no)),
              round: roundMark(hearth, t.round_no),
              cook: t.cook,
              inMs: ms(t.at) - now,
            }))}
          />
        </div>
        <HearthMap hearth={hearth} now={now} onAct={(due, at) => act(due, `spot ${due.spot}`, at)} />
        <div className="side">
          <h2>
            Towel <span>{hearth.off.length}</span>
          </h2>
          {hearth.off.length > 0 && <p className="quiet">Steam burns: tear facing away.</p>}
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
      <Bar>
        {first ? (
          <Big
            ref={bar}
            type="button"
            data-due={left <= 0}
            onClick={(e) => act(first, "bar", e.timeStamp)}
            data-testid="due-bar"
          >
            <Glyph name={GLYPH_OF_STEP[first.move] ?? "load"} size={72} stroke={1.5} />
            <span>
              <span className="verb">
                {verb(first.move, programOf(hearth, first.round_no))} {roundName(hearth, first.round_no)}
              </span>
              <br />
              <span className="what">
                {placeName(hearth, first.spot)}
                {besides(hearth, first, now)}
                {measured(hearth.program, units)}
                {left < -5000 ? `, ${countdown(-left)} s late` : left <= 0 ? ", now" : ""}
              </span>
            </span>
            <span className="count">
              {left > 0 ? (
                <>
                  {countdown(left)}
                  <small> {left < 100e3 ? "s" : ""}</small>
                </>
              ) : (
                "now"
              )}
            </span>
          </Big>
        ) : (
          <Big
            ref={bar}
            type="button"
            data-due="false"
            onClick={(e) => once("bar", e.timeStamp, onPlan)}
            data-testid="due-bar"
          >
            <Glyph name="wrap" size={72} stroke={1.5} />
            <span>
              <span className="verb">All off</span>
              <br />
              <span className="what">wrap them, then judge each on the Keep leaf</span>
            </span>
          </Big>
        )}
        <Undo type="button" disabled={!last} onClick={(e) => undo(e.timeStamp)} data-testid="undo">
          Undo
          {last && (
            <small>
              {lower(last.kind, programOf(hearth, last.round_no))} {roundMark(hearth, last.round_no!)}
            </small>
          )}
        </Undo>
      </Bar>
    </Live>
  );
}
