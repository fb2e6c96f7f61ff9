/** Words that are put together from figures: moves, settings, heat. */
import { describe, expect, it } from "vitest";
import { fieldWords, valueWords } from "./changes";
import { type Heating, heatingWords, knobWord, step, wipeWord } from "./heating";
import { bare, moveLower, moveVerb, secondOf, spotsOf, SURFACES } from "./surfaces";
import { tapWords } from "./taps";

const C = { mass: "g", temp: "C" };
const F = { mass: "oz", temp: "F" };
const heat = (over: Partial<Heating> = {}): Heating => ({
  preheat_s: 600,
  charcoal_kg: null,
  settles_s: 30,
  drift_k_min: 0,
  hold: "medium",
  knob: true,
  wipe_every: null,
  ...over,
});

describe("what the hands are told", () => {
  it("names the second move by the surface, and a numbered move by its kind", () => {
    expect([{}, { second: "grill" }, { second: "invert" }].map((p) => secondOf(p).verb)).toEqual([
      "Turn",
      "To the grill:",
      "Over the flame:",
    ]);
    expect(moveLower("turn", { second: "grill" })).toBe(secondOf({ second: "grill" }).lower);
    expect([bare("edge 2"), bare("off")]).toEqual(["edge", "off"]);
    expect(moveLower("edge 3", {})).toBe("stand it on an edge");
    expect([moveLower("brush", {}), moveLower("brush", { dressed: "ghee" })]).toEqual(["wrap", "ghee on, and wrap"]);
    expect(["load", "turn", "off"].map((m) => moveVerb(m, {}))).toEqual(["Load", "Turn", "Take off"]);
    expect(moveLower("something new", {})).toBe("something new"); // a newer server's move is shown as it is
  });

  it("tells a tap as it was made, on the heat and before", () => {
    expect(tapWords({ kind: "off", round_no: 3, spot: 2 })).toBe("Round 3 taken off, spot 2");
    expect(tapWords({ kind: "puffed", round_no: 3 })).toBe("Round 3 opened");
    expect(tapWords({ kind: "cold_in" })).toBe("In the cold");
  });

  it("offers as many spots as a surface takes, in words", () => {
    for (const { id, most } of SURFACES) expect(spotsOf(id)).toHaveLength(most);
    expect(spotsOf("iron_plate").at(-1)).toEqual({ id: "6", text: "six" });
    expect(spotsOf("unheard of").map((s) => s.text)).toEqual(["one", "two"]);
  });
});

describe("how a surface gets hot and stays so", () => {
  it("says how far to turn the knob, down or up, and nothing where it is right or there is none", () => {
    expect(knobWord(heat({ drift_k_min: 10 }), "high", C)).toBe(
      "Once it is hot turn to medium: left as it is, the empty plate climbs 10° a minute.",
    );
    expect(knobWord(heat({ drift_k_min: 10 }), "high", F)).toContain("climbs 18° a minute");
    expect(knobWord(heat({ hold: "high" }), "medium", C)).toContain("Turn up to high");
    expect(knobWord(heat({ hold: null }), "high", C)).toContain("leave more time between breads");
    expect([knobWord(heat(), "medium", C), knobWord(heat({ knob: false }), "high", C)]).toEqual([null, null]);
  });

  it("says when it is hot, or that it will not be, with charcoal by weight", () => {
    expect(heatingWords(heat(), "medium", C)).toEqual(["Hot in 10 min from cold."]);
    expect(heatingWords(heat({ preheat_s: null }), "medium", C)[0]).toContain("does not get there");
    expect(heatingWords(heat({ charcoal_kg: 1.25, preheat_s: 2700 }), "medium", C)[0]).toBe(
      "Light 1.3 kg of charcoal 45 min before.",
    );
    expect(heatingWords(heat({ settles_s: 240, wipe_every: 4 }), "medium", C).slice(1)).toEqual([
      "A change of its heat is felt after 4 min.",
      "Wipe the flour off after every 4 breads.",
    ]);
    expect(wipeWord(heat({ wipe_every: 1 }))).toBe("Wipe the flour off between breads.");
    expect(step(-9, F)).toBe("16°");
  });
});

describe("settings in a cook's words, where two tablets changed the same", () => {
  it("names a setting, and one that has no words yet by its own", () => {
    expect([fieldWords("piece_g"), fieldWords("bench_rest")]).toEqual(["The weight of one", "Its bench rest"]);
  });

  it("reads every kind of value", () => {
    expect([null, "", true, false, 12.3456, "golden"].map(valueWords)).toEqual([
      "nothing",
      "nothing",
      "yes",
      "no",
      "12.35",
      "golden",
    ]);
    expect(valueWords([])).toBe("nothing");
    expect(valueWords([{ ingredient: "plain_flour", amount: "500 g" }, { ingredient: "salt_fine" }])).toBe(
      "500 g plain flour\nsalt fine",
    );
    expect(valueWords({ place: "fridge", low_h: 12 })).toBe("place fridge, low h 12");
    expect(valueWords("2026-11-25T01:30:00Z")).toMatch(/^Wed,? /);
  });
});
