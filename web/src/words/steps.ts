import { ms } from "./format";

/** A hand move that is shown: of a bake, or of a kitchen's freezer. */
interface Placed {
  bake_id: number;
  leaf: string;
  freezer?: number | null;
}

/** Where a hand move is made: a bake's leaf, or the freezer of a kitchen. */
export const stepPath = (s: Placed): string =>
  s.freezer != null ? `/k/${s.freezer}/freezer` : `/b/${s.bake_id}/${s.leaf}`;

/** The kind of a move, without the number that tells it from others of its kind. */
export const stepKind = (key: string): string => key.replace(/\d+$/, "");

const DOUGH = new Set(["ball", "roll", "line"]);
const WORTH_SAYING_MS = 60e3;

/** A hand move as it is planned. */
interface Pending {
  key: string;
  at: string;
  can_wait_until: string | null;
}

interface Wait {
  until: string;
  /** How long it still waits [ms]; null once that is over. */
  leftMs: number | null;
  words: string;
}

/** Until when a move can wait, and how that is said of it; null where it is to be done at its time. */
export function waits(step: Pending, now: number): Wait | null {
  const until = step.can_wait_until;
  if (!until || stepKind(step.key) === "preheat" || ms(until) - ms(step.at) <= WORTH_SAYING_MS) return null;
  const dough = DOUGH.has(stepKind(step.key));
  if (ms(until) <= now) return { until, leftMs: null, words: dough ? "dough kept" : "could wait" };
  return { until, leftMs: ms(until) - Math.max(now, ms(step.at)), words: dough ? "dough keeps" : "can wait" };
}
