import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas, WeighSheet } from "../../api/client";
import { useNow } from "../../api/clock";
import { askDose } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { clockNear, mass } from "../../words/format";
import type { Formula } from "./useFormula";
import { SAY } from "../../words/say/weigh";

const Bench = styled.div`
  display: grid;
  gap: 8px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
  }
  .row.mid {
    align-items: center;
  }
  li {
    border-bottom: 1px solid var(--hair);
    padding: 6px 0;
  }
  .big {
    font: 700 30px/1 var(--name);
  }
`;
const PART: Record<string, string> = {
  baking_soda: "soda",
  mcp: "fast acid",
  sas: "hot acid",
  sapp28: "acid",
  cream_tartar: "cream of tartar",
  salt: "salt",
};

/** Leavens taken apart, yeast for yeast, and the dose for the time there is. */
export function LeavenPanel({ bake, sheet, formula }: { bake: Bake; sheet: WeighSheet | null; formula: Formula }) {
  const units = useWords();
  const leavens = sheet?.leavens ?? [];
  const g = (x: number) => `${mass(x, units)} ${units.mass}`;
  return (
    <Bench>
      <h2>Leaven</h2>
      {leavens.length === 0 && <p className="quiet">{SAY.nothingHereMakesGasYetAsk}</p>}
      <ul>
        {leavens.map((l) => (
          <li key={l.ingredient}>
            <b>{g(l.grams)}</b> {l.name.toLowerCase()}
            {Object.keys(l.parts).length > 0 && (
              <span className="quiet">
                :{" "}
                {Object.entries(l.parts)
                  .map(([p, x]) => `${g(x)} ${PART[p] ?? p.replace("_", " ")}`)
                  .join(", ")}
              </span>
            )}
            {(sheet?.swaps[l.ingredient] ?? []).length > 0 && (
              <div className="row mid" role="group" aria-label={`Swap ${l.name}`} data-print="no">
                <span className="quiet">{SAY.isTheSameAs}</span>
                {sheet!.swaps[l.ingredient]!.map((s) => (
                  <Button
                    key={s.ingredient}
                    data-kind="bare"
                    onPress={() => formula.swap(l.ingredient, s.ingredient, s.grams)}
                  >
                    {g(s.grams)} {s.name}
                  </Button>
                ))}
              </div>
            )}
          </li>
        ))}
      </ul>
      {sheet?.flour_swaps.map((s) => (
        <p key={s.text}>
          {s.text}; gas {s.gas_then_ml.toFixed(0)} ml for {s.gas_ml.toFixed(0)} {SAY.ofGFlour}{" "}
          <Button data-kind="bare" onPress={() => formula.weighTo(s.grams)}>
            swap
          </Button>
        </p>
      ))}
      <Dose
        bake={bake}
        formula={formula}
        leaven={
          leavens.find((l) => l.ingredient.startsWith("yeast_") || "flour" in l.parts)?.ingredient ?? "yeast_instant"
        }
      />
    </Bench>
  );
}

function Dose({ bake, formula, leaven }: { bake: Bake; formula: Formula; leaven: string }) {
  const units = useWords();
  const now = useNow(60_000);
  const [when, setWhen] = useState("");
  const ask = useMutation({ mutationFn: (ready_at: string) => askDose(bake.id, { leaven, ready_at }) });
  const got: Schemas["DoseRead"] | undefined = ask.data;
  const at = (iso: string) => clockNear(iso, now, units.zone);
  const take = (grams: number) => {
    const have = formula.lines.some((l) => l.ingredient === leaven);
    if (have) formula.swap(leaven, leaven, grams);
    else
      formula.put([
        ...formula.lines,
        { ingredient: leaven, amount: `${Number(grams.toFixed(2))} g`, basis: null, part: "" },
      ]);
  };
  return (
    <div data-print="no">
      <div className="row">
        <Field
          label={SAY.doseForABulkReadyAt}
          value={when}
          placeholder="in 6 h, 07:00"
          width="11em"
          onType={setWhen}
          onCommit={setWhen}
          fault={ask.error?.message ?? null}
        />
        <Button isDisabled={!when || ask.isPending} onPress={() => ask.mutate(when)}>
          {ask.isPending ? "working…" : "Find the dose"}
        </Button>
      </div>
      {got && got.mass_g === null && <Plate>{got.reason}</Plate>}
      {got && got.mass_g !== null && (
        <>
          <p>
            <span className="big">{got.mass_g < 2 ? got.mass_g.toFixed(2) : got.mass_g.toFixed(1)}</span> g,{" "}
            {(got.baker_frac! * 100).toFixed(2)} {SAY.ofTheFlourMixedAt} {at(got.mix_at)}{" "}
            <Button data-kind="bare" onPress={() => take(got.mass_g!)}>
              use it
            </Button>
          </p>
          <ul>
            {got.ways.map((w) => (
              <li key={w.text}>
                {w.text}
                {w.at ? <span className="quiet">: ready {at(w.at)}</span> : null}{" "}
                {w.text.includes("tsp") || w.text.includes("tbsp") ? (
                  <Button data-kind="bare" onPress={() => take(w.grams)}>
                    take this
                  </Button>
                ) : null}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
