// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Bake } from "../../api/client";
import { cached, CLOCK, served } from "../../testing/served";
import { useBread } from "./useBread";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const part = (name: string) => ({ name, count: 6, surface_id: null, doneness: null, colour_top: null });
const bake = (names: string[]): Bake =>
  ({
    id: 3,
    revision: 1,
    clock: CLOCK,
    fire: { own: true },
    parts: names.map((name) => ({ fire: { of: name }, fault: `${name} is refused` })),
    settings: { surface_id: 1, doneness: "golden", colour_top: "light", count: 12, parts: names.map(part) },
  }) as unknown as Bake;
const mounted = (b: Bake) => {
  const { cache, wrapper } = cached();
  cache.setQueryData(["bake", 3], b);
  return renderHook(({ given }) => useBread(given), { wrapper, initialProps: { given: b } });
};

it("shows the bake's own bread first, and a further one with the dough's settings where it has none of its own", () => {
  const { result } = mounted(bake(["rolls"]));
  expect([result.current.count, result.current.fault, result.current.settings.colour_top]).toEqual([12, "", "light"]);
  act(() => result.current.choose(1));
  expect(result.current.fire).toEqual({ of: "rolls" });
  expect([result.current.count, result.current.fault]).toEqual([6, "rolls is refused"]);
  expect(result.current.settings).toEqual({ surface_id: 1, doneness: "golden", colour_top: null });
});

it("goes back to the last there is when the chosen one was taken away", () => {
  const { result, rerender } = mounted(bake(["rolls", "naan"]));
  act(() => result.current.choose(2));
  rerender({ given: bake(["rolls"]) });
  expect(result.current.which).toBe(1);
  rerender({ given: bake([]) });
  expect([result.current.which, result.current.fire]).toEqual([0, { own: true }]);
});

it("changes the chosen bread alone", async () => {
  const asked = served(() => ({ body: bake(["rolls", "naan"]) }));
  const { result } = mounted(bake(["rolls", "naan"]));
  act(() => result.current.choose(2));
  act(() => result.current.set({ doneness: "charred" }));
  await waitFor(() => expect(asked.filter((a) => a.method === "PATCH")).toHaveLength(1));
  const { parts } = asked.find((a) => a.method === "PATCH")!.body as {
    parts: { name: string; doneness: string | null }[];
  };
  expect(parts.map((p) => [p.name, p.doneness])).toEqual([
    ["rolls", null],
    ["naan", "charred"],
  ]);
  act(() => result.current.choose(0));
  act(() => result.current.set({ doneness: "light" }));
  await waitFor(() => expect(asked.filter((a) => a.method === "PATCH")).toHaveLength(2));
  expect(asked.filter((a) => a.method === "PATCH").at(-1)!.body).toMatchObject({ doneness: "light" });
});
