import type { Schemas } from "../../api/client";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Sheet } from "../../controls/Sheet";
import { Ticks } from "../../controls/Ticks";
import { FAULTS, type FaultId } from "../../words/faults";
import { SAY } from "../../words/say/keep";

type Outcome = Schemas["OutcomeRead"];
type Words = Omit<Schemas["OutcomeUpdate"], "round_no">;
const COLOURS = [
  { id: "pale", text: "pale" },
  { id: "right", text: "right" },
  { id: "dark", text: "dark" },
] as const;
const TENDER = [
  { id: "tender", text: "tender" },
  { id: "chewy", text: "chewy" },
  { id: "tough", text: "tough" },
] as const;

/** What else there is to say of a bread: its other side, how it eats, what went wrong, a note. */
export function AlsoSheet({
  open,
  title,
  outcome,
  onSay,
  onClose,
}: {
  open: boolean;
  title: string;
  outcome: Outcome | undefined;
  onSay: (words: Words) => void;
  onClose: () => void;
}) {
  return (
    <Sheet title={title} isOpen={open} onClose={onClose}>
      <h3>Its other side</h3>
      <Choice
        label={SAY.colourOfTheOtherSide}
        value={outcome?.colour_top ?? null}
        options={COLOURS}
        onChange={(colour_top) => onSay({ colour_top })}
      />
      <h3>How it eats</h3>
      <Choice
        label="How it eats"
        value={outcome?.tender ?? null}
        options={TENDER}
        onChange={(tender) => onSay({ tender })}
      />
      <h3>What went wrong</h3>
      <Ticks
        label="What went wrong"
        value={(outcome?.faults ?? []) as FaultId[]}
        options={FAULTS}
        onChange={(faults) => onSay({ faults })}
      />
      <Field label="note" value={outcome?.note ?? ""} width="100%" onCommit={(note) => onSay({ note })} />
    </Sheet>
  );
}
