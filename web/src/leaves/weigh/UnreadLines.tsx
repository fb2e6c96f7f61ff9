import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { readList } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { lineFrom } from "./EntrySheet";
import type { Formula } from "./useFormula";
import { SAY } from "../../words/say/weigh";

const List = styled.div`
  border: 2px dashed var(--ink);
  padding: 8px 12px;
  display: grid;
  gap: 8px;
  margin-top: 8px;
  .row {
    display: flex;
    gap: 12px;
    align-items: end;
    flex-wrap: wrap;
  }
`;

/** Lines that could not be read stay in sight until they are corrected or let go. */
export function UnreadLines({ bake, formula }: { bake: Bake; formula: Formula }) {
  const { unread } = bake.settings;
  if (unread.length === 0) return null;
  return (
    <List role="group" aria-label="Lines to correct">
      <h2>{unread.length === 1 ? "One line" : `${unread.length} lines`} to correct</h2>
      {unread.map((raw, i) => (
        <Unread key={i} raw={raw} bake={bake} formula={formula} at={i} />
      ))}
    </List>
  );
}

function Unread({ raw, bake, formula, at }: { raw: string; bake: Bake; formula: Formula; at: number }) {
  const [told, setTold] = useState({ of: "", words: "" });
  const fault = told.of === raw ? told.words : null;
  const rest = bake.settings.unread.filter((_, k) => k !== at);
  const read = useMutation({
    mutationFn: (text: string) => readList(bake.kitchen_id, text),
    onSuccess: ({ lines: [line] }, text) => {
      if (line && line.faults.length === 0) {
        formula.put([...formula.lines, lineFrom(line)]);
        formula.change.mutate({ unread: rest });
        return;
      }
      setTold({ of: text, words: line?.faults.join(" ") ?? SAY.writeAnAmountAndAnIngredient });
      formula.change.mutate({ unread: bake.settings.unread.map((old, k) => (k === at ? text : old)) });
    },
  });
  return (
    <div className="row">
      <Field
        label={`Line to correct ${at + 1}`}
        hideLabel
        value={raw}
        width="min(100%, 24em)"
        fault={fault}
        onCommit={(text) => text && read.mutate(text)}
      />
      <Button data-kind="bare" onPress={() => formula.change.mutate({ unread: rest })}>
        leave it out
      </Button>
      {!fault && <span className="quiet">{SAY.nameAndAmountAsInG}</span>}
    </div>
  );
}
