import { useEffect } from "react";

/** Keeps the screen awake while the hearth is live. */
export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | null = null;
    let gone = false;
    const ask = () =>
      navigator.wakeLock
        ?.request("screen")
        .then((got) => {
          if (gone) void got.release();
          else lock = got;
        })
        .catch(() => undefined);
    const again = () => document.visibilityState === "visible" && void ask();
    void ask();
    document.addEventListener("visibilitychange", again);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}
