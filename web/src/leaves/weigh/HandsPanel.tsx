import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas, WeighSheet } from "../../api/client";
import { useNow } from "../../api/clock";
import { askFeel, ingredientsQuery, useAdd, usePantryWrites, useUnadd } from "../../api/weigh";
import { benchQuery } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Combo } from "../../controls/Combo";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { clockNear, mass, numbered } from "../../words/format";
import type { Formula } from "./useFormula";
import { SAY } from "../../words/say/weigh";

const Panel = styled.section`
  display: grid;
  gap: 8px;
  border-top: 2px solid var(--ink);
  padding-top: 10px;
  margin-top: 14px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
  }
  .row.mid {
    align-items: center;
  }
  .told {
    font: 500 22px/1.25 var(--name);
  }
  .pick {
    width: 250px;
    border-bottom: 3px solid var(--brass);
  }
`;
type Feel = Schemas["FeelUpdate"]["feel"];
const FEELS: [Feel, string][] = [
  ["sticky", "sticky"],
  ["stiff", "stiff"],
  ["tears", "tears"],
  ["springs_back", "springs back"],
];

/** In the hands: hold some back, say how it feels, record what was added; it becomes part of the dough. */
export function HandsPanel({ bake, sheet, formula }: { bake: Bake; sheet: WeighSheet | null; formula: Formula }) {
  const units = useWords();
  const now = useNow(30_000);
  const add = useAdd(bake.id);
  const unadd = useUnadd(bake.id);
  const known = useQuery(ingredientsQuery(bake.kitchen_id));
  const feel = useMutation({ mutationFn: (f: Feel) => askFeel(bake.id, f) });
  const [what, setWhat] = useState("water");
  const [amount, setAmount] = useState("");
  const g = (x: number) => `${mass(x, units)} ${units.mass}`;
  const put = (ingredient: string, text: string) =>
    add.mutate({ ingredient, amount: text }, { onSuccess: () => setAmount("") });
  const flour =
    formula.lines.find((l) =>
      sheet?.lines.find((x) => x.ingredient === l.ingredient && (x.baker_frac ?? 0) > 0.2 && x.water_g === 0),
    )?.ingredient ?? "plain_flour";
  return (
    <Panel data-print="no">
      <h2>In the hands</h2>
      <Held bake={bake} sheet={sheet} formula={formula} />
      <div className="row mid" role="group" aria-label={SAY.howDoesTheDoughFeel}>
        <span className="quiet">it is</span>
        {FEELS.map(([id, name]) => (
          <Button key={id} onPress={() => feel.mutate(id)}>
            {name}
          </Button>
        ))}
      </div>
      {feel.error && <Plate>{feel.error.message}</Plate>}
      {feel.data && (
        <p className="told" role="status">
          {feel.data.text}{" "}
          {feel.data.add && (
            <Button
              data-kind="bare"
              onPress={() => put(feel.data.add === "flour" ? flour : "water", `${feel.data.grams.toFixed(0)} g`)}
            >
              I added {g(feel.data.grams)} {feel.data.add}
            </Button>
          )}
        </p>
      )}
      <div className="row">
        <Field
          label="what I added"
          value={amount}
          placeholder="2 tbsp"
          width="8em"
          onType={setAmount}
          onCommit={setAmount}
          fault={add.error?.message ?? null}
        />
        <span className="pick">
          <Combo label="What was added" value={what} items={known.data ?? []} onChange={setWhat} />
        </span>
        <Button isDisabled={!amount || add.isPending} onPress={() => put(what, amount)}>
          Record it
        </Button>
      </div>
      {bake.settings.additions.length > 0 && (
        <div className="row">
          <span>
            {bake.settings.additions.map((a, i) => (
              <span key={i}>
                {i > 0 ? "; " : ""}+ {a.amount}{" "}
                {(known.data?.find((k) => k.id === a.ingredient)?.name ?? a.ingredient).toLowerCase()}{" "}
                <span className="quiet">{clockNear(a.at, now, units.zone)}</span>
              </span>
            ))}
          </span>
          <Button data-kind="bare" onPress={() => unadd.mutate(bake.settings.additions)}>
            {SAY.takeTheLastBack}
          </Button>
        </div>
      )}
      <Bag bake={bake} sheet={sheet} formula={formula} />
    </Panel>
  );
}

/** A part of the flour or the water kept aside for the hand to decide. */
function Held({ bake, sheet, formula }: { bake: Bake; sheet: WeighSheet | null; formula: Formula }) {
  const units = useWords();
  const held = Object.entries(bake.settings.held).filter(([, x]) => x > 0);
  const water = sheet?.lines.find((l) => l.ingredient === "water" || l.water_g > 0.5 * l.grams);
  const name = (id: string) => (sheet?.lines.find((l) => l.ingredient === id)?.name ?? id).toLowerCase();
  if (held.length > 0)
    return (
      <p>
        {held.map(([id, x]) => `${mass(x, units)} ${units.mass} of ${name(id)} held back`).join("; ")}{" "}
        <Button data-kind="bare" onPress={() => formula.change.mutate({ held: {} })}>
          put it in
        </Button>
      </p>
    );
  const most = sheet?.lines
    .filter((l) => l.water_g === 0 && (l.baker_frac ?? 0) > 0.2)
    .sort((a, b) => b.grams - a.grams)[0];
  const hold = (line: Schemas["FormulaLineRead"]) => {
    const part = Math.round(line.grams * 0.08);
    return (
      <Button key={line.ingredient} onPress={() => formula.change.mutate({ held: { [line.ingredient]: part } })}>
        Hold back {mass(part, units)} {units.mass} {line.name.toLowerCase()}
      </Button>
    );
  };
  return (
    <div className="row mid">
      {[water, most].filter((l) => l !== undefined).map(hold)}
      <span className="quiet">{SAY.andLetTheDoughAskFor}</span>
    </div>
  );
}

/** Which bag the flour comes from; what was learned of its thirst. */
function Bag({ bake, sheet, formula }: { bake: Bake; sheet: WeighSheet | null; formula: Formula }) {
  const bench = useQuery(benchQuery(bake.kitchen_id));
  const pantry = usePantryWrites(bake.kitchen_id);
  const [name, setName] = useState("");
  const flours =
    sheet?.lines.filter((l) => l.water_g === 0 && (l.baker_frac ?? 0) > 0.2).map((l) => l.ingredient) ?? [];
  const bags = (bench.data?.kitchen.bags ?? []).filter((b) => flours.includes(b.ingredient));
  const bag = bags.find((b) => b.id === bake.settings.bag_id);
  const flour = flours[0];
  if (!flour) return null;
  const thirst =
    bag && bag.times > 0
      ? `takes ${bag.thirst_frac >= 0 ? "+" : "−"}${Math.abs(bag.thirst_frac * 100).toFixed(1)} % water (${numbered(bag.times, "bake")})`
      : SAY.teachesItsThirstWhenTheBake;
  return (
    <div className="row">
      {bags.map((b) => (
        <Button
          key={b.id}
          data-kind={b.id === bake.settings.bag_id ? "brass" : "plain"}
          onPress={() => formula.change.mutate({ bag_id: b.id })}
        >
          bag: {b.name}
        </Button>
      ))}
      {bag && <span className="quiet">{thirst}</span>}
      {bag && bag.times > 0 && bag.thirst_frac > 0.004 && sheet && (
        <Button data-kind="bare" onPress={() => formula.changeBy("water", bag.thirst_frac * sheet.flour_g)}>
          give it {(bag.thirst_frac * sheet.flour_g).toFixed(0)} g now
        </Button>
      )}
      <Field
        label={SAY.aNewBagOfThisFlour}
        value={name}
        placeholder="mill, date"
        width="11em"
        onType={setName}
        onCommit={setName}
        fault={pantry.bag.error?.message ?? null}
      />
      <Button
        isDisabled={!name}
        onPress={() =>
          pantry.bag.mutate(
            { name, ingredient: flour },
            {
              onSuccess: (b) => {
                setName("");
                formula.change.mutate({ bag_id: b.id });
              },
            },
          )
        }
      >
        Open it
      </Button>
    </div>
  );
}
