import { mean } from "./format";
import { SAY } from "./say/drill";

export const STATES = [
  { id: "not_yet", text: SAY.notYet },
  { id: "now", text: SAY.now },
  { id: "past", text: SAY.past },
] as const;
export const SURE = [
  { id: "sure", text: SAY.sure },
  { id: "rather", text: SAY.rather },
  { id: "guess", text: SAY.guess },
] as const;
export const POKE: Record<"springs" | "returns" | "stays", string> = {
  springs: SAY.springs,
  returns: SAY.returns,
  stays: SAY.stays,
};
export const FEEL = { springs: "not_yet", returns: "just", stays: "past" } as const;
/** A fault as it is said of a bread. */
const FAULT: Record<string, string> = {
  flat: "flat",
  part_pocket: "open in one part only",
  one_side: "open on one side",
  burst: "burst",
  pale: "pale",
  scorched: "scorched",
  raw_inside: "raw inside",
  doughy_middle: "doughy in the middle",
  stiff: "stiff",
  tough: "tough",
  soapy: "soapy",
  sour: "too sour",
  shrank: "shrunk back",
  fell_off: "fallen off",
  stuck: "stuck",
  doughy_edges: "doughy at its edges",
};
export const faultSaid = (fault: string): string => FAULT[fault] ?? fault.replace(/_/g, " ");

const shown = (s: number): string => Math.abs(s).toFixed(0);
/** A miss in words: seconds early or late. */
export const missWords = (s: number): string =>
  Math.round(s) === 0 ? SAY.onTheSecond : `${shown(s)} ${s > 0 ? SAY.sLate : SAY.sEarly}`;

/** The mean of some misses and their spread, in words. */
export function missesWords(misses: readonly number[]): string {
  if (misses.length === 0) return SAY.noCallsYet;
  const middle = mean(misses);
  const spread = Math.sqrt(mean(misses.map((m) => (m - middle) ** 2)));
  return misses.length < 2 ? missWords(middle) : SAY.meanMiss(missWords(middle), spread.toFixed(0));
}

/** Minutes and seconds of a line. */
export const lineTime = (s: number): string => `${Math.floor(s / 60)}:${String(Math.round(s % 60)).padStart(2, "0")}`;
