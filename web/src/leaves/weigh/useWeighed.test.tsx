// @vitest-environment jsdom
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Bake } from "../../api/client";
import { cached, CLOCK, served } from "../../testing/served";
import { useWeighed } from "./useWeighed";

const KEY = "brass-clock.weighed.7";
const bake = (weighed: number[], revision = 1): Bake =>
  ({ id: 7, revision, settings: { weighed }, clock: CLOCK }) as unknown as Bake;
const stored = () => JSON.parse(localStorage.getItem(KEY) ?? "null") as number[] | null;
const press = (line: number) => (was: readonly number[]) => [...was, line];

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const mounted = (given: Bake) => {
  const { cache, wrapper } = cached();
  cache.setQueryData(["bake", 7], given);
  return renderHook(({ b }) => useWeighed(b), { wrapper, initialProps: { b: given } });
};

it("counts a press at once, sends the newest state, and forgets it here when the server has it", async () => {
  const asked = served(({ body }) => ({ body: bake((body as { weighed: number[] }).weighed, 2) }));
  const { result } = mounted(bake([]));
  act(() => result.current.put(press(0)));
  act(() => result.current.put(press(2)));
  expect(result.current.done).toEqual([0, 2]);
  expect(stored()).toEqual([0, 2]);
  await waitFor(() => expect(stored()).toBeNull());
  const sent = asked.filter((a) => a.method === "PATCH").map((a) => (a.body as { weighed: number[] }).weighed);
  expect(sent.at(-1)).toEqual([0, 2]);
});

it("shows and sends what an earlier page did not get to send", async () => {
  localStorage.setItem(KEY, "[0,1]");
  const asked = served(() => ({ body: bake([0, 1], 2) }));
  const { result } = mounted(bake([0]));
  expect(result.current.done).toEqual([0, 1]);
  await waitFor(() => expect(asked.some((a) => a.method === "PATCH")).toBe(true));
  await waitFor(() => expect(stored()).toBeNull());
});

it("goes back to what is stored when the server refuses", async () => {
  served(({ method }) =>
    method === "PATCH" ? { status: 422, body: { detail: "No such line." } } : { body: bake([0], 2) },
  );
  const { result } = mounted(bake([0]));
  act(() => result.current.put(press(99)));
  expect(result.current.done).toEqual([0, 99]);
  await waitFor(() => expect(result.current.done).toEqual([0]));
  expect(stored()).toBeNull();
});

it("keeps a press through a lost connection, and unreadable leftovers do no harm", async () => {
  localStorage.setItem(KEY, "{");
  served(({ method }) => (method === "PATCH" ? new Error("no network") : { body: bake([]) }));
  const { result } = mounted(bake([]));
  expect(result.current.done).toEqual([]);
  act(() => result.current.put(press(1)));
  await new Promise((done) => setTimeout(done, 700)); // sent, and sent once more
  expect(result.current.done).toEqual([1]);
  expect(stored()).toEqual([1]);
});
