import type { Bench } from "../api/client";
import { ms } from "../words/format";
import { type Timed, timedOf } from "./pegPlaces";

/** A row of the upright Rule: a move, hours in which hands are away, or hours that are free. */
export type UprightRow =
  | { kind: "move"; at: number; move: Timed }
  | { kind: "away"; at: number; name: string; until: number }
  | { kind: "free"; at: number; until: number };

const FREE_MS = 90 * 60e3; // a gap that is worth its own row

/** What lies ahead in its order: moves that are not done and servings, named hours away until the last of them, and free gaps between. */
export function uprightRows(bench: Pick<Bench, "steps" | "away">, now: number): UprightRow[] {
  const moves: UprightRow[] = timedOf(bench.steps)
    .filter((move) => !move.done)
    .map((move) => ({ kind: "move", at: move.at, move }));
  const last = Math.max(...moves.map((m) => m.at), now);
  const away: UprightRow[] = bench.away
    .map((s) => ({ kind: "away" as const, at: Math.max(ms(s.start), now), name: s.name, until: ms(s.end) }))
    .filter((s) => s.until > now && s.at < last);
  const sorted = [...moves, ...away].sort((a, b) => a.at - b.at);
  let busyUntil = now;
  return sorted.flatMap((row): UprightRow[] => {
    const gap = row.at - busyUntil;
    const free: UprightRow[] = gap >= FREE_MS ? [{ kind: "free", at: busyUntil, until: row.at }] : [];
    busyUntil = Math.max(busyUntil, row.kind === "away" ? row.until : row.at);
    return [...free, row];
  });
}
