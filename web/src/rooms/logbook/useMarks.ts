import { useRef, useState } from "react";

/** Marks of a drawing reached one by one: a single stop for the tab key, the arrows go from mark to mark, Home and End to the ends. */
export function useMarks(count: number, press: (index: number) => void) {
  const [at, setAt] = useState(0);
  const box = useRef<SVGGElement>(null);
  const here = Math.min(at, count - 1);
  const go = (to: number) => {
    const next = Math.min(Math.max(to, 0), count - 1);
    setAt(next);
    box.current?.querySelector<SVGElement>(`[data-mark="${next}"]`)?.focus();
  };
  const KEYS: Record<string, () => void> = {
    ArrowRight: () => go(here + 1),
    ArrowLeft: () => go(here - 1),
    Home: () => go(0),
    End: () => go(count - 1),
    Enter: () => press(here),
    " ": () => press(here),
  };
  return {
    box,
    onKeyDown: (e: React.KeyboardEvent) => {
      const act = KEYS[e.key];
      if (!act) return;
      e.preventDefault();
      e.stopPropagation();
      act();
    },
    of: (index: number) => ({
      "data-mark": index,
      tabIndex: index === here ? 0 : -1,
      role: "button",
      onFocus: () => setAt(index),
      onClick: () => press(index),
      style: { cursor: "pointer" },
    }),
  };
}
