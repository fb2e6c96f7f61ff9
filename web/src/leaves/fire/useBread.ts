import { useState } from "react";
import { useBakeChange } from "../../api/bake";
import type { Bake, Schemas } from "../../api/client";

type Part = Schemas["PartUpdate"];
export type HeatSettings = Pick<Part, "surface_id" | "doneness" | "colour_top">;

/** The bread of a dough that the plan shows: the bake's own or a further one, its settings, and how they are changed. */
export function useBread(bake: Bake) {
  const change = useBakeChange(bake.id);
  const [chosen, setChosen] = useState(0);
  const which = Math.min(chosen, bake.parts.length);
  const part = which > 0 ? bake.settings.parts[which - 1] : undefined;
  const set = (values: HeatSettings) => {
    if (part)
      change.mutate({
        parts: bake.settings.parts.map((p, i) => (i === which - 1 ? { ...p, ...values } : p)),
        base: bake,
      });
    else change.mutate({ ...(values as object), base: bake });
  };
  return {
    change,
    which,
    choose: setChosen,
    fire: part ? (bake.parts[which - 1]?.fire ?? null) : bake.fire,
    fault: part ? (bake.parts[which - 1]?.fault ?? "") : "",
    count: part ? part.count : bake.settings.count,
    settings: {
      surface_id: part?.surface_id ?? bake.settings.surface_id,
      doneness: part?.doneness ?? bake.settings.doneness,
      colour_top: part ? (part.colour_top ?? null) : bake.settings.colour_top,
    },
    set,
  };
}
