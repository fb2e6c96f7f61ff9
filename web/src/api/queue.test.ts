import "fake-indexeddb/auto";
import { IDBFactory } from "fake-indexeddb";
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Hearth, TapCreate } from "./client";

const tap = (key: string): TapCreate => ({ key, kind: "load", round_no: 1, spot: 1, at: "2026-11-25T01:00:00Z" });
const told = {
  due: [],
  waiting: [1],
  off: [],
  lost: [],
  taps: [],
  line: [],
  program: { turn_s: 40, off_s: 60, recover_s: 10 },
  breads: [],
  spots: [{ number: 1, state: "free", until: null }],
} as unknown as Hearth;

/** A fresh module, as after a reload or in another tab: only the browser's store is shared. */
const load = async () => {
  vi.resetModules();
  const queue = await import("./queue");
  await queue.ready;
  return queue;
};

describe("taps that wait", () => {
  beforeEach(() => {
    localStorage.clear();
    globalThis.indexedDB = new IDBFactory();
  });

  it("survive a reload and are laid on what the server tells", async () => {
    await (await load()).enqueue(4, tap("k-1"));
    const after = await load();
    expect(after.waiting()).toHaveLength(1);
    expect(after.withWaiting(4, told).waiting).toEqual([]);
    expect(after.withWaiting(5, told).waiting).toEqual([1]);
    expect(after.withWaiting(4, { ...told, taps: [{ key: "k-1" }] } as unknown as Hearth).waiting).toEqual([1]);
    await after.dequeue(after.waiting()[0]!);
    expect((await load()).waiting()).toEqual([]);
  });

  it("of two tabs stand in one queue, in the order they were made; none writes over another's", async () => {
    const [one, two] = [await load(), await load()];
    await one.enqueue(4, tap("k-1"));
    await two.enqueue(4, tap("k-2"));
    await one.enqueue(4, { ...tap("k-3"), at: "2026-11-25T00:00:00Z" }); // a clock that was set back
    expect((await two.oldest())?.tap.key).toBe("k-1");
    expect(two.waiting().map((w) => w.tap.key)).toEqual(["k-1", "k-2", "k-3"]);
    await one.dequeue((await one.oldest())!);
    expect((await two.oldest())?.tap.key).toBe("k-2");
  });

  it("are sent by one tab at a time, also where there are no locks", async () => {
    const [one, two] = [await load(), await load()];
    let ended = (): void => undefined;
    const busy = one.alone(() => new Promise<void>((done) => (ended = done)));
    await vi.waitFor(async () => expect(await two.alone(() => Promise.resolve())).toBe(false));
    ended();
    expect(await busy).toBe(true);
    expect(await two.alone(() => Promise.resolve())).toBe(true);
  });

  it("stay with the reason when they are refused, until the cook sends them again or lets them go", async () => {
    const queue = await load();
    await queue.enqueue(4, tap("k-1"));
    await queue.enqueue(4, tap("k-2"));
    await queue.refuse((await queue.oldest())!, "Spot 1 holds round 2.");
    expect(queue.waiting().map((w) => w.tap.key)).toEqual(["k-2"]);
    const after = await load();
    expect(after.refusedTaps().map((w) => [w.tap.key, w.refused])).toEqual([["k-1", "Spot 1 holds round 2."]]);
    await after.again(after.refusedTaps()[0]!);
    expect((await after.oldest())?.tap.key).toBe("k-1");
    expect(after.refusedTaps()).toEqual([]);
  });

  it("ask again when one landed while the answer was on its way", async () => {
    const queue = await load();
    await queue.enqueue(4, tap("k-1"));
    let asked = 0;
    const answer = await queue.freshHearth(4, async () => {
      asked += 1;
      if (asked === 1) await queue.dequeue(queue.waiting()[0]!);
      return { ...told, waiting: asked === 1 ? [1] : [2] };
    });
    expect(asked).toBe(2);
    expect(answer.waiting).toEqual([2]);
  });

  it("of an earlier version move into the store, and a spoilt one is borne", async () => {
    localStorage.setItem("brass-clock.outbox", JSON.stringify([{ bake: 4, tap: tap("k-old") }]));
    expect((await load()).waiting().map((w) => w.tap.key)).toEqual(["k-old"]);
    localStorage.setItem("brass-clock.outbox", "{not json");
    expect((await load()).waiting()).toHaveLength(1);
  });
});
