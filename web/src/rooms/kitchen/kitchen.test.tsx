// @vitest-environment jsdom
/** The kitchen's plan: where surfaces lie, what a thing's address is, and that figures stand where the scales say. */
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { HeatBands } from "../../instruments/HeatBands";
import { PlaceScale } from "../../instruments/PlaceScale";
import type { SurfaceKind } from "../../words/surfaces";
import { addressOf, type Chosen, readChosen } from "./chosen";
import { numbered, placed, PLACES } from "./floor";

afterEach(cleanup);
const plate = (id: number, kind: SurfaceKind = "iron_plate", lies: number | null = null) => ({ id, kind, lies });

it("surfaces lie where they were set, and the others on free places of their sort", () => {
  const at = placed([plate(1), plate(2, "stone_oven"), plate(3, "clay_wall"), plate(4, "skillet", 0)]);
  expect(at.get(4)).toBe(0);
  expect(at.get(1)).toBe(1);
  expect(at.get(2)).toBe(3);
  expect(at.get(3)).toBe(5);
  const many = Array.from({ length: 15 }, (_, i) => plate(i + 1, i % 2 ? "oil" : "flame_oven"));
  const places = [...placed(many).values()];
  expect(new Set(places).size).toBe(places.length);
  expect(places).toHaveLength(PLACES);
  expect(numbered(many)).toHaveLength(15);
});

it("surfaces are numbered as they lie, from the left", () => {
  expect(
    numbered([plate(1, "iron_plate", 4), plate(2, "iron_plate", 2), plate(3, "iron_plate", 7)]).map((s) => s.id),
  ).toEqual([2, 1, 3]);
});

it("what is open stands in the address, and nonsense opens nothing", () => {
  const all: Chosen[] = [
    { kind: "surface", id: 3 },
    { kind: "place", key: "fridge" },
    { kind: "starter", id: 2 },
    { kind: "hours" },
  ];
  for (const c of all) expect(readChosen(addressOf(c))).toEqual(c);
  for (const t of [null, "", "surface-", "surface-x", "place-", "cellar"]) expect(readChosen(t)).toBeNull();
});

it("each place stands at its own temperature, and neighbours keep 48 px", () => {
  const mark = (key: string, c: number) => ({ key, name: key, c, low: c - 1, high: c + 1, stands: [] });
  const marks = [mark("cellar", 13), mark("tap", 12.5), mark("room", 21), mark("box", 30), mark("fridge", 4)];
  const root = render(
    <PlaceScale marks={marks} height={380} chosen="room" degrees={String} tick={String} onChoose={() => undefined} />,
  ).container;
  const dots = [...root.querySelectorAll("circle")].map((c) => Number(c.getAttribute("cy")));
  expect([...dots].sort((a, b) => a - b)).toEqual(dots); // from the warmest down
  const perK = (dots[4]! - dots[0]!) / (30 - 4);
  expect(dots[1]! - dots[0]!).toBeCloseTo(9 * perK, 5);
  const tops = screen.getAllByRole("button").map((b) => parseFloat(b.style.top));
  for (let i = 1; i < tops.length; i++) expect(tops[i]! - tops[i - 1]!).toBeGreaterThanOrEqual(48 - 1e-6);
  expect(Math.max(...tops) + 48).toBeLessThanOrEqual(380 + 1e-6);
});

it("a surface's bar lies inside the scale, narrower than its line where its breads taught", () => {
  const press = vi.fn();
  const band = (p50_c: number, half: number) => ({ p10_c: p50_c - half, p50_c, p90_c: p50_c + half });
  const root = render(
    <HeatBands
      rows={[
        { id: 7, number: 1, name: "plate", told: band(230, 36), believed: band(239, 15) },
        { id: 8, number: 2, name: "wall", told: band(430, 36), believed: band(430, 36) },
      ]}
      chosen={7}
      degrees={String}
      tick={String}
      onChoose={press}
    />,
  ).container;
  const wide = (name: string, n: number) => parseFloat(root.querySelectorAll<HTMLElement>(`i.${name}`)[n]!.style.width);
  expect(wide("believed", 0) / wide("told", 0)).toBeCloseTo(15 / 36, 5);
  expect(wide("believed", 1)).toBeCloseTo(wide("told", 1), 9);
  screen.getByRole("button", { name: /wall/ }).click();
  expect(press).toHaveBeenCalledWith(8);
});
