import styled from "styled-components";
import type { WeighSheet } from "../../api/client";
import { Button } from "../../controls/Button";
import { Why } from "../../controls/Why";
import { useWidth } from "../../controls/width";
import { SodaBeam } from "../../instruments/SodaBeam";
import type { Formula } from "./useFormula";
import { SAY } from "../../words/say/weigh";

const Beam = styled.div`
  display: grid;
  gap: 6px;
  .verdict {
    font: 600 26px/1.1 var(--name);
  }
  .cure {
    display: grid;
    grid-template-columns: 168px minmax(0, 1fr);
    gap: 12px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    padding: 4px 0;
    font-size: 17px;
  }
`;
const PRESS = {
  less_soda: "less soda",
  more_acid: "more acid",
  swap_to_powder: "swap to powder",
  more_soda: "more soda",
} as const;

/** The beam, its word, what it does to taste, colour and gas, and the one-press cures. Tradition may stand. */
export function SodaPanel({ sheet, formula }: { sheet: WeighSheet | null; formula: Formula }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const soda = sheet?.soda;
  if (!soda) return null;
  const side = (name: "soda" | "acid") => soda.weights.filter((w) => w.side === name);
  const apply = (c: (typeof soda.cures)[number]) =>
    formula.changeBy(c.ingredient, c.change_g, c.kind === "swap_to_powder" ? "baking_soda" : undefined);
  return (
    <Beam>
      <h2>Soda against acid</h2>
      <div ref={box}>
        {width > 0 && (
          <SodaBeam
            soda={side("soda")}
            acid={side("acid")}
            excess={soda.excess_g_per_100g_flour}
            width={Math.min(width, 420)}
          />
        )}
      </div>
      <p>
        <Why why={sheet?.why["soda"]} label="Soda against acid">
          <span className="verdict">{soda.verdict}</span>
        </Why>{" "}
        <span className="quiet">
          {Math.abs(soda.excess_g_per_100g_flour).toFixed(2)} g{" "}
          {soda.excess_g_per_100g_flour < 0 ? "acid (as soda)" : "soda"} {SAY.leftPerGFlour}{" "}
          {soda.gas_ml_per_100g_flour.toFixed(0)} mL gas
        </span>
      </p>
      <p className="quiet">{soda.effect}</p>
      {soda.cures.map((c) => (
        <div className="cure" key={c.kind} data-print="no">
          <Button onPress={() => apply(c)}>{PRESS[c.kind]}</Button>
          <span>{c.text}</span>
        </div>
      ))}
      <table className="unseen">
        <caption>{SAY.whatLiesOnTheBeamIn}</caption>
        <tbody>
          {soda.weights.map((w, i) => (
            <tr key={i}>
              <th>{w.name}</th>
              <td>
                {w.side}
                {w.flour ? ", flour's own" : ""}
              </td>
              <td>{w.mmol.toFixed(1)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Beam>
  );
}
