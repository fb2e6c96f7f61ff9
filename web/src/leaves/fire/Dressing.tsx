import { useState } from "react";
import { type Bake, Problem, type Schemas } from "../../api/client";
import type { useBakeChange } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { mass, massUnit, typedMeasure } from "../../words/format";
import { SAY } from "../../words/say/fire";

type When = NonNullable<Schemas["DressingUpdate"]["when"]>;
const WHENS: readonly { id: When; text: string }[] = [
  { id: "before", text: "before the heat" },
  { id: "after_turn", text: "after the turn" },
  { id: "after_heat", text: "after the heat" },
];
interface Given {
  kind: string;
  mass_g: number;
  when: When;
}

/** What goes on each bread outside its dough: butter, ghee, garlic, herbs, cheese; weighed for all of them. */
export function Dressing({
  bake,
  totalG,
  begun,
  change,
}: {
  bake: Bake;
  totalG: number | null;
  begun: boolean;
  change: ReturnType<typeof useBakeChange>;
}) {
  const units = useWords();
  const given = bake.settings.dressing;
  const [kind, setKind] = useState(given?.kind ?? "butter");
  const [when, setWhen] = useState<When>(given?.when ?? "after_heat");
  const put = (dressing: Partial<Given>) => {
    const next = { kind, when, mass_g: given?.mass_g ?? 0, ...dressing };
    if (next.kind && next.mass_g) change.mutate({ dressing: next });
  };
  const fault =
    change.error instanceof Problem
      ? (change.error.fields.find((f) => f.pointer.startsWith("/dressing"))?.detail ?? null)
      : null;
  if (begun)
    return (
      given && (
        <p>
          On each {WHENS.find((w) => w.id === given.when)!.text}: {given.kind}, {mass(given.mass_g, units)}{" "}
          {massUnit(units)}.
        </p>
      )
    );
  return (
    <details open={given !== null}>
      <summary style={{ minHeight: 48, display: "flex", alignItems: "center", cursor: "pointer" }}>
        {SAY.butterHerbsCheeseOnIt}
        {totalG !== null && given ? `: ${mass(totalG, units)} ${massUnit(units)} ${given.kind} for all` : "…"}
      </summary>
      <div style={{ display: "flex", flexWrap: "wrap", gap: "8px 14px", alignItems: "end" }}>
        <Field
          label="what goes on"
          width="9em"
          value={kind}
          onCommit={(t) => {
            setKind(t);
            put({ kind: t });
          }}
        />
        <Field
          label="on each"
          width="5em"
          unit="g"
          inputMode="decimal"
          value={given ? String(given.mass_g) : ""}
          fault={fault}
          onCommit={(t) => put({ mass_g: typedMeasure(t, "g") })}
        />
        <Pick
          label="When"
          value={when}
          options={WHENS}
          onChange={(w) => {
            setWhen(w);
            put({ when: w });
          }}
        />
        {given && (
          <Button data-kind="bare" onPress={() => change.mutate({ dressing: null })}>
            nothing on it
          </Button>
        )}
      </div>
      {fault && <Plate>{fault}</Plate>}
    </details>
  );
}
