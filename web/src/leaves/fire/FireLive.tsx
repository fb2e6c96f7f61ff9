import { useEffect, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { useDueAlarms, type Alarm } from "../../alarms/due";
import { type Call, muted, play, setMuted } from "../../alarms/sound";
import type { Bake, Hearth, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useTap } from "../../api/outbox";
import { useTapEdits } from "../../frame/StepBar";
import { isTyping, keysOn } from "../../frame/Keys";
import { Button } from "../../controls/Button";
import { useWords } from "../../frame/units";
import { Glyph, GLYPH_OF_STEP } from "../../instruments/Glyph";
import { HearthSpot, type SpotView } from "../../instruments/Hearth";
import { countdown, ms, temp, type Units } from "../../words/format";
import { secondOf } from "../../words/surfaces";

type Due = Schemas["MoveOut"];
type MoveKind = "load" | "turn" | "off";
const WORDS: Record<string, string> = { load: "load", turn: "turn", off: "take off", bubbles: "bubbles", browned: "first brown", puffed: "puffed", dark: "too dark", pale: "too pale", fell: "fell off" };
type Program = Hearth["program"];
/** A move as the hands are told it: the second one is what this surface wants. */
const verb = (move: string, program: Program): string => (move === "turn" ? secondOf(program).verb : move === "load" ? "Load" : "Take off");
const lower = (move: string, program: Program): string => (move === "turn" ? secondOf(program).lower : (WORDS[move] ?? move));

const Live = styled.div`
  height: calc(100% + 40px); display: grid; grid-template-rows: minmax(0, 1fr) auto auto; gap: 8px; min-height: 420px; margin-bottom: -40px;
  .stage { display: grid; grid-template-columns: 150px minmax(0, 1fr) 170px; gap: 20px; min-height: 0; }
  .side { display: grid; gap: 6px; align-content: start; overflow: hidden; }
  .spots { display: flex; justify-content: center; gap: 26px; min-height: 0; align-items: start; }
  .round { display: flex; align-items: center; gap: 8px; font: 700 22px/1 var(--name); border: 2px solid var(--ink); background: var(--paper); border-radius: 50%; width: 92px; height: 42px; justify-content: center; }
  .dome { border-radius: 60px 60px 6px 6px; height: 38px; }
  .round { font-size: 20px; height: 38px; }
  h2 { border-bottom: 2px solid var(--hair-2); padding-bottom: 5px; display: flex; justify-content: space-between; }
  .facts { display: flex; gap: 10px; flex-wrap: wrap; align-items: center; border-top: 2px solid var(--hair-2); padding-top: 6px; }
  .facts button { min-height: 64px; }
  .seen, .aside { display: flex; gap: 10px; align-items: center; }
  .next { display: flex; gap: 22px; flex: 1 1 auto; justify-content: flex-end; font-size: 18px; }
  .next span { display: inline-flex; align-items: center; gap: 8px; }
  .next b { font: 700 24px/1 var(--mono); }
  @media (max-width: 900px) { .stage { grid-template-columns: minmax(0, 1fr); } .side { display: none; } .next { display: none; } .spots { gap: 8px; flex-wrap: wrap; overflow-y: auto; } }
  @media (max-width: 600px) {
    .facts { gap: 2px 10px; } .facts button { min-height: 48px; } .seen { width: 100%; gap: 8px; }
    .seen > button { flex: 1 1 0; padding: 0 4px; font-size: 16px; } .seen > .label { display: none; }
    .aside { gap: 22px; } .spots[data-many="true"] > button { flex: 1 1 100px; > svg:not(.disc) { display: none; } }
  }
`;
const Bar = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 132px; min-height: 132px; position: sticky; bottom: -40px; z-index: 3; margin: 0 -24px;
  @media (max-width: 600px) { margin: 0 -16px; grid-template-columns: minmax(0, 1fr) 92px; }
`;
const Big = styled.button`
  border: 0; border-top: 3px solid var(--fill-edge); background: var(--brass-fill); color: var(--on-fill); display: flex; align-items: center; gap: 20px; padding: 8px 24px 26px; text-align: left; min-width: 0;
  .verb { font: 700 50px/1 var(--name); }
  .what { font: 500 20px/1.2 var(--text); }
  .count { margin-left: auto; font: 700 96px/0.9 var(--name); white-space: nowrap; }
  .count small { font-size: 36px; }
  &[data-due="false"] { background: var(--recess); color: var(--ink); border-top-color: var(--brass); }
  &:focus-visible { outline-offset: -8px; outline-color: var(--ink); }
  &:active { filter: brightness(0.95); }
  @media (max-width: 600px) { padding: 6px 14px; gap: 10px; .verb { font-size: 30px; } .count { font-size: 58px; } svg { display: none; } }
`;
const Undo = styled.button`
  border: 0; background: var(--edge); color: var(--on-edge); display: grid; place-content: center; gap: 4px; font: 700 26px/1 var(--name);
  small { font: 500 16px/1.15 var(--text); }
  &:disabled { color: var(--hair-2); }
  &:focus-visible { outline-offset: -6px; }
`;

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
  const act = (due: Due) => tap({ kind: due.move as MoveKind, round_no: due.round_no, spot: due.spot });
  const units = useWords();
  useAwake();
  const alarms = useMemo<Alarm[]>(
    () =>
      hearth.started
        ? hearth.due.map((d) => ({ id: `${bake.id}-${d.move}-${d.round_no}`, at: ms(d.at), call: CALL[d.move] ?? "step", title: `${verb(d.move, hearth.program)} round ${d.round_no}` }))
        : [],
    [bake.id, hearth.due, hearth.started, hearth.program],
  );
  useDueAlarms(alarms);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      const free = document.activeElement === document.body || document.activeElement === bar.current || document.activeElement === null;
      if (e.key === " " && free && first) {
        e.preventDefault();
        act(first);
      } else if (keysOn() && /^[1-9]$/.test(e.key)) {
        const due = hearth.due.find((d) => d.spot === Number(e.key));
        if (due) act(due);
      } else if (keysOn() && e.key === "u" && last) edits.undo(last);
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  });
  const left = first ? ms(first.at) - now : 0;
  return (
    <Live>
      <div className="stage">
        <div className="side">
          <h2>Waiting <span>{hearth.waiting.length}</span></h2>
          {hearth.waiting.slice(0, 6).map((n) => <span key={n} className="round">{n}</span>)}
          {hearth.waiting.length > 6 && <span className="quiet">and {hearth.waiting.length - 6} more</span>}
        </div>
        <Spots hearth={hearth} now={now} onAct={act} />
        <div className="side">
          <h2>Towel <span>{hearth.off.length}</span></h2>
          {hearth.off.length > 0 && <p className="quiet">Steam burns: tear facing away.</p>}
          {[...hearth.off].reverse().slice(0, 6).map((n) => <span key={n} className="round dome">{n}</span>)}
        </div>
      </div>
      <div className="facts">
        <Facts hearth={hearth} onFact={(kind, round, spot) => tap({ kind, round_no: round, spot })} />
        <div className="aside">
          <Sound test={!hearth.started} />
          <Button data-kind="bare" onPress={onPlan}>the plan</Button>
        </div>
        <span className="next">
          {hearth.due.slice(1, 3).map((d) => (
            <span key={`${d.move}-${d.round_no}`}>
              <b>{countdown(ms(d.at) - now)}</b><Glyph name={GLYPH_OF_STEP[d.move] ?? "load"} /> {lower(d.move, hearth.program)} {d.round_no}
            </span>
          ))}
        </span>
      </div>
      <Bar>
        {first ? (
          <Big ref={bar} type="button" data-due={left <= 0} onClick={() => act(first)} data-testid="due-bar">
            <Glyph name={GLYPH_OF_STEP[first.move] ?? "load"} size={72} stroke={1.5} />
            <span>
              <span className="verb">{verb(first.move, hearth.program)} round {first.round_no}</span>
              <br />
              <span className="what">spot {first.spot}{measured(hearth.program, units)}{left < -5000 ? `, ${countdown(-left)} s late` : left <= 0 ? ", now" : ""}</span>
            </span>
            <span className="count">{left > 0 ? <>{countdown(left)}<small> {left < 100e3 ? "s" : ""}</small></> : "now"}</span>
          </Big>
        ) : (
          <Big ref={bar} type="button" data-due="false" onClick={onPlan} data-testid="due-bar">
            <Glyph name="wrap" size={72} stroke={1.5} />
            <span><span className="verb">All off</span><br /><span className="what">wrap them, then judge each on the Keep leaf</span></span>
          </Big>
        )}
        <Undo type="button" disabled={!last} onClick={() => last && edits.undo(last)} data-testid="undo">
          Undo
          {last && <small>{WORDS[last.kind] ?? last.kind} {last.round_no}</small>}
        </Undo>
      </Bar>
    </Live>
  );
}

/** What the first bread told of the surface, in a few words. */
function measured({ surface_c, surface_was_c }: Program, units: Units): string {
  if (surface_c == null || surface_was_c == null) return "";
  const reads = `the surface measures ${temp(surface_c, units)} °${units.temp}`;
  return Math.abs(surface_c - surface_was_c) < 4 ? `; ${reads}, as set` : `; ${reads}, not ${temp(surface_was_c, units)}: timed anew`;
}

function Spots({ hearth, now, onAct }: { hearth: Hearth; now: number; onAct: (due: Due) => void }) {
  const units = useWords();
  const { program } = hearth;
  return (
    <div className="spots" data-many={hearth.spots.length > 2}>
      {hearth.spots.map((s) => {
        const due = hearth.due.find((d) => d.spot === s.number);
        const left = due ? ms(due.at) - now : 0;
        const since = s.since ? ms(s.since) : now;
        const elapsed = (now - since) / 1000;
        const whole = due && s.state === "busy" ? (s.side === "a" ? (program.turn_s ?? program.off_s) : program.off_s - (program.turn_s ?? 0)) : 1;
        const puffed = hearth.taps.find((t) => t.kind === "puffed" && t.round_no === s.round_no);
        const swell = s.state !== "busy" ? 0 : puffed ? 1 : program.puff_s === null ? 0.1 : Math.min(1, Math.max(0.08, (elapsed - program.puff_s) / 12));
        const free = s.state !== "busy";
        const back = s.state === "recovering" && s.until ? ms(s.until) - now : 0;
        const view: SpotView = {
          number: s.number,
          state: free && back > 0 ? "recovering" : free ? "free" : "busy",
          round: free ? (due?.round_no ?? null) : s.round_no,
          verb: free ? (back > 0 ? "heating" : due ? "load" : "free") : lower(due?.move ?? "off", program),
          seconds: free ? (back > 0 ? countdown(back) : due ? "next" : "–") : left > 0 ? countdown(left) : "now",
          sweep: Math.min(1, Math.max(0, 1 - left / 1000 / whole)),
          due: due !== undefined && left <= 0 && back <= 0,
          swell,
          under: free ? `${temp(hearth.surface?.temp_c ?? 240, units)} °${units.temp}` : elapsed > (program.puff_s ?? 1e9) ? "puffing" : `${countdown(elapsed * 1000)} s on`,
          label: due ? `Spot ${s.number}: ${lower(due.move, program)} round ${due.round_no}` : `Spot ${s.number}: ${s.state}`,
        };
        return <HearthSpot key={s.number} spot={view} onPress={due ? () => onAct(due) : null} />;
      })}
    </div>
  );
}

const FACTS = [["bubbles", "bubbles"], ["browned", "first brown"], ["puffed", "puffed"]] as const;
type Fact = "bubbles" | "browned" | "puffed" | "dark" | "pale" | "fell";

/** The first round is the probe: what is seen of it is stored with its time, and times the rest anew. Then the colour, and what was lost. */
function Facts({ hearth, onFact }: { hearth: Hearth; onFact: (kind: Fact, round: number, spot: number) => void }) {
  const [lost, setLost] = useState(false);
  const on = hearth.spots.filter((s) => s.state === "busy" && s.round_no !== null).sort((a, b) => a.round_no! - b.round_no!);
  const probe = on[0];
  const { colour_steps = 0 } = hearth.program;
  const last = hearth.off.at(-1);
  const colour = last !== undefined ? { round: last, spot: hearth.taps.find((t) => t.kind === "off" && t.round_no === last)?.spot ?? 1 } : null;
  return (
    <>
      {probe ? (
        <div className="seen" role="group" aria-label={`Round ${probe.round_no} shows`}>
          <span className="quiet label">round {probe.round_no} shows</span>
          {FACTS.map(([kind, name]) => {
            const seen = hearth.taps.find((t) => t.kind === kind && t.round_no === probe.round_no);
            const after = seen && probe.since ? (ms(seen.at) - ms(probe.since)) / 1000 : null;
            return (
              <Button key={kind} isDisabled={seen !== undefined} onPress={() => onFact(kind, probe.round_no!, probe.number)}>
                {name}{after !== null ? ` ${after.toFixed(0)} s` : ""}
              </Button>
            );
          })}
        </div>
      ) : !hearth.started ? <span className="quiet">The first round measures the surface: tap what you see of it.</span> : null}
      {on.length > 0 && (
        <div className="aside" role="group" aria-label="What was lost">
          {!lost && <Button data-kind="bare" onPress={() => (on.length === 1 ? onFact("fell", on[0]!.round_no!, on[0]!.number) : setLost(true))}>fell off</Button>}
          {lost && on.map((s) => <Button key={s.number} onPress={() => { onFact("fell", s.round_no!, s.number); setLost(false); }}>round {s.round_no}</Button>)}
          {lost && <Button data-kind="bare" onPress={() => setLost(false)}>none</Button>}
        </div>
      )}
      {colour && (
        <div className="aside" role="group" aria-label={`The colour of round ${colour.round}`}>
          <Button data-kind="bare" onPress={() => onFact("dark", colour.round, colour.spot)}>too dark</Button>
          <Button data-kind="bare" onPress={() => onFact("pale", colour.round, colour.spot)}>too pale</Button>
          {colour_steps !== 0 && <span className="quiet">{colour_steps > 0 ? "shorter" : "longer"} by {Math.abs(colour_steps)} {Math.abs(colour_steps) > 1 ? "steps" : "step"}</span>}
        </div>
      )}
    </>
  );
}

function Sound({ test }: { test: boolean }) {
  const [off, setOff] = useState(muted);
  return (
    <>
      <Button data-kind="bare" onPress={() => { setMuted(!off); setOff(!off); }}>{off ? "sound is off" : "sound is on"}</Button>
      {test && <Button data-kind="bare" onPress={() => void play("test")}>test it</Button>}
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
