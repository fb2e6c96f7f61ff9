import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import type { Hearth, Schemas, TapCreate } from "./client";
import { serverNow } from "./clock";
import { type Change, withChange, withTap } from "./hearth";

export type Judgement = Schemas["OutcomeUpdate"];
/** A tap as it waits; of breads judged it is only the key. */
export type Pressed = Omit<TapCreate, "kind"> & { kind: TapCreate["kind"] | "judge" };

/**
 * Taps, changes of taps and breads judged wait here until the server has them: in one queue of this browser, shared by its tabs, in the order they
 * were made. Each carries its own key, so sending one twice counts once. One that the server refused stays, with its reason, until the
 * cook decides.
 */
export interface Waiting {
  /** Its place in the queue: the queue's own count, whatever the clocks say. */
  n: number;
  bake: number;
  tap: Pressed;
  /** What is to become of an earlier tap: then `tap` only says which that is, under a key of its own. */
  change?: Change;
  /** What became of breads, round by round. */
  judged?: readonly Judgement[];
  refused?: string | undefined;
}
interface Store extends DBSchema {
  taps: { key: number; value: Waiting };
  lease: { key: string; value: { by: string; until: number } };
}
const OLD_KEY = "brass-clock.outbox";
const LEASE_MS = 6000;
const listeners = new Set<() => void>();
const here = Math.random().toString(36).slice(2);
const others = typeof BroadcastChannel === "undefined" ? null : new BroadcastChannel("brass-clock.taps");

let queue: readonly Waiting[] = [];
let message: string | null = null;
let landed = 0;
let unstored = -1; // places of taps that are on their way into the store, and after them where there is none
const changed = (): void => listeners.forEach((listener) => listener());

/** The store, or null where this browser keeps none: then taps wait in this tab alone. */
const store: Promise<IDBPDatabase<Store> | null> = openDB<Store>("brass-clock", 1, {
  upgrade(db) {
    db.createObjectStore("taps", { keyPath: "n", autoIncrement: true });
    db.createObjectStore("lease");
  },
}).then(movedIn, () => null);

/** Taps that an earlier version left in the page's storage move into the store. */
async function movedIn(db: IDBPDatabase<Store>): Promise<IDBPDatabase<Store>> {
  let left: { bake: number; tap: TapCreate }[] = [];
  try {
    left = JSON.parse(localStorage.getItem(OLD_KEY) ?? "[]") as typeof left;
  } catch {
    left = [];
  }
  for (const { bake, tap } of left) await db.add("taps", { bake, tap } as Waiting);
  localStorage.removeItem(OLD_KEY);
  return db;
}

/** Read the queue again: this tab or another has changed it. Taps still on their way into the store stay in sight. */
async function reread(): Promise<void> {
  const db = await store;
  if (!db) return changed();
  const stored = await db.getAll("taps");
  const keys = new Set(stored.map((w) => w.tap.key));
  queue = [...stored, ...queue.filter((w) => w.n < 0 && !keys.has(w.tap.key))];
  changed();
}
others?.addEventListener("message", (e: MessageEvent<{ landed?: boolean }>) => {
  if (e.data.landed) landed += 1;
  void reread();
});
/** Resolves when the queue has been read from the store for the first time. */
export const ready: Promise<void> = reread();

const tellOthers = (what: { landed?: boolean } = {}): void => others?.postMessage(what);

/** Every tap that waits for the server, oldest first; refused ones are not among them. */
export const waiting = (): readonly Waiting[] => waits.of(queue);
/** Taps that the server refused, oldest first. */
export const refusedTaps = (): readonly Waiting[] => refusals.of(queue);

/** A selection of the queue that stays the same object while the queue does. */
function selection(pick: (w: Waiting) => boolean) {
  let from: readonly Waiting[] | null = null;
  let found: readonly Waiting[] = [];
  return {
    of(all: readonly Waiting[]): readonly Waiting[] {
      if (all !== from) [from, found] = [all, all.filter(pick)];
      return found;
    },
  };
}
const waits = selection((w) => w.refused === undefined);
const refusals = selection((w) => w.refused !== undefined);

/** Put a tap at the end of the queue: it counts at once, and is in the store when this resolves. */
export async function enqueue(
  bake: number,
  tap: Pressed,
  rest: Pick<Waiting, "change" | "judged"> = {},
): Promise<void> {
  const entry = { bake, tap, ...rest };
  queue = [...queue, { n: (unstored -= 1), ...entry }];
  changed();
  const db = await store;
  if (!db) return;
  await db.add("taps", entry as Waiting);
  await reread();
  tellOthers();
}

/** The oldest tap that waits, as the store has it; undefined when none does. */
export async function oldest(): Promise<Waiting | undefined> {
  await reread();
  return waiting()[0];
}

/** A tap was answered, or let go: it is in the queue no more. */
export async function dequeue(entry: Waiting): Promise<void> {
  settle();
  const db = await store;
  if (db && entry.n > 0) await db.delete("taps", entry.n);
  queue = queue.filter((w) => w.tap.key !== entry.tap.key);
  await reread();
  tellOthers({ landed: true });
}

/** The server refused a tap: it stays, with the reason. */
export const refuse = (entry: Waiting, reason: string): Promise<void> => rewrite({ ...entry, refused: reason });
/** Send a refused tap again, in its old place. */
export const again = (entry: Waiting): Promise<void> => rewrite({ ...entry, refused: undefined });

async function rewrite(entry: Waiting): Promise<void> {
  settle();
  const db = await store;
  if (db && entry.n > 0) await db.put("taps", entry);
  queue = queue.map((w) => (w.tap.key === entry.tap.key ? entry : w));
  await reread();
  tellOthers({ landed: true });
}

/** Do something in one tab at a time: by the browser's locks, or (on plain http) by a lease in the store. False when another tab is at it. */
export async function alone(work: () => Promise<void>): Promise<boolean> {
  if (typeof navigator !== "undefined" && navigator.locks)
    return navigator.locks.request("brass-clock.send", { ifAvailable: true }, async (lock) => {
      if (lock) await work();
      return lock !== null;
    });
  const db = await store;
  if (db && !(await leased(db))) return false;
  const renewing = setInterval(() => void (db && leased(db)), LEASE_MS / 3);
  try {
    await work();
  } finally {
    clearInterval(renewing);
    await db?.delete("lease", "send");
  }
  return true;
}

async function leased(db: IDBPDatabase<Store>): Promise<boolean> {
  const change = db.transaction("lease", "readwrite");
  const had = await change.store.get("send");
  const free = !had || had.by === here || had.until < Date.now();
  if (free) await change.store.put({ by: here, until: Date.now() + LEASE_MS }, "send");
  await change.done;
  return free;
}

/** The taps on the server are others than before. */
export const settle = (): number => (landed += 1);

export const refusal = (): string | null => message;
/** Show a message that stands until the cook has read it; null takes it away. */
export function tell(words: string | null): void {
  message = words;
  changed();
}

export const onQueue = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

const laid = (hearth: Hearth, { tap, change }: Waiting): Hearth =>
  change ? withChange(hearth, change) : withTap(hearth, tap as TapCreate, Date.parse(tap.at ?? "") || serverNow());

/** A hearth as the server told it, with the taps that it has not seen yet on top. */
export function withWaiting(bake: number, hearth: Hearth): Hearth {
  const seen = new Set(hearth.taps.map((t) => t.key));
  return waiting()
    .filter((w) => w.bake === bake && !w.judged && !seen.has(w.tap.key))
    .reduce(laid, hearth);
}

/** Ask until no tap landed while the answer was on its way: an older answer never hides a newer tap. */
export async function freshHearth(bake: number, ask: () => Promise<Hearth>): Promise<Hearth> {
  for (;;) {
    const before = landed;
    const hearth = await ask();
    if (before === landed) return withWaiting(bake, hearth);
  }
}
