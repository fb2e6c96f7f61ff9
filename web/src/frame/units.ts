import { createContext, use } from "react";
import type { Units } from "../words/format";

export interface KitchenWords extends Units {
  zone: string;
}

export const UnitsContext = createContext<KitchenWords>({ mass: "g", temp: "C", zone: "UTC" });

/** How this kitchen writes: grams or ounces, C or F, its time zone. */
export const useWords = (): KitchenWords => use(UnitsContext);
