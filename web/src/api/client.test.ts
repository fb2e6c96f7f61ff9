import { afterEach, describe, expect, it, vi } from "vitest";
import { client, path, take, takeNews, takeWritten } from "./client";
import { newKey } from "./key";

const json = (body: unknown, init: ResponseInit = {}) =>
  new Response(JSON.stringify(body), { headers: { "Content-Type": "application/json" }, ...init });
afterEach(() => vi.unstubAllGlobals());

describe("what is sent", () => {
  it("carries a key with every write, the same when it is sent again for want of an answer", async () => {
    const keys: (string | null)[] = [];
    let away = true;
    vi.stubGlobal("fetch", (request: Request) => {
      keys.push(request.headers.get("Idempotency-Key"));
      if (away) {
        away = false;
        return Promise.reject(new TypeError("no network"));
      }
      return Promise.resolve(json({ id: 1 }));
    });
    const at = path({ bake_id: 1 });
    await take(client.DELETE("/api/bakes/{bake_id}", at));
    expect(keys).toHaveLength(2);
    expect(keys[0]).toMatch(/^[0-9a-f-]{32,36}$/);
    expect(keys[1]).toBe(keys[0]);
    await take(client.GET("/api/bakes/{bake_id}", at));
    expect(keys[2]).toBeNull();
  });

  it("gets a key of its own where the browser makes none", () => {
    vi.stubGlobal("crypto", { getRandomValues: (bytes: Uint8Array) => bytes.fill(171) });
    expect(newKey()).toBe("ab".repeat(16));
  });
});

describe("what is asked again and again", () => {
  it("is what was told last while the server has no news", async () => {
    const asked: (string | null)[] = [];
    vi.stubGlobal("fetch", (request: Request) => {
      asked.push(request.headers.get("If-None-Match"));
      return Promise.resolve(
        asked.length === 2
          ? new Response(null, { status: 304 })
          : json(
              { n: asked.length },
              { headers: { "Content-Type": "application/json", ETag: asked.length === 4 ? '"d"' : '"a"' } },
            ),
      );
    });
    const told: unknown[] = [];
    const ask = () =>
      takeNews(
        "bench 1",
        (headers) => client.GET("/api/kitchens/{kitchen_id}/bench", { ...path({ kitchen_id: 1 }), headers }),
        (data) => told.push(data),
      );
    expect(await ask()).toEqual({ n: 1 });
    expect(await ask()).toEqual({ n: 1 });
    expect(await ask()).toEqual({ n: 3 });
    expect(asked).toEqual([null, '"a"', '"a"']);
    expect(told).toEqual([{ n: 1 }, { n: 3 }]); // an old answer, with its old clock, is no news
    await takeWritten("bench 1", client.POST("/api/clock", { body: { kitchen_id: 1, rate: 0 } })); // the fourth, under its tag
    expect(asked).toHaveLength(4);
    await ask();
    expect(asked[4]).toBe('"d"');
  });
});
