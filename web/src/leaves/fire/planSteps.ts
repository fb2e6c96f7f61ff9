import type { Bake } from "../../api/client";
import { moveLower, secondOf } from "../../words/surfaces";
import { span } from "../../words/format";
import { SAY } from "../../words/say/fire";

interface ProgramStep {
  s: number;
  word: string;
  why?: string;
  label: string;
}

/** The program as steps, each with its second: what is done and what is seen. */
export function stepsOf(bake: Bake, fire: NonNullable<Bake["fire"]>): ProgramStep[] {
  const at = (name: string) => fire.events[name]?.p50 ?? null;
  const { off_s: off } = fire.program;
  const puff = at("puff");
  const found: [number | null, string, string?, string?][] = [
    [0, fire.surface && WETTED.has(fire.surface.kind) ? SAY.onItsBackWet : "on the heat"],
    [fire.program.turn_s, secondOf(fire.program).lower, "flip", "Turn time"],
    [puff !== null && puff <= off ? puff : null, "it opens", "puff", "Puff time"],
    [bake.settings.filling && !bake.settings.filling.topping ? at("core_75") : null, SAY.cInsideMeatAndEggNot],
    ...(fire.program.moves ?? []).map((m): [number, string] => [m.at_s, moveLower(m.move, fire.program)]),
    [off, fire.program.wrap_s ? SAY.offToRestInACloth(span(fire.program.wrap_s * 1000)) : SAY.offIntoTheTowel],
  ];
  const steps = found.filter((x): x is [number, string, string?, string?] => x[0] !== null);
  return steps.sort((a, b) => a[0] - b[0]).map(([s, word, why, label]) => ({ s, word, why, label: label ?? word }));
}
const WETTED = new Set(["clay_wall", "inverted_plate"]);

/** How full the pocket is at a second of the bake. */
export const pocketAt = (carpet: NonNullable<Bake["fire"]>["carpet"], s: number): number =>
  carpet.pocket[carpet.s.findLastIndex((t) => t <= s + 0.5)] ?? 0;

/** The events that have a pin on the carpet, where they happen. */
export function pinsOf(fire: NonNullable<Bake["fire"]>): { name: string; s: number; strong: boolean }[] {
  const at = (name: string) => fire.events[name]?.p50 ?? null;
  const pins: [string, number | null, boolean][] = [
    ["bubbles", at("bubbles"), false],
    [secondOf(fire.program).lower, fire.program.turn_s, true],
    ["opens", at("puff"), false],
    ["full", at("full"), false],
    ["take off", fire.program.off_s, true],
  ];
  return pins.flatMap(([name, s, strong]) => (s === null ? [] : [{ name, s, strong }]));
}
