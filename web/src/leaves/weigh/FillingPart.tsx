import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { type Bake, Problem, type WeighSheet } from "../../api/client";
import { readList } from "../../api/weigh";
import { useBakeChange } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { useWords } from "../../frame/units";
import { gramsOf, mass, typedMeasure } from "../../words/format";
import { lineFrom } from "./EntrySheet";
import { SAY } from "../../words/say/weigh";

const Part = styled.div`
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--hair);
  padding-top: 8px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
  }
  li {
    display: flex;
    justify-content: space-between;
    gap: 10px;
    border-bottom: 1px solid var(--hair);
    min-height: 48px;
    align-items: center;
  }
`;

/** A stuffing or a topping: what is in it, what each piece gets, and how heavy it is against its dough. */
export function FillingPart({ bake, sheet }: { bake: Bake; sheet: WeighSheet | null }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const [text, setText] = useState("");
  const [open, setOpen] = useState(false);
  const have = bake.settings.filling;
  const lines = have?.lines ?? [];
  const put = (next: typeof lines, each = have?.per_piece_g ?? null) =>
    change.mutate({
      filling: next.length ? { lines: next, per_piece_g: each, topping: have?.topping ?? false } : null,
    });
  const read = useMutation({
    mutationFn: (t: string) => readList(bake.kitchen_id, t),
    onSuccess: ({ lines: [line] }) => {
      if (!line || line.faults.length) return;
      put([...lines, lineFrom(line)]);
      setText("");
    },
  });
  const fault = text ? (read.data?.lines[0]?.faults.join(" ") ?? null) : null;
  if (!have && !open)
    return (
      <div data-print="no">
        <Button onPress={() => setOpen(true)}>{SAY.aFillingOrTopping}</Button>
      </div>
    );
  const got = sheet?.filling;
  const per = change.error instanceof Problem ? change.error.message : null;
  return (
    <Part>
      <h2>{have?.topping ? "Topping" : "Filling"}</h2>
      <ul>
        {lines.map((l, i) => (
          <li key={`${l.ingredient}-${i}`}>
            <span>{got?.lines[i]?.name ?? l.ingredient}</span>
            <span>
              <b>{got?.lines[i] ? `${mass(got.lines[i].grams, units)} ${units.mass}` : l.amount}</b>{" "}
              <Button data-kind="bare" onPress={() => put(lines.filter((_, k) => k !== i))}>
                out
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {got && (
        <p>
          <b>
            {mass(got.per_piece_g, units)} {units.mass}
          </b>{" "}
          a piece, {mass(got.total_g, units)} {units.mass} in all, {(got.to_dough_frac * 100).toFixed(0)} % of its dough
          {got.to_dough_frac > 0.5 ? SAY.moreThanTheDoughCanClose : ""}
        </p>
      )}
      <div className="row" data-print="no">
        <Field
          label="add to it"
          value={text}
          placeholder="40 g pistachio"
          width="11em"
          onType={setText}
          onCommit={(t) => t && read.mutate(t)}
          fault={fault}
        />
        <Field
          label="each piece gets"
          value={have?.per_piece_g ? mass(have.per_piece_g, units) : ""}
          unit={units.mass}
          width="7em"
          onCommit={(t) => put([...lines], t === "" ? null : typedMeasure(t, "g", gramsOf(units)))}
          fault={per}
          inputMode="decimal"
        />
      </div>
    </Part>
  );
}
