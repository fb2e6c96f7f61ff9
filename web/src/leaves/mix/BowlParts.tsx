import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { useWords } from "../../frame/units";
import { gramsOf, mass, readTemp, temp, tempUnit, typedMeasure } from "../../words/format";

const Table = styled.div`
  display: grid;
  gap: 4px;
  .part {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 90px 130px 120px;
    gap: 12px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    min-height: 52px;
  }
  .g {
    font: 700 19px/1 var(--mono);
    text-align: right;
    letter-spacing: -0.03em;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 18px;
    align-items: end;
    padding-top: 8px;
  }
  button.solve {
    min-height: 48px;
    border: 0;
    background: none;
    border-bottom: 2px solid var(--brass);
    color: var(--brass);
    font-weight: 650;
  }
  button.solve[aria-pressed="true"] {
    color: var(--ink);
    border-bottom: 4px solid var(--ink);
  }
  @media (max-width: 600px) {
    .part {
      grid-template-columns: minmax(0, 1fr) 60px 110px;
    }
    .part .solve {
      grid-column: 1 / -1;
      justify-self: start;
    }
  }
`;
const BOWLS = [
  { id: "steel", text: "steel" },
  { id: "glass", text: "glass" },
  { id: "ceramic", text: "ceramic" },
  { id: "plastic", text: "plastic" },
  { id: "wood", text: "wood" },
] as const;

/** Every part of the bowl with its temperature; one liquid is the one that is warmed or cooled. */
export function BowlParts({ bake, mix }: { bake: Bake; mix: Schemas["MixRead"] }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const s = bake.settings;
  const setTemp = (id: string) => (text: string) => {
    const c = readTemp(text, units);
    const others = Object.fromEntries(Object.entries(s.part_temps).filter(([key]) => key !== id));
    change.mutate({ part_temps: text === "" ? others : { ...others, [id]: (c ?? text) as number } });
  };
  return (
    <section>
      <h2>In the bowl</h2>
      <Table>
        {mix.parts
          .filter((p) => p.grams >= 1)
          .map((p) => {
            const solved = p.ingredient === mix.liquid;
            return (
              <div className="part" key={p.ingredient}>
                <span>{p.name}</span>
                <span className="g">
                  {mass(p.grams, units)} {units.mass}
                </span>
                {solved ? (
                  <span className="g">
                    {mix.liquid_temp_c !== null ? `${temp(mix.liquid_temp_c, units)} ${tempUnit(units)}` : "as found"}
                  </span>
                ) : (
                  <Field
                    label={`Temperature of ${p.name}`}
                    hideLabel
                    width="100%"
                    value={p.given ? temp(p.temp_c, units) : ""}
                    placeholder={temp(p.temp_c, units)}
                    unit={tempUnit(units)}
                    onCommit={setTemp(p.ingredient)}
                  />
                )}
                {p.liquid ? (
                  <button
                    type="button"
                    className="solve"
                    aria-pressed={solved}
                    onClick={() => change.mutate({ solve_for: p.ingredient })}
                  >
                    {solved ? "to be found" : "find this one"}
                  </button>
                ) : (
                  <span />
                )}
              </div>
            );
          })}
        <div className="row">
          <Choice
            label="Bowl of"
            value={s.bowl_material}
            options={BOWLS}
            onChange={(bowl_material) => change.mutate({ bowl_material })}
          />
          <Field
            label="bowl weighs"
            value={mass(s.bowl_g, units)}
            unit={units.mass}
            width="7em"
            onCommit={(t) =>
              change.mutate({
                bowl_g: typedMeasure(t, "g", gramsOf(units)),
              })
            }
            fault={change.error?.message ?? null}
            inputMode="decimal"
          />
        </div>
      </Table>
    </section>
  );
}
