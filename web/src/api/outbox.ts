import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useSyncExternalStore } from "react";
import { type Bake, type Hearth, Problem, type TapCreate } from "./client";
import { clocked, serverNow } from "./clock";
import { cookName } from "./cook";
import { type Change, withChange, withTap } from "./hearth";
import { newKey } from "./key";
import { sendTray } from "./bake";
import { changeTap, sendTap } from "./fire";
import {
  alone,
  dequeue,
  enqueue,
  type Judgement,
  oldest,
  onQueue,
  type Pressed,
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

/** The answer to a press, null where it was refused: the bake where breads were judged, else the hearth. */
type Landed = (entry: Waiting, told: Hearth | Bake | null) => void;
type Changed = Pick<Hearth["taps"][number], "key" | "kind"> & Pick<TapCreate, "round_no" | "spot">;
/** A tap on a round in the midst of a line: it changes the hearth, and nothing of the day. */
const midLine = (hearth: Hearth, tap: Waiting["tap"]): boolean =>
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

/** Send one press. False when the server is out of reach: it waits on. */
async function deliver(entry: Waiting, landed: Landed): Promise<boolean> {
  let told: Hearth | Bake;
  try {
    told = await clocked(() => send(entry));
  } catch (fault) {
    if (fault instanceof Problem && (fault.away || fault.status >= 500)) return false;
    await refuse(entry, fault instanceof Error ? fault.message : "That tap was not taken.");
    landed(entry, null);
    return true;
  }
  try {
    landed(entry, told);
  } finally {
    await dequeue(entry); // once for each that was answered, whatever goes wrong in showing it
  }
  return true;
}

const send = ({ bake, tap, change, judged }: Waiting): Promise<Hearth | Bake> =>
  judged
    ? sendTray(bake, { outcomes: [...judged] })
    : change
      ? changeTap(bake, change, tap.said_at!)
      : sendTap(bake, tap as TapCreate);

export const useWaiting = (): number => useSyncExternalStore(onQueue, () => waiting().length);
export const useRefusal = (): string | null => useSyncExternalStore(onQueue, refusal);
export const useRefusedTaps = (): readonly Waiting[] => useSyncExternalStore(onQueue, refusedTaps);

function useLanded(): Landed {
  const cache = useQueryClient();
  return ({ bake, tap, change, judged }, told) => {
    const hearth = judged ? null : (told as Hearth | null);
    if (judged && told) cache.setQueryData(["bake", bake], told);
    if (hearth) cache.setQueryData(["hearth", bake], withWaiting(bake, hearth));
    else void cache.invalidateQueries({ queryKey: ["hearth", bake] });
    if (hearth && !change && midLine(hearth, tap)) return;
    void cache.invalidateQueries({ queryKey: ["bake", bake] });
    void renew(cache, judged ? "bake" : "tap");
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

/** Put something pressed into the queue: stored here at once, sent at once, shown at once on the hearth by `shown`. */
function usePress(bake: number) {
  const cache = useQueryClient();
  const landed = useLanded();
  return (tap: Pressed, rest: Pick<Waiting, "change" | "judged"> = {}, shown?: (had: Hearth) => Hearth): void => {
    tell(null);
    const stored = enqueue(bake, tap, rest);
    if (shown) cache.setQueryData(["hearth", bake], (had: Hearth | undefined) => had && shown(had));
    void stored.then(() => flush(landed));
  };
}

/** Make a tap. `at` in words backdates it. */
export function useTap(bake: number) {
  const press = usePress(bake);
  return (tap: Omit<TapCreate, "key">): void => {
    const now = serverNow();
    const said_at = new Date(now).toISOString();
    const by = cookName();
    const full: TapCreate = {
      ...tap,
      key: newKey(),
      at: tap.at ?? said_at,
      said_at,
      ...(by === null ? {} : { by }),
    };
    press(full, {}, (had) => withTap(had, full, now));
  };
}

/** Take a tap back, or move it: after the one it changes. */
export function useTapEdits(bake: number) {
  const press = usePress(bake);
  const edit = ({ key: of, kind, round_no, spot }: Changed, at: string | null): void => {
    const change: Change = { of, at };
    const said_at = new Date(serverNow()).toISOString();
    const tap = { key: newKey(), kind: kind as TapCreate["kind"], round_no, spot, said_at };
    press(tap, { change }, (had) => withChange(had, change));
  };
  return { undo: (tap: Changed) => edit(tap, null), move: (tap: Changed, at: string) => edit(tap, at) };
}

/** Judge breads round by round. */
export function useJudged(bake: number): {
  waiting: readonly Judgement[];
  judge: (said: readonly Judgement[]) => void;
} {
  const press = usePress(bake);
  const all = useSyncExternalStore(onQueue, waiting);
  const mine = useMemo(() => all.flatMap((w) => (w.bake === bake ? (w.judged ?? []) : [])), [all, bake]);
  return { waiting: mine, judge: (judged) => press({ key: newKey(), kind: "judge" }, { judged }) };
}

/** The tap of that kind that waits here for a bake and was not taken back, or null. */
export const useWaitingTap = (bake: number, kind: string): TapCreate | null =>
  useSyncExternalStore(onQueue, () => {
    const undone = waiting().flatMap((w) => (w.change?.at === null ? w.change.of : []));
    const made = (w: Waiting) => w.bake === bake && w.tap.kind === kind && !w.change && !undone.includes(w.tap.key);
    return (waiting().find(made)?.tap as TapCreate | undefined) ?? null;
  });
