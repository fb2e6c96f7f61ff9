import { useSyncExternalStore } from "react";

const paper = () => matchMedia("print");
const listen = (told: () => void) => {
  const media = paper();
  media.addEventListener("change", told);
  addEventListener("beforeprint", told);
  return () => {
    media.removeEventListener("change", told);
    removeEventListener("beforeprint", told);
  };
};

/** Whether the page is laid out for paper now. */
export const usePrinting = (): boolean => useSyncExternalStore(listen, () => paper().matches);
