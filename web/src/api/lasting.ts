/** What the server told last, kept on this tablet: a page that opens while the server is gone shows it, and goes on by it. */
import { dehydrate, hydrate, type Query, type QueryClient } from "@tanstack/react-query";
import { openDB } from "idb";
import type { Hearth } from "./client";
import { type ClockAnchor, clockAnchor, resumeClock } from "./clock";
import { ready, withWaiting } from "./queue";

const KEPT = new Set(["kitchens", "bench", "bake", "hearth", "day", "session", "starters", "methods", "air"]);
const EVERY_MS = 2000;
const LONGEST_MS = 48 * 3600e3; // older than that it helps nobody
interface Last {
  at: number;
  clock: ClockAnchor;
  state: ReturnType<typeof dehydrate>;
}
const NAME = "brass-clock-last";
const store = () => openDB(NAME, 1, { upgrade: (db) => void db.createObjectStore("last") });
const kept = (query: Query): boolean => query.state.status === "success" && KEPT.has(String(query.queryKey[0]));

/** Put what was told last where the screens read it; what the server tells now goes before it. */
export async function restoreLast(cache: QueryClient): Promise<void> {
  const db = await store();
  const last = (await db.get("last", "all")) as Last | undefined;
  if (!last || Date.now() - last.at > LONGEST_MS) return;
  hydrate(cache, last.state);
  resumeClock(last.clock);
  await ready;
  for (const [key, hearth] of cache.getQueriesData<Hearth>({ queryKey: ["hearth"] }))
    if (hearth) cache.setQueryData(key, withWaiting(Number(key[1]), hearth), { updatedAt: last.at });
}

/** Keep what the server tells from now on, every other second where there is news. */
export function keepLast(cache: QueryClient): void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const write = async () => {
    timer = null;
    const state = dehydrate(cache, { shouldDehydrateQuery: kept });
    const last: Last = { at: Date.now(), clock: clockAnchor(), state };
    await (await store()).put("last", last, "all");
  };
  cache.getQueryCache().subscribe((event) => {
    if (event.type !== "updated" || event.action.type !== "success" || timer !== null) return;
    timer = setTimeout(() => void write().catch(() => undefined), EVERY_MS);
  });
}

/** Forget what was told last: this device is signed in no more. */
export async function forgetLast(): Promise<void> {
  await (await store()).clear("last");
}
