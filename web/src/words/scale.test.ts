import { expect, test } from "vitest";
import { apart, hourMarks, nextPegTime, pegTime, ruleScale, spread, wrapped } from "./scale";

const now = Date.parse("2026-11-24T20:14:00Z");

test("the rule runs both ways and rises with time", () => {
  for (const linear of [false, true]) {
    const scale = ruleScale(now, 1280, 250, 2 * 3600e3, 36 * 3600e3, linear);
    expect(scale.x(now)).toBeCloseTo(250);
    for (const h of [-5, -0.5, 0.2, 3, 30])
      expect(scale.t(scale.x(now + h * 3600e3))).toBeCloseTo(now + h * 3600e3, -1);
    expect(scale.x(now + 36 * 3600e3)).toBeLessThanOrEqual(1280);
    const marks = hourMarks(scale, scale.left, scale.right, 40);
    expect(marks.length).toBeGreaterThan(5);
    expect(marks.every((t) => t % 3600e3 === 0)).toBe(true);
  }
});

test("heads never overlap and keep their order", () => {
  const heads = spread([100, 101, 102, 590], 30, 15, 600);
  heads.slice(1).forEach((v, i) => expect(v - heads[i]!).toBeGreaterThanOrEqual(30));
  expect(Math.max(...heads)).toBeLessThanOrEqual(600);
});

test("things of different width stand apart, inside their bounds, and at their own place where nothing crowds", () => {
  const edges = (things: { at: number; wide: number }[], centres: number[]) =>
    centres.map((c, i) => [c - things[i]!.wide / 2, c + things[i]!.wide / 2] as const);
  for (const ats of [
    [10, 12, 300],
    [590, 595, 598],
    [100, 100, 100],
    [0, 300, 600],
  ]) {
    const things = ats.map((at, i) => ({ at, wide: 40 + 30 * i }));
    const found = edges(things, apart(things, 0, 600, 6));
    found.slice(1).forEach(([from], i) => expect(from - found[i]![1]).toBeGreaterThanOrEqual(6 - 1e-9));
    expect(found[0]![0]).toBeGreaterThanOrEqual(-1e-9);
    expect(found.at(-1)![1]).toBeLessThanOrEqual(600 + 1e-9);
  }
  expect(apart([{ at: 200, wide: 50 }], 0, 600, 6)).toEqual([200]);
  expect(apart([], 0, 600, 6)).toEqual([]);
});

test("a peg stands on five minutes, or at the end of a window that holds none", () => {
  const minute = 60e3;
  expect(pegTime(now + 4 * minute, now, now + 60 * minute)).toBe(now + 6 * minute);
  expect(pegTime(now + 90 * minute, now, now + 60 * minute)).toBe(now + 60 * minute);
  const near = [now + 10e3, now + 150e3, now + 4.7 * minute];
  for (const t of near) {
    for (const way of [1, -1] as const) {
      const by = (nextPegTime(t, way) - t) * way;
      expect(by).toBeGreaterThanOrEqual(minute);
      expect(by).toBeLessThanOrEqual(6 * minute);
    }
  }
  const eight49 = Date.parse("2026-11-24T08:49:40Z");
  const pulled = pegTime(eight49 + 5 * minute, eight49, eight49 + 5 * minute);
  expect(pulled).toBe(Date.parse("2026-11-24T08:54:00Z"));
});

test("a name is broken between its words, and no word is lost", () => {
  expect(wrapped("fine stone-milled whole durum/wheat flour", 24)).toEqual([
    "fine stone-milled whole",
    "durum/wheat flour",
  ]);
  expect(wrapped("water", 3)).toEqual(["water"]);
});
