import type { Hearth, Schemas } from "./client";

type LineBread = Schemas["LineBreadRead"];

/** The bread that a round is of, where the line mixes several; else none. */
export const breadOf = (hearth: Hearth, round: number): LineBread | undefined =>
  hearth.breads.find((b) => b.rounds.includes(round));

/** The program of a round: its own bread's where the line mixes several. */
export const programOf = (hearth: Hearth, round: number | null | undefined): Hearth["program"] =>
  (round == null ? undefined : breadOf(hearth, round)?.program) ?? hearth.program;

/** Whether a bread of the line may lie on a spot. */
export const liesOn = (bread: LineBread, spot: number): boolean => bread.first_spot <= spot && spot <= bread.last_spot;

const breadAt = (hearth: Hearth, spot: number): LineBread | undefined => hearth.breads.find((b) => liesOn(b, spot));

/** The surface under a spot. */
export const surfaceOf = (hearth: Hearth, spot: number): Hearth["surface"] =>
  breadAt(hearth, spot)?.surface ?? hearth.surface;

/** A round as it is told: by its number, or by its bread and the number among those. */
export function roundName(hearth: Hearth, round: number): string {
  const bread = breadOf(hearth, round);
  if (!bread) return `round ${round}`;
  return bread.rounds.length === 1 ? bread.name : `${bread.name} ${bread.rounds.indexOf(round) + 1}`;
}

/** The same in a disc: a number, after the first letters of its bread where the line mixes several. */
export function roundMark(hearth: Hearth, round: number): string {
  const bread = breadOf(hearth, round);
  if (!bread) return String(round);
  const alike = hearth.breads.some((b) => b !== bread && b.name[0]?.toLowerCase() === bread.name[0]?.toLowerCase());
  const letters = bread.name.slice(0, alike ? 3 : 1);
  return bread.rounds.length === 1 ? letters : `${letters}${bread.rounds.indexOf(round) + 1}`;
}

/** A spot as it is told: by its surface, and by its number there where that has several. */
export function placeName(hearth: Hearth, spot: number): string {
  const bread = breadAt(hearth, spot);
  if (!bread?.surface) return `spot ${spot}`;
  const name = bread.surface.name.toLowerCase();
  return bread.first_spot === bread.last_spot ? name : `${name} ${spot - bread.first_spot + 1}`;
}
