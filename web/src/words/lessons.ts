/** What a kitchen learned, in words: figures as a cook reads them. */
interface Lesson {
  seen: number;
  before: number | null;
  after: number | null;
  refused: boolean;
  odd: boolean;
}

/** A belief's figure: times the table's, or the points of water that a flour takes. */
export const beliefFigure = (kind: string, mean: number): string =>
  kind === "thirst"
    ? `${mean < 1 ? "−" : "+"}${Math.abs(100 * (mean - 1)).toFixed(1)} % water`
    : `${mean.toFixed(2)} ×`;

/** What one lesson saw and did: seen 1.30 ×; believed 1.00 ×, then 1.21 ×. */
export function lessonWords(kind: string, { seen, before, after, refused, odd }: Lesson): string {
  const saw = `seen ${beliefFigure(kind, seen)}`;
  if (refused) return `${saw}; refused, it teaches nothing`;
  if (odd) return `${saw}; far from what was expected, set aside`;
  if (before === null || after === null) return saw;
  return `${saw}; believed ${beliefFigure(kind, before)}, then ${beliefFigure(kind, after)}`;
}
