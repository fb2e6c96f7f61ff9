import styled from "styled-components";
import { type Bake, Problem } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Cautions, Plate, Quiet } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { BakeHead } from "../../frame/BakeHead";
import { LeafStrip } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { HeatAccount } from "../../instruments/HeatAccount";
import { Bloom } from "./Bloom";
import { BowlParts } from "./BowlParts";
import { Kneading } from "./Kneading";
import { AfterMixing } from "./AfterMixing";
import { lower, mass, readTemp, temp, tempUnit, typedMinutes } from "../../words/format";
import { SAY } from "../../words/say/mix";

const Two = styled.div`
  display: grid;
  grid-template-columns: 350px minmax(0, 1fr);
  gap: 10px 32px;
  .answer {
    font: 700 76px/1 var(--name);
  }
  .unit {
    font: 500 28px/1 var(--name);
  }
  .left {
    display: grid;
    gap: 14px;
    align-content: start;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 18px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Under = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 22px 40px;
  margin-top: 18px;
  border-top: 2px solid var(--ink);
  padding-top: 12px;
  section {
    display: grid;
    gap: 8px;
    align-content: start;
    justify-items: start;
  }
  section > * {
    max-width: 100%;
  }
  section > ol,
  section > ul,
  section > div {
    width: 100%;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const METHODS = [
  { id: "hand", text: "hand" },
  { id: "planetary", text: "mixer" },
  { id: "spiral", text: "spiral" },
  { id: "processor", text: "processor" },
  { id: "no_knead", text: "no knead" },
  { id: "none", text: "none" },
] as const;

/** How warm the liquid must be, and what everything in the bowl brings. */
export function MixLeaf({ bake }: { bake: Bake }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const [box, width] = useWidth<HTMLDivElement>();
  const mix = bake.mix;
  const deg = (c: number) => `${temp(c, units)} ${tempUnit(units)}`;
  const fields = change.error instanceof Problem ? change.error.fields : [];
  const fault = (name: string) => fields.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const sendTemp = (name: "dough_c" | "flour_c") => (text: string) => {
    const c = text === "" && name === "flour_c" ? null : readTemp(text, units);
    change.mutate({ [name]: c === null && text !== "" ? (text as unknown as number) : c });
  };
  if (!mix)
    return (
      <>
        <BakeHead bake={bake} about="" />
        <Plate>{bake.faults["mix"] ?? bake.faults["weigh"] ?? SAY.thereIsNoLiquidToWarm}</Plate>
      </>
    );
  const yeasted = (bake.weigh?.lines ?? []).some((l) => l.ingredient.startsWith("yeast_"));
  return (
    <>
      <BakeHead bake={bake} about={`room ${deg(mix.room_c)}, flour ${deg(mix.flour_c)}`} />
      <Two>
        <div className="left">
          <div>
            <h2>
              {mix.liquid_name}, {mass(mix.liquid_g, units)} {units.mass}, at
            </h2>
            {mix.liquid_temp_c !== null ? (
              <Why why={mix.why["liquid_temp_c"]} label="Liquid temperature">
                <span className="answer">{temp(mix.liquid_temp_c, units)}</span>
              </Why>
            ) : (
              <span className="answer">{mix.ice_g > 0 ? "ice" : temp(mix.limit_c, units)}</span>
            )}{" "}
            {(mix.liquid_temp_c !== null || mix.ice_g === 0) && <span className="unit">{tempUnit(units)}</span>}
            {mix.ice_g >= 1 && (
              <p>
                <b>
                  {mass(mix.ice_g, units)} {units.mass}
                </b>{" "}
                {SAY.ofItAsIceDoesThe}
              </p>
            )}
          </div>
          {mix.cue && <p className="quiet">{mix.cue} (practice, no thermometer)</p>}
          {mix.advice && <Plate>{mix.advice}</Plate>}
          {mix.others.map((o) => (
            <p key={o.ingredient}>
              Or {lower(o.name)} at <b>{deg(o.temp_c)}</b>, with {lower(mix.liquid_name)} {SAY.atItsLimit}
            </p>
          ))}
          <p>
            {SAY.landsTheDoughAt}{" "}
            <Why why={mix.why["dough_temp_c"]} label="Dough temperature">
              <b>{temp(mix.dough_temp_c, units, 1)}</b>
            </Why>{" "}
            {tempUnit(units)}
          </p>
          <div className="row">
            <Field
              label="wanted dough"
              value={temp(bake.settings.dough_c, units)}
              unit={tempUnit(units)}
              width="6.5em"
              onCommit={sendTemp("dough_c")}
              fault={fault("dough_c")}
            />
            <Field
              label={SAY.flourIfNotAtRoom}
              value={bake.settings.flour_c === null ? "" : temp(bake.settings.flour_c, units)}
              placeholder={temp(mix.room_c, units)}
              unit={tempUnit(units)}
              width="9em"
              onCommit={sendTemp("flour_c")}
              fault={fault("flour_c")}
            />
            <Field
              label="kneading"
              value={String(bake.settings.knead_min)}
              unit="min"
              width="6em"
              onCommit={(t) => change.mutate({ knead_min: typedMinutes(t) })}
              fault={fault("knead_min")}
            />
          </div>
          <Choice
            label={SAY.howItIsMixed}
            value={bake.settings.knead}
            options={METHODS}
            onChange={(knead) => change.mutate({ knead })}
          />
          {yeasted && (
            <Quiet>
              Never hotter than {deg(mix.limit_c)} {SAY.onTheYeast}{" "}
              {mix.rule_liquid_c !== null &&
                mix.rule_factor_c !== null &&
                SAY.theSumRuleOfTheTrade(deg(mix.rule_liquid_c), mix.rule_factor_c.toFixed(0))}
            </Quiet>
          )}
          <Cautions items={mix.cautions} />
        </div>
        <div ref={box}>
          {width > 0 && (
            <HeatAccount
              rows={mix.contributions.map((r) => ({ name: lower(r.name), joules: r.joules }))}
              doughC={mix.dough_temp_c}
              liquidC={mix.liquid_temp_c}
              flourC={mix.flour_c}
              limitC={mix.limit_c}
              yeasted={yeasted}
              degrees={deg}
              width={width}
            />
          )}
          <table className="unseen">
            <caption>Heat account</caption>
            <tbody>
              {mix.contributions.map((r) => (
                <tr key={r.name}>
                  <th>{r.name}</th>
                  <td>{(r.joules / 1000).toFixed(1)} kJ</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Two>
      <Under>
        <Kneading bake={bake} mix={mix} />
        <div style={{ display: "grid", gap: 22, alignContent: "start" }}>
          <BowlParts bake={bake} mix={mix} />
          <Bloom bake={bake} mix={mix} />
          <AfterMixing bake={bake} mix={mix} />
        </div>
      </Under>
      <LeafStrip bake={bake} keys={["sponge", "mix"]} />
    </>
  );
}
