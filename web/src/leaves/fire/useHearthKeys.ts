import { type RefObject, useLayoutEffect, useRef } from "react";
import type { Hearth, Schemas } from "../../api/client";
import { isTyping, keysOn } from "../../controls/keys";

type Due = Schemas["MoveRead"];

/** Digits choose a spot; 0, - and = the tenth to the twelfth. */
const SPOT_KEYS = [..."1234567890-="];
/** A second press on the same place so soon is a finger that bounced, not the next move: nobody has read that yet. By the events' own time, however late the screen comes to them. */
const BOUNCE_MS = 300;

/** Lets the first of two presses on one place through when they are nearer than a finger's bounce; `at` in ms of the event's own clock. */
export function useOnce(): (on: string, at: number, go: () => void) => void {
  const pressed = useRef({ on: "", at: -Infinity });
  return (on, at, go) => {
    const bounced = pressed.current.on === on && at - pressed.current.at < BOUNCE_MS;
    pressed.current = { on, at };
    if (!bounced) go();
  };
}

/** Keys of the live hearth: space does the next move, a digit the move that is due on its spot, `u` undoes. */
export function useHearthKeys(
  hearth: Hearth,
  bar: RefObject<HTMLButtonElement | null>,
  act: (due: Due, on: string, at: number) => void,
  undo: (at: number) => void,
): void {
  // before the eye sees the next move, the key does it
  useLayoutEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || e.repeat) return;
      const at = document.activeElement;
      const free = at === document.body || at === bar.current || at === null;
      const first = hearth.due[0];
      if (e.key === " " && free && first) {
        e.preventDefault();
        act(first, "bar", e.timeStamp);
      } else if (keysOn() && SPOT_KEYS.includes(e.key)) {
        const due = hearth.due.find((d) => d.spot === SPOT_KEYS.indexOf(e.key) + 1);
        if (due) act(due, `spot ${due.spot}`, e.timeStamp);
      } else if (keysOn() && e.key === "u") undo(e.timeStamp);
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  });
}
