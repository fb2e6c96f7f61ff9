import { useState } from "react";
import styled from "styled-components";
import { type Bake, Problem, type Schemas, type WeighSheet } from "../../api/client";
import { useScale } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Sheet } from "../../controls/Sheet";
import { useWords } from "../../frame/units";
import { gramsOf, mass, typedMeasure } from "../../words/format";
import type { Formula } from "./useFormula";
import { SAY } from "../../words/say/weigh";

const Rows = styled.div`
  display: grid;
  gap: 12px;
  justify-items: start;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 16px;
    align-items: end;
  }
`;
const WAYS = [
  { id: "pieces", text: "breads" },
  { id: "flour", text: "flour" },
  { id: "limits", text: "what runs out" },
  { id: "tray", text: "what fits" },
] as const;
type Way = (typeof WAYS)[number]["id"];

/** Scale the formula: to breads, to flour, to what there is, or to what lies on the surface at once. */
export function ScaleSheet({
  bake,
  sheet,
  formula,
  open,
  onClose,
}: {
  bake: Bake;
  sheet: WeighSheet | null;
  formula: Formula;
  open: boolean;
  onClose: () => void;
}) {
  const units = useWords();
  const scale = useScale(bake.id);
  const [way, setWay] = useState<Way>("pieces");
  const [said, setSaid] = useState<Record<string, string>>({});
  const text = (key: string, fallback = "") => said[key] ?? fallback;
  const type = (key: string) => (t: string) => setSaid((had) => ({ ...had, [key]: t }));
  const number = (key: string, field: "count" | "cm" | "g", fallback = "", times = 1) =>
    text(key, fallback).trim() === "" ? null : typedMeasure(text(key, fallback), field, times);
  const weight = (key: string, fallback = "") => number(key, "g", fallback, gramsOf(units));
  const count = String(bake.settings.count ?? 8);
  const piece = bake.settings.piece_g ? mass(bake.settings.piece_g, units) : "";
  const limited = formula.lines.filter((l) => l.ingredient && text(`limit-${l.ingredient}`).trim());
  const body: Schemas["ScaleUpdate"] =
    way === "pieces"
      ? { count: number("count", "count", count), mass_g: weight("piece", piece) }
      : way === "flour"
        ? { flour_g: weight("flour") }
        : way === "limits"
          ? { limits: limited.map((l) => ({ ingredient: l.ingredient, amount: text(`limit-${l.ingredient}`) })) }
          : {
              tray_width_cm: number("width", "cm"),
              tray_depth_cm: number("depth", "cm"),
              loads: number("loads", "count", "1") ?? 1,
            };
  const faults = scale.error instanceof Problem ? scale.error.fields : [];
  const fault = (name: string) => faults.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const go = () =>
    scale.mutate(body, {
      onSuccess: () => {
        formula.renewed();
        onClose();
      },
    });
  const names = new Map(sheet?.lines.map((l) => [l.ingredient, l.name]));
  return (
    <Sheet title="Scale the formula" isOpen={open} onClose={onClose}>
      <Rows>
        <Choice label="Scale to" value={way} options={WAYS} onChange={setWay} />
        {way === "pieces" && (
          <div className="row">
            <Field
              label="breads"
              big
              width="5em"
              value={text("count", count)}
              onType={type("count")}
              onCommit={type("count")}
              fault={fault("count")}
              inputMode="numeric"
            />
            <Field
              label="of"
              big
              width="6em"
              unit={units.mass}
              value={text("piece", piece)}
              onType={type("piece")}
              onCommit={type("piece")}
              fault={fault("mass_g")}
              inputMode="decimal"
            />
          </div>
        )}
        {way === "flour" && (
          <Field
            label="flour in all"
            big
            width="8em"
            unit={units.mass}
            value={text("flour")}
            placeholder="500"
            onType={type("flour")}
            onCommit={type("flour")}
            fault={fault("flour_g")}
            inputMode="decimal"
          />
        )}
        {way === "limits" && (
          <>
            <p className="quiet">{SAY.sayWhatThereIsOfAnything}</p>
            {formula.lines
              .filter((l) => l.ingredient)
              .map((l) => (
                <Field
                  key={l.ingredient}
                  label={names.get(l.ingredient) ?? l.ingredient}
                  width="12em"
                  value={text(`limit-${l.ingredient}`)}
                  placeholder={l.amount}
                  onType={type(`limit-${l.ingredient}`)}
                  onCommit={type(`limit-${l.ingredient}`)}
                />
              ))}
          </>
        )}
        {way === "tray" && (
          <div className="row">
            <Field
              label="surface is wide"
              width="6em"
              unit="cm"
              value={text("width")}
              placeholder="40"
              onType={type("width")}
              onCommit={type("width")}
              fault={fault("tray_width_cm")}
              inputMode="decimal"
            />
            <Field
              label="and deep"
              width="6em"
              unit="cm"
              value={text("depth")}
              placeholder="35"
              onType={type("depth")}
              onCommit={type("depth")}
              fault={fault("tray_depth_cm")}
              inputMode="decimal"
            />
            <Field
              label="loads"
              width="5em"
              value={text("loads", "1")}
              onType={type("loads")}
              onCommit={type("loads")}
              fault={fault("loads")}
              inputMode="numeric"
            />
          </div>
        )}
        {scale.error && <Plate>{scale.error.message}</Plate>}
        <Button data-kind="brass" onPress={go} isDisabled={scale.isPending}>
          Scale it
        </Button>
        <p className="quiet">{SAY.amountsBecomeGramsYourScaleCan}</p>
      </Rows>
    </Sheet>
  );
}
