import { useLayoutEffect, useRef, useState, type RefObject } from "react";

type Side = "clientWidth" | "clientHeight";

/** One side of an element [px], as it changes. */
function useSide<E extends HTMLElement>(side: Side): [RefObject<E | null>, number] {
  const ref = useRef<E>(null);
  const [size, setSize] = useState(0);
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    setSize(element[side]);
    const watch = new ResizeObserver(() => setSize(element[side]));
    watch.observe(element);
    return () => watch.disconnect();
  }, [side]);
  return [ref, size];
}

/** The width of an element [px], as it changes. */
export const useWidth = <E extends HTMLElement>() => useSide<E>("clientWidth");

/** The height of an element [px], as it changes. */
export const useHeight = <E extends HTMLElement>() => useSide<E>("clientHeight");
