import type { Hearth, Schemas } from "../../api/client";
import { programOf, roundName } from "../../api/rounds";
import { countdown, ms, temp, type Units } from "../../words/format";
import { knobWord, step, wipeWord } from "../../words/heating";
import { bare, moveLower as lower } from "../../words/surfaces";
import { SAY } from "../../words/say/fire";

type Due = Schemas["MoveRead"];

/** Whether a waiting round is rolled by now, as the line has it. */
export function rolled(hearth: Hearth, round: number): boolean {
  const next = hearth.line.find((t) => t.move === "roll");
  return next === undefined ? hearth.started : hearth.waiting.indexOf(round) < hearth.waiting.indexOf(next.round_no);
}

const EMPTY_MS = 20e3;
const AT_FIRST_MS = 90e3;

/** The surface's own care, one thing at a time: an empty plate that climbs, the knob after the first bread, burnt flour. */
export function sessionNote(hearth: Hearth, now: number, units: Units): string | null {
  const { heating } = hearth.program;
  if (!hearth.started || hearth.finished || !heating) return null;
  const knob = knobWord(heating, hearth.surface?.power ?? "", units);
  const free = hearth.spots.every((s) => s.state !== "busy");
  const since = Math.max(...hearth.spots.map((s) => (s.since ? ms(s.since) : 0)));
  if (free && now - since > EMPTY_MS && heating.drift_k_min > 3) {
    const climbed = (heating.drift_k_min * (now - since)) / 60e3;
    return SAY.emptyForSItMayHave(countdown(now - since), step(climbed, units), knob ?? SAY.turnItDownUntilTheNext);
  }
  const began = Math.min(...hearth.taps.filter((t) => t.kind === "load").map((t) => ms(t.at)));
  if (knob && now - began < AT_FIRST_MS) return knob;
  const every = heating.wipe_every;
  return every !== null && hearth.off.length > 0 && hearth.off.length % every === 0 ? wipeWord(heating) : null;
}

const TAPPED = new Set(["load", "turn", "off", "roll", "brush"]);

/** A move that nobody taps (an edge, a spray, a lid) and that comes before the next tapped one. */
export function besides(hearth: Hearth, next: Due, now: number): string {
  const t = hearth.line.find((x) => !TAPPED.has(bare(x.move)) && ms(x.at) <= ms(next.at));
  if (!t) return "";
  const left = ms(t.at) - now;
  return `; first ${lower(t.move, programOf(hearth, t.round_no))}, ${roundName(hearth, t.round_no)}, ${left > 1000 ? `in ${countdown(left)} s` : "now"}`;
}

/** What the first bread told of the surface, in a few words. */
export function measured({ surface_c, surface_was_c }: Hearth["program"], units: Units): string {
  if (surface_c == null || surface_was_c == null) return "";
  const reads = `the surface measures ${temp(surface_c, units)} °${units.temp}`;
  return Math.abs(surface_c - surface_was_c) < 4
    ? `; ${reads}, as set`
    : `; ${reads}, not ${temp(surface_was_c, units)}`;
}
