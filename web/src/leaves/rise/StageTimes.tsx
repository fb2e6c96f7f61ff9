import type { Bake } from "../../api/client";
import { Problem } from "../../api/client";
import type { useBakeChange } from "../../api/bake";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";
import { SAY } from "../../words/say/rise";

type Which = "bulk" | "ball";
const NAME = { bulk: SAY.inOnePieceUntil, ball: "in balls until" } as const;
const one = (h: number) => (h < 1.5 ? `${Math.round(h * 60)} min` : `${Math.round(h * 100) / 100} h`);

/** What ends a stage, as it can be typed again. */
export function endWords(end: string, low: number | null, most: number | null): string {
  if (end === "skip") return "skip";
  if (end !== "time" || low === null) return "";
  return most === null ? one(low) : `${Math.round(low * 100) / 100} to ${Math.round(most * 100) / 100} h`;
}

/** What ends each stage: its rise (left empty), a time as the cook says it, or nothing at all. */
export function StageTime({
  bake,
  which,
  empty,
  change,
}: {
  bake: Bake;
  which: Which;
  empty: string;
  change: ReturnType<typeof useBakeChange>;
}) {
  const s = bake.settings;
  const fault =
    change.error instanceof Problem ? change.error.fields.find((f) => f.pointer === `/${which}_time`) : null;
  return (
    <Field
      label={NAME[which]}
      value={endWords(s[`${which}_end`], s[`${which}_h`], s[`${which}_most_h`])}
      placeholder={SAY.orMinToHSkip(empty)}
      width="19em"
      fault={fault?.detail ?? null}
      onCommit={(text) => change.mutate(which === "bulk" ? { bulk_time: text || null } : { ball_time: text || null })}
    />
  );
}

/** Hours in the fridge of a dough that rests, and how it lies there. */
export function ColdHours({ bake, change }: { bake: Bake; change: ReturnType<typeof useBakeChange> }) {
  const cold = bake.settings.cold;
  const stage = cold?.stage ?? "ball";
  const fault = change.error instanceof Problem ? change.error.fields.find((f) => f.pointer.startsWith("/cold")) : null;
  return (
    <div className="row">
      <Field
        label="in the fridge"
        value={cold ? String(Math.round(cold.hours * 10) / 10) : ""}
        placeholder="not at all"
        unit="h"
        width="7em"
        fault={fault?.detail ?? null}
        onCommit={(text) => change.mutate({ cold_time: text || null })}
      />
      {cold && (
        <Pick
          label="as"
          value={stage}
          options={[
            { id: "bulk", text: "one piece" },
            { id: "ball", text: "balls" },
          ]}
          onChange={(as) => change.mutate({ cold: { ...cold, stage: as } })}
        />
      )}
    </div>
  );
}
