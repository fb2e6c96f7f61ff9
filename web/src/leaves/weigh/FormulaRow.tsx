import { memo, useCallback } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { Combo } from "../../controls/Combo";
import { useWords } from "../../frame/units";
import { mass, percent } from "../../words/format";
import type { Line } from "./useFormula";
import { SAY } from "../../words/say/weigh";

const Row = styled.div`
  border-bottom: 1px solid var(--hair);
  .cells {
    display: grid;
    grid-template-columns: var(--cols);
    gap: 10px;
    align-items: center;
    min-height: 46px;
  }
  .amount {
    min-height: 46px;
    width: 100%;
    border: 0;
    border-bottom: 2px solid var(--brass);
    background: transparent;
    font: 650 19px/1 var(--text);
    padding: 0 4px;
  }
  .amount:focus {
    background: var(--brass-wash);
  }
  .amount[aria-invalid="true"] {
    border-bottom: 4px double var(--ink);
  }
  .g {
    font: 700 21px/1 var(--mono);
    text-align: right;
    letter-spacing: -0.03em;
  }
  .n {
    font: 500 18px/1 var(--mono);
    text-align: right;
    color: var(--ink-2);
    letter-spacing: -0.03em;
  }
  .off {
    border: 0;
    background: none;
    min-height: 46px;
    width: 40px;
    font: 400 24px/1 var(--text);
    color: var(--ink-2);
  }
  .off:hover {
    color: var(--ink);
  }
  .basis {
    font-size: 16px;
    color: var(--ink-2);
    padding: 0 4px 6px;
    display: flex;
    gap: 10px;
    align-items: center;
    flex-wrap: wrap;
  }
  .basis select {
    min-height: 44px;
    border: 0;
    border-bottom: 2px solid var(--brass);
    background: var(--ground);
    font-size: 16px;
  }
  .fault {
    background: var(--ink);
    color: var(--ground);
    padding: 6px 10px;
    margin: 0 0 6px;
    font-size: 16px;
  }
  @media (max-width: 600px) {
    .wide {
      display: none;
    }
    .cells {
      gap: 4px;
    }
  }
`;

interface Props {
  line: Line;
  got: Schemas["FormulaLineRead"] | null;
  running: number;
  items: readonly Schemas["IngredientRead"][];
  fault: string | null;
  at: number;
  onSet: (at: number, part: Partial<Line>) => void;
  onRemove: (at: number) => void;
}

const same = (a: Props, b: Props): boolean =>
  a.line === b.line &&
  a.running === b.running &&
  a.items === b.items &&
  a.fault === b.fault &&
  a.at === b.at &&
  a.onSet === b.onSet &&
  a.got?.grams === b.got?.grams &&
  a.got?.baker_frac === b.got?.baker_frac &&
  a.got?.low_g === b.got?.low_g &&
  a.got?.basis === b.got?.basis;

/** A line as typed beside its grams; drawn again only when it has changed. */
export const FormulaRow = memo(function FormulaRow({ line, got, running, items, fault, at, onSet, onRemove }: Props) {
  const units = useWords();
  const choose = useCallback((ingredient: string) => onSet(at, { ingredient, basis: null }), [at, onSet]);
  const name = items.find((i) => i.id === line.ingredient)?.name ?? line.ingredient;
  const byVolume = /cup|\bc\b|tbsp|tsp|spoon|ml|\bl\b|fl/i.test(line.amount);
  const loose = byVolume && got !== null && got.high_g - got.low_g > 0.04 * got.grams;
  return (
    <Row>
      <div className="cells">
        <input
          className="amount"
          aria-label={`Amount of ${name || "the new line"}`}
          value={line.amount}
          placeholder="450 g"
          aria-invalid={fault !== null}
          onChange={(e) => onSet(at, { amount: e.target.value })}
        />
        <Combo
          label={`Ingredient ${name}`}
          value={line.ingredient}
          items={items}
          placeholder={SAY.flourWater}
          onChange={choose}
        />
        <span className="g">{got ? mass(got.grams, units) : "–"}</span>
        <span className="n wide">
          {got?.baker_frac != null ? percent(got.baker_frac, got.baker_frac < 0.1 ? 2 : 1) : ""}
        </span>
        <span className="n wide">{got ? mass(running, units) : ""}</span>
        <button
          type="button"
          className="off"
          aria-label={`Remove ${name || "this line"}`}
          onClick={() => onRemove(at)}
          data-print="no"
        >
          ×
        </button>
      </div>
      {loose && (
        <div className="basis">
          <span>
            {got.basis}
            {SAY.filledLooselyOrFirmlyItIs} {mass(got.low_g, units)} to {mass(got.high_g, units)} {units.mass}
          </span>
          <select
            aria-label={SAY.howTheCupOfIsFilled(name)}
            value={String(line.basis ?? "")}
            onChange={(e) => onSet(at, { basis: e.target.value || null })}
          >
            <option value="">as usual</option>
            <option value="spooned">spooned in</option>
            <option value="level">level</option>
            <option value="dipped">dipped</option>
          </select>
        </div>
      )}
      {got && Math.abs(got.rounding_frac) > 0.02 && (
        <p className="basis">
          the scale shows {mass(got.weighable_g, units)} {units.mass}, {Math.abs(got.rounding_frac * 100).toFixed(0)} %{" "}
          {got.rounding_frac > 0 ? "over" : "under"}
        </p>
      )}
      {fault && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
    </Row>
  );
}, same);
