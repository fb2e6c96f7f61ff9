import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { freezerQuery, thawQuery, useFreezer } from "../../api/freezer";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useAt, useWords } from "../../frame/units";
import { clockNear, mass, monthDay } from "../../words/format";
import { SAY } from "../../words/say/freezer";

type Serving = Schemas["ServingRead"];

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: center;
    min-height: 52px;
    border-bottom: 1px solid var(--hair);
  }
  b {
    font: 700 24px/1 var(--name);
  }
  .grow {
    flex: 1 1 16em;
  }
`;

/** What is in the freezer, the oldest first, and what to take out for a table. */
export function Freezer({ kitchen }: { kitchen: number }) {
  const units = useWords();
  const now = useNow(60_000);
  const stock = useQuery(freezerQuery(kitchen));
  const { take, back, remove, restore, mark } = useFreezer(kitchen);
  const cancelled = mark.variables?.cancelled ? mark.variables.serving : undefined;
  const [gone, setGone] = useState<number | null>(null);
  const rows = stock.data?.rows ?? [];
  const error = take.error ?? back.error ?? remove.error ?? restore.error ?? stock.error;
  return (
    <section aria-label="Freezer">
      <h2>Freezer</h2>
      {stock.data && rows.length === 0 && <p className="quiet">{SAY.nothingIsFrozenFreezeWhatIs}</p>}
      <List>
        {rows.map((x) => (
          <li key={x.id}>
            <b>{x.left}</b>
            <span className="grow">
              {x.name}, {mass(x.mass_g, units)} {units.mass} each
              <span className="quiet">
                {" "}
                {x.divided ? "" : "in one block, "}frozen {clockNear(x.frozen_at, now, units.zone)}, best until{" "}
                {monthDay(x.best_by, units.zone)}, good until {monthDay(x.use_by, units.zone)}
              </span>
            </span>
            <Button isDisabled={x.left < 1} onPress={() => take.mutate({ row: x.id, count: 1 })}>
              take one out
            </Button>
            {x.left < x.count && (
              <Button data-kind="bare" onPress={() => back.mutate(x.id)}>
                put back
              </Button>
            )}
            <Button
              data-kind="bare"
              onPress={() => {
                setGone(x.id);
                remove.mutate(x.id);
              }}
            >
              off the list
            </Button>
          </li>
        ))}
      </List>
      {gone !== null && !rows.some((x) => x.id === gone) && (
        <p>
          {SAY.itIsOffTheList}{" "}
          <Button data-kind="bare" onPress={() => restore.mutate(gone)}>
            undo
          </Button>
        </p>
      )}
      {error && <Plate>{error.message}</Plate>}
      {rows.some((x) => x.left > 0) && <ForATable kitchen={kitchen} />}
      {stock.data?.servings.map((x) => (
        <Table
          key={x.id}
          kitchen={kitchen}
          serving={x}
          onCancel={() => mark.mutate({ serving: x.id, cancelled: true, done: true })}
        />
      ))}
      {cancelled !== undefined && !stock.data?.servings.some((x) => x.id === cancelled) && (
        <p>
          {SAY.thatServingIsOffTheRule}{" "}
          <Button data-kind="bare" onPress={() => mark.mutate({ serving: cancelled, cancelled: false, done: true })}>
            undo
          </Button>
        </p>
      )}
    </section>
  );
}

/** What to take out, and when, so that so many are warm at a table; a press puts it on the Rule. */
function ForATable({ kitchen }: { kitchen: number }) {
  const units = useWords();
  const now = useNow(60_000);
  const { plan: put } = useFreezer(kitchen);
  const [wanted, setWanted] = useState("");
  const [serve, setServe] = useState("");
  const count = Number.parseInt(wanted, 10);
  const ready = count >= 1 && serve.trim() !== "";
  const plan = useQuery({ ...thawQuery(kitchen, count, serve.trim()), enabled: ready });
  return (
    <>
      <div className="row">
        <Field
          label="served warm at"
          value={wanted}
          placeholder="8"
          width="7em"
          inputMode="numeric"
          onType={setWanted}
          onCommit={setWanted}
        />
        <Field
          label="when"
          value={serve}
          placeholder="friday evening"
          width="11em"
          onType={setServe}
          onCommit={setServe}
          fault={ready ? (plan.error?.message ?? null) : null}
        />
        {ready && plan.data && plan.data.moves.length > 0 && (
          <Button
            data-kind="brass"
            isDisabled={put.isPending}
            onPress={() => put.mutate({ wanted: count, serve: serve.trim() }, { onSuccess: () => setWanted("") })}
          >
            {SAY.putItOnTheRule}
          </Button>
        )}
      </div>
      {ready && plan.data && (
        <ol aria-label={SAY.whatToTakeOut}>
          {plan.data.moves.map((m) => (
            <li key={`${m.row_id} ${m.at}`}>
              <b>{clockNear(m.at, now, units.zone)}</b>: {m.count} × {m.name}, {m.way}
            </li>
          ))}
          {plan.data.said.map((s) => (
            <li key={s} className="quiet">
              {s}
            </li>
          ))}
        </ol>
      )}
      {put.error && <Plate>{put.error.message}</Plate>}
    </>
  );
}

/** A table that is served from the freezer: its moves, each marked when it is done. */
function Table({ kitchen, serving, onCancel }: { kitchen: number; serving: Serving; onCancel: () => void }) {
  const at = useAt();
  const { mark } = useFreezer(kitchen);
  const set = (number: number, what: "taken" | "heated", done: boolean) =>
    mark.mutate({ serving: serving.id, number, what, done });
  return (
    <section aria-label={`Serving at ${at(serving.serve_at)}`} style={{ marginTop: 22 }}>
      <h3>
        {serving.wanted} warm at {at(serving.serve_at)}
      </h3>
      <List>
        {serving.moves.map((m) => {
          const apart = m.at !== m.heat_at;
          return (
            <li key={m.number}>
              <span className="grow">
                <b>{at(apart && !m.taken_at ? m.at : m.heat_at)}</b>{" "}
                {apart && !m.taken_at ? "take out" : m.heated_at ? "heated" : "heat"} {m.count} × {m.name}
                <span className="quiet">, {m.way}</span>
              </span>
              {apart && !m.taken_at && <Button onPress={() => set(m.number, "taken", true)}>Taken out</Button>}
              {(!apart || m.taken_at) && !m.heated_at && (
                <Button data-kind="brass" onPress={() => set(m.number, "heated", true)}>
                  Heated
                </Button>
              )}
              {(m.heated_at ?? m.taken_at) && (
                <Button data-kind="bare" onPress={() => set(m.number, m.heated_at ? "heated" : "taken", false)}>
                  undo
                </Button>
              )}
            </li>
          );
        })}
      </List>
      <Button data-kind="bare" onPress={onCancel}>
        not this serving
      </Button>
      {mark.error && <Plate>{mark.error.message}</Plate>}
    </section>
  );
}
