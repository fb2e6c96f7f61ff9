import { useState } from "react";
import styled from "styled-components";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { Sheet } from "../../controls/Sheet";
import { type HeatStep, STEPS, UNTIL } from "../../words/heat";
import { typedSeconds } from "../../words/format";
import { SAY } from "../../words/say/fire";

const List = styled.ol`
  display: grid;
  gap: 10px;
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: end;
    border-bottom: 1px solid var(--hair);
    padding-bottom: 8px;
  }
`;
const MOST = 12;

interface Props {
  steps: readonly HeatStep[];
  isOpen: boolean;
  onClose: () => void;
  onUse: (steps: HeatStep[]) => void;
  fault: string | null;
}

/** A cook's own way through the heat, step by step: sides, lid, spray, turns round, edges, grill, a finish in the oven. */
export function StepsSheet({ steps: given, isOpen, onClose, onUse, fault }: Props) {
  const [draft, setDraft] = useState<HeatStep[] | null>(null);
  const steps = draft ?? [...given];
  const close = () => {
    setDraft(null);
    onClose();
  };
  const put = (i: number, step: HeatStep) => setDraft(steps.map((s, k) => (k === i ? step : s)));
  return (
    <Sheet title={SAY.yourOwnWayThroughTheHeat} isOpen={isOpen} onClose={close}>
      <List>
        {steps.map((step, i) => {
          const kind = STEPS.find((s) => s.id === step.do)!;
          const lasts = !kind.atOnce || step.seconds !== undefined;
          return (
            <li key={i}>
              <Pick
                label={`Step ${i + 1}`}
                value={step.do}
                options={STEPS}
                onChange={(to) =>
                  put(i, STEPS.find((s) => s.id === to)!.atOnce ? { do: to } : { do: to, seconds: step.seconds ?? 60 })
                }
              />
              {lasts && (
                <Pick
                  label="For"
                  value={step.until ?? "seconds"}
                  options={UNTIL}
                  onChange={(u) =>
                    put(i, u === "seconds" ? { do: step.do, seconds: step.seconds ?? 60 } : { do: step.do, until: u })
                  }
                />
              )}
              {lasts && !step.until && (
                <Field
                  label="seconds"
                  width="4.500em"
                  inputMode="decimal"
                  value={String(step.seconds ?? "")}
                  onCommit={(t) => put(i, { ...step, seconds: typedSeconds(t) })}
                />
              )}
              <Button
                data-kind="bare"
                aria-label={`Leave out step ${i + 1}`}
                onPress={() => setDraft(steps.filter((_, k) => k !== i))}
              >
                leave out
              </Button>
            </li>
          );
        })}
      </List>
      {fault && <Plate>{fault}</Plate>}
      <div style={{ display: "flex", gap: 12, flexWrap: "wrap" }}>
        {steps.length < MOST && (
          <Button onPress={() => setDraft([...steps, { do: steps.length === 0 ? "face_a" : "face_b", seconds: 60 }])}>
            Add a step
          </Button>
        )}
        <Button data-kind="brass" isDisabled={steps.length === 0} onPress={() => onUse(steps)}>
          Plan by these
        </Button>
      </div>
    </Sheet>
  );
}
