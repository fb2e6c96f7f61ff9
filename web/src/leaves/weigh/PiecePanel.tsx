import styled from "styled-components";
import { type Bake, Problem, type WeighSheet } from "../../api/client";
import { useBakeChange } from "../../api/queries";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Why } from "../../controls/Why";
import { useWords } from "../../frame/units";
import { PieceProfile } from "../../instruments/Profile";
import { mass } from "../../words/format";

const Piece = styled.div`
  display: grid; gap: 8px;
  .row { display: flex; flex-wrap: wrap; gap: 8px 14px; align-items: end; }
  .big { font: 700 40px/1 var(--name); }
`;
const NUMBER = /^\s*\d+([.,]\d+)?\s*[a-z]*\s*$/i;

/** How the dough divides and how thin it rolls. */
export function PiecePanel({ bake, sheet }: { bake: Bake; sheet: WeighSheet | null }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const s = bake.settings;
  const fields = change.error instanceof Problem ? change.error.fields : [];
  const fault = (name: string) => fields.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const send = (name: "count" | "piece_g" | "diameter_cm" | "thickness_mm", factor = 1) => (text: string) => {
    const value = text === "" ? null : NUMBER.test(text) ? Number.parseFloat(text.replace(",", ".")) * factor : Number.NaN;
    change.mutate({ [name]: Number.isNaN(value) ? (text as unknown as number) : value });
  };
  const ounce = units.mass === "oz" ? 28.349523 : 1;
  return (
    <Piece>
      <h2>One piece</h2>
      <div className="row">
        <Field label="breads" value={s.count === null ? "" : String(s.count)} width="4.5em" big onCommit={send("count")} fault={fault("count")} inputMode="numeric" />
        <Field label="of" value={s.piece_g === null ? "" : mass(s.piece_g, units)} width="6em" big unit={units.mass} onCommit={send("piece_g", ounce)} fault={fault("piece_g")} inputMode="decimal" />
        <Field label="across" value={s.diameter_cm === null ? "" : String(s.diameter_cm)} width="6em" big unit="cm" onCommit={send("diameter_cm")} fault={fault("diameter_cm")} inputMode="decimal" />
        <Field label="thickness, if you say one" value={s.thickness_mm === null ? "" : String(s.thickness_mm)} width="11em" unit="mm" onCommit={send("thickness_mm")} fault={fault("thickness_mm")} inputMode="decimal" />
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
      {sheet?.contradictions.map((c) => (c.code === "volume_ratio" ? <p className="quiet" key={c.code}>{c.text}</p> : <Plate key={c.code}>{c.text}</Plate>))}
      {sheet?.pieces && Math.abs(sheet.pieces.left_over_g!) > 0.5 && (
        <p className="quiet">{mass(Math.abs(sheet.pieces.left_over_g!), units)} {units.mass} {sheet.pieces.left_over_g! > 0 ? "left over" : "short"} after 2 % on bowl and hands.</p>
      )}
      {sheet?.measurable.map((m) => (
        <p className="quiet" key={String(m["ingredient"])}>
          Too little for a scale? {(m["ways"] as { text: string }[]).map((w) => w.text).join("; or ")}.
        </p>
      ))}
    </Piece>
  );
}
