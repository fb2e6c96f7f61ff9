import { type ComponentType, lazy } from "react";

const LATER: (() => Promise<unknown>)[] = [];
const PAUSE_MS = 400; // where the browser does not tell that it is idle

/** A screen that is fetched when it is first opened, or before that while nothing else is to be done. */
export function later<P extends object>(load: () => Promise<ComponentType<P>>) {
  const fetched = () => load().then((screen) => ({ default: screen }));
  LATER.push(fetched);
  return lazy(fetched);
}

const idle = (then: () => void): unknown =>
  "requestIdleCallback" in window ? requestIdleCallback(then) : setTimeout(then, PAUSE_MS);

/** The other screens one by one, each in idle time: opened later they are there at once, and with the server away too. */
export function fetchLater(): void {
  const next = LATER.shift();
  if (next) idle(() => void next().then(fetchLater, fetchLater));
}
