import { temp, tempUnit, type Units } from "./format";

/** What a kitchen learned, in words: figures as a cook reads them. */
interface Lesson {
  seen: number;
  before: number | null;
  after: number | null;
  browns_before?: number | null;
  browns_after?: number | null;
  refused: boolean;
  odd: boolean;
}
const FEW_K = 1.5; // nearer than that a surface is as it is set
const FEW_BROWN = 1.05;

/** Kelvins over what a surface is set to, as a cook says them. */
export function offSet(k: number, units: Units): string {
  if (Math.abs(k) < FEW_K) return "as hot as set";
  const by = Math.abs(units.temp === "F" ? k * 1.8 : k).toFixed(0);
  return `${by} ${tempUnit(units)} ${k > 0 ? "hotter" : "cooler"} than set`;
}

/** How fast bread browns on a surface. */
export const brownsWords = (times: number): string =>
  times < FEW_BROWN && times > 1 / FEW_BROWN ? "browns as usual" : `browns ${times.toFixed(2)} × as fast`;

/** What the breads of a surface say of it, in one sentence; null where they say nothing yet. Where its heat was read, or it is set otherwise, it is believed as told and they speak of colour alone. */
export function learnedWords(
  learned: { set_c: number; shift_k: number; browns: number; here: number } | null | undefined,
  setC: number,
  believedC: number,
  units: Units,
): string | null {
  if (!learned) return null;
  const counts = Math.abs(setC + learned.shift_k - believedC) < 0.5;
  const heat = counts
    ? `${offSet(learned.shift_k, units)}, so ${temp(believedC, units)} ${tempUnit(units)}; bread `
    : "bread ";
  return `Its breads say: ${heat}${brownsWords(learned.browns)}.`;
}

/** A belief's figure: times the table's, the points of water that a flour takes, or the heat of a surface. */
export const beliefFigure = (kind: string, mean: number, units: Units): string =>
  kind === "surface"
    ? offSet(mean, units)
    : kind === "thirst"
      ? `${mean < 1 ? "−" : "+"}${Math.abs(100 * (mean - 1)).toFixed(1)} % water`
      : `${mean.toFixed(2)} ×`;

const believed = (kind: string, mean: number, browns: number | null | undefined, units: Units) =>
  beliefFigure(kind, mean, units) + (browns == null ? "" : ` and ${brownsWords(browns)}`);

/** What one lesson saw and did: seen 1.30 ×; believed 1.00 ×, then 1.21 ×. */
export function lessonWords(kind: string, lesson: Lesson, units: Units): string {
  const { seen, before, after, refused, odd } = lesson;
  const saw = kind === "surface" ? `times ${seen.toFixed(2)} × those told` : `seen ${beliefFigure(kind, seen, units)}`;
  if (refused) return `${saw}; refused, it teaches nothing`;
  if (odd) return `${saw}; far from what was expected, set aside`;
  if (before === null || after === null) return saw;
  return `${saw}; believed ${believed(kind, before, lesson.browns_before, units)}, then ${believed(kind, after, lesson.browns_after, units)}`;
}
