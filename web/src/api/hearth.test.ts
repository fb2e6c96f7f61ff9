import { describe, expect, it } from "vitest";
import type { Hearth, TapCreate } from "./client";
import worked from "../../../tests/worked/hearth.json";
import { withChange, withTap } from "./hearth";

const T0 = Date.parse("2026-11-25T01:00:00Z");
const iso = (s: number) => new Date(T0 + s * 1000).toISOString();
const start = (rounds: number, spots: number): Hearth =>
  ({
    rounds,
    started: false,
    finished: false,
    waiting: Array.from({ length: rounds }, (_, i) => i + 1),
    off: [],
    lost: [],
    taps: [],
    line: [],
    late_s: 0,
    breads: [],
    towel: [],
    last_off_at: null,
    program: { turn_s: 40, off_s: 60, recover_s: 10, puff_s: 45, bubbles_s: 30, brown_s: 20 },
    spots: Array.from({ length: spots }, (_, i) => ({
      number: i + 1,
      state: "free",
      round_no: null,
      side: "a",
      since: null,
      until: null,
    })),
    due: [{ move: "load", round_no: 1, spot: 1, at: iso(0) }],
  }) as unknown as Hearth;
const tap = (kind: TapCreate["kind"], round_no: number, spot: number): TapCreate => ({
  key: `${kind}-${round_no}`,
  kind,
  round_no,
  spot,
  at: null,
});

const lying = ({ spots, waiting, off, lost }: Hearth) => ({ spots, waiting, off, lost });

interface Worked {
  name: string;
  rounds: number;
  spots: number;
  grill: number;
  turn_s: number | null;
  off_s: number;
  recover_s: number;
  loads: Record<string, number>;
  kinds?: { rounds: number[]; spots: [number, number]; turn_s: number | null; off_s: number; recover_s: number }[];
  steps: {
    tap: [TapCreate["kind"], number, number, number];
    due: [string, number, number, number][];
    waiting: number[];
    off: number[];
    lost: number[];
  }[];
}

describe("the rules of the hearth move by move: the core’s test reads the same file", () => {
  it.each(worked as unknown as Worked[])(
    "$name",
    ({ rounds, spots, grill, turn_s, off_s, recover_s, loads, kinds = [], steps }) => {
      let hearth = start(rounds, spots);
      Object.assign(hearth.program, { turn_s, off_s, recover_s, second: grill ? "grill" : "turn" });
      hearth.breads = kinds.map(({ rounds: own, spots: [first_spot, last_spot], ...times }, i) => ({
        name: `kind ${i}`,
        rounds: own,
        pieces: own.length,
        first_spot,
        last_spot,
        surface: null,
        program: { ...hearth.program, ...times },
      }));
      for (let k = 0; k < grill; k += 1) hearth.spots.push({ ...hearth.spots[0]!, number: spots + k + 1, grill: true });
      hearth.line = Object.entries(loads).map(([n, s]) => ({
        move: "load",
        round_no: Number(n),
        spot: 1,
        cook: 1,
        hands_s: 8,
        at: iso(s),
      }));
      for (const {
        tap: [kind, round, spot, s],
        due,
        waiting,
        off,
        lost,
      } of steps) {
        const before = hearth;
        hearth = withTap(hearth, tap(kind, round, spot), T0 + s * 1000);
        const back = withChange(hearth, { of: tap(kind, round, spot).key, at: null });
        if (hearth.taps.length > 1) expect(lying(back)).toEqual(lying(before)); // taken back, it lies as before
        expect(hearth.due.map((d) => [d.move, d.round_no, d.spot, (Date.parse(d.at) - T0) / 1000])).toEqual(due);
        expect([hearth.waiting, hearth.off, hearth.lost]).toEqual([waiting, off, lost]);
      }
    },
  );
});

describe("a tap shown before the server has answered", () => {
  it("moves one round one step and says what is due, like the core", () => {
    let hearth = withTap(start(3, 1), tap("load", 1, 1), T0);
    expect(hearth.due).toEqual([{ move: "turn", round_no: 1, spot: 1, at: iso(40) }]);
    hearth = withTap(hearth, tap("turn", 1, 1), T0 + 42_000);
    expect(hearth.due[0]).toMatchObject({ move: "off", at: iso(62) });
    hearth = withTap(hearth, tap("off", 1, 1), T0 + 63_000);
    expect(hearth.off).toEqual([1]);
    expect(hearth.due[0]).toMatchObject({ move: "load", round_no: 2, at: iso(73) });
  });

  it("keeps every round in one place and finishes when all are off", () => {
    let hearth = start(4, 2);
    let at = T0;
    for (let moves = 0; moves < 12; moves += 1) {
      const due = hearth.due[0]!;
      at = Math.max(at + 1000, Date.parse(due.at));
      hearth = withTap(hearth, tap(due.move as "load", due.round_no, due.spot), at);
      const on = hearth.spots.filter((s) => s.state === "busy").map((s) => s.round_no!);
      expect([...hearth.waiting, ...on, ...hearth.off].sort()).toEqual([1, 2, 3, 4]);
    }
    expect(hearth.finished).toBe(true);
    expect(hearth.due).toEqual([]);
  });

  it("loads when the line has it, and frees the pan for the next while the grill finishes", () => {
    const two = start(3, 1);
    two.line = [{ move: "load", round_no: 2, spot: 1, cook: 1, hands_s: 8, at: iso(95) }];
    two.spots.push({ ...two.spots[0]!, number: 2, grill: true });
    two.program.second = "grill";
    let hearth = withTap(two, tap("load", 1, 1), T0);
    hearth = withTap(hearth, tap("turn", 1, 1), T0 + 40_000);
    expect(hearth.spots.map((s) => s.state)).toEqual(["recovering", "busy"]);
    expect(hearth.due.map((d) => [d.move, d.spot, d.at])).toEqual([
      ["off", 2, iso(60)],
      ["load", 1, iso(95)],
    ]);
    hearth = withTap(hearth, tap("off", 1, 2), T0 + 61_000);
    expect([hearth.off, hearth.spots[1]!.state]).toEqual([[1], "recovering"]);
  });

  it("takes a bread from a full grill before the next one goes under it", () => {
    const two = start(3, 2);
    two.spots.push({ ...two.spots[0]!, number: 3, grill: true });
    two.program.second = "grill";
    let hearth = withTap(two, tap("load", 1, 1), T0);
    hearth = withTap(hearth, tap("load", 2, 2), T0 + 15_000);
    hearth = withTap(hearth, tap("turn", 1, 1), T0 + 40_000);
    expect(hearth.due.map((d) => [d.move, d.round_no])).toEqual([
      ["load", 3],
      ["off", 1],
      ["turn", 2],
    ]);
    expect(hearth.due.map((d) => d.at).slice(1)).toEqual([iso(60), iso(55)]);
  });

  it("stores what was seen without moving anything, newest last", () => {
    const loaded = withTap(start(2, 1), tap("load", 1, 1), T0);
    const seen = withTap(loaded, tap("puffed", 1, 1), T0 + 45_000);
    expect(seen.due).toEqual(loaded.due);
    expect(seen.taps.map((t) => t.kind)).toEqual(["load", "puffed"]);
    expect(seen.taps[1]!.id).toBeGreaterThan(seen.taps[0]!.id);
  });
});
