/** What Fire says beside its figures: steps of the plan, the care of a surface, what nobody taps. */
import { describe, expect, it } from "vitest";
import type { Bake, Hearth } from "../../api/client";
import { besides, measured, rolled, sessionNote } from "./liveNotes";
import { pocketAt, stepsOf } from "./planSteps";

const C = { mass: "g", temp: "C" };
const T0 = Date.UTC(2026, 10, 25, 1);
const iso = (s: number) => new Date(T0 + s * 1000).toISOString();

describe("the steps of a plan", () => {
  const fire = (over: object = {}) =>
    ({
      program: { turn_s: 40, off_s: 80, wrap_s: null, moves: [], second: "turn" },
      events: { puff: { p50: 62 }, core_75: { p50: 71 } },
      surface: { kind: "iron_plate" },
      ...over,
    }) as unknown as NonNullable<Bake["fire"]>;
  const bake = (filling: object | null = null) => ({ settings: { filling } }) as unknown as Bake;
  const words = (b: Bake, f: NonNullable<Bake["fire"]>) => stepsOf(b, f).map((s) => `${s.s} ${s.word}`);

  it("stand in the order of their seconds, each with what is done or seen", () => {
    expect(words(bake(), fire())).toEqual(["0 on the heat", "40 turn", "62 it opens", "80 off, into the towel"]);
  });

  it("say when a filling is safe, wet the back for a wall, wrap a thick one, and have no turn where there is none", () => {
    expect(words(bake({ lines: [] }), fire())).toContain("71 75 °C inside: meat and egg not before");
    expect(words(bake({ topping: true }), fire()).join()).not.toContain("75 °C");
    expect(words(bake(), fire({ surface: { kind: "clay_wall" } }))[0]).toBe("0 on, its back wet");
    const thick = fire({ program: { turn_s: null, off_s: 80, wrap_s: 600, moves: [{ at_s: 55, move: "edge 2" }] } });
    expect(words(bake(), thick)).toEqual([
      "0 on the heat",
      "55 stand it on an edge",
      "62 it opens",
      "80 off, to rest in a cloth for 10 min",
    ]);
  });

  it("promise no pocket that would open after it is taken off", () => {
    expect(words(bake(), fire({ events: { puff: { p50: 95 } } })).join()).not.toContain("opens");
  });

  it("read the pocket off the instant that was last computed", () => {
    const carpet = { s: [10, 20, 30], pocket: [0, 0.2, 0.9] } as unknown as NonNullable<Bake["fire"]>["carpet"];
    expect([5, 20, 29, 29.6, 99].map((s) => pocketAt(carpet, s))).toEqual([0, 0.2, 0.2, 0.9, 0.9]);
  });
});

describe("on the live hearth", () => {
  const hearth = (over: object = {}): Hearth =>
    ({
      started: true,
      finished: false,
      breads: [],
      off: [],
      waiting: [3, 4, 5],
      line: [],
      taps: [{ kind: "load", at: iso(0) }],
      spots: [{ state: "busy", since: iso(0) }],
      surface: { power: "high" },
      program: {
        second: "turn",
        heating: {
          knob: true,
          hold: "medium",
          drift_k_min: 12,
          wipe_every: 4,
          preheat_s: 60,
          settles_s: 10,
          charcoal_kg: null,
        },
      },
      ...over,
    }) as unknown as Hearth;

  it("says how far an empty plate has climbed, and to turn it down", () => {
    const empty = hearth({ spots: [{ state: "free", since: iso(0) }] });
    expect(sessionNote(empty, T0 + 90e3, C)).toContain(
      "Empty for 90 s: it may have climbed 18°. Once it is hot turn to medium",
    );
    expect(sessionNote(empty, T0 + 10e3, C)).toMatch(/^Once it is hot turn to medium/); // not empty for long
  });

  it("says the knob at first, then only the flour, one thing at a time", () => {
    expect(sessionNote(hearth(), T0 + 30e3, C)).toMatch(/^Once it is hot/);
    expect(sessionNote(hearth(), T0 + 300e3, C)).toBeNull();
    expect(sessionNote(hearth({ off: [1, 2, 3, 4] }), T0 + 300e3, C)).toBe("Wipe the flour off after every 4 breads.");
    expect(sessionNote(hearth({ finished: true }), T0 + 30e3, C)).toBeNull();
    expect(sessionNote(hearth({ started: false }), T0 + 30e3, C)).toBeNull();
  });

  it("names the move that nobody taps, when it comes before the next", () => {
    const edge = { move: "edge 1", round_no: 2, at: iso(20) };
    const next = { move: "off", round_no: 2, spot: 1, at: iso(40) } as Parameters<typeof besides>[1];
    expect(besides(hearth({ line: [edge] }), next, T0)).toBe("; first stand it on an edge, round 2, in 20 s");
    expect(besides(hearth({ line: [edge] }), next, T0 + 21e3)).toContain("round 2, now");
    expect(besides(hearth({ line: [{ ...edge, at: iso(60) }] }), next, T0)).toBe("");
  });

  it("knows which waiting rounds are rolled by the line", () => {
    const rolling = hearth({ line: [{ move: "roll", round_no: 4 }] });
    expect([3, 4, 5].map((n) => rolled(rolling, n))).toEqual([true, false, false]);
    expect(rolled(hearth(), 5)).toBe(true);
    expect(rolled(hearth({ started: false }), 5)).toBe(false);
  });

  it("tells what the first bread found of the surface", () => {
    const program = (was: number | null, is: number | null) =>
      ({ surface_c: is, surface_was_c: was }) as unknown as Hearth["program"];
    expect(measured(program(240, 217), C)).toBe("; the surface measures 217 °C, not 240");
    expect(measured(program(240, 242), C)).toContain("as set");
    expect(measured(program(null, 242), C)).toBe("");
  });
});
