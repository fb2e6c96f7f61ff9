import type { Look } from "./BreadFace";

/** What is seen of a bread, second by second, as columns. */
interface Film {
  s: number[];
  bubbles: number[];
  dull: number[];
  brown: number[];
  char: number[];
  brown_below: number[];
  char_below: number[];
  pocket: number[];
}

export interface Frame extends Look {
  brownBelow: number;
  charBelow: number;
}

/** What is seen at a second of a film: its last row by then. */
export function frameAt(film: Film, s: number): Frame {
  let i = film.s.findIndex((t) => t > s);
  i = i < 0 ? film.s.length - 1 : Math.max(i - 1, 0);
  return {
    bubbles: film.bubbles[i] ?? 0,
    dull: film.dull[i] ?? 0,
    brown: film.brown[i] ?? 0,
    char: film.char[i] ?? 0,
    pocket: film.pocket[i] ?? 0,
    brownBelow: film.brown_below[i] ?? 0,
    charBelow: film.char_below[i] ?? 0,
  };
}
export const lastS = (film: Film): number => film.s.at(-1) ?? 0;
