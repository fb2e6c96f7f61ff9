import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { type Bake, Problem, type Schemas } from "../../api/client";
import { useAgain } from "../../api/keep";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { SAY } from "../../words/say/keep";

const Next = styled.div`
  border-top: 2.5px solid var(--ink);
  padding-top: 8px;
  display: grid;
  gap: 6px;
  .what {
    font: 700 24px/1.15 var(--name);
  }
  .go {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
  }
`;

/** The one change for next time, and the press that begins the same bread again with it. */
export function Again({ bake, change }: { bake: Bake; change: Schemas["ChangeRead"] | null }) {
  const go = useNavigate();
  const again = useAgain(bake.id);
  const [serve, setServe] = useState("tomorrow 19:00");
  const fields = again.error instanceof Problem ? again.error.fields : [];
  const fault = fields.find((f) => f.pointer === "/serve")?.detail ?? null;
  const begin = (withChange: boolean) =>
    again.mutate({ serve, change: withChange }, { onSuccess: (b) => void go(`/b/${b.id}/weigh`) });
  return (
    <Next data-print="no">
      <span className="quiet">{change ? "Change one thing" : "The same again"}</span>
      {change && <span className="what">{change.text}</span>}
      <span className="go">
        <Field label="serve at" value={serve} width="11em" onType={setServe} onCommit={setServe} fault={fault} />
        <Button data-kind="brass" onPress={() => begin(true)} isDisabled={again.isPending}>
          {change ? "Bake again so" : "Bake again"}
        </Button>
        {change && (
          <Button data-kind="bare" onPress={() => begin(false)} isDisabled={again.isPending}>
            unchanged
          </Button>
        )}
      </span>
      {again.isPending && <span className="quiet">{SAY.planningIt}</span>}
      {again.error && !fault && <Plate>{again.error.message}</Plate>}
    </Next>
  );
}
