import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Problem, type Schemas } from "../../api/client";
import { ingredientsQuery, usePantryWrites } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";
import { typedNumber } from "../../words/format";
import { SAY } from "../../words/say/kitchen";

type Given = Schemas["OwnIngredientCreate"];
const KINDS = [
  { id: "flour", text: "flour" },
  { id: "liquid", text: "liquid" },
  { id: "fat", text: "fat" },
  { id: "sugar", text: "sugar" },
  { id: "filling", text: "filling" },
  { id: "starter", text: "starter" },
] as const;
type Kind = (typeof KINDS)[number]["id"];
const FACTS: Record<Exclude<Kind, "starter">, readonly [keyof Given, string, string][]> = {
  flour: [
    ["water_pct", "water in it", "%"],
    ["protein_pct", "protein", "%"],
    ["absorption_pts", SAY.drinksMoreThanPlainBy, "points"],
    ["cup_g", "a cup weighs", "g"],
  ],
  liquid: [
    ["water_pct", "water in it", "%"],
    ["fat_pct", "fat", "%"],
    ["protein_pct", "protein", "%"],
    ["acid_pct", "acid, as lactic", "%"],
    ["cup_g", "a cup weighs", "g"],
  ],
  fat: [
    ["water_pct", "water in it", "%"],
    ["fat_pct", "fat", "%"],
    ["cup_g", "a cup weighs", "g"],
  ],
  sugar: [
    ["water_pct", "water in it", "%"],
    ["sugar_pct", "sugar", "%"],
    ["cup_g", "a cup weighs", "g"],
  ],
  filling: [
    ["water_pct", "water in it", "%"],
    ["fat_pct", "fat", "%"],
    ["cup_g", "a cup weighs", "g"],
  ],
};

/** What a filling holds: meat, fish and egg are cooked to 75 °C inside, and so is what nobody knows. */
const HOLDS = [
  { id: "unsaid", text: SAY.notSaidTakenForMeat, holds: null },
  { id: "meat", text: "meat", holds: ["meat"] },
  { id: "fish", text: "fish", holds: ["fish"] },
  { id: "egg", text: "egg", holds: ["egg"] },
  { id: "plant", text: SAY.onlyPlantsAndMilk, holds: ["plant", "dairy"] },
] as const;

/** Ingredients that the table does not have: what is in them, what a cup weighs, how much they drink. */
export function OwnIngredients({ kitchen }: { kitchen: number }) {
  const known = useQuery(ingredientsQuery(kitchen));
  const { ingredient, dropIngredient } = usePantryWrites(kitchen);
  const [kind, setKind] = useState<Kind>("flour");
  const [said, setSaid] = useState<Record<string, string>>({});
  const [holds, setHolds] = useState<(typeof HOLDS)[number]["id"]>("unsaid");
  const [gone, setGone] = useState<string | null>(null);
  const type = (key: string) => (t: string) => setSaid((had) => ({ ...had, [key]: t }));
  const faults = ingredient.error instanceof Problem ? ingredient.error.fields : [];
  const fault = (name: string) => faults.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const send = () => {
    const facts = kind === "starter" ? [] : FACTS[kind];
    const held = HOLDS.find((h) => h.id === holds)!.holds;
    const body: Given = {
      ...(kind === "filling" && held ? { holds: [...held] } : {}),
      name: said["name"] ?? "",
      kind: kind === "starter" ? "starter" : "made",
      ...(kind === "starter"
        ? {
            hydration_frac:
              typeof typedNumber(said["hydration"] ?? "100") === "number"
                ? typedNumber(said["hydration"] ?? "100") / 100
                : (said["hydration"] as unknown as number),
          }
        : { group: kind }),
      ...Object.fromEntries(facts.filter(([key]) => said[key]?.trim()).map(([key]) => [key, typedNumber(said[key]!)])),
    };
    ingredient.mutate(body, { onSuccess: () => setSaid({}) });
  };
  const own = (known.data ?? []).filter((i) => i.own);
  return (
    <section>
      {own.map((i) => (
        <p key={i.id}>
          {i.name}{" "}
          <span className="quiet">
            {i.group}, a cup is {i.cup_g.toFixed(0)} g
          </span>{" "}
          <Button
            data-kind="bare"
            onPress={() => {
              dropIngredient.mutate({ id: i.id });
              setGone(i.id);
            }}
          >
            put away
          </Button>
        </p>
      ))}
      {gone && (
        <p>
          {SAY.putAwayBakesThatHoldIt}{" "}
          <Button
            data-kind="bare"
            onPress={() => {
              dropIngredient.mutate({ id: gone, back: true });
              setGone(null);
            }}
          >
            undo
          </Button>
        </p>
      )}
      <div className="row">
        <Choice label="Kind of ingredient" value={kind} options={KINDS} onChange={setKind} />
        {kind === "filling" && <Pick label="It holds" value={holds} options={HOLDS} onChange={setHolds} />}
      </div>
      <div className="row">
        <Field
          label="called"
          value={said["name"] ?? ""}
          placeholder={kind === "starter" ? "Cellar starter" : "Mill’s strong flour"}
          width="14em"
          onType={type("name")}
          onCommit={type("name")}
          fault={fault("name")}
        />
        {kind === "starter" ? (
          <Field
            label="water on flour"
            value={said["hydration"] ?? ""}
            placeholder="100"
            unit="%"
            width="8em"
            onType={type("hydration")}
            onCommit={type("hydration")}
            fault={fault("hydration_frac")}
            inputMode="decimal"
          />
        ) : (
          FACTS[kind].map(([key, label, unit]) => (
            <Field
              key={key}
              label={label}
              value={said[key] ?? ""}
              unit={unit}
              width="9em"
              onType={type(key)}
              onCommit={type(key)}
              fault={fault(key)}
              inputMode="decimal"
            />
          ))
        )}
        <Button isDisabled={!said["name"]?.trim() || ingredient.isPending} onPress={send}>
          Keep it
        </Button>
      </div>
    </section>
  );
}
