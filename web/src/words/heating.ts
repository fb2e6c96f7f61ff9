import { span, type Units } from "./format";

/** How a surface gets and stays hot, as the server tells it. */
export interface Heating {
  preheat_s: number | null;
  charcoal_kg: number | null;
  settles_s: number;
  drift_k_min: number;
  hold: string | null;
  knob: boolean;
  wipe_every: number | null;
}
const POWER: Record<string, string> = {
  low: "low",
  medium_low: "medium low",
  medium: "medium",
  medium_high: "medium high",
  high: "high",
};
const ORDER = Object.keys(POWER);
const FELT_S = 60;

/** A difference of temperature in the kitchen's own degrees. */
export const step = (k: number, units: Units): string => `${Math.abs(units.temp === "F" ? k * 1.8 : k).toFixed(0)}°`;

/** Whether the flame is to be turned down (or up) for the line, and to what. */
export function knobWord(h: Heating, power: string, units: Units): string | null {
  if (!h.knob) return null;
  if (h.hold === null) return "Not even high carries this line: leave more time between breads.";
  if (h.hold === power) return null;
  const down = ORDER.indexOf(h.hold) < ORDER.indexOf(power);
  const drift =
    h.drift_k_min > 3 ? `: left as it is, the empty plate climbs ${step(h.drift_k_min, units)} a minute` : "";
  return down
    ? `Once it is hot turn to ${POWER[h.hold]}${drift}.`
    : `Turn up to ${POWER[h.hold]}: the breads take more than this flame gives.`;
}

/** When to wipe the flour off. */
export const wipeWord = (h: Heating): string | null =>
  h.wipe_every === null
    ? null
    : h.wipe_every === 1
      ? "Wipe the flour off between breads."
      : `Wipe the flour off after every ${h.wipe_every} breads.`;

/** How the surface gets hot and stays so, in a few sentences. */
export function heatingWords(h: Heating, power: string, units: Units): string[] {
  const hot =
    h.preheat_s === null
      ? "On this power it does not get there: turn it up."
      : h.charcoal_kg !== null
        ? `Light ${h.charcoal_kg.toFixed(1)} kg of charcoal ${span(h.preheat_s * 1000)} before.`
        : `Hot in ${span(h.preheat_s * 1000)} from cold.`;
  const slow = h.settles_s >= FELT_S ? `A change of its heat is felt after ${span(h.settles_s * 1000)}.` : null;
  return [hot, knobWord(h, power, units), slow, h.wipe_every === 1 ? null : wipeWord(h)].filter(
    (x): x is string => x !== null,
  );
}
