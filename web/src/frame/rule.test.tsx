/** The Rule's lanes, the hands of a stretch, and what its engraving draws of each bake. */
// @vitest-environment jsdom
import { cleanup, render } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Kitchen, Step } from "../api/client";
import { ruleScale } from "../words/scale";
import { handsOf } from "./hands";
import { lanesUsed, RuleEngraving } from "./RuleEngraving";
import { ruleLanes } from "./ruleLanes";
import { uprightRows } from "./uprightRows";

afterEach(cleanup);
const NOW = Date.UTC(2026, 10, 25, 1);
const at = (min: number) => new Date(NOW + min * 60e3).toISOString();
const step = (bake_id: number, key: string, min: number, over: Partial<Step> = {}): Step => ({
  bake_id,
  bake: `Bake ${bake_id}`,
  seal: "round",
  key,
  name: key,
  at: at(min),
  can_wait_until: null,
  not_before: null,
  done_at: null,
  leaf: "mix",
  hands_min: 10,
  place: "",
  reason: "",
  away: null,
  pinned: false,
  feed: null,
  freezer: null,
  ...over,
});

describe("the hands of a stretch", () => {
  it("go to the first cook who is free; where none is, it is a clash", () => {
    const two = [step(1, "mix", 0), step(2, "ball", 5), step(3, "roll", 12)];
    const { rows, clashes } = handsOf(two, 2);
    expect(rows.map((r) => r.map((h) => (h.from - NOW) / 60e3))).toEqual([[0, 12], [5]]);
    expect(clashes).toEqual([]);
    expect(handsOf(two, 1).clashes.map((t) => (t - NOW) / 60e3)).toEqual([5, 12]);
  });

  it("are none for what takes no hands", () => {
    expect(handsOf([step(1, "preheat", 0, { hands_min: 0 })], 1).rows).toEqual([[]]);
  });
});

describe("the lanes of the Rule", () => {
  it("lie below each other without touching, as many as hold a bake", () => {
    for (const [room, narrow] of [
      [true, false],
      [false, false],
      [true, true],
    ] as const) {
      const lanes = ruleLanes(room, narrow, (most) => most);
      const below = [lanes.stems, lanes.bakes, lanes.bakes + (lanes.most - 1) * lanes.pitch, lanes.away, lanes.air.top];
      expect(below).toEqual([...below].sort((a, b) => a - b));
      expect(lanes.air.bottom).toBeLessThanOrEqual(lanes.hours);
      expect(lanes.hours + 20).toBeLessThan(lanes.height);
      expect(ruleLanes(room, narrow, () => 0).most).toBe(1);
      expect(ruleLanes(room, narrow, () => 1).height).toBeLessThanOrEqual(lanes.height);
    }
    expect(ruleLanes(true, false, () => 1).named).toBe(true);
    expect(ruleLanes(true, true, () => 1).named).toBe(false);
  });

  it("are one for bakes that follow each other, two for bakes that overlap", () => {
    const a = [step(1, "mix", 0), step(1, "serve", 60)];
    const b = [step(2, "mix", 30), step(2, "serve", 200)];
    const c = [step(3, "mix", 70), step(3, "serve", 300)];
    expect([lanesUsed(a, 4), lanesUsed([...a, ...b], 4), lanesUsed([...a, ...b, ...c], 4)]).toEqual([1, 2, 2]);
  });
});

it("the engraving draws a bake's line from its first move to serving, a tick for each move, its wait as a bar, its name", () => {
  const kitchen = {
    zone: "UTC",
    hourly_c: Array(24).fill(20),
    mass_unit: "g",
    temp_unit: "C",
    cooks: 1,
  } as unknown as Kitchen;
  const scale = ruleScale(NOW, 1280, 250, 60 * 60e3, 36 * 3600e3);
  const steps = [
    step(1, "mix", 60, { can_wait_until: at(120), not_before: at(60) }),
    step(1, "ball", 600),
    step(1, "serve", 900),
  ];
  const lanes = ruleLanes(true, false, (most) => lanesUsed(steps, most));
  const { container } = render(
    <RuleEngraving scale={scale} now={NOW} width={1280} kitchen={kitchen} steps={steps} away={[]} lanes={lanes} />,
  );
  const paths = [...container.querySelectorAll("path")].map((p) => p.getAttribute("d")!);
  const y = lanes.bakes;
  const line = paths.find((d) => d.endsWith(`H${scale.x(NOW + 900 * 60e3)}`))!;
  expect(line.startsWith(`M${scale.x(NOW + 60 * 60e3)} ${y}`)).toBe(true);
  for (const min of [60, 600]) expect(paths).toContain(`M${scale.x(NOW + min * 60e3)} ${y - 5}v10`);
  const bar = [...container.querySelectorAll("rect")].find((r) => r.getAttribute("y") === String(y - 3.5))!;
  expect(Number(bar.getAttribute("x"))).toBeCloseTo(scale.x(NOW + 60 * 60e3));
  const name = [...container.querySelectorAll("text.bake")].map((t) => t.textContent);
  expect(name).toEqual(["Bake 1"]);
  const hours = [...container.querySelectorAll("text")].filter((t) => /^\d+$/.test(t.textContent ?? ""));
  for (const h of hours) expect(Math.abs(Number(h.getAttribute("x")) - scale.x(NOW))).toBeGreaterThan(56);
});

describe("upright", () => {
  it("moves that are not done stand in their order, hours away and long gaps named between them", () => {
    const steps = [
      step(1, "mix", -30, { done_at: at(-30) }),
      step(1, "ball", 20),
      step(1, "serve", 400),
      step(2, "mix", 30),
    ];
    const sleep = { start: at(60), end: at(360), name: "sleep", hands: null };
    const rows = uprightRows({ steps, away: [sleep, { ...sleep, start: at(500), end: at(600) }] }, NOW);
    expect(rows.map((r) => (r.kind === "move" ? r.move.key : r.kind))).toEqual(["ball", "mix", "away", "serve"]);
    const free = uprightRows({ steps, away: [] }, NOW)[2]!;
    expect([free.kind, free.at]).toEqual(["free", NOW + 30 * 60e3]);
    expect(uprightRows({ steps: [], away: [sleep] }, NOW)).toEqual([]);
  });
});
