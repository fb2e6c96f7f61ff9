// @vitest-environment jsdom
import "fake-indexeddb/auto";
import { act, cleanup, renderHook, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { cached, CLOCK, served } from "../testing/served";
import type { Hearth } from "./client";
import { withJudged } from "./keep";
import { useJudged, useOutboxPump, useRefusedTaps, useTap, useTapEdits, useWaiting } from "./outbox";
import { renew } from "./stale";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
let bake = 100;
beforeEach(() => void (bake += 1));
const hearth = (taps: object[] = []): Hearth =>
  ({
    clock: CLOCK,
    rounds: 4,
    started: false,
    finished: false,
    waiting: [1, 2],
    off: [],
    lost: [],
    taps,
    line: [],
    late_s: 0,
    breads: [],
    towel: [],
    last_off_at: null,
    due: [],
    spots: [{ number: 1, state: "free", round_no: null, side: "a", since: null, until: null }],
    program: { turn_s: 40, off_s: 60, recover_s: 10 },
  }) as unknown as Hearth;

function mounted() {
  const { cache, wrapper } = cached();
  cache.setQueryData(["hearth", bake], hearth());
  const id = bake;
  const hook = renderHook(
    () => {
      useOutboxPump();
      return {
        tap: useTap(id),
        edits: useTapEdits(id),
        judged: useJudged(id),
        waiting: useWaiting(),
        refused: useRefusedTaps(),
      };
    },
    { wrapper },
  );
  return { ...hook, shown: () => cache.getQueryData<Hearth>(["hearth", id])! };
}

it("shows a tap at once, sends it under its key with its instant, and lets it go when it is answered", async () => {
  const asked = served(({ body }) => ({ body: hearth([body as object]) }));
  const { result, shown } = mounted();
  act(() => result.current.tap({ kind: "load", round_no: 1, spot: 1 }));
  expect(shown().spots[0]!.state).toBe("busy"); // before any answer
  await waitFor(() => expect(asked.filter((a) => a.method === "POST")).toHaveLength(1));
  expect(asked[0]!.body).toMatchObject({
    kind: "load",
    round_no: 1,
    spot: 1,
    at: expect.stringMatching(/Z$/) as string,
  });
  expect((asked[0]!.body as { key: string }).key.length).toBeGreaterThan(8);
  await waitFor(() => expect(result.current.waiting).toBe(0));
});

it("keeps taps in their order while the server is out of reach, and sends each once when it is back", async () => {
  let up = false;
  const asked = served(({ body }) => (up ? { body: hearth([body as object]) } : new Error("no network")));
  const { result } = mounted();
  act(() => result.current.tap({ kind: "load", round_no: 1, spot: 1 }));
  act(() => result.current.tap({ kind: "turn", round_no: 1, spot: 1 }));
  await waitFor(() => expect(result.current.waiting).toBe(2));
  up = true;
  const before = asked.length;
  await waitFor(() => expect(result.current.waiting).toBe(0), { timeout: 8000 });
  const landed = asked
    .slice(before)
    .filter((a) => a.method === "POST")
    .map((a) => (a.body as { kind: string }).kind);
  expect(landed.slice(-2)).toEqual(["load", "turn"]);
}, 12_000);

it("takes a tap back at once while the server is out of reach, and tells both in order when it is back", async () => {
  let up = false;
  const kept: object[] = [];
  const asked = served(({ body, method }) => {
    if (!up) return new Error("no network");
    if (method === "POST") kept.push({ id: 7, ...(body as object) });
    if (method === "DELETE") kept.pop();
    return { body: hearth([...kept]) };
  });
  const { result, shown } = mounted();
  act(() => result.current.tap({ kind: "load", round_no: 1, spot: 1 }));
  expect(shown().spots[0]!.state).toBe("busy");
  act(() => result.current.edits.undo(shown().taps[0]!));
  expect([shown().spots[0]!.state, shown().waiting, shown().taps]).toEqual(["free", [1, 2, 3, 4], []]);
  await waitFor(() => expect(result.current.waiting).toBe(2));
  up = true;
  const before = asked.length;
  await waitFor(() => expect(result.current.waiting).toBe(0), { timeout: 8000 });
  const told = asked.slice(before).map((a) => `${a.method} ${a.path.split("/").at(-1)}`);
  expect(told.filter((t) => !t.startsWith("GET"))).toEqual(["POST taps", "DELETE 7"]);
}, 12_000);

it("keeps what was said of breads while the server is out of reach, on top of what it has, and tells it once", async () => {
  let up = false;
  const stored = { clock: CLOCK, keep: { outcomes: [] } };
  const asked = served(() => (up ? { body: stored } : new Error("no network")));
  const { result } = mounted();
  act(() => result.current.judged.judge([{ round_no: 1, pocket: "full" }]));
  act(() => result.current.judged.judge([{ round_no: 1, colour: "pale" }]));
  await waitFor(() => expect(result.current.waiting).toBe(2));
  expect(withJudged([], result.current.judged.waiting)).toMatchObject([
    { round_no: 1, pocket: "full", colour: "pale" },
  ]);
  up = true;
  const before = asked.length;
  await waitFor(() => expect(result.current.waiting).toBe(0), { timeout: 8000 });
  const told = asked.slice(before).filter((a) => a.method === "PUT");
  expect(told.slice(-2).map((a) => a.body)).toEqual([
    { outcomes: [{ round_no: 1, pocket: "full" }] },
    { outcomes: [{ round_no: 1, colour: "pale" }] },
  ]);
  expect(result.current.judged.waiting).toEqual([]);
}, 12_000);

it("tells a refused tap with its reason, and goes on with the next", async () => {
  served(({ body }) =>
    (body as { kind: string }).kind === "off"
      ? { status: 409, body: { detail: "Round 9 is not on the heat." } }
      : { body: hearth([body as object]) },
  );
  const { result } = mounted();
  act(() => result.current.tap({ kind: "off", round_no: 9, spot: 1 }));
  await waitFor(() => expect(result.current.refused.map((w) => w.refused)).toEqual(["Round 9 is not on the heat."]));
  act(() => result.current.tap({ kind: "load", round_no: 1, spot: 1 }));
  await waitFor(() => expect(result.current.waiting).toBe(0));
});

it("a change makes stale what hangs on it, but for what its own answer told", async () => {
  const { cache } = cached();
  const keys = [["bench", 1], ["day", 1], ["logbook", 1], ["methods"]];
  keys.forEach((k) => cache.setQueryData(k, {}));
  await renew(cache, "bakes", "day");
  expect(keys.map((k) => cache.getQueryState(k)!.isInvalidated)).toEqual([true, false, true, false]);
});
