import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import type { Schemas } from "../../api/client";
import { askUpkeep } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { mass } from "../../words/format";
import { SAY } from "../../words/say/kitchen";

/** How to keep a starter between bakes with the least flour thrown away. */
export function Upkeep({ kitchen, starter }: { kitchen: number; starter: Schemas["StarterRead"] }) {
  const units = useWords();
  const [use, setUse] = useState("100");
  const [days, setDays] = useState("7");
  const ask = useMutation({
    mutationFn: () => askUpkeep(kitchen, starter.id, Number(use.replace(",", ".")), Number(days.replace(",", "."))),
  });
  const g = (x: number) => `${mass(x, units)} ${units.mass}`;
  const before = (h: number) => (h > 36 ? `${(h / 24).toFixed(0)} days` : `${h.toFixed(0)} h`);
  return (
    <>
      <div className="row">
        <Field
          label="I use"
          value={use}
          unit="g"
          width="5.500em"
          onType={setUse}
          onCommit={setUse}
          inputMode="decimal"
        />
        <Field
          label="every"
          value={days}
          unit="days"
          width="6em"
          onType={setDays}
          onCommit={setDays}
          inputMode="decimal"
        />
        <Button isDisabled={!use || !days || ask.isPending} onPress={() => ask.mutate()}>
          {SAY.howToKeepIt}
        </Button>
      </div>
      {ask.error && <Plate>{ask.error.message}</Plate>}
      {ask.data?.ways.length === 0 && <p>{SAY.noWayOfKeepingItWorks}</p>}
      {ask.data?.ways.map((w, i) => (
        <div key={w.place}>
          <p>
            <b>{i === 0 ? SAY.leastWaste : ""}</b>
            {w.text}
          </p>
          <p className="quiet">
            {w.meals
              .map((m) => `${before(m.before_h)} before: ${g(m.seed_g)} + ${g(m.flour_g)} + ${g(m.water_g)}`)
              .join("; ")}
            . A week takes {g(w.flour_g_week)} {SAY.flourAndThrowsAway} {g(w.waste_g_week)}.
          </p>
        </div>
      ))}
    </>
  );
}
