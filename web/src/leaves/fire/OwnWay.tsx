import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { type Bake, Problem } from "../../api/client";
import { habitQuery } from "../../api/fire";
import { useBakeChange } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { temp, tempUnit, typedSeconds } from "../../words/format";
import { heatBand, plainSides, sidesWords } from "../../words/heat";
import { StepsSheet } from "./StepsSheet";
import { Ways } from "./Ways";
import { SAY } from "../../words/say/fire";

const Box = styled.section`
  .col {
    display: grid;
    gap: 8px;
    align-content: start;
  }
  .sides {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: end;
  }
  .sides b {
    font: 600 26px/48px var(--name);
  }
  .buttons {
    display: flex;
    flex-wrap: wrap;
    gap: 10px;
  }
  table {
    border-collapse: collapse;
    th,
    td {
      text-align: left;
      padding: 4px 18px 4px 0;
      font-size: 18px;
    }
    td {
      font-family: var(--mono);
      font-weight: 700;
      white-space: nowrap;
    }
    th {
      font-weight: 500;
    }
    tr[data-on="true"] th {
      font-weight: 700;
    }
  }
`;
type Fire = NonNullable<Bake["fire"]>;

/** A cook's own times: what they say of the surface beside the usual way, and the way to use them. */
export function OwnWay({ bake, fire, begun }: { bake: Bake; fire: Fire; begun: boolean }) {
  const change = useBakeChange(bake.id);
  return (
    <Box aria-label="Your own times">
      <Own key={JSON.stringify(bake.settings.heat_steps)} bake={bake} fire={fire} begun={begun} change={change} />
    </Box>
  );
}

function Own({
  bake,
  fire,
  begun,
  change,
}: {
  bake: Bake;
  fire: Fire;
  begun: boolean;
  change: ReturnType<typeof useBakeChange>;
}) {
  const units = useWords();
  const steps = bake.settings.heat_steps;
  const given = steps && plainSides(steps);
  const [first, setFirst] = useState(given?.[0] ? String(given[0]) : "");
  const [second, setSecond] = useState(given?.[1] ? String(given[1]) : "");
  const [editing, setEditing] = useState(false);
  const turned = steps ? steps.some((s) => s.do === "face_b") : fire.program.turn_s !== null;
  const sides = [first, ...(turned ? [second] : [])].map(typedSeconds);
  const whole = sides.every((s) => s >= 1 && s <= 3600);
  const habit = useQuery({
    ...habitQuery(bake.id, sides[0] ?? 0, turned ? (sides[1] ?? 0) : null, `${bake.revision}`),
    enabled: whole,
  });
  const own = fire.own_way;
  const typed = whole && !steps;
  const found = typed ? habit.data : own?.habit;
  const fault = change.error instanceof Problem ? (change.error.fields[0]?.detail ?? change.error.message) : null;
  const asSteps = sides.map((seconds, i) => ({ do: i === 0 ? ("face_a" as const) : ("face_b" as const), seconds }));
  const heat = found?.surface_c?.p50 ?? null;
  return (
    <div className="col">
      {(!steps || given) && !begun && (
        <div className="sides">
          <Field
            label={turned ? "first side" : "on the heat"}
            big
            width="6em"
            unit="s"
            inputMode="decimal"
            value={first}
            onCommit={setFirst}
          />
          {turned && (
            <>
              <b>+</b>
              <Field
                label="other side"
                big
                width="6em"
                unit="s"
                inputMode="decimal"
                value={second}
                onCommit={setSecond}
              />
            </>
          )}
        </div>
      )}
      {own && !found && (
        <table>
          <tbody>
            <tr data-on="true">
              <th scope="row">{SAY.yoursAsItIsPlannedNow}</th>
              <td>{sidesWords(fire.program.turn_s, fire.program.off_s)}</td>
            </tr>
            <tr>
              <th scope="row">
                {SAY.theUsualWayAt} {temp(fire.surface_c.p50!, units)} {tempUnit(units)}
              </th>
              <td>{sidesWords(own.usual_turn_s, own.usual_off_s)}</td>
            </tr>
          </tbody>
        </table>
      )}
      {found && <Ways ways={found.ways} />}
      {typed && habit.isFetching && <p className="quiet">{SAY.reckoningHowHotThatIs}</p>}
      {found && (
        <p role="status">
          {found.text}
          {heat !== null && Math.abs(heat - fire.surface_c.p50!) >= 8
            ? SAY.itIsTakenToBe(temp(fire.surface_c.p50!, units), tempUnit(units), heatBand(fire.surface_c, units))
            : ""}
        </p>
      )}
      {!found && !own && <p className="quiet">{SAY.typeTheSecondsYouAlwaysGive}</p>}
      {fault && <Plate>{fault}</Plate>}
      {!begun && (
        <div className="buttons">
          {typed && (
            <Button data-kind="brass" onPress={() => change.mutate({ heat_steps: asSteps })}>
              {SAY.planByMyTimes}
            </Button>
          )}
          {found && heat !== null && Math.abs(heat - fire.surface_c.p50!) >= 3 && (
            <Button
              onPress={() =>
                change.mutate({
                  surface_c: Math.round(heat),
                  surface_source: "habit",
                  surface_sd_k: Math.round(found.sd_k),
                })
              }
            >
              Reckon with {temp(heat, units)} {tempUnit(units)}
            </Button>
          )}
          {steps && <Button onPress={() => change.mutate({ heat_steps: null })}>{SAY.backToTheUsualWay}</Button>}
          <Button data-kind="bare" onPress={() => setEditing(true)}>
            {steps ? SAY.changeTheSteps : SAY.stepByStep}
          </Button>
        </div>
      )}
      <StepsSheet
        isOpen={editing}
        onClose={() => setEditing(false)}
        fault={fault}
        steps={
          steps ?? [
            { do: "face_a", seconds: Math.round(fire.program.turn_s ?? fire.program.off_s) },
            ...(fire.program.turn_s === null
              ? []
              : [{ do: "face_b" as const, seconds: Math.round(fire.program.off_s - fire.program.turn_s) }]),
          ]
        }
        onUse={(heat_steps) => change.mutate({ heat_steps }, { onSuccess: () => setEditing(false) })}
      />
    </div>
  );
}
