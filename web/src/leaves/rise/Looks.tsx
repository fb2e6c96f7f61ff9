import { useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useRead, useUnread } from "../../api/rise";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { Poke } from "../../instruments/Poke";
import { ms, readTemp, span, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/rise";

const Box = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 6px 14px;
  align-items: start;
  h3 {
    font: 600 18px/1.2 var(--name);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 10px;
    align-items: end;
  }
  .tells {
    flex: 1 1 8em;
  }
  .pokes {
    display: flex;
    gap: 6px;
  }
  .poke {
    display: grid;
    justify-items: center;
    gap: 2px;
    font-size: 16px;
  }
  > .wide {
    grid-column: 1 / -1;
  }
  ul {
    display: flex;
    flex-wrap: wrap;
    gap: 0 22px;
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr);
  }
  li {
    display: flex;
    gap: 12px;
    align-items: center;
    font-family: var(--mono);
  }
`;
type Kind = "ratio" | "jar" | "dough_c";
const FEELS = [
  { id: "not_yet", text: "not yet", shows: "springs back", poke: SAY.springsBackAtOnce },
  { id: "just", text: "just", shows: "half back", poke: SAY.comesBackSlowlyByHalf },
  { id: "past", text: "past", shows: "dent stays", poke: "the dent stays" },
] as const;

/** A look at the dough: how high, the jar's mark, a thermometer, a poke. Each corrects the forecast; each can be undone. */
export function Looks({ bake, rise, at }: { bake: Bake; rise: Schemas["RiseRead"]; at: (t: number) => string }) {
  const units = useWords();
  const read = useRead(bake.id);
  const unread = useUnread(bake.id);
  const [kind, setKind] = useState<Kind>("ratio");
  const [said, setSaid] = useState("");
  const [when, setWhen] = useState("");
  const start = rise.jar[0]?.start_mm ?? 30;
  const number = Number.parseFloat(said.replace(",", ".").replace(/[x×]|mm/i, ""));
  const value =
    kind === "dough_c"
      ? readTemp(said, units)
      : Number.isNaN(number)
        ? null
        : kind === "jar"
          ? Math.round((number / start) * 1000) / 1000
          : number;
  const send = () =>
    read.mutate(
      { bake_id: bake.id, kind, value: (value ?? said) as number, at: when || null },
      {
        onSuccess: () => {
          setSaid("");
          setWhen("");
        },
      },
    );
  const words = (r: Schemas["ReadingRead"]) =>
    r.kind === "feel"
      ? r.feel?.replace("_", " ")
      : r.kind === "dough_c"
        ? `${temp(r.value ?? 0, units, 1)} ${tempUnit(units)} inside`
        : `${r.value?.toFixed(2)} ×${r.kind === "jar" ? " by the jar" : ""}`;
  const off = rise.offsets_c["room"] ?? 0;
  return (
    <Box data-print="no">
      <div>
        <h3>{SAY.howHighIsIt}</h3>
        <div className="row">
          <Pick
            label="what"
            value={kind}
            options={[
              { id: "ratio", text: "times its start" },
              { id: "jar", text: "the jar, mm" },
              { id: "dough_c", text: "dough inside" },
            ]}
            onChange={setKind}
          />
          <Field
            label="reads"
            value={said}
            placeholder={kind === "ratio" ? "1.4" : kind === "jar" ? (start * 1.4).toFixed(0) : "24.5"}
            unit={kind === "ratio" ? "×" : kind === "jar" ? "mm" : tempUnit(units)}
            width="5.500em"
            onType={setSaid}
            onCommit={setSaid}
            inputMode="decimal"
          />
          <Field label="when" value={when} placeholder="now" width="5em" onType={setWhen} onCommit={setWhen} />
        </div>
        <div className="row" style={{ alignItems: "center", paddingTop: 6 }}>
          <Button data-kind="brass" onPress={send} isDisabled={!said || read.isPending}>
            Note it
          </Button>
          {rise.worth[0] && (
            <span className="quiet tells">
              tells most: {rise.worth[0].words}
              {rise.worth[0].at ? ` at ${at(ms(rise.worth[0].at))}` : ""}
              {SAY.narrowsTheHourBy} {span(rise.worth[0].narrows_min * 60e3)}
            </span>
          )}
        </div>
      </div>
      <div role="group" aria-label={SAY.pokeItWithAFlouredFinger}>
        <h3>{SAY.pokeItWithAFlouredFinger}</h3>
        <div className="pokes">
          {FEELS.map((f) => (
            <span className="poke" key={f.id}>
              <Poke feel={f.id} />
              <Button
                data-kind="bare"
                aria-label={`${f.text}: ${f.poke}`}
                onPress={() => read.mutate({ bake_id: bake.id, kind: "feel", feel: f.id, at: when || null })}
              >
                {f.shows}
              </Button>
            </span>
          ))}
        </div>
      </div>
      {read.error && (
        <div className="wide">
          <Plate>{read.error.message}</Plate>
        </div>
      )}
      <ul className="wide">
        {[...rise.readings].reverse().map((r) => (
          <li key={r.id}>
            {at(ms(r.at))} {words(r)}
            <Button data-kind="bare" onPress={() => unread.mutate(r.id)}>
              undo
            </Button>
          </li>
        ))}
      </ul>
      {Math.abs(off) >= 0.3 && (
        <p className="quiet wide">
          {SAY.byItsThermometerTheDoughsPlace} {Math.abs(off).toFixed(1)} K {off > 0 ? "warmer" : "colder"}{" "}
          {SAY.thanPlannedTheForecastTookThat}
        </p>
      )}
    </Box>
  );
}
