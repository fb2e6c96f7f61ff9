/** Where the heads of pegs stand, which of them fold, and which lane a bake has. */
import { describe, expect, it } from "vitest";
import { ruleScale } from "../words/scale";
import { headsIn, lanesOf, standsAlone } from "./pegPlaces";

const NOW = Date.UTC(2026, 10, 25, 1);
const MIN = 60e3;
const WIDTH = 1280;
const scale = ruleScale(NOW, WIDTH, 250, 60 * MIN, 36 * 60 * MIN);
const step = (key: string, min: number, done = false) => ({ key, at: NOW + min * MIN, done });
const placed = (steps: ReturnType<typeof step>[], s = scale, width = WIDTH) =>
  headsIn(steps, s, NOW, width < 700 ? 46 : 88, width);

describe("the heads of the moves", () => {
  it("are the moves inside the Rule in their order, without serving", () => {
    const steps = [
      step("ball", 90),
      step("mix", 10),
      step("serve", 200),
      step("weigh", -20, true),
      step("roll", 12960),
    ];
    const { heads, next } = placed(steps);
    expect(heads.flatMap((h) => h.steps.map((s) => s.key))).toEqual(["weigh", "mix", "ball"]);
    expect(next?.key).toBe("mix");
    expect(heads.every((h) => h.steps.length === 1)).toBe(true);
  });

  it("stand over their times where nothing crowds them", () => {
    const { heads } = placed([step("mix", 60), step("ball", 240)]);
    for (const h of heads) expect(h.x).toBeCloseTo(h.places[0]!, 1);
  });

  it("fold where they crowd, all counted, none overlapping, none far from its time; the next stays by itself", () => {
    for (const width of [390, 800, 1280]) {
      const s = ruleScale(NOW, width, width < 700 ? 112 : 250, 60 * MIN, 36 * 60 * MIN);
      const many = Array.from({ length: 90 }, (_, i) => step("mix", -200 + 20 * i, i < 10));
      const { heads, next } = placed(many, s, width);
      const inView = many.filter((x) => s.x(x.at) > (width < 700 ? 24 : 66) && x.at < s.right);
      expect(heads.flatMap((h) => h.steps)).toEqual(inView);
      expect(heads.find((h) => h.steps.includes(next!))!.steps).toHaveLength(1);
      heads.slice(1).forEach((h, i) => expect(h.x - heads[i]!.x).toBeGreaterThan(43));
      for (const h of heads.filter((x) => !x.steps.includes(next!)))
        expect(Math.abs(h.x - h.places.reduce((a, b) => a + b, 0) / h.places.length)).toBeLessThan(60);
    }
  });

  it("never fold across now", () => {
    const { heads } = placed([step("weigh", -1, true), step("mix", -0.5, true), step("ball", 1), step("roll", 1.5)]);
    for (const h of heads) expect(new Set(h.steps.map((s) => s.at > NOW)).size).toBe(1);
  });
});

describe("a lane for each bake", () => {
  const bake = (id: number, from: number, to: number) =>
    [step("mix", from), step("serve", to)].map((s) => ({ ...s, bake: id, name: `B${id}`, seal: "round" }));
  const lanes = (most: number, ...bakes: ReturnType<typeof bake>[]) =>
    lanesOf(bakes.flat(), most).map((l) => [l.id, l.lane]);

  it("is shared by bakes that do not overlap, and is the last where there are too many", () => {
    expect(lanes(4, bake(1, 0, 100), bake(2, 50, 200), bake(3, 120, 300))).toEqual([
      [1, 0],
      [2, 1],
      [3, 0],
    ]);
    const many = Array.from({ length: 9 }, (_, i) => bake(i, i, 500));
    expect(Math.max(...lanes(3, ...many).map((l) => l[1]!))).toBe(2);
  });
});

it("a flag that others crowd, or that stands at the end, is only drawn", () => {
  expect(standsAlone(400, [340, 460], WIDTH)).toBe(true);
  expect(standsAlone(400, [430], WIDTH)).toBe(false);
  expect(standsAlone(WIDTH - 20, [], WIDTH)).toBe(false);
});
