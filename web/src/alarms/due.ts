import { useEffect, useId, useSyncExternalStore } from "react";
import { onBeat, serverNow } from "../api/clock";
import { notify, speak } from "./channels";
import { type Call, play } from "./sound";

export interface Alarm {
  id: string;
  at: number;
  call: Call;
  title: string;
  /** Where it is answered by doing it; alarms without one only ring. */
  to?: string;
}

const LATE_MS = 10 * 60e3;
const FORGOTTEN_MS = 6 * 3600e3;
const PLAIN = "Brass Clock";
const ANSWERED = "brass-clock.answered";
const KEPT = 200;
const AHEAD_MS = 2 * 60e3;
const lists = new Map<string, readonly Alarm[]>();
const raised = new Set<string>();
const hearers = new Set<() => void>();
let open: readonly Alarm[] = [];

const answered = (): string[] => JSON.parse(localStorage.getItem(ANSWERED) ?? "[]") as string[];

/** Raise what has come due, once. Beats come from a worker, so a background tab rings too. */
function look(): void {
  const now = serverNow();
  // an alarm that a new plan puts ahead again is as if it never rang; one that only slides with the clock stays rung
  const all = [...lists.values()].flat();
  const ahead = all.filter((a) => a.at > now + AHEAD_MS && raised.has(a.id)).map((a) => a.id);
  if (ahead.length > 0) {
    ahead.forEach((id) => raised.delete(id));
    localStorage.setItem(ANSWERED, JSON.stringify(answered().filter((id) => !ahead.includes(id))));
  }
  const due = all.filter((a) => a.at <= now).sort((a, b) => b.at - a.at);
  for (const alarm of due) {
    if (raised.has(alarm.id)) continue;
    raised.add(alarm.id);
    if (now - alarm.at >= LATE_MS) continue;
    void play(alarm.call);
    speak(alarm.title);
    notify(alarm.title, alarm.id);
  }
  const title = due.length > 0 ? `● ${due[0]!.title}` : PLAIN;
  if (document.title !== title) document.title = title;
  const done = new Set(answered());
  const standing = due.filter((a) => a.to && now - a.at < FORGOTTEN_MS && !done.has(a.id));
  if (standing.map((a) => a.id).join() !== open.map((a) => a.id).join()) {
    open = standing;
    hearers.forEach((hear) => hear());
  }
}
onBeat(look);

/** An alarm is heard: it stands no longer, here or in any other tab. */
export function answer(ids: readonly string[]): void {
  localStorage.setItem(ANSWERED, JSON.stringify([...answered(), ...ids].slice(-KEPT)));
  look();
}

/** Alarms that were raised and not answered, the newest first. */
export const useOpenAlarms = (): readonly Alarm[] =>
  useSyncExternalStore(
    (hear) => {
      hearers.add(hear);
      return () => hearers.delete(hear);
    },
    () => open,
  );

/** Alarms of one screen: each rings once; the page's title names the newest until it is answered. */
export function useDueAlarms(alarms: readonly Alarm[]): void {
  const owner = useId();
  useEffect(() => {
    lists.set(owner, alarms);
    look();
    return () => {
      lists.delete(owner);
      look();
    };
  }, [alarms, owner]);
}
