import { temp, tempUnit, type Units } from "./format";

/** One step of a way through the heat, as the server keeps it. */
export interface HeatStep {
  do: "face_a" | "face_b" | "cover" | "uncover" | "edge" | "grill" | "rotate" | "spray" | "top" | "finish_oven";
  seconds?: number | null;
  until?: "golden" | "puffed" | "bubbles" | "cue" | null;
  oven_c?: number | null;
}
export type Source = "usual" | "typed" | "infrared" | "contact" | "sign" | "first_bread" | "habit" | "oven" | "oil";
interface Band {
  p10: number | null;
  p90: number | null;
}
export type Colour = "pale" | "light" | "golden" | "charred";

export const COLOURS: readonly { id: Colour; text: string }[] = [
  { id: "pale", text: "pale" },
  { id: "light", text: "light" },
  { id: "golden", text: "golden" },
  { id: "charred", text: "charred" },
];

/** What says how hot a surface is, in a cook's words. */
export const SOURCES: readonly { id: Source; text: string }[] = [
  { id: "usual", text: "its setting" },
  { id: "typed", text: "what I think" },
  { id: "infrared", text: "infrared" },
  { id: "contact", text: "a probe on it" },
  { id: "sign", text: "a sign" },
  { id: "first_bread", text: "its first bread" },
  { id: "habit", text: "my own times" },
  { id: "oven", text: "the oven’s setting" },
  { id: "oil", text: "the oil’s look" },
];
export const sourceWords = (source: string): string => SOURCES.find((s) => s.id === source)?.text ?? source;

/** A band of temperatures: from, to. */
export const heatBand = (b: Band, units: Units): string =>
  b.p10 === null || b.p90 === null ? "" : `${temp(b.p10, units)} to ${temp(b.p90, units)} ${tempUnit(units)}`;

/** Every step of a way through the heat: what it is called, and whether it is done at once unless seconds are given. */
export const STEPS: readonly { id: HeatStep["do"]; text: string; atOnce: boolean }[] = [
  { id: "face_a", text: "first side down", atOnce: false },
  { id: "face_b", text: "other side down", atOnce: false },
  { id: "cover", text: "lid on", atOnce: true },
  { id: "uncover", text: "lid off", atOnce: true },
  { id: "rotate", text: "half a turn round", atOnce: true },
  { id: "spray", text: "a spray of water", atOnce: true },
  { id: "top", text: "topping on", atOnce: true },
  { id: "edge", text: "stood on an edge", atOnce: false },
  { id: "grill", text: "to the grill or flame", atOnce: false },
  { id: "finish_oven", text: "finish in an oven", atOnce: false },
];
export const UNTIL: readonly { id: "seconds" | NonNullable<HeatStep["until"]>; text: string }[] = [
  { id: "seconds", text: "so many seconds" },
  { id: "bubbles", text: "until it bubbles" },
  { id: "cue", text: "until bubbles and first brown" },
  { id: "puffed", text: "until it puffs" },
  { id: "golden", text: "until golden" },
];

/** Seconds of a side, the way a cook says them. */
export const sidesWords = (turn: number | null, off: number): string =>
  turn === null ? `${off.toFixed(0)} s` : `${turn.toFixed(0)} + ${(off - turn).toFixed(0)} s`;

/** Whether steps are just one or two sides by their seconds: [first, second]. */
export function plainSides(steps: readonly HeatStep[]): number[] | null {
  const sides = steps.map((s, i) =>
    s.do === (i === 0 ? "face_a" : "face_b") && s.seconds && !s.until ? s.seconds : null,
  );
  return sides.length <= 2 && sides.every((s) => s !== null) ? sides : null;
}
