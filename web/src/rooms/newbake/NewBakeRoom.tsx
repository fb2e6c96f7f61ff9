import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { type Bench, Problem } from "../../api/client";
import { methodsQuery, useStartBake } from "../../api/queries";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Seal } from "../../instruments/Glyph";

const Page = styled.div`
  display: grid; gap: 18px; max-width: 940px;
  .methods { display: grid; border-top: 2px solid var(--ink); }
  .quick { display: flex; flex-wrap: wrap; gap: 10px; align-items: end; }
`;
const Method = styled.button`
  display: grid; grid-template-columns: 40px 1fr auto; gap: 4px 14px; align-items: center; text-align: left; border: 0; border-bottom: 1px solid var(--hair); background: none; padding: 12px 10px; min-height: 72px;
  .name { font: 600 24px/1.1 var(--name); }
  .why { grid-column: 2 / -1; color: var(--ink-2); font-size: 17px; }
  &[aria-pressed="true"] { background: var(--brass-wash); box-shadow: inset 8px 0 0 var(--brass); }
  &:hover { background: var(--recess); }
`;

/** When do we eat, and what do we start from. */
export function NewBakeRoom({ bench }: { bench: Bench }) {
  const go = useNavigate();
  const methods = useQuery(methodsQuery(bench.kitchen.id));
  const start = useStartBake();
  const [serve, setServe] = useState("in 5 h");
  const [method, setMethod] = useState("hatch-pita");
  const fields = start.error instanceof Problem ? start.error.fields : [];
  const fault = fields.find((f) => f.pointer === "/serve")?.detail ?? null;
  const send = () =>
    start.mutate({ kitchen_id: bench.kitchen.id, method, serve, name: null }, { onSuccess: (b) => void go(`/b/${b.id}/weigh`) });
  return (
    <Page>
      <h1>When do we eat?</h1>
      <div className="quick">
        <Field label="Write it as you say it" big value={serve} width="13em" onType={setServe} onCommit={setServe} fault={fault} placeholder="Friday 7 pm" />
        {["in 4 h", "19:00", "tomorrow 12:30"].map((t) => <Button key={t} onPress={() => setServe(t)}>{t}</Button>)}
      </div>
      <h2>Start from</h2>
      <div className="methods">
        {(methods.data ?? []).map((m) => (
          <Method key={m.id} type="button" aria-pressed={method === m.id} onClick={() => setMethod(m.id)}>
            <Seal seal={m.seal} size={26} />
            <span className="name">{m.name}</span>
            <span>{m.id === "blank" ? "" : `${m.count} × ${m.piece_g} g`}</span>
            <span className="why">{m.school}. {m.why}</span>
          </Method>
        ))}
      </div>
      {start.error && !fault && <Plate>{start.error.message}</Plate>}
      <div><Button data-kind="brass" onPress={send} isDisabled={start.isPending}>Start this bake</Button></div>
    </Page>
  );
}
