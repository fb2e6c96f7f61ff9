import { useDeferredValue, useEffect } from "react";

let opened = false;

/** False for the first paint of the application, which is the sentence's alone; true after it, and on every later screen. */
export function useOpened(): boolean {
  const drawn = useDeferredValue(true, opened);
  useEffect(() => {
    opened = true;
  }, []);
  return drawn;
}
