import type { Schemas } from "../../api/client";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { plain, typedNumber } from "../../words/format";
import { SAY } from "../../words/say/kitchen";

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
function OwnMeasures({
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
      onCommit={(text) =>
        onChange({ [name]: text === "" ? null : typedNumber(text, plain(text.replace(/\s*ml$/i, ""))) })
      }
    />
  ));
}

/** How the kitchen measures: its cups and spoons, its scale, its baking powder. */
export function Measures({
  kitchen,
  fault,
  onChange,
}: {
  kitchen: Kitchen;
  fault: (name: string) => string | null;
  onChange: (values: Schemas["KitchenUpdate"]) => void;
}) {
  return (
    <section>
      <div className="row">
        <Field
          label={SAY.myCupOfFlourIs}
          value={kitchen.flour_basis ?? ""}
          placeholder="as usual"
          width="11em"
          onCommit={(t) => onChange({ flour_basis: t.replace(/\s*g$/i, "") || null })}
          fault={fault("flour_basis")}
        />
        <span className="quiet">{SAY.gramsAsOrSpoonedLevelDipped}</span>
        <Choice
          label="Cups and spoons"
          value={kitchen.spoons as "us"}
          options={[
            { id: "us", text: "US cups" },
            { id: "metric", text: "metric cups" },
          ]}
          onChange={(spoons) => onChange({ spoons })}
        />
        <OwnMeasures kitchen={kitchen} fault={fault} onChange={onChange} />
        <Choice
          label="The scale shows"
          value={String(kitchen.scale_step_g)}
          options={[
            { id: "0.1", text: "0.1 g" },
            { id: "1", text: "1 g" },
          ]}
          onChange={(step) => onChange({ scale_step_g: Number(step) })}
        />
        <Choice
          label="Baking powder is"
          value={kitchen.powder as "double"}
          options={[
            { id: "double", text: "double-acting" },
            { id: "single", text: "cream of tartar" },
            { id: "phosphate", text: "phosphate" },
          ]}
          onChange={(powder) => onChange({ powder })}
        />
      </div>
    </section>
  );
}
