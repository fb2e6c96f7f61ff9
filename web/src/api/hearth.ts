import { serverNow } from "./clock";
import { breadOf, liesOn, programOf } from "./rounds";
import type { Hearth, TapCreate } from "./client";

const instant = (iso: string | null): number => (iso ? Date.parse(iso) : 0);
const FREEING = ["off", "turn", "load"];

/** What comes first: by time, a turn when the grill has room; at one instant what frees a place before what takes one, then by spot, as the core has it. */
function inOrder(due: Hearth["due"], spots: Hearth["spots"]): Hearth["due"] {
  const under = spots.filter((s) => s.grill);
  const full = under.length > 0 && under.every((s) => s.state === "busy");
  const room = full
    ? Math.min(...due.filter((d) => under.some((s) => s.number === d.spot)).map((d) => instant(d.at)))
    : 0;
  const when = (d: Hearth["due"][number]) => (d.move === "turn" ? Math.max(instant(d.at), room) : instant(d.at));
  return [...due].sort(
    (a, b) =>
      when(a) - when(b) ||
      FREEING.indexOf(a.move) - FREEING.indexOf(b.move) ||
      (a.move === "load" ? a.round_no - b.round_no : a.spot - b.spot),
  );
}

const iso = (t: number): string => new Date(t).toISOString();

/** The load of each waiting round that has a spot: the one of its kind that is free soonest, when the line has it there. */
function loadsDue(hearth: Hearth, spots: Hearth["spots"], waiting: readonly number[], at: number): Hearth["due"] {
  const planned = new Map(hearth.line.filter((t) => t.move === "load").map((t) => [t.round_no, instant(t.at)]));
  const idle = spots
    .filter((s) => s.state !== "busy" && !s.grill)
    .sort((a, b) => instant(a.until) - instant(b.until) || a.number - b.number);
  return waiting.flatMap((next) => {
    const bread = breadOf(hearth, next);
    const k = idle.findIndex((s) => !bread || liesOn(bread, s.number));
    const [s] = k < 0 ? [] : idle.splice(k, 1);
    if (!s) return [];
    const due = Math.max(s.until ? instant(s.until) : at, planned.get(next) ?? 0);
    return { move: "load", round_no: next, spot: s.number, at: iso(due) };
  });
}

const ON_HEAT = new Set<string>(["load", "turn", "off", "fell"]);

/**
 * What a tap does to the hearth at once on this screen, until the server's own answer comes. The same
 * rules as the core's, for the moves only; the server's word replaces it.
 */
export function withTap(hearth: Hearth, tap: TapCreate, at: number): Hearth {
  const program = programOf(hearth, tap.round_no);
  const spots: Hearth["spots"] = hearth.spots.map((s) => ({ ...s }));
  const spot = spots.find((s) => s.number === tap.spot);
  if (!spot || tap.round_no == null) return hearth;
  const grilled = spots.some((s) => s.grill) && program.second === "grill";
  let due = hearth.due.filter((d) => d.spot !== spot.number && d.move !== "load");
  let waiting = [...hearth.waiting];
  let off = [...hearth.off];
  let lost = [...hearth.lost];
  if (tap.kind === "load") {
    waiting = waiting.filter((n) => n !== tap.round_no);
    Object.assign(spot, { state: "busy", round_no: tap.round_no, side: "a", since: iso(at), until: null });
    const first = program.turn_s ?? program.off_s;
    due.push({
      move: program.turn_s == null ? "off" : "turn",
      round_no: tap.round_no,
      spot: spot.number,
      at: iso(at + first * 1000),
    });
  } else if (tap.kind === "turn") {
    const there = grilled ? spots.find((s) => s.grill && s.state !== "busy") : spot;
    if (!there) return hearth;
    Object.assign(there, { state: "busy", round_no: tap.round_no, side: "b", since: spot.since });
    if (there !== spot)
      Object.assign(spot, {
        state: "recovering",
        round_no: null,
        since: iso(at),
        until: iso(at + program.recover_s * 1000),
      });
    due.push({
      move: "off",
      round_no: tap.round_no,
      spot: there.number,
      at: iso(at + (program.off_s - (program.turn_s ?? 0)) * 1000),
    });
  } else if (tap.kind === "off" || tap.kind === "fell") {
    if (tap.kind === "off") off = [...off, tap.round_no];
    else lost = [...lost, tap.round_no];
    Object.assign(spot, {
      state: "recovering",
      round_no: null,
      until: iso(at + (spot.grill ? 0 : program.recover_s * 1000)),
    });
  }
  due = inOrder([...due, ...loadsDue(hearth, spots, waiting, at)], spots);
  const line = hearth.line.filter((t) => t.round_no !== tap.round_no || (t.move !== tap.kind && tap.kind !== "fell"));
  const newest = hearth.taps.reduce((id, t) => Math.max(id, t.id), 0);
  const taps = [
    ...hearth.taps,
    {
      id: newest + 1,
      key: tap.key,
      kind: tap.kind,
      round_no: tap.round_no,
      spot: tap.spot ?? null,
      at: iso(at),
      by: tap.by ?? null,
    },
  ];
  if (!ON_HEAT.has(tap.kind)) return { ...hearth, taps };
  const finished = waiting.length === 0 && spots.every((s) => s.state !== "busy");
  return { ...hearth, spots, due, waiting, off, lost, taps, line, started: true, finished };
}

/** A change of a tap that was made: of the one with that key, to another instant, or (null) taken back. */
export interface Change {
  of: string;
  at: string | null;
}

/**
 * What a change of a tap does to the hearth at once on this screen: the moves that are left, one after the other from an empty hearth.
 * An instant in words waits for the server's own reading of them.
 */
export function withChange(hearth: Hearth, { of, at }: Change): Hearth {
  const changed = hearth.taps.find((t) => t.key === of);
  if (!changed || (at !== null && Number.isNaN(Date.parse(at)))) return hearth;
  const taps = hearth.taps
    .filter((t) => at !== null || t !== changed)
    .map((t) => (t === changed ? { ...t, at: at! } : t));
  if (!ON_HEAT.has(changed.kind)) return { ...hearth, taps };
  const moves = taps.filter((t) => ON_HEAT.has(t.kind)).sort((a, b) => instant(a.at) - instant(b.at));
  const spots = hearth.spots.map((s) => ({ ...s, state: "free", round_no: null, side: "a", since: null, until: null }));
  const waiting = Array.from({ length: hearth.rounds }, (_, n) => n + 1);
  const due = inOrder(loadsDue(hearth, spots, waiting, serverNow()), spots);
  const empty: Hearth = {
    ...hearth,
    spots,
    waiting,
    due,
    off: [],
    lost: [],
    taps: [],
    started: false,
    finished: false,
  };
  return { ...moves.reduce((h, t) => withTap(h, t as TapCreate, instant(t.at)), empty), taps, line: hearth.line };
}
