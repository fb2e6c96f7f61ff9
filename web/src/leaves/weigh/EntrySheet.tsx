import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Label, TextArea, TextField } from "react-aria-components";
import styled from "styled-components";
import { type Bake, type Schemas } from "../../api/client";
import { ingredientsQuery, readList } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { Sheet } from "../../controls/Sheet";
import type { Formula, Line } from "./useFormula";
import { lower, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/weigh";

const Box = styled(TextField)`
  display: grid;
  gap: 4px;
  textarea {
    width: 100%;
    min-height: 190px;
    border: 2px solid var(--ink);
    background: var(--paper);
    padding: 10px;
    font: 500 18px/1.4 var(--text);
    resize: vertical;
  }
`;
const Read = styled.ul`
  li {
    display: grid;
    grid-template-columns: 26px minmax(0, 1fr);
    gap: 6px;
    padding: 6px 0;
    border-bottom: 1px solid var(--hair);
  }
  .fault {
    grid-column: 2;
    font-size: 16px;
    font-weight: 650;
  }
`;

type Entry = Schemas["EntryLineRead"];
/** What a line beside the dough is for. */
const BESIDE: Record<NonNullable<Entry["purpose"]>, string> = {
  fry: "for the pan",
  brush: "for brushing",
  dust: "for dusting",
  bowl: "for the bowl",
  serve: "for serving",
};
export const lineFrom = (e: Entry): Line => ({
  ingredient: e.ingredient!,
  amount: e.amount!,
  basis: e.basis,
  part: "",
});

/** A whole list, pasted or typed: read line by line; what cannot be read goes on the sheet as words. */
export function EntrySheet({
  bake,
  formula,
  open,
  onClose,
}: {
  bake: Bake;
  formula: Formula;
  open: boolean;
  onClose: () => void;
}) {
  const units = useWords();
  const [text, setText] = useState("");
  const read = useMutation({ mutationFn: (t: string) => readList(bake.kitchen_id, t) });
  const known = useQuery(ingredientsQuery(bake.kitchen_id)).data ?? [];
  const named = (id: string) => lower(known.find((row) => row.id === id)?.name ?? id.replace(/_/g, " "));
  const lines = text.trim() ? (read.data?.lines ?? []) : [];
  const good = lines.filter((l) => l.faults.length === 0 && !l.purpose);
  const beside = lines.filter((l) => l.faults.length === 0 && l.purpose);
  const bad = lines.filter((l) => l.faults.length > 0);
  const steps = text.trim() ? (read.data?.steps ?? []) : [];
  const type = (t: string) => {
    setText(t);
    if (t.trim()) read.mutate(t);
  };
  const put = () => {
    formula.put([...formula.lines.filter((l) => l.ingredient || l.amount), ...good.map(lineFrom)]);
    const said = [...beside.map((l) => SAY.besideTheDough(l.raw)), ...steps];
    if (said.length > 0) formula.change.mutate({ note: [bake.settings.note, ...said].filter(Boolean).join("\n") });
    const warm = good.filter((l) => l.temp_c != null).map((l) => [l.ingredient!, l.temp_c!] as const);
    if (warm.length > 0)
      formula.change.mutate({ part_temps: { ...bake.settings.part_temps, ...Object.fromEntries(warm) } });
    if (bad.length > 0) formula.change.mutate({ unread: [...bake.settings.unread, ...bad.map((l) => l.raw)] });
    setText("");
    onClose();
  };
  return (
    <Sheet title={SAY.aListOneIngredientALine} isOpen={open} onClose={onClose}>
      <Box value={text} onChange={type}>
        <Label>{SAY.pasteItOrWriteItAs}</Label>
        <TextArea placeholder={SAY.cupsPlainFlourPacketInstantYeast} />
      </Box>
      {read.error && <Plate>{read.error.message}</Plate>}
      <Read aria-label="How it reads" aria-live="polite">
        {lines.map((l, i) => (
          <li key={i}>
            <span aria-hidden="true">{l.faults.length ? "?" : "✓"}</span>
            <span>
              {l.faults.length ? l.raw : `${l.amount ?? ""} ${named(l.ingredient!)}`.trim()}
              {l.purpose ? `, ${BESIDE[l.purpose]}: beside the dough` : ""}
              {l.basis ? `, ${l.basis}` : ""}
              {l.temp_c != null && !l.purpose ? `, at ${temp(l.temp_c, units)} ${tempUnit(units)}` : ""}
            </span>
            {[...l.faults, ...(l.note ? [l.note] : [])].map((f) => (
              <span className="fault" key={f}>
                {f}
              </span>
            ))}
          </li>
        ))}
        {steps.map((words, i) => (
          <li key={`step ${i}`} className="quiet">
            <span aria-hidden="true">¶</span>
            <span>{words}</span>
          </li>
        ))}
      </Read>
      {steps.length > 0 && <p className="quiet">{SAY.linesForTheNote}</p>}
      <Button data-kind="brass" isDisabled={lines.length === 0 || read.isPending} onPress={put}>
        {bad.length ? SAY.putOnTheSheetKeepTo(good.length, bad.length) : SAY.putOnTheSheet(good.length || "them")}
      </Button>
    </Sheet>
  );
}
