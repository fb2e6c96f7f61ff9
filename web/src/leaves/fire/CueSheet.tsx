import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { Problem, type Schemas } from "../../api/client";
import { askCue } from "../../api/fire";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { Sheet } from "../../controls/Sheet";
import { useWords } from "../../frame/units";
import { typedSeconds, typedTemp, temp, tempUnit, Z10 } from "../../words/format";
import { SAY } from "../../words/say/fire";

type Cue = Schemas["CueRequest"]["cue"];
const CUES: readonly { id: Cue; text: string }[] = [
  { id: "flour_gold", text: "flour" },
  { id: "water_drops", text: "water" },
  { id: "oil_smoke", text: "fat" },
  { id: "dough_pinch", text: "dough in oil" },
  { id: "infrared", text: "infrared" },
];
const WATER = [
  { id: "lies", text: "lies there" },
  { id: "sizzles", text: "sizzles away" },
  { id: "vanishes", text: "bursts, is gone" },
  { id: "dances", text: SAY.runsAsABead },
] as const;
const DOUGH = [
  { id: "sinks", text: "sinks" },
  { id: "rises_slowly", text: "rises slowly" },
  { id: "rises", text: SAY.comesUpAtOnce },
  { id: "browns_at_once", text: "browns within seconds" },
] as const;
const FATS = [
  { id: "butter", text: "butter" },
  { id: "olive_extra", text: "extra-virgin olive oil" },
  { id: "sunflower", text: "sunflower oil" },
  { id: "rapeseed", text: "rapeseed oil" },
  { id: "groundnut", text: "groundnut oil" },
  { id: "ghee", text: "ghee" },
  { id: "mustard", text: "mustard oil" },
] as const;
const METALS = [
  { id: "iron_seasoned", text: "seasoned iron" },
  { id: "bare_steel", text: "bare steel" },
  { id: "stone", text: "stone" },
  { id: "clay", text: "clay" },
  { id: "aluminium", text: "aluminium" },
] as const;
const TELL: Record<Cue, string> = {
  flour_gold: SAY.dustAPinchOfFlourOn,
  water_drops: SAY.letOneDropOfWaterFall,
  oil_smoke: SAY.aThinFilmOfFatGives,
  dough_pinch: SAY.dropAPinchOfDoughInto,
  infrared: SAY.whatDoesTheThermometerReadAnd,
};
/** The standard deviation of a band [K], within what is kept. */
const spreadOf = (b: Schemas["Banded"]): number =>
  Math.min(Math.max(Math.round(((b.p90 ?? 0) - (b.p10 ?? 0)) / 2 / Z10), 2), 60);
const Answer = styled.div`
  border-top: 2px solid var(--ink);
  padding-top: 10px;
  display: grid;
  gap: 10px;
  b {
    font: 700 42px/1 var(--name);
  }
`;

/** How hot it is without a probe in it: a sign of flour, water, fat or dough, or an infrared reading put right. */
export function CueSheet({
  isOpen,
  onClose,
  onUse,
}: {
  isOpen: boolean;
  onClose: () => void;
  onUse: (surfaceC: number, source: "sign" | "infrared", sdK: number) => void;
}) {
  const units = useWords();
  const [cue, setCue] = useState<Cue>("flour_gold");
  const [typed, setTyped] = useState("");
  const [metal, setMetal] = useState<(typeof METALS)[number]["id"]>("iron_seasoned");
  const [fat, setFat] = useState<(typeof FATS)[number]["id"]>("sunflower");
  const ask = useMutation({
    mutationFn: (body: Partial<Schemas["CueRequest"]>) => askCue({ cue, emissivity: 0.95, ...body }),
  });
  const deg = (c: number | null) => (c === null ? "–" : `${temp(c, units)} ${tempUnit(units)}`);
  const found = ask.data;
  const fault =
    ask.error instanceof Problem ? (ask.error.fields[0]?.detail ?? ask.error.message) : (ask.error?.message ?? null);
  return (
    <Sheet title={SAY.howHotIsIt} isOpen={isOpen} onClose={onClose}>
      <Choice
        label="By which sign"
        value={cue}
        options={CUES}
        onChange={(c) => {
          setCue(c);
          setTyped("");
          ask.reset();
        }}
      />
      <p>{TELL[cue]}</p>
      {cue === "flour_gold" && (
        <Field
          label="golden after"
          value={typed}
          unit="s"
          width="7em"
          big
          inputMode="decimal"
          onCommit={(t) => {
            setTyped(t);
            ask.mutate({ seconds: typedSeconds(t) });
          }}
        />
      )}
      {cue === "water_drops" && (
        <Choice label="The drop" value={null} options={WATER} onChange={(behaviour) => ask.mutate({ behaviour })} />
      )}
      {cue === "dough_pinch" && (
        <Choice label="The dough" value={null} options={DOUGH} onChange={(behaviour) => ask.mutate({ behaviour })} />
      )}
      {cue === "oil_smoke" && (
        <>
          <Pick label="Fat" value={fat} options={FATS} onChange={setFat} />
          <Button onPress={() => ask.mutate({ fat })}>It smokes now</Button>
        </>
      )}
      {cue === "infrared" && (
        <>
          <Pick label="It looks at" value={metal} options={METALS} onChange={setMetal} />
          <Field
            label="the thermometer says"
            value={typed}
            unit={tempUnit(units)}
            width="7em"
            big
            inputMode="decimal"
            onCommit={(t) => {
              setTyped(t);
              ask.mutate({ material: metal, reads_c: typedTemp(t, units) });
            }}
          />
        </>
      )}
      {fault && <Plate>{fault}</Plate>}
      {found && (
        <Answer role="status">
          <span>
            <b>{deg(found.surface_c.p50)}</b> between {deg(found.surface_c.p10)} and {deg(found.surface_c.p90)}
          </span>
          <p>{found.text}</p>
          <Button
            data-kind="brass"
            onPress={() => {
              onUse(
                Math.round(found.surface_c.p50!),
                cue === "infrared" ? "infrared" : "sign",
                spreadOf(found.surface_c),
              );
              onClose();
            }}
          >
            Reckon with {deg(found.surface_c.p50)}
          </Button>
        </Answer>
      )}
    </Sheet>
  );
}
