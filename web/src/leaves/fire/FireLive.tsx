import { useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { useDueAlarms, type Alarm } from "../../alarms/due";
import { type Call, muted, play, setMuted } from "../../alarms/sound";
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
import { countdown, ms, temp, type Units } from "../../words/format";
import { knobWord, step, wipeWord } from "../../words/heating";
import { placeName, programOf, roundMark, roundName } from "../../api/rounds";
import { bare, moveLower as lower, moveVerb as verb } from "../../words/surfaces";
import { HearthMap } from "./HearthMap";
import { Facts } from "./Facts";

type Due = Schemas["MoveRead"];

const Live = styled.div`
  height: calc(100% + 40px);
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto auto;
  row-gap: 8px;
  min-height: 320px;
  > div:empty {
    margin-bottom: -8px;
  }
  margin-bottom: -40px;
  .stage {
    display: grid;
    grid-template-columns: 186px minmax(0, 1fr) 150px;
    grid-template-rows: minmax(0, 1fr);
    gap: 20px;
    min-height: 0;
  }
  .side {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
    align-content: start;
    overflow: hidden;
  }
  .round {
    display: flex;
    align-items: center;
    gap: 8px;
    font: 700 22px/1 var(--name);
    border: 2px solid var(--ink);
    background: var(--paper);
    border-radius: 50%;
    width: 92px;
    height: 42px;
    justify-content: center;
  }
  .stack {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .queue {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    .round {
      width: 54px;
      height: 30px;
      font-size: 18px;
    }
    .ball {
      width: 34px;
      height: 34px;
    }
  }
  .note {
    margin-left: auto;
    max-width: 30em;
    text-align: right;
  }
  .dome {
    border-radius: 60px 60px 6px 6px;
    height: 38px;
  }
  .round {
    font-size: 20px;
    height: 38px;
  }
  h2 {
    border-bottom: 2px solid var(--hair-2);
    padding-bottom: 5px;
    display: flex;
    justify-content: space-between;
  }
  .facts {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
    align-items: center;
    border-top: 2px solid var(--hair-2);
    padding-top: 6px;
  }
  .facts button {
    min-height: 88px;
  }
  .seen,
  .aside {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  &[data-told="true"] svg.disc {
    width: min(100%, 21vh, 300px);
  }
  @media (max-width: 900px) {
    .stage {
      grid-template-columns: minmax(0, 1fr);
    }
    .side,
    .note {
      display: none;
    }
  }
  @media (max-width: 600px) {
    min-height: 380px;
    .facts {
      gap: 2px 10px;
    }
    .facts button {
      min-height: 48px;
    }
    .seen {
      width: 100%;
      gap: 8px;
    }
    .seen > button {
      flex: 1 1 0;
      padding: 0 4px;
      font-size: 16px;
    }
    .seen > .label {
      display: none;
    }
    .aside {
      gap: 22px;
    }
  }
`;
const Bar = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 132px;
  min-height: 132px;
  position: sticky;
  bottom: -40px;
  z-index: 3;
  margin: 0 -24px;
  @media (max-width: 600px) {
    margin: 0 -16px;
    grid-template-columns: minmax(0, 1fr) 92px;
  }
`;
const Big = styled.button`
  border: 0;
  border-top: 3px solid var(--fill-edge);
  background: var(--brass-fill);
  color: var(--on-fill);
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 8px 24px 26px;
  text-align: left;
  min-width: 0;
  .verb {
    font: 700 50px/1 var(--name);
  }
  .what {
    font: 500 20px/1.2 var(--text);
  }
  .count {
    margin-left: auto;
    font: 700 96px/0.9 var(--name);
    white-space: nowrap;
  }
  .count small {
    font-size: 36px;
  }
  &[data-due="false"] {
    background: var(--recess);
    color: var(--ink);
    border-top-color: var(--brass);
  }
  &:focus-visible {
    outline-offset: -8px;
    outline-color: var(--ink);
  }
  &:active {
    filter: brightness(0.95);
  }
  @media (max-width: 600px) {
    padding: 6px 14px;
    gap: 10px;
    .verb {
      font-size: 30px;
    }
    .count {
      font-size: 58px;
    }
    svg {
      display: none;
    }
  }
`;
const Undo = styled.button`
  border: 0;
  background: var(--edge);
  color: var(--on-edge);
  display: grid;
  place-content: center;
  gap: 4px;
  font: 700 26px/1 var(--name);
  small {
    font: 500 16px/1.15 var(--text);
  }
  &:disabled {
    color: var(--hair-2);
  }
  &:focus-visible {
    outline-offset: -6px;
  }
`;

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

/** Whether a waiting round is rolled by now, as the line has it. */
function rolled(hearth: Hearth, round: number): boolean {
  const next = hearth.line.find((t) => t.move === "roll");
  return next === undefined ? hearth.started : hearth.waiting.indexOf(round) < hearth.waiting.indexOf(next.round_no);
}

const EMPTY_MS = 20e3;
const AT_FIRST_MS = 90e3;

/** The surface's own care, one thing at a time: an empty plate that climbs, the knob after the first bread, burnt flour. */
function sessionNote(hearth: Hearth, now: number, units: Units): string | null {
  const { heating } = hearth.program;
  if (!hearth.started || hearth.finished || !heating) return null;
  const knob = knobWord(heating, hearth.surface?.power ?? "", units);
  const free = hearth.spots.every((s) => s.state !== "busy");
  const since = Math.max(...hearth.spots.map((s) => (s.since ? ms(s.since) : 0)));
  if (free && now - since > EMPTY_MS && heating.drift_k_min > 3) {
    const climbed = (heating.drift_k_min * (now - since)) / 60e3;
    return `Empty for ${countdown(now - since)} s: it may have climbed ${step(climbed, units)}. ${knob ?? "Turn it down until the next."}`;
  }
  const began = Math.min(...hearth.taps.filter((t) => t.kind === "load").map((t) => ms(t.at)));
  if (knob && now - began < AT_FIRST_MS) return knob;
  const every = heating.wipe_every;
  return every !== null && hearth.off.length > 0 && hearth.off.length % every === 0 ? wipeWord(heating) : null;
}

const TAPPED = new Set(["load", "turn", "off", "roll", "brush"]);

/** A move that nobody taps (an edge, a spray, a lid) and that comes before the next tapped one. */
function besides(hearth: Hearth, next: Due, now: number): string {
  const t = hearth.line.find((x) => !TAPPED.has(bare(x.move)) && ms(x.at) <= ms(next.at));
  if (!t) return "";
  const left = ms(t.at) - now;
  return `; first ${lower(t.move, programOf(hearth, t.round_no))}, ${roundName(hearth, t.round_no)}, ${left > 1000 ? `in ${countdown(left)} s` : "now"}`;
}

/** What the first bread told of the surface, in a few words. */
function measured({ surface_c, surface_was_c }: Hearth["program"], units: Units): string {
  if (surface_c == null || surface_was_c == null) return "";
  const reads = `the surface measures ${temp(surface_c, units)} °${units.temp}`;
  return Math.abs(surface_c - surface_was_c) < 4
    ? `; ${reads}, as set`
    : `; ${reads}, not ${temp(surface_was_c, units)}`;
}

function Sound({ test }: { test: boolean }) {
  const [off, setOff] = useState(muted);
  return (
    <>
      <Button
        data-kind="bare"
        onPress={() => {
          setMuted(!off);
          setOff(!off);
        }}
      >
        {off ? "sound is off" : "sound is on"}
      </Button>
      {test && (
        <Button data-kind="bare" onPress={() => void play("test")}>
          test it
        </Button>
      )}
    </>
  );
}

/** Keeps the screen awake while the hearth is live. */
function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = () =>
      navigator.wakeLock
        ?.request("screen")
        .then((got) => {
          if (gone) void got.release();
          else lock = got;
        })
        .catch(() => undefined);
    const again = () => document.visibilityState === "visible" && void ask();
    void ask();
    document.addEventListener("visibilitychange", again);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}
