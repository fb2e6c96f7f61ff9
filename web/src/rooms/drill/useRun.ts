import { useCallback, useEffect, useRef, useState } from "react";

const TICK_MS = 100;

/** A clock of bread seconds: runs from where it is put, `pace` times as fast as true seconds; whole steps for the eye. */
export function useRun(pace: number): {
  s: number;
  running: boolean;
  /** The second at this very instant. */
  now: () => number;
  start: (from: number) => void;
  stop: () => void;
} {
  const [s, setS] = useState(0);
  const [running, setRunning] = useState(false);
  const begun = useRef({ at: 0, from: 0 });
  const now = useCallback(() => begun.current.from + ((performance.now() - begun.current.at) / 1000) * pace, [pace]);
  useEffect(() => {
    if (!running) return;
    const id = setInterval(() => setS(Math.floor(now())), TICK_MS);
    return () => clearInterval(id);
  }, [running, now]);
  return {
    s,
    running,
    now,
    start: useCallback((from: number) => {
      begun.current = { at: performance.now(), from };
      setS(Math.floor(from));
      setRunning(true);
    }, []),
    stop: useCallback(() => setRunning(false), []),
  };
}
