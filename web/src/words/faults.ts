/** Faults of a bread and facts of its making, in a cook's words. */
export type FaultId =
  | "one_side"
  | "burst"
  | "raw_inside"
  | "doughy_middle"
  | "doughy_edges"
  | "stiff"
  | "soapy"
  | "sour"
  | "shrank"
  | "fell_off"
  | "stuck";

/** Faults beside those that the pocket, the colour and the tenderness say. */
export const FAULTS: readonly { id: FaultId; text: string }[] = [
  { id: "one_side", text: "opened on one side" },
  { id: "burst", text: "burst" },
  { id: "raw_inside", text: "raw inside" },
  { id: "doughy_middle", text: "doughy middle" },
  { id: "doughy_edges", text: "doughy edges" },
  { id: "stiff", text: "stiff" },
  { id: "soapy", text: "soapy" },
  { id: "sour", text: "sour" },
  { id: "shrank", text: "shrank back" },
  { id: "fell_off", text: "fell off" },
  { id: "stuck", text: "stuck" },
];
export const faultWords = (fault: string): string =>
  FAULTS.find((f) => f.id === fault)?.text ?? fault.replace(/_/g, " ");

type Value = number | boolean | string;
export interface FactWords {
  ask: string;
  options: readonly { text: string; value: Value }[];
}
const YES_NO = [
  { text: "yes", value: true },
  { text: "no", value: false },
] as const;

/** Facts that a cook can say afterwards: the question, and its answers in words with the figure that stands for each. */
export const FACTS: Record<string, FactWords> = {
  skin_min: {
    ask: "How long did the rounds lie bare?",
    options: [
      { text: "covered", value: 0 },
      { text: "3 min", value: 3 },
      { text: "8 min", value: 8 },
      { text: "15 min", value: 15 },
    ],
  },
  uneven_frac: {
    ask: "How level were they rolled?",
    options: [
      { text: "level", value: 0.05 },
      { text: "a little uneven", value: 0.2 },
      { text: "thick on one side", value: 0.45 },
    ],
  },
  rest_min: {
    ask: "How long did they rest after rolling?",
    options: [
      { text: "not at all", value: 0 },
      { text: "5 min", value: 5 },
      { text: "10 min", value: 10 },
      { text: "20 min", value: 20 },
    ],
  },
  recovered: { ask: "Was the surface back at its heat?", options: YES_NO },
  bench_flour_g_m2: {
    ask: "How much flour was on the bench?",
    options: [
      { text: "none", value: 0 },
      { text: "a dusting", value: 10 },
      { text: "plenty", value: 50 },
    ],
  },
  tear_mm2: {
    ask: "Was there a tear or a crack?",
    options: [
      { text: "none", value: 0 },
      { text: "a small one", value: 3 },
      { text: "a large one", value: 10 },
    ],
  },
  kneaded: {
    ask: "How long was it kneaded?",
    options: [
      { text: "as planned", value: 1 },
      { text: "twice that", value: 2 },
      { text: "far longer", value: 4 },
    ],
  },
  starter_state: {
    ask: "How was the starter?",
    options: [
      { text: "at its peak", value: "peak" },
      { text: "past it", value: "ripe" },
      { text: "from the fridge", value: "chilled" },
    ],
  },
  char_left: { ask: "Was burnt flour on the surface?", options: YES_NO },
  wetted: { ask: "Was its back wetted?", options: YES_NO },
  edged: { ask: "Were its edges stood up?", options: YES_NO },
  wrap: {
    ask: "How was it kept?",
    options: [
      { text: "in cloth", value: "cloth" },
      { text: "left open", value: "open" },
      { text: "bagged", value: "bag" },
      { text: "on a rack", value: "rack" },
    ],
  },
  wait_min: {
    ask: "How long did it wait before it was eaten?",
    options: [
      { text: "5 min", value: 5 },
      { text: "15 min", value: 15 },
      { text: "1 h", value: 60 },
      { text: "4 h", value: 240 },
    ],
  },
  microwaved: { ask: "Was it heated in the microwave?", options: YES_NO },
};
/** The facts that are asked of every bread; the others when a cause hangs on them. */
export const USUAL_FACTS = ["skin_min", "uneven_frac", "rest_min", "bench_flour_g_m2", "tear_mm2"] as const;

/** Which breads, as they are said: 2, 3 and 7. */
export const listed = (rounds: readonly (number | string)[]): string =>
  rounds.length < 2 ? String(rounds[0] ?? "") : `${rounds.slice(0, -1).join(", ")} and ${rounds.at(-1)}`;
