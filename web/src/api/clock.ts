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

/** Take the clock of an answer, unless it left the server before the clock was last set. */
export function syncClock(clock: Schemas["ClockOut"]): void {
  const set = clock.set_at ? Date.parse(clock.set_at) : lastSet;
  if (set < lastSet) return;
  lastSet = set;
  const told = Date.parse(clock.now);
  const drift = Math.abs(told - serverNow());
  if (rate === clock.rate && simulated === clock.simulated && drift < 400) return;
  anchorServer = told;
  anchorHere = performance.now();
  rate = clock.rate;
  simulated = clock.simulated;
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
