import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { type Hearth, Problem, type TapIn } from "./client";
import { serverNow, syncClock } from "./clock";
import { withTap } from "./hearth";
import { sendTap } from "./queries";
import { dequeue, enqueue, onQueue, refusal, tell, waiting, withWaiting } from "./queue";

const RETRY_MS = 2000;
let sending = false;

type Landed = (bake: number, hearth: Hearth | null, tap: TapIn) => void;
/** A tap on a round in the midst of a line: it changes the hearth, and nothing of the day. */
const midLine = (hearth: Hearth, tap: TapIn): boolean => tap.round_no != null && !hearth.finished && hearth.taps.filter((t) => t.kind === "load").length > 1;

/** Send what waits, oldest first, until nothing does or the server is out of reach. */
async function flush(landed: Landed): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (let first = waiting()[0]; first; first = waiting()[0]) {
      let hearth: Hearth | null = null;
      try {
        hearth = await sendTap(first.bake, first.tap);
      } catch (fault) {
        if (fault instanceof Problem && (fault.away || fault.status >= 500)) break;
        tell(fault instanceof Error ? fault.message : "That tap was not taken.");
      }
      dequeue(); // once for each that was answered, whatever goes wrong in showing it
      if (hearth) syncClock(hearth.clock);
      landed(first.bake, hearth, first.tap);
    }
  } finally {
    sending = false;
  }
}

export const useWaiting = (): number => useSyncExternalStore(onQueue, () => waiting().length);
export const useRefusal = (): string | null => useSyncExternalStore(onQueue, refusal);

function useLanded(): Landed {
  const cache = useQueryClient();
  return (bake, hearth, tap) => {
    if (hearth) cache.setQueryData(["hearth", bake], withWaiting(bake, hearth));
    else void cache.invalidateQueries({ queryKey: ["hearth", bake] });
    if (hearth && midLine(hearth, tap)) return;
    void cache.invalidateQueries({ queryKey: ["bake", bake] });
    void cache.invalidateQueries({ queryKey: ["bench"] });
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
    enqueue({ bake, tap: full });
    cache.setQueryData(["hearth", bake], (had: Hearth | undefined) => had && withTap(had, full, now));
    void flush(landed);
  };
}
