import type { Schemas } from "../../api/client";
import { Field } from "../../controls/Field";

type Kitchen = Schemas["KitchenRead"];
type Own = Pick<Kitchen, "cup_ml" | "tbsp_ml" | "tsp_ml">;
const MEASURES = [
  ["cup_ml", "my cup holds"],
  ["tbsp_ml", "my tablespoon"],
  ["tsp_ml", "my teaspoon"],
] as const;
/** Millilitres of the usual ones, as the core has them. */
const USUAL: Record<string, Own> = {
  us: { cup_ml: 236.6, tbsp_ml: 14.8, tsp_ml: 4.9 },
  metric: { cup_ml: 250, tbsp_ml: 15, tsp_ml: 5 },
};

/** Cup and spoons of the kitchen's own, where they hold something else than the usual ones. */
export function OwnMeasures({
  kitchen,
  fault,
  onChange,
}: {
  kitchen: Kitchen;
  fault: (name: string) => string | null;
  onChange: (values: Partial<Own>) => void;
}) {
  const usual = USUAL[kitchen.spoons] ?? USUAL["us"]!;
  return MEASURES.map(([name, label]) => (
    <Field
      key={name}
      label={label}
      value={kitchen[name] === null ? "" : String(kitchen[name])}
      placeholder={String(usual[name])}
      unit="ml"
      width="8em"
      inputMode="decimal"
      fault={fault(name)}
      onCommit={(text) => {
        const ml = Number(text.replace(/\s*ml$/i, "").replace(",", "."));
        onChange({ [name]: text === "" ? null : Number.isNaN(ml) ? (text as unknown as number) : ml });
      }}
    />
  ));
}
