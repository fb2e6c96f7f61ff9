// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Bake } from "../../api/client";
import { type Asked, cached, CLOCK, served } from "../../testing/served";
import { gramsText, type Line, useFormula } from "./useFormula";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const line = (ingredient: string, amount: string): Line => ({ ingredient, amount, basis: null, part: "" });
const START = [line("plain_flour", "500 g"), line("water", "310 g"), line("salt_fine", "10 g")];
const bake = (lines: Line[], revision = 1): Bake =>
  ({
    id: 7,
    kitchen_id: 1,
    revision,
    weigh: null,
    clock: CLOCK,
    settings: { lines, additions: [], parts: [], held: {}, filling: null, count: 8, piece_g: 95, shape: "round" },
  }) as unknown as Bake;

/** A server that weighs grams as they are typed, and stores what it is given. */
function kitchen({ method, body }: Asked): { status?: number; body: unknown } {
  if (method !== "POST") return { body: bake((body as { lines?: Line[] }).lines ?? START, 2) };
  const { lines } = body as { lines: Line[] };
  const bad = lines.findIndex((l) => Number.isNaN(Number.parseFloat(l.amount)));
  if (bad >= 0)
    return {
      status: 422,
      body: { detail: "Not readable.", errors: [{ pointer: `/lines/${bad}/amount`, detail: "Give grams." }] },
    };
  return { body: { lines: lines.map((l) => ({ ingredient: l.ingredient, grams: Number.parseFloat(l.amount) })) } };
}
async function mounted() {
  const asked = served(kitchen);
  const { cache, wrapper } = cached();
  cache.setQueryData(["bake", 7], bake(START));
  const hook = renderHook(({ b }) => useFormula(b), { wrapper, initialProps: { b: bake(START) } });
  await waitFor(() => expect(hook.result.current.lineOf(hook.result.current.lines[0]!)).not.toBeNull());
  const stored = () => asked.filter((a) => a.method === "PATCH").map((a) => (a.body as { lines: Line[] }).lines);
  const amounts = () => hook.result.current.lines.map((l) => `${l.ingredient} ${l.amount}`);
  return { ...hook, stored, amounts };
}

it("computes while it is typed and stores once the typing rests", async () => {
  const { result, stored } = await mounted();
  act(() => result.current.set(1, { amount: "32" }));
  act(() => result.current.set(1, { amount: "325 g" }));
  expect(result.current.saved).toBe(false);
  await waitFor(() => expect(stored()).toHaveLength(1), { timeout: 3000 });
  expect(stored()[0]![1]!.amount).toBe("325 g");
});

it("stores at once what was typed last when its leaf is left, and nothing where nothing was", async () => {
  const { result, stored, unmount } = await mounted();
  act(() => result.current.set(1, { amount: "325 g" }));
  unmount();
  await waitFor(() => expect(stored()).toHaveLength(1));
  expect(stored()[0]![1]!.amount).toBe("325 g");
  const other = await mounted();
  act(() => other.result.current.add());
  other.unmount();
  await new Promise((done) => setTimeout(done, 50));
  expect(other.stored()).toEqual([]);
});

it("holds back a line that cannot be read, with its fault beside it, until it can", async () => {
  const { result, stored } = await mounted();
  act(() => result.current.set(1, { amount: "lots" }));
  await waitFor(() => expect(result.current.faultOf(result.current.lines[1]!)).toBe("Give grams."));
  expect(result.current.faultOf(result.current.lines[0]!)).toBeNull();
  await new Promise((done) => setTimeout(done, 900));
  expect(stored()).toEqual([]);
  act(() => result.current.set(1, { amount: "300 g" }));
  await waitFor(() => expect(stored()).toHaveLength(1), { timeout: 3000 });
});

it("an empty line is neither asked about nor stored", async () => {
  const { result, stored } = await mounted();
  act(() => result.current.add());
  expect(result.current.lines).toHaveLength(4);
  await waitFor(() => expect(stored()).toHaveLength(1), { timeout: 3000 });
  expect(stored()[0]).toHaveLength(3);
});

it("before the first answer goes by the stored sheet, and takes nothing away where there is none", () => {
  served(() => new Promise(() => undefined));
  const { wrapper } = cached();
  const grams = START.map((l) => ({ ingredient: l.ingredient, grams: Number.parseFloat(l.amount) }));
  for (const [weigh, then] of [
    [{ lines: grams }, "salt_fine 6 g"],
    [null, "salt_fine 10 g"],
  ] as const) {
    const b = { ...bake(START), weigh } as unknown as Bake;
    const { result } = renderHook(() => useFormula(b), { wrapper });
    act(() => result.current.changeBy("salt_fine", -4));
    expect(result.current.lines.map((l) => `${l.ingredient} ${l.amount}`).at(-1)).toBe(then);
  }
});

it("more or less of an ingredient: its first line, a new one, none at nothing; each step can be undone", async () => {
  const { result, amounts } = await mounted();
  act(() => result.current.changeBy("water", 12));
  expect(amounts()[1]).toBe("water 322 g");
  await waitFor(() => expect(result.current.sheet?.lines[1]?.grams).toBe(322));
  act(() => result.current.changeBy("sugar", 8.25));
  expect(amounts().at(-1)).toBe("sugar 8.3 g");
  act(() => result.current.changeBy("salt_fine", -10));
  expect(amounts().some((a) => a.startsWith("salt"))).toBe(false);
  for (let i = 0; i < 3; i += 1) act(() => result.current.undo());
  expect(amounts()).toEqual(["plain_flour 500 g", "water 310 g", "salt_fine 10 g"]);
  expect(result.current.canUndo).toBe(false);
});

it("one ingredient in another's place, and several to a weight at once", async () => {
  const { result, amounts } = await mounted();
  act(() => result.current.swap("water", "milk", 340));
  expect(amounts()[1]).toBe("milk 340 g");
  act(() => result.current.weighTo({ milk: 0, plain_flour: 480, yoghurt: 90 }));
  expect(amounts()).toEqual(["plain_flour 480 g", "salt_fine 10 g", "yoghurt 90 g"]);
});

it("amounts are as fine as a scale can weigh", () => {
  expect([284.4, 13.68, 1.234, 20].map(gramsText)).toEqual(["284 g", "13.7 g", "1.23 g", "20 g"]);
});
