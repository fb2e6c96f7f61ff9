import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useSyncExternalStore } from "react";
import { type Hearth, Problem, type TapCreate } from "./client";
import { clocked, serverNow } from "./clock";
import { cookName } from "./cook";
import { type Change, withChange, withTap } from "./hearth";
import { newKey } from "./key";
import { changeTap, sendTap } from "./fire";
import {
  alone,
  dequeue,
  enqueue,
  oldest,
  onQueue,
  refusal,
  refuse,
  refusedTaps,
  tell,
  type Waiting,
  waiting,
  withWaiting,
} from "./queue";
import { renew } from "./stale";

const RETRY_MS = 2000;
let sending = false;
let asked = false; // to send, while something was being sent

type Landed = (entry: Waiting, hearth: Hearth | null) => void;
type Changed = Pick<Hearth["taps"][number], "key" | "kind"> & Pick<TapCreate, "round_no" | "spot">;
/** A tap on a round in the midst of a line: it changes the hearth, and nothing of the day. */
const midLine = (hearth: Hearth, tap: TapCreate): boolean =>
  tap.round_no != null && !hearth.finished && hearth.taps.filter((t) => t.kind === "load").length > 1;

/** Send what waits, oldest first, until nothing does or the server is out of reach; in one tab at a time. */
async function flush(landed: Landed): Promise<void> {
  asked = sending;
  if (sending || waiting().length === 0) return;
  sending = true;
  try {
    do {
      asked = false;
      await alone(async () => {
        for (let first = await oldest(); first; first = await oldest()) if (!(await deliver(first, landed))) break;
      });
    } while (asked);
  } finally {
    sending = false;
  }
}

/** Send one tap. False when the server is out of reach: it waits on. */
async function deliver(entry: Waiting, landed: Landed): Promise<boolean> {
  let hearth: Hearth | null = null;
  try {
    hearth = await clocked(() => send(entry));
  } catch (fault) {
    if (fault instanceof Problem && (fault.away || fault.status >= 500)) return false;
    await refuse(entry, fault instanceof Error ? fault.message : "That tap was not taken.");
    landed(entry, null);
    return true;
  }
  await dequeue(entry); // once for each that was answered, whatever goes wrong in showing it
  landed(entry, hearth);
  return true;
}

const send = ({ bake, tap, change }: Waiting): Promise<Hearth> =>
  change ? changeTap(bake, change, tap.said_at!) : sendTap(bake, tap);

export const useWaiting = (): number => useSyncExternalStore(onQueue, () => waiting().length);
export const useRefusal = (): string | null => useSyncExternalStore(onQueue, refusal);
export const useRefusedTaps = (): readonly Waiting[] => useSyncExternalStore(onQueue, refusedTaps);

function useLanded(): Landed {
  const cache = useQueryClient();
  return ({ bake, tap, change }, hearth) => {
    if (hearth) cache.setQueryData(["hearth", bake], withWaiting(bake, hearth));
    else void cache.invalidateQueries({ queryKey: ["hearth", bake] });
    if (hearth && !change && midLine(hearth, tap)) return;
    void cache.invalidateQueries({ queryKey: ["bake", bake] });
    void renew(cache, "tap");
  };
}

/** Keeps trying while anything waits. Mounted once, by the frame. */
export function useOutboxPump(): void {
  const landed = useLanded();
  const now = useRef(landed);
  useEffect(() => {
    now.current = landed;
  });
  useEffect(() => {
    const go = (): void => void flush((...told) => now.current(...told));
    go();
    const timer = setInterval(go, RETRY_MS);
    return () => clearInterval(timer);
  }, []);
}

/** Make a tap: stored here at once, sent at once, shown at once. `at` in words backdates it. */
export function useTap(bake: number) {
  const cache = useQueryClient();
  const landed = useLanded();
  return (tap: Omit<TapCreate, "key">): void => {
    const now = serverNow();
    const by = cookName();
    const full: TapCreate = {
      ...tap,
      key: newKey(),
      at: tap.at ?? new Date(now).toISOString(),
      said_at: new Date(now).toISOString(),
      ...(by === null ? {} : { by }),
    };
    tell(null);
    const stored = enqueue(bake, full);
    cache.setQueryData(["hearth", bake], (had: Hearth | undefined) => had && withTap(had, full, now));
    void stored.then(() => flush(landed));
  };
}

/** Take a tap back, or move it: kept, sent and shown like a tap, after the one it changes. */
export function useTapEdits(bake: number) {
  const cache = useQueryClient();
  const landed = useLanded();
  const change = ({ key: of, kind, round_no, spot }: Changed, at: string | null): void => {
    const told: Change = { of, at };
    const said_at = new Date(serverNow()).toISOString();
    tell(null);
    const stored = enqueue(bake, { key: newKey(), kind: kind as TapCreate["kind"], round_no, spot, said_at }, told);
    cache.setQueryData(["hearth", bake], (had: Hearth | undefined) => had && withChange(had, told));
    void stored.then(() => flush(landed));
  };
  return { undo: (tap: Changed) => change(tap, null), move: (tap: Changed, at: string) => change(tap, at) };
}

/** The tap of that kind that waits here for a bake and was not taken back, or null. */
export const useWaitingTap = (bake: number, kind: string): TapCreate | null =>
  useSyncExternalStore(onQueue, () => {
    const undone = waiting().flatMap((w) => (w.change?.at === null ? w.change.of : []));
    const made = (w: Waiting) => w.bake === bake && w.tap.kind === kind && !w.change && !undone.includes(w.tap.key);
    return waiting().find(made)?.tap ?? null;
  });
