import { useMemo } from "react";
import type { Step } from "../api/client";
import { ms } from "../words/format";
import { type Alarm, useDueAlarms } from "./due";

const CALLED = new Set(["mix", "ball", "preheat", "roll"]);

/** Rings for the hand moves of every live bake, wherever the cook is in the application. */
export function StepAlarms({ steps }: { steps: readonly Step[] }) {
  const alarms = useMemo<Alarm[]>(
    () =>
      steps
        .filter((s) => CALLED.has(s.key) && !s.done_at)
        .map((s) => ({ id: `${s.bake_id}-${s.key}`, at: ms(s.at), call: "step", title: `${s.name}: ${s.bake}` })),
    [steps],
  );
  useDueAlarms(alarms);
  return null;
}
