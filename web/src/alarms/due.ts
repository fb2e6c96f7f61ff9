import { useEffect, useId } from "react";
import { onBeat, serverNow } from "../api/clock";
import { type Call, play } from "./sound";

export interface Alarm {
  id: string;
  at: number;
  call: Call;
  title: string;
}

const LATE_MS = 10 * 60e3;
const PLAIN = "Brass Clock";
const lists = new Map<string, readonly Alarm[]>();
const raised = new Set<string>();

/** Raise what has come due. Beats come from a worker, so a background tab rings too. */
function look(): void {
  const now = serverNow();
  const due = [...lists.values()].flat().filter((a) => a.at <= now).sort((a, b) => b.at - a.at);
  for (const alarm of due) {
    if (raised.has(alarm.id)) continue;
    raised.add(alarm.id);
    if (now - alarm.at < LATE_MS) void play(alarm.call);
  }
  const title = due.length > 0 ? `● ${due[0]!.title}` : PLAIN;
  if (document.title !== title) document.title = title;
}
onBeat(look);

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
