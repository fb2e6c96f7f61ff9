/** The page on this tablet: kept by the browser where it may be (this machine, or TLS), newer ones taken when the cook says so. */
import type { Workbox } from "workbox-window";

export type Kept = "kept" | "soon" | "never";

let worker: Workbox | null = null;
let waits = false;
let state: Kept =
  typeof navigator !== "undefined" && "serviceWorker" in navigator
    ? navigator.serviceWorker.controller
      ? "kept"
      : "soon"
    : "never";
const listeners = new Set<() => void>();
const changed = (): void => listeners.forEach((l) => l());

/** Whether the page opens here without the server. */
export const keptHere = (): Kept => state;
/** True if a newer page was fetched, and waits to be used. */
export const newerWaits = (): boolean => waits;
export const onKept = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Have the browser keep the page: once it is idle, so that nothing on screen waits for it. */
export async function keepPage(): Promise<void> {
  if (state === "never") return;
  const found = await import("workbox-window").catch(() => null); // the server is gone already: the next page tries again
  if (found === null) return;
  const made = new found.Workbox("/sw.js");
  worker = made;
  made.addEventListener("waiting", () => {
    waits = true;
    changed();
  });
  const holds = (): void => {
    state = "kept";
    changed();
  };
  made.addEventListener("controlling", holds);
  try {
    await made.register();
    await navigator.serviceWorker.ready;
    if (navigator.serviceWorker.controller) holds();
    setInterval(() => void made.update().catch(() => undefined), LOOK_MS);
  } catch {
    state = "never";
    changed();
  }
}
const LOOK_MS = 30 * 60e3; // how often it is asked for a newer page

/** Use the newer page now. */
export function takeNewer(): void {
  worker?.addEventListener("controlling", () => location.reload());
  worker?.messageSkipWaiting();
}
