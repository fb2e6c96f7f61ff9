import { useCallback, useEffect, useRef, useState } from "react";
import { type Bake, Problem } from "../../api/client";
import { useBakeChange } from "../../api/bake";

const RETRY_MS = 3000;
const keyOf = (bake: number): string => `brass-clock.weighed.${bake}`;

function stored(bake: number): number[] | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(bake)) ?? "null") as number[] | null;
  } catch {
    return null;
  }
}

/**
 * Which lines are in the bowl. A press counts at once and is kept in this browser until the server has it, so a
 * reload or a lost connection forgets none; only the newest state is sent, one at a time.
 */
export function useWeighed(bake: Bake): {
  done: readonly number[];
  put: (next: (was: readonly number[]) => number[]) => void;
} {
  const { mutateAsync } = useBakeChange(bake.id);
  const [unsent, setUnsent] = useState<number[] | null>(() => stored(bake.id));
  const wish = useRef(unsent);
  const busy = useRef(false);
  const taken = useRef<readonly number[]>(bake.settings.weighed);
  const known = useRef<readonly number[]>(unsent ?? bake.settings.weighed);
  const keep = useCallback(
    (next: number[] | null) => {
      wish.current = next;
      if (next) known.current = next;
      if (next === null) localStorage.removeItem(keyOf(bake.id));
      else localStorage.setItem(keyOf(bake.id), JSON.stringify(next));
      setUnsent(next);
    },
    [bake.id],
  );
  const send = useCallback(async (): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    while (wish.current !== null) {
      const sent = wish.current;
      try {
        await mutateAsync({ weighed: sent });
      } catch (fault) {
        if (fault instanceof Problem && !fault.away && fault.status < 500) {
          keep(null);
          known.current = taken.current;
        } else await new Promise((done) => setTimeout(done, RETRY_MS));
        continue;
      }
      if (wish.current === sent) keep(null);
    }
    busy.current = false;
  }, [keep, mutateAsync]);
  useEffect(() => {
    // What an earlier page did not get to send.
    if (wish.current !== null) void send();
  }, [send]);
  useEffect(() => {
    taken.current = bake.settings.weighed;
    if (wish.current === null) known.current = taken.current;
  }, [bake.settings.weighed]);
  const put = (next: (was: readonly number[]) => number[]) => {
    keep(next(known.current));
    void send();
  };
  return { done: unsent ?? bake.settings.weighed, put };
}
