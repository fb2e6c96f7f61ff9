import "fake-indexeddb/auto";
import { QueryClient } from "@tanstack/react-query";
import { describe, expect, it, vi } from "vitest";
import { type Bake, Problem } from "./client";
import { bakeQuery } from "./bake";
import { clash, edited, merged, mergedLines } from "./edits";

const line = (ingredient: string, amount: string) => ({ ingredient, amount, basis: null, part: "" });
const [flour, water, oil, salt] = [
  line("plain_flour", "500 g"),
  line("water", "310 g"),
  line("olive_oil", "20 g"),
  line("salt_fine", "10 g"),
];
const bake = (revision: number, settings: object): Bake =>
  ({
    id: 1,
    name: "Pitas",
    revision,
    serve_at: "2026-11-25T01:30:00Z",
    serve_until: null,
    settings,
  }) as unknown as Bake;

describe("an edit on a bake that was changed meanwhile", () => {
  it("never asks about what is in the bowl: every tick of either stands", () => {
    const on = (weighed: number[]) => bake(1, { weighed });
    expect(merged({ weighed: [0, 1, 2] }, on([]), on([0]))).toEqual({ body: { weighed: [0, 1, 2] }, clash: [] });
    expect(merged({ weighed: [1] }, on([0, 1]), on([0, 1, 3]))).toEqual({ body: { weighed: [1, 3] }, clash: [] });
  });

  it("is on the newest, though an older answer came late", async () => {
    const cache = new QueryClient();
    cache.setQueryData(["bake", 1], bake(4, {}));
    let answer: (r: Response) => void = () => undefined;
    vi.stubGlobal("fetch", () => new Promise<Response>((done) => (answer = done)));
    const asked = cache.fetchQuery(bakeQuery(1));
    await vi.waitFor(() => expect(answer).not.toBe(undefined));
    cache.setQueryData(["bake", 1], bake(5, {})); // a write is answered meanwhile
    await new Promise((done) => setTimeout(done, 5));
    answer(
      new Response(
        JSON.stringify({
          ...bake(4, {}),
          clock: { now: "2026-11-25T01:00:00Z", rate: 1, simulated: false, set_at: null },
        }),
        { headers: { "Content-Type": "application/json" } },
      ),
    );
    expect((await asked).revision).toBe(5);
    vi.unstubAllGlobals();
  });

  it("keeps every line that either tablet added or changed", () => {
    expect(mergedLines([flour, water, oil], [flour, water], [flour, water, salt])).toEqual([flour, water, salt, oil]);
    const wetter = line("water", "330 g");
    expect(mergedLines([flour, wetter], [flour, water], [flour, water, salt])).toEqual(null); // side by side: the cook is asked
    expect(mergedLines([flour, wetter, oil, salt], [flour, water, oil, salt], [flour, water, oil])).toEqual([
      flour,
      wetter,
      oil,
    ]);
    const turned = { part: "", basis: null, amount: "310 g", ingredient: "water" }; // as another answer orders its members
    expect(mergedLines([flour, turned, oil], [flour, water], [flour, water])).toEqual([flour, water, oil]);
    expect(mergedLines([flour, line("water", "300 g")], [flour, water], [flour, wetter])).toBeNull();
  });

  it("merges what does not overlap, and names what does", () => {
    const base = bake(3, { count: 8, piece_g: 90, lines: [flour, water] });
    const theirs = bake(5, { count: 12, piece_g: 90, lines: [flour, water, salt] });
    expect(merged({ piece_g: 80, lines: [flour, water, oil] }, base, theirs)).toEqual({
      body: { piece_g: 80, lines: [flour, water, salt, oil] },
      clash: [],
    });
    expect(merged({ count: 10, piece_g: 80 }, base, theirs)).toEqual({ body: { piece_g: 80 }, clash: ["count"] });
  });

  it("is sent again on the newer revision, and asks where both changed the same", async () => {
    const cache = new QueryClient();
    cache.setQueryData(["bake", 1], bake(3, { count: 8, piece_g: 90 }));
    const newer = bake(5, { count: 12, piece_g: 90 });
    const sent: object[] = [];
    const send = (body: object & { revision?: number }) => {
      sent.push(body);
      return body.revision === 5 ? Promise.resolve(newer) : Promise.reject(new Problem("changed", 409, [], newer));
    };
    await edited(cache, 1, { piece_g: 80 }, send);
    expect(sent).toEqual([
      { piece_g: 80, revision: 3 },
      { piece_g: 80, revision: 5 },
    ]);
    sent.length = 0;
    const asked = edited(cache, 1, { count: 10, piece_g: 80 }, send);
    await vi.waitFor(() => expect(clash()?.fields).toEqual(["count"]));
    expect(clash()?.theirs).toEqual({ count: 12 });
    clash()!.answer(false);
    await asked;
    expect(sent.at(-1)).toEqual({ piece_g: 80, revision: 5 });
    const mine = edited(cache, 1, { count: 10 }, send);
    await vi.waitFor(() => expect(clash()).not.toBeNull());
    clash()!.answer(true);
    await mine;
    expect(sent.at(-1)).toEqual({ count: 10, revision: 5 });
    await expect(edited(cache, 1, {}, () => Promise.reject(new Problem("no", 422)))).rejects.toThrow("no");
  });
});
