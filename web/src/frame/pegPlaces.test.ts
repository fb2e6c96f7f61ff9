/** Which pegs the Rule shows, and where their heads stand. */
import { describe, expect, it } from "vitest";
import { ruleScale } from "../words/scale";
import { HEAD, headsOf, pegsShown, standsAlone } from "./pegPlaces";

const NOW = Date.UTC(2026, 10, 25, 1);
const MIN = 60e3;
const WIDTH = 1280;
const scale = ruleScale(NOW, WIDTH, 250, 60 * MIN, 36 * 60 * MIN);
const step = (key: string, min: number, done = false) => ({ key, at: NOW + min * MIN, done });

describe("the pegs in view", () => {
  it("are the moves inside the Rule in their order, without the tables", () => {
    const steps = [
      step("ball", 90),
      step("mix", 10),
      step("serve", 200),
      step("weigh", -20, true),
      step("roll", 60 * 24 * 9),
    ];
    const { shown, next } = pegsShown(steps, scale, WIDTH, NOW);
    expect(shown.map((s) => s.key)).toEqual(["weigh", "mix", "ball"]);
    expect(next?.key).toBe("mix");
  });

  it("keep the next and what sets the dough's clock where there is no room for all", () => {
    const many = Array.from({ length: 30 }, (_, i) => step(i % 5 === 1 ? "cold_in" : "roll", 5 + 10 * i));
    const { shown, next } = pegsShown(many, scale, WIDTH, NOW);
    expect(shown[0]).toBe(next);
    expect(next?.key).toBe("roll");
    expect(new Set(shown.slice(1).map((s) => s.key))).toEqual(new Set(["cold_in"]));
    const few = pegsShown(many.slice(0, 4), scale, WIDTH, NOW).shown;
    expect(few).toHaveLength(4);
  });

  it("never are more than fit, on a phone too", () => {
    const phone = ruleScale(NOW, 390, 70, 60 * MIN, 36 * 60 * MIN);
    const chief = Array.from({ length: 40 }, (_, i) => step("mix", 10 + 20 * i));
    const { shown } = pegsShown(chief, phone, 390, NOW);
    expect(shown.length).toBeLessThanOrEqual(Math.max(Math.floor((390 - 70 - 80) / (HEAD + 3)), 3));
    expect(shown.length).toBeGreaterThan(2);
  });
});

describe("the heads of pegs", () => {
  it("never overlap, keep their order, and leave the plate of now free", () => {
    const needle = scale.x(NOW);
    const places = [-90, -3, -2, -1, 1, 2, 3, 40, 41, 600].map((m) => scale.x(NOW + m * MIN));
    const heads = headsOf(places, needle, WIDTH);
    expect(heads).toHaveLength(places.length);
    heads.slice(1).forEach((h, i) => expect(h - heads[i]!).toBeGreaterThanOrEqual(HEAD));
    for (const h of heads) expect(Math.abs(h - needle)).toBeGreaterThanOrEqual(54);
    expect(Math.max(...heads)).toBeLessThanOrEqual(WIDTH);
  });

  it("stand over their stems where nothing crowds them", () => {
    expect(headsOf([400, 600], 250, WIDTH)).toEqual([400, 600]);
    expect(headsOf([], 250, WIDTH)).toEqual([]);
  });
});

it("a flag can be taken hold of alone, away from the Rule's end", () => {
  expect([
    standsAlone(500, [], WIDTH),
    standsAlone(500, [540], WIDTH),
    standsAlone(500, [550], WIDTH),
    standsAlone(1240, [], WIDTH),
  ]).toEqual([true, false, true, false]);
});
