import { expect, it } from "vitest";
import { fieldWords, valueWords } from "./changes";
import { type HeatStep, heatBand, plainSides, sidesWords, sourceWords } from "./heat";
import { heatingWords, type Heating, knobWord, step, wipeWord } from "./heating";
import { tapWords } from "./taps";

const c = { mass: "g", temp: "C", zone: "Europe/Zurich" } as const;
const f = { ...c, temp: "F" } as const;
const hob: Heating = {
  preheat_s: 480,
  charcoal_kg: null,
  settles_s: 15,
  drift_k_min: 8,
  hold: "medium",
  knob: true,
  wipe_every: 4,
};

it("says a side's seconds, and knows a way of plain sides from one that is more", () => {
  expect(sidesWords(45, 90)).toBe("45 + 45 s");
  expect(sidesWords(null, 75)).toBe("75 s");
  const sides: HeatStep[] = [
    { do: "face_a", seconds: 40 },
    { do: "face_b", seconds: 35 },
  ];
  expect(plainSides(sides)).toEqual([40, 35]);
  expect(plainSides([{ do: "face_a", seconds: 40, until: "puffed" }])).toBeNull();
  expect(plainSides([{ do: "face_b", seconds: 40 }])).toBeNull();
  expect(plainSides([...sides, { do: "cover" }])).toBeNull();
});

it("says a band in the kitchen's degrees, and nothing of a band with an open end", () => {
  expect(heatBand({ p10: 200, p90: 250 }, c)).toBe("200 to 250 °C");
  expect(heatBand({ p10: 200, p90: 250 }, f)).toBe("392 to 482 °F");
  expect(heatBand({ p10: null, p90: 250 }, c)).toBe("");
  expect(sourceWords("infrared")).toBe("infrared");
  expect(sourceWords("a new one")).toBe("a new one");
});

it("tells the knob only where there is one and it is to be moved", () => {
  expect(knobWord(hob, "high", c)).toBe(
    "Once it is hot turn to medium: left as it is, the empty plate climbs 8° a minute.",
  );
  expect(knobWord(hob, "low", c)).toContain("Turn up to medium");
  expect(knobWord(hob, "medium", c)).toBeNull();
  expect(knobWord({ ...hob, knob: false }, "high", c)).toBeNull();
  expect(knobWord({ ...hob, hold: null }, "high", c)).toContain("Not even high");
  expect(step(10, f)).toBe("18°");
});

it("says how a surface gets hot, what is slow to be felt, and when to wipe it, each once", () => {
  expect(heatingWords(hob, "medium", c)).toEqual([
    "Hot in 8 min from cold.",
    "Wipe the flour off after every 4 breads.",
  ]);
  const clay = { ...hob, charcoal_kg: 2.6, preheat_s: 5400, settles_s: 900, knob: false, wipe_every: null };
  expect(heatingWords(clay, "high", c)).toEqual([
    "Light 2.6 kg of charcoal 1 h 30 min before.",
    "A change of its heat is felt after 15 min.",
  ]);
  expect(heatingWords({ ...hob, preheat_s: null }, "medium", c)[0]).toContain("turn it up");
  expect(wipeWord({ ...hob, wipe_every: 1 })).toBe("Wipe the flour off between breads.");
});

it("names a setting and its value as a cook reads them", () => {
  expect(fieldWords("dough_c")).toBe("The dough’s temperature");
  expect(fieldWords("bulk_ratio")).toBe("Its bulk ratio");
  expect(valueWords([{ ingredient: "plain_flour", amount: "500 g" }, { ingredient: "water" }])).toBe(
    "500 g plain flour\nwater",
  );
  expect(valueWords({ stage: "ball", hours: 14.004 })).toBe("stage ball, hours 14");
  expect([valueWords(null), valueWords(true), valueWords([])]).toEqual(["nothing", "yes", "nothing"]);
});

it("says a tap as it was made", () => {
  expect(tapWords({ kind: "load", round_no: 3, spot: 2 })).toBe("Round 3 loaded, spot 2");
  expect(tapWords({ kind: "ball" })).toBe("Balled");
  expect(tapWords({ kind: "fell", round_no: 1 })).toBe("Round 1 fell");
});
