import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { useNow } from "../../api/clock";
import { Cautions, Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { BakeHead } from "../../frame/BakeHead";
import { StepBar } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { LiftChart } from "../../instruments/LiftChart";
import { ColdHours, StageTime } from "./StageTimes";
import { clockNear, ms, percent, span, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/rise";

const Below = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 28px;
  border-top: 2px solid var(--hair-2);
  padding-top: 10px;
  .big {
    font: 700 36px/1.05 var(--name);
    display: block;
  }
  > div {
    display: grid;
    gap: 8px;
    align-content: start;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const hours = (h: number) => (h >= 3 ? `${h.toFixed(0)} h` : span(Math.round(h * 12) * 300e3));

/** A dough of soda or powder: it rests, its lift wanes; how long it may wait, and beside that the count of warm hours. */
export function RestView({ bake, rest }: { bake: Bake; rest: Schemas["RestRead"] }) {
  const units = useWords();
  const now = useNow(10_000);
  const [box, width] = useWidth<HTMLDivElement>();
  const at = (t: number | string) => clockNear(t, now, units.zone);
  const { here, fridge, safety } = rest;
  const change = useBakeChange(bake.id);
  if (!here)
    return (
      <>
        <BakeHead bake={bake} about="" />
        <Plate>{bake.faults["rise"] ?? SAY.nothingHereMakesGas}</Plate>
        <StepBar bake={bake} keys={["mix", "ball", "roll"]} />
      </>
    );
  const waits = (ms(rest.cook_at) - ms(rest.rests_from)) / 3600e3;
  return (
    <>
      <BakeHead bake={bake} about={SAY.itRestsItDoesNotRise(here.words)} />
      <div ref={box}>
        {width > 0 && (
          <LiftChart
            width={width}
            here={bake.settings.cold && fridge ? fridge : here}
            fridge={bake.settings.cold ? null : fridge}
            from={ms(rest.rests_from)}
            cookH={waits}
            nowH={(now - ms(rest.rests_from)) / 3600e3}
            clock={at}
          />
        )}
      </div>
      <Below>
        <div>
          <span>
            {here.verdict === "cook_at_once" ? (
              <b>{SAY.cookItAtOnce}</b>
            ) : (
              <>
                It may wait: <b>{here.words}</b>
              </>
            )}
            {SAY.halfItsLiftIsGoneAfter}
          </span>
          <span className="big">
            {hours(here.low_h)} to {hours(here.high_h)}
          </span>
          <span className="quiet">
            {here.place}, {temp(here.temp_c, units)} {tempUnit(units)}; best lift {here.best_lift.toFixed(1)}{" "}
            {SAY.whenCookedAtOnce}
          </span>
          <span>
            Its gas: <b>{percent(here.at_mixing_frac)} %</b> at mixing, <b>{percent(here.on_bench_frac)} %</b> while it
            rests, <b>{percent(here.in_heat_frac)} %</b> {SAY.inTheHeat}
          </span>
          {fridge && (
            <span>
              In the fridge{" "}
              <b>
                {hours(fridge.low_h)} to {hours(fridge.high_h)}
              </b>{" "}
              ({fridge.words}).
            </span>
          )}
        </div>
        <div>
          <StepBar bake={bake} keys={["mix", "ball", "cold_in", "cold_out", "roll"]} />
          <StageTime bake={bake} which="bulk" empty={SAY.asTheMethodHasIt} change={change} />
          <StageTime bake={bake} which="ball" empty={SAY.asTheMethodHasIt} change={change} />
          <ColdHours bake={bake} change={change} />
        </div>
        <div>
          {safety ? (
            <>
              <span>{SAY.warmHoursOfDairyOrEgg}</span>
              <span className="big">
                {hours(safety.warm_h)} of {hours(safety.limit_h)}
              </span>
              <span className="quiet">
                {safety.reached_at ? SAY.theUsualCountIsFullAt(at(safety.reached_at)) : SAY.aCountNotAPermissionLocal}
              </span>
              {rest.cold_advice && <span>{rest.cold_advice}</span>}
            </>
          ) : (
            <span className="quiet">{SAY.noDairyOrEggInIt}</span>
          )}
        </div>
      </Below>
      <Cautions items={rest.cautions} />
    </>
  );
}
