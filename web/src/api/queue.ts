import type { Hearth, TapIn } from "./client";
import { serverNow } from "./clock";
import { withTap } from "./hearth";

/**
 * Taps wait here until the server has them. Kept in this browser's storage, so a reload or a closed
 * lid loses none; each carries its own key, so sending one twice counts once.
 */
export interface Waiting {
  bake: number;
  tap: TapIn;
}
const KEY = "brass-clock.outbox";
const listeners = new Set<() => void>();
let queue: readonly Waiting[] = read();
let refused: string | null = null;
let landed = 0;

function read(): Waiting[] {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "[]") as Waiting[];
  } catch {
    return [];
  }
}

const changed = (): void => listeners.forEach((listener) => listener());

function keep(next: readonly Waiting[]): void {
  queue = next;
  localStorage.setItem(KEY, JSON.stringify(next));
  changed();
}

export const waiting = (): readonly Waiting[] => queue;
export const enqueue = (entry: Waiting): void => keep([...queue, entry]);

/** The taps on the server are others than before. */
export const settle = (): number => (landed += 1);

/** Resolves when the tap of that key waits no longer: it was sent and answered. */
export async function sent(key: string): Promise<void> {
  while (queue.some((w) => w.tap.key === key)) await new Promise((done) => setTimeout(done, 100));
}

/** The oldest tap has been answered, taken or not. */
export function dequeue(): void {
  settle();
  keep(queue.slice(1));
}

export const refusal = (): string | null => refused;
export function tell(message: string | null): void {
  refused = message;
  changed();
}

export const onQueue = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** A hearth as the server told it, with the taps that it has not seen yet on top. */
export function withWaiting(bake: number, hearth: Hearth): Hearth {
  return queue
    .filter((w) => w.bake === bake)
    .reduce((h, { tap }) => withTap(h, tap, Date.parse(tap.at ?? "") || serverNow()), hearth);
}

/** Ask until no tap landed while the answer was on its way: an older answer never hides a newer tap. */
export async function freshHearth(bake: number, ask: () => Promise<Hearth>): Promise<Hearth> {
  for (;;) {
    const before = landed;
    const hearth = await ask();
    if (before === landed) return withWaiting(bake, hearth);
  }
}
