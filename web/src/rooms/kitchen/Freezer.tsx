import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { useNow } from "../../api/clock";
import { freezerQuery, thawQuery, useFreezer } from "../../api/freezer";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { clockNear, mass, monthDay } from "../../words/format";

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
  const { take, back, remove, restore } = useFreezer(kitchen);
  const [gone, setGone] = useState<number | null>(null);
  const rows = stock.data?.rows ?? [];
  const error = take.error ?? back.error ?? remove.error ?? restore.error ?? stock.error;
  return (
    <section aria-label="Freezer">
      <h2>Freezer</h2>
      {stock.data && rows.length === 0 && (
        <p className="quiet">Nothing is frozen. Freeze what is left of a bake on its Keep leaf.</p>
      )}
      <List>
        {rows.map((x) => (
          <li key={x.id}>
            <b>{x.left}</b>
            <span className="grow">
              {x.name}, {mass(x.mass_g, units)} {units.mass} each
              <span className="quiet">
                {" "}
                frozen {clockNear(x.frozen_at, now, units.zone)}, best until {monthDay(x.best_by, units.zone)}, good
                until {monthDay(x.use_by, units.zone)}
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
          It is off the list.{" "}
          <Button data-kind="bare" onPress={() => restore.mutate(gone)}>
            undo
          </Button>
        </p>
      )}
      {error && <Plate>{error.message}</Plate>}
      {rows.some((x) => x.left > 0) && <ForATable kitchen={kitchen} />}
    </section>
  );
}

/** What to take out, and when, so that so many are warm at a table. */
function ForATable({ kitchen }: { kitchen: number }) {
  const units = useWords();
  const now = useNow(60_000);
  const [wanted, setWanted] = useState("");
  const [serve, setServe] = useState("");
  const count = Number.parseInt(wanted, 10);
  const ready = count >= 1 && serve.trim() !== "";
  const plan = useQuery({ ...thawQuery(kitchen, count, serve.trim()), enabled: ready });
  return (
    <>
      <div className="row">
        <Field
          label="warm at a table"
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
      </div>
      {ready && plan.data && (
        <ol aria-label="What to take out">
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
    </>
  );
}
