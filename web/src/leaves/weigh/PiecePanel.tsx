import styled from "styled-components";
import { type Bake, Problem, type WeighSheet } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Why } from "../../controls/Why";
import { useWords } from "../../frame/units";
import { PieceProfile } from "../../instruments/Profile";
import { gramsOf, mass, typedMeasure } from "../../words/format";
import { FillingPart } from "./FillingPart";
import { OtherBreads } from "./OtherBreads";
import { MEASURED } from "./measured";
import { SAY } from "../../words/say/weigh";

const Piece = styled.div`
  display: grid;
  gap: 8px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: end;
  }
  .big {
    font: 700 40px/1 var(--name);
  }
`;
const SHAPES = [
  { id: "round", text: "round" },
  { id: "oval", text: "oval" },
  { id: "quarter", text: "quarter" },
] as const;

/** How the dough divides and how thin it rolls. */
const QUIET = new Set(["volume_ratio", "left_over", "filling_scaled"]); // said, but no contradiction

export function PiecePanel({ bake, sheet }: { bake: Bake; sheet: WeighSheet | null }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const s = bake.settings;
  const fields = change.error instanceof Problem ? change.error.fields : [];
  const fault = (name: string) => fields.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const send =
    (name: keyof typeof MEASURED, factor = 1) =>
    (text: string) =>
      change.mutate({ [name]: text === "" ? null : typedMeasure(text, MEASURED[name], factor) });
  const ounce = gramsOf(units);
  return (
    <Piece>
      <h2>One piece</h2>
      <Choice
        label={SAY.shapeOfAPiece}
        value={s.shape}
        options={SHAPES}
        onChange={(shape) =>
          change.mutate(
            shape === "oval" && s.length_cm === null
              ? { shape, length_cm: s.diameter_cm ?? 24, width_cm: 17 }
              : shape !== "oval" && s.diameter_cm === null
                ? { shape, diameter_cm: s.length_cm ?? 18 }
                : { shape },
          )
        }
      />
      <div className="row">
        <Field
          label="breads"
          value={s.count === null ? "" : String(s.count)}
          width="4.5em"
          big
          onCommit={send("count")}
          fault={fault("count")}
          inputMode="numeric"
        />
        <Field
          label="of"
          value={s.piece_g === null ? "" : mass(s.piece_g, units)}
          width="6em"
          big
          unit={units.mass}
          onCommit={send("piece_g", ounce)}
          fault={fault("piece_g")}
          inputMode="decimal"
        />
        {s.shape === "oval" ? (
          <>
            <Field
              label="long"
              value={s.length_cm === null ? "" : String(s.length_cm)}
              width="5em"
              big
              unit="cm"
              onCommit={send("length_cm")}
              fault={fault("length_cm")}
              inputMode="decimal"
            />
            <Field
              label="wide"
              value={s.width_cm === null ? "" : String(s.width_cm)}
              width="5em"
              big
              unit="cm"
              onCommit={send("width_cm")}
              fault={fault("width_cm")}
              inputMode="decimal"
            />
          </>
        ) : (
          <Field
            label={s.shape === "quarter" ? SAY.ofARoundOf : "across"}
            value={s.diameter_cm === null ? "" : String(s.diameter_cm)}
            width="6em"
            big
            unit="cm"
            onCommit={send("diameter_cm")}
            fault={fault("diameter_cm")}
            inputMode="decimal"
          />
        )}
        <Field
          label={SAY.thicknessIfYouSayOne}
          value={s.thickness_mm === null ? "" : String(s.thickness_mm)}
          width="11em"
          unit="mm"
          onCommit={send("thickness_mm")}
          fault={fault("thickness_mm")}
          inputMode="decimal"
        />
      </div>
      {sheet?.shape && (
        <div>
          gives{" "}
          <Why why={sheet.why["thickness_mm"]} label="Thickness">
            <span className="big">{sheet.shape.thickness_mm!.toFixed(1)}</span>
          </Why>{" "}
          mm
          <PieceProfile diameterCm={sheet.shape.diameter_cm!} thicknessMm={sheet.shape.thickness_mm!} width={340} />
        </div>
      )}
      {sheet?.contradictions.map((c) =>
        QUIET.has(c.code) ? (
          <p className="quiet" key={c.code}>
            {c.text}
          </p>
        ) : (
          <Plate key={c.code}>{c.text}</Plate>
        ),
      )}
      {sheet?.pieces &&
        !sheet.contradictions.some((c) => c.code === "left_over") &&
        Math.abs(sheet.pieces.left_over_g!) > Math.max(3, 0.01 * sheet.total_g) && (
          <p className="quiet">
            {mass(Math.abs(sheet.pieces.left_over_g!), units)} {units.mass}{" "}
            {sheet.pieces.left_over_g! > 0 ? "left over" : "short"} {SAY.afterOnBowlAndHands}
          </p>
        )}
      <OtherBreads bake={bake} sheet={sheet} />
      <FillingPart bake={bake} sheet={sheet} />
      {sheet?.measurable.map((m) => (
        <p className="quiet" key={String(m["ingredient"])}>
          {SAY.tooLittleForAScale} {(m["ways"] as { text: string }[]).map((w) => w.text).join("; or ")}.
        </p>
      ))}
    </Piece>
  );
}
