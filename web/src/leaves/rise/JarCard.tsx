import { useState } from "react";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { useWords } from "../../frame/units";
import { JarRule } from "../../instruments/JarRule";
import { mass } from "../../words/format";
import { SAY } from "../../words/say/rise";

const Box = styled.section`
  border-top: 2px solid var(--ink);
  margin-top: 16px;
  padding-top: 10px;
  display: grid;
  gap: 10px;
  break-inside: avoid;
  .card {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 34px;
    align-items: flex-start;
  }
  ol {
    list-style: decimal;
    padding-left: 22px;
    max-width: 46ch;
    display: grid;
    gap: 4px;
  }
`;

/** The card for the straight jar: how much dough to cut, where the mark goes, in true millimetres when printed. */
export function JarCard({ bake }: { bake: Bake }) {
  const units = useWords();
  const [across, setAcross] = useState("6");
  const marks = bake.rise?.jar ?? [];
  const cm = Number(across.replace(",", "."));
  const good = Number.isFinite(cm) && cm >= 2 && cm <= 20;
  const start = marks[0]?.start_mm ?? 30;
  const grams = good ? (Math.PI / 4) * cm * cm * (marks[0]?.sample_g_cm2 ?? 0) : 0;
  return (
    <Box aria-label={SAY.cardForTheStraightJar}>
      <h2>The straight jar</h2>
      <div className="card">
        <JarRule marks={marks.map((m) => ({ name: m.stage, ratio: m.ratio, mm: m.mark_mm }))} startMm={start} />
        <ol>
          <li>
            {SAY.rightAfterMixingCut}{" "}
            {good ? (
              <b>
                {mass(grams, units)} {units.mass}
              </b>
            ) : (
              "a piece"
            )}{" "}
            {SAY.fromTheDoughRoundItPress} {start.toFixed(0)} {SAY.mmHighLidOnLoosely}
          </li>
          {marks.map((m) => (
            <li key={m.stage}>
              {m.stage}: {m.ratio} × is <b>{m.mark_mm.toFixed(0)} mm</b> {SAY.fromTheInnerFloorPutA}
              {m.stage === marks[0]?.stage ? "" : SAY.startAgainFromTheBalls}.
            </li>
          ))}
          <li>{SAY.standItBesideTheDoughIn}</li>
        </ol>
        <div data-print="no" style={{ display: "grid", gap: 8 }}>
          <Field
            label={SAY.theJarIsInside}
            value={across}
            unit="cm"
            width="7em"
            onType={setAcross}
            onCommit={setAcross}
            fault={good ? null : SAY.aJarOfToCmAcross}
            inputMode="decimal"
          />
          <Button onPress={() => window.print()}>Print</Button>
        </div>
      </div>
    </Box>
  );
}
