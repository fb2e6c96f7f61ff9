export type SurfaceKind =
  | "iron_plate"
  | "skillet"
  | "stone_oven"
  | "steel_oven"
  | "clay_wall"
  | "inverted_plate"
  | "lidded_pan"
  | "flame_oven"
  | "oil"
  | "pan_then_grill"
  | "oven_tray";

/** Every kind of surface: its name, where it usually works [C], and how many breads it takes at most. */
export const SURFACES: readonly { id: SurfaceKind; text: string; temp: number; most: number }[] = [
  { id: "iron_plate", text: "iron plate", temp: 200, most: 6 },
  { id: "skillet", text: "skillet", temp: 195, most: 2 },
  { id: "stone_oven", text: "stone in an oven", temp: 275, most: 6 },
  { id: "steel_oven", text: "steel in an oven", temp: 265, most: 6 },
  { id: "clay_wall", text: "clay wall", temp: 430, most: 12 },
  { id: "inverted_plate", text: "plate turned over the flame", temp: 205, most: 2 },
  { id: "lidded_pan", text: "pan with a lid", temp: 185, most: 2 },
  { id: "flame_oven", text: "oven with a live flame", temp: 370, most: 6 },
  { id: "oil", text: "oil", temp: 190, most: 4 },
  { id: "pan_then_grill", text: "pan, then the grill", temp: 205, most: 2 },
  { id: "oven_tray", text: "tray in an oven", temp: 220, most: 12 },
];

/** What a surface is heated by, which says how it is set and how it is drawn: a hob under it, an oven around it, or a fire of its own. */
const HEATED: Record<SurfaceKind, "hob" | "oven" | "fire"> = {
  iron_plate: "hob",
  skillet: "hob",
  inverted_plate: "hob",
  lidded_pan: "hob",
  pan_then_grill: "hob",
  oil: "hob",
  stone_oven: "oven",
  steel_oven: "oven",
  oven_tray: "oven",
  clay_wall: "fire",
  flame_oven: "fire",
};
export const heatedBy = (kind: SurfaceKind): "hob" | "oven" | "fire" => HEATED[kind];

/** The second move of a program, as the hands are told it. */
const SECOND: Record<string, { verb: string; lower: string }> = {
  turn: { verb: "Turn", lower: "turn" },
  invert: { verb: "Over the flame:", lower: "over the flame" },
  grill: { verb: "To the grill:", lower: "to the grill" },
};

/** What the second move of a program is. */
export const secondOf = (program: { second?: string }) => SECOND[program.second ?? "turn"]!;

const MOVES: Record<string, string> = {
  load: "load",
  turn: "turn",
  off: "take off",
  bubbles: "bubbles",
  browned: "first brown",
  puffed: "puffed",
  dark: "too dark",
  pale: "too pale",
  fell: "fell off",
  brush: "wrap",
  flip: "turn it again",
  edge: "stand it on an edge",
  rotate: "half a turn round",
  spray: "spray with water",
  cover: "lid on",
  uncover: "lid off",
  top: "topping on",
  finish_oven: "into the oven",
};
/** A move without its number: a second edge is `edge 2`. */
export const bare = (move: string): string => move.replace(/ \d+$/, "");
type Second = { second?: string; dressed?: string | null };

/** A move as the hands are told it: the second one is what this surface wants. */
export const moveVerb = (move: string, program: Second): string =>
  move === "turn" ? secondOf(program).verb : move === "load" ? "Load" : "Take off";
export const moveLower = (move: string, program: Second): string =>
  move === "turn"
    ? secondOf(program).lower
    : move === "brush" && program.dressed
      ? `${program.dressed} on, and wrap`
      : (MOVES[bare(move)] ?? move);

const WORDS = [
  "none",
  "one",
  "two",
  "three",
  "four",
  "five",
  "six",
  "seven",
  "eight",
  "nine",
  "ten",
  "eleven",
  "twelve",
];

/** Counts of breads that a kind of surface takes. */
export const spotsOf = (kind: string): { id: string; text: string }[] =>
  Array.from({ length: SURFACES.find((s) => s.id === kind)?.most ?? 2 }, (_, i) => ({
    id: String(i + 1),
    text: WORDS[i + 1]!,
  }));
