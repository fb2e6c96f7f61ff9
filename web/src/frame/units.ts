import { createContext, use } from "react";
import { useNow } from "../api/clock";
import { clockNear, type Units } from "../words/format";

export interface KitchenWords extends Units {
  zone: string;
}

export const UnitsContext = createContext<KitchenWords>({ mass: "g", temp: "C", zone: "UTC" });

/** How this kitchen writes: grams or ounces, C or F, its time zone. */
export const useWords = (): KitchenWords => use(UnitsContext);

/** An instant in this kitchen's zone, with its day when it is not near now; a dash where there is none. */
export function useAt(): (iso: string | null | undefined) => string {
  const { zone } = useWords();
  const now = useNow(30_000);
  return (iso) => (iso ? clockNear(iso, now, zone) : "–");
}
