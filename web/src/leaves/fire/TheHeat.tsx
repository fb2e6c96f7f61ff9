import { useState } from "react";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Sheet } from "../../controls/Sheet";
import { useWords } from "../../frame/units";
import { span, temp, tempUnit } from "../../words/format";
import { sidesWords } from "../../words/heat";
import { heatingWords } from "../../words/heating";
import { CueSheet } from "./CueSheet";
import { OwnWay } from "./OwnWay";
import type { useBread } from "./useBread";
import { SAY } from "../../words/say/fire";

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 26px;
  > div {
    display: grid;
    gap: 4px;
    align-content: start;
  }
  h3 {
    font: 600 18px/1.2 var(--name);
  }
  .heat {
    font: 700 40px/1 var(--name);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    align-items: center;
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** The right heat for this bread; how the surface gets there and keeps it; a sign, or own times, that say how hot it is. */
export function TheHeat({
  bake,
  bread,
  fire,
  begun,
}: {
  bake: Bake;
  bread: ReturnType<typeof useBread>;
  fire: NonNullable<Bake["fire"]>;
  begun: boolean;
}) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const [asking, setAsking] = useState(false);
  const [timing, setTiming] = useState(false);
  const deg = (c: number) => `${temp(c, units)} ${tempUnit(units)}`;
  const right = fire.right_heat;
  const own = bread.which === 0;
  const yours = bake.settings.heat_steps !== null;
  return (
    <Two>
      <div>
        <h3>{SAY.theRightHeatForIt}</h3>
        {right && (
          <p>
            <span className="heat">{temp(right.surface_c.p50!, units)}</span> {tempUnit(units)}:{" "}
            <b>{sidesWords(right.turn_s, right.off_s)}</b>
          </p>
        )}
        <p className="quiet">{fire.right_heat_reason}</p>
        {own && right && !begun && Math.abs(right.surface_c.p50! - fire.surface_c.p50!) >= 5 && (
          <div>
            <Button onPress={() => change.mutate({ surface_c: Math.round(right.surface_c.p50!) })}>
              {SAY.iHaveItAt} {deg(right.surface_c.p50!)}
            </Button>
          </div>
        )}
      </div>
      <div>
        <h3>How it heats</h3>
        <p className="quiet">
          {SAY.afterOneBreadItIsAt} {deg(fire.surface_after_c)}, back{" "}
          {fire.program.recover_s < 1 ? "at once" : `in ${span(fire.program.recover_s * 1000)}`}
          {fire.recovered ? "" : " or longer"}.
        </p>
        {fire.program.heating && (
          <p className="quiet" role="note">
            {heatingWords(fire.program.heating, fire.surface?.power ?? "medium_high", units).join(" ")}
          </p>
        )}
        {own && (
          <div className="row">
            <Button data-kind="bare" onPress={() => setAsking(true)}>
              {SAY.tellItByASign}
            </Button>
            <Button data-kind="bare" onPress={() => setTiming(true)}>
              {yours ? SAY.yourOwnTimes : SAY.iAlwaysGiveIt}
            </Button>
          </div>
        )}
      </div>
      <CueSheet
        isOpen={asking}
        onClose={() => setAsking(false)}
        onUse={(surface_c, surface_source, surface_sd_k) => change.mutate({ surface_c, surface_source, surface_sd_k })}
      />
      <Sheet title="Your own times" isOpen={timing} onClose={() => setTiming(false)} wide>
        <OwnWay bake={bake} fire={fire} begun={begun} />
      </Sheet>
    </Two>
  );
}
