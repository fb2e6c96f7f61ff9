import { useSyncExternalStore } from "react";
import type { Schemas } from "./client";

/**
 * The kitchen's clock on this device: the server's now, carried on by the monotonic clock at the
 * server's rate. The device's own time of day is never read, so a wrong one does no harm.
 */
let anchorServer = Date.now();
let anchorHere = performance.now();
let rate = 1;
let simulated = false;
let lastSet = 0;
const listeners = new Set<() => void>();

const SLACK_MS = 100; // clocks run apart by less between two answers
let told = false;

/**
 * Take the clock of an answer, unless it left the server before the clock was last set. The answer was made some time in the `tookMs`
 * that it took to come: while the clock here lies within that it stands, or it moves to the nearer end. So a slow answer never sets it back.
 */
export function syncClock(clock: Schemas["ClockRead"], tookMs: number): void {
  const set = clock.set_at ? Date.parse(clock.set_at) : lastSet;
  if (set < lastSet) return;
  const [earliest, latest] = [Date.parse(clock.now), Date.parse(clock.now) + clock.rate * tookMs];
  const now = serverNow();
  const other = !told || set > lastSet || rate !== clock.rate || simulated !== clock.simulated;
  if (!other && earliest - SLACK_MS <= now && now <= latest + SLACK_MS) return;
  anchorServer = other ? (earliest + latest) / 2 : Math.min(Math.max(now, earliest), latest);
  anchorHere = performance.now();
  [lastSet, told, rate, simulated] = [set, true, clock.rate, clock.simulated];
  beat();
}

/** An answer that carries the clock, with the clock taken. */
export async function clocked<T extends { clock: Schemas["ClockRead"] }>(ask: () => Promise<T>): Promise<T> {
  const asked = performance.now();
  const found = await ask();
  syncClock(found.clock, performance.now() - asked);
  return found;
}

/** The kitchen's clock against the device's own, for a page that opens without the server. */
export interface ClockAnchor {
  server: number;
  device: number;
  rate: number;
  simulated: boolean;
}
export const clockAnchor = (): ClockAnchor => ({ server: serverNow(), device: Date.now(), rate, simulated });

/** Go on by the device's own clock from where the kitchen's was: only until the server tells it. */
export function resumeClock(anchor: ClockAnchor): void {
  if (told) return;
  anchorServer = anchor.server + anchor.rate * Math.max(Date.now() - anchor.device, 0);
  anchorHere = performance.now();
  [rate, simulated] = [anchor.rate, anchor.simulated];
  beat();
}

export const serverNow = (): number => anchorServer + rate * (performance.now() - anchorHere);
export const clockRate = (): { rate: number; simulated: boolean } => ({ rate, simulated });

let shown = serverNow();
export function beat(): void {
  shown = serverNow();
  for (const listener of listeners) listener();
}

/** Beats from a worker: a background tab keeps counting. */
export function startBeating(): void {
  try {
    const worker = new Worker(new URL("./ticker.ts", import.meta.url), { type: "module" });
    worker.onmessage = beat;
  } catch {
    setInterval(beat, 250);
  }
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Now in the kitchen [ms], four times a second; a coarser grain re-renders less. */
export const useNow = (grainMs = 1000): number =>
  useSyncExternalStore(subscribe, () => Math.floor(shown / grainMs) * grainMs);

export const onBeat = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
