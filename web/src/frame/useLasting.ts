import { useEffect, useState } from "react";

/** After so long a tap that was sent would have been answered [ms]. */
export const LATE_MS = 1200;

/** True once something is there and has stayed the same for so long [ms], until it is gone. */
export function useLasting(what: number | null, ms: number): boolean {
  const [lasts, setLasts] = useState(false);
  useEffect(() => {
    if (what === null) return setLasts(false);
    const timer = setTimeout(() => setLasts(true), ms);
    return () => clearTimeout(timer);
  }, [what, ms]);
  return lasts;
}
