import { useQuery } from "@tanstack/react-query";
import { Checkbox } from "react-aria-components";
import styled from "styled-components";
import { benchQuery, useBakeChange } from "../../api/bake";
import { type Bake, Problem, type Schemas, type WeighSheet } from "../../api/client";
import { useScale } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { gramsOf, mass, typedMeasure } from "../../words/format";
import { MEASURED } from "./measured";
import { SAY } from "../../words/say/weigh";

type Part = Schemas["PartUpdate"];
const MOST = 6;
/** Of the dough left over or short: making it fit is offered. */
const MISSED = 0.02;

const Breads = styled.section`
  display: grid;
  gap: 10px;
  border-top: 1px solid var(--hair);
  padding-top: 8px;
  fieldset {
    border: 0;
    margin: 0;
    padding: 0 0 8px;
    border-bottom: 1px solid var(--hair);
    display: flex;
    flex-wrap: wrap;
    gap: 8px 14px;
    align-items: end;
  }
  .react-aria-Checkbox {
    display: flex;
    gap: 8px;
    align-items: center;
    min-height: 48px;
    font-size: 18px;
  }
  .react-aria-Checkbox .box {
    width: 24px;
    height: 24px;
    border: 2px solid var(--ink);
  }
  .react-aria-Checkbox[data-selected] .box {
    background: var(--ink);
    box-shadow: inset 0 0 0 4px var(--ground);
  }
  .react-aria-Checkbox[data-focus-visible] .box {
    outline: 3px solid var(--focus, var(--brass));
    outline-offset: 2px;
  }
`;

/** A name that none of the breads has yet. */
function fresh(taken: readonly string[]): string {
  for (let n = 1; ; n++) {
    const name = n === 1 ? "Rolls" : `Rolls ${n}`;
    if (!taken.some((t) => t.toLowerCase() === name.toLowerCase())) return name;
  }
}

/** Further breads of the same dough: each with its own count, weight, size and surface. */
export function OtherBreads({ bake, sheet }: { bake: Bake; sheet: WeighSheet | null }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const scale = useScale(bake.id);
  const bench = useQuery(benchQuery(bake.kitchen_id));
  const { parts, count, piece_g } = bake.settings;
  const put = (next: Part[]) => change.mutate({ parts: next, base: bake });
  const ounce = gramsOf(units);
  const error = change.error ?? scale.error;
  const fields = change.error instanceof Problem ? change.error.fields : [];
  const left = Math.abs(sheet?.pieces?.left_over_g ?? 0) > MISSED * (sheet?.total_g ?? Infinity);
  const missed = parts.length > 0 && (left || sheet?.contradictions.some((c) => c.code === "pieces_vs_dough"));
  const surfaces = (bench.data?.kitchen.surfaces ?? []).map((s) => ({ id: String(s.id), text: s.name }));
  return (
    <Breads aria-label={SAY.moreFromThisDough}>
      {parts.length > 0 && <h2>{SAY.fromTheSameDough}</h2>}
      {parts.map((part, i) => {
        const set = (values: Partial<Part>) => put(parts.map((p, k) => (k === i ? { ...p, ...values } : p)));
        const number = (name: "count" | "piece_g" | "diameter_cm", factor = 1) => ({
          fault: fields.find((f) => f.pointer === `/parts/${i}/${name}`)?.detail ?? null,
          onCommit: (text: string) => set({ [name]: typedMeasure(text, MEASURED[name], factor) }),
        });
        return (
          <fieldset key={i} aria-label={part.name}>
            <Field
              label="bread"
              value={part.name}
              width="8em"
              onCommit={(name) => name && set({ name })}
              fault={fields.find((f) => f.pointer === `/parts/${i}/name`)?.detail ?? null}
            />
            <Field label="how many" value={String(part.count)} width="5em" inputMode="numeric" {...number("count")} />
            <Field
              label="of"
              value={mass(part.piece_g, units)}
              unit={units.mass}
              width="6em"
              inputMode="decimal"
              {...number("piece_g", ounce)}
            />
            <Field
              label="across"
              value={part.diameter_cm == null ? "" : String(part.diameter_cm)}
              unit="cm"
              width="6em"
              inputMode="decimal"
              {...number("diameter_cm")}
            />
            <Pick
              label="baked on"
              value={String(part.surface_id ?? bake.settings.surface_id ?? "")}
              options={surfaces}
              onChange={(id) => set({ surface_id: Number(id) })}
            />
            {bake.settings.filling && (
              <Checkbox isSelected={part.filled ?? false} onChange={(filled) => set({ filled })}>
                <span className="box" aria-hidden="true" />
                {bake.settings.filling.topping ? "topped too" : "filled too"}
              </Checkbox>
            )}
            <Button data-kind="bare" onPress={() => put(parts.filter((_, k) => k !== i))}>
              leave out
            </Button>
          </fieldset>
        );
      })}
      {missed && count && piece_g && (
        <div>
          <Button onPress={() => scale.mutate({ count, mass_g: piece_g })}>{SAY.makeDoughForJustThese}</Button>
        </div>
      )}
      {error && fields.length === 0 && <Plate>{error.message}</Plate>}
      {parts.length < MOST && (
        <div data-print="no">
          <Button
            onPress={() =>
              put([
                ...parts,
                {
                  name: fresh([bake.name, ...parts.map((p) => p.name)]),
                  count: 4,
                  piece_g: 60,
                  diameter_cm: 8,
                  shape: "round",
                  docked: false,
                  filled: false,
                },
              ])
            }
          >
            {SAY.anotherBreadFromThisDough}
          </Button>
        </div>
      )}
    </Breads>
  );
}
