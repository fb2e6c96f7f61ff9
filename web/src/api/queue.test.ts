import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Hearth, TapIn } from "./client";

const tap = (key: string): TapIn => ({ key, kind: "load", round_no: 1, spot: 1, at: "2026-11-25T01:00:00Z" });
const told = { due: [], waiting: [1], off: [], lost: [], taps: [], line: [], program: { turn_s: 40, off_s: 60, recover_s: 10 }, spots: [{ number: 1, state: "free", until: null }] } as unknown as Hearth;

/** A fresh module, as after a reload: only the browser's storage is left. */
const load = async () => {
  vi.resetModules();
  return import("./queue");
};

describe("taps that wait", () => {
  beforeEach(() => localStorage.clear());

  it("survive a reload and are laid on what the server tells", async () => {
    (await load()).enqueue({ bake: 4, tap: tap("k-1") });
    const after = await load();
    expect(after.waiting()).toHaveLength(1);
    expect(after.withWaiting(4, told).waiting).toEqual([]);
    expect(after.withWaiting(5, told).waiting).toEqual([1]);
    after.dequeue();
    expect((await load()).waiting()).toEqual([]);
  });

  it("ask again when one landed while the answer was on its way", async () => {
    const queue = await load();
    queue.enqueue({ bake: 4, tap: tap("k-1") });
    let asked = 0;
    const answer = await queue.freshHearth(4, () => {
      asked += 1;
      if (asked === 1) queue.dequeue();
      return Promise.resolve({ ...told, waiting: asked === 1 ? [1] : [2] });
    });
    expect(asked).toBe(2);
    expect(answer.waiting).toEqual([2]);
  });

  it("tell when a tap has been answered, and bear a spoilt storage", async () => {
    localStorage.setItem("brass-clock.outbox", "{not json");
    const queue = await load();
    expect(queue.waiting()).toEqual([]);
    queue.enqueue({ bake: 4, tap: tap("k-2") });
    let done = false;
    const sent = queue.sent("k-2").then(() => (done = true));
    expect(done).toBe(false);
    queue.dequeue();
    await sent;
    expect(done).toBe(true);
  });
});
