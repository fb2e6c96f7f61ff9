import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { type Hearth, Problem, type TapIn } from "./client";
import { serverNow, syncClock } from "./clock";
import { withTap } from "./hearth";
import { sendTap } from "./queries";

/**
 * Taps wait here until the server has them. Kept in this browser's storage, so a reload or a closed
 * lid loses none; each carries its own key, so sending one twice counts once.
 */
interface Waiting {
  bake: number;
  tap: TapIn;
}
const KEY = "brass-clock.outbox";
const RETRY_MS = 2000;
const listeners = new Set<() => void>();
let queue: Waiting[] = read();
let refused: string | null = null;
let sending = false;

function read(): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Waiting[];
  } catch {
    return [];
  }
}

function keep(next: Waiting[]): void {
  queue = next;
  localStorage.setItem(KEY, JSON.stringify(next));
  for (const listener of listeners) listener();
}

export function tell(message: string | null): void {
  refused = message;
  for (const listener of listeners) listener();
}

type Landed = (bake: number, hearth: Hearth) => void;

async function flush(landed: Landed): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    while (queue.length > 0) {
      const first = queue[0]!;
      try {
        const hearth = await sendTap(first.bake, first.tap);
        keep(queue.slice(1));
        syncClock(hearth.clock);
        landed(first.bake, hearth);
      } catch (fault) {
        if (fault instanceof Problem && (fault.away || fault.status >= 500)) break;
        keep(queue.slice(1));
        tell(fault instanceof Error ? fault.message : "That tap was not taken.");
        landed(first.bake, null as unknown as Hearth);
      }
    }
  } finally {
    sending = false;
  }
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

export const useWaiting = (): number => useSyncExternalStore(subscribe, () => queue.length);
export const useRefusal = (): string | null => useSyncExternalStore(subscribe, () => refused);

function useLanded(): Landed {
  const cache = useQueryClient();
  return (bake, hearth) => {
    if (hearth && !queue.some((w) => w.bake === bake)) cache.setQueryData(["hearth", bake], hearth);
    void cache.invalidateQueries({ queryKey: ["bake", bake] });
    void cache.invalidateQueries({ queryKey: ["bench"] });
    if (!hearth) void cache.invalidateQueries({ queryKey: ["hearth", bake] });
  };
}

/** Keeps trying while anything waits. Mounted once, by the frame. */
export function useOutboxPump(): void {
  const landed = useLanded();
  useEffect(() => {
    void flush(landed);
    const timer = setInterval(() => void flush(landed), RETRY_MS);
    return () => clearInterval(timer);
  });
}

/** Make a tap: stored here at once, sent at once, shown at once. `at` in words backdates it. */
export function useTap(bake: number) {
  const cache = useQueryClient();
  const landed = useLanded();
  return (tap: Omit<TapIn, "key">): void => {
    const now = serverNow();
    const full: TapIn = { ...tap, key: crypto.randomUUID(), at: tap.at ?? new Date(now).toISOString() };
    tell(null);
    keep([...queue, { bake, tap: full }]);
    void cache.cancelQueries({ queryKey: ["hearth", bake] });
    cache.setQueryData(["hearth", bake], (had: Hearth | undefined) => had && withTap(had, full, now));
    void flush(landed);
  };
}
