import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { ingredientsQuery } from "../../api/queries";
import { Button } from "../../controls/Button";
import { Cautions } from "../../controls/Notice";
import { BakeHead } from "../../frame/BakeHead";
import { StepBar } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { mass, massUnit } from "../../words/format";
import { FormulaRow } from "./FormulaRow";
import { PiecePanel } from "./PiecePanel";
import { useFormula } from "./useFormula";
import { WaterPanel } from "./WaterPanel";

const Two = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 372px; gap: 10px 32px;
  aside { border-left: 1.5px solid var(--hair-2); padding-left: 24px; display: grid; gap: 16px; align-content: start; }
  @media (max-width: 1000px) { grid-template-columns: minmax(0, 1fr); aside { border-left: 0; padding-left: 0; border-top: 1.5px solid var(--hair-2); padding-top: 12px; } }
`;
export const Grid = styled.div`
  --cols: 118px minmax(120px, 1fr) 84px 66px 96px 40px;
  display: grid;
  .head { display: grid; grid-template-columns: var(--cols); gap: 10px; border-bottom: 2px solid var(--ink); color: var(--ink-2); font-size: 16px; padding: 2px 0; }
  .right { text-align: right; }
  @media (max-width: 600px) { --cols: 92px minmax(80px, 1fr) 64px 0 0 34px; gap: 0; .wide { display: none; } .head { gap: 4px; } }
`;
const Total = styled.div`
  display: flex; flex-wrap: wrap; gap: 8px 20px; align-items: center; border-top: 2px solid var(--ink); padding: 8px 0; font-size: 18px;
  b { font: 700 26px/1 var(--name); }
`;

/** What goes in the bowl: lines as typed, grams beside them, water and pieces. */
export function WeighLeaf({ bake }: { bake: Bake }) {
  const formula = useFormula(bake);
  const known = useQuery(ingredientsQuery());
  const units = useWords();
  const sheet = formula.sheet;
  let running = 0;
  return (
    <>
      <BakeHead bake={bake} about={sheet?.pieces ? `${sheet.pieces.count} breads × ${mass(sheet.pieces.mass_g!, units)} ${massUnit(units)}` : "type what goes in the bowl"} />
      <Two>
        <div>
          <Grid>
            <div className="head">
              <span>amount</span>
              <span>ingredient</span>
              <span className="right">{massUnit(units)}</span>
              <span className="right wide">% flour</span>
              <span className="right wide">scale reads</span>
              <span />
            </div>
            {formula.lines.map((line, i) => {
              const got = formula.lineOf(line);
              running += got?.grams ?? 0;
              return (
                <FormulaRow
                  key={i} line={line} got={got} running={running} items={known.data ?? []} fault={formula.faultOf(line)}
                  onSet={(part) => formula.set(i, part)} onRemove={() => formula.remove(i)}
                />
              );
            })}
          </Grid>
          <Total>
            <Button onPress={formula.add} data-print="no">Add a line</Button>
            {sheet && <span>dough <b>{mass(sheet.total_g, units)}</b> {massUnit(units)}</span>}
            <span className="quiet" role="status">{formula.saved ? "kept" : sheet ? "keeping…" : "not kept until every line can be read"}</span>
            {sheet && sheet.allergens.length > 0 && <span className="quiet">contains {sheet.allergens.join(", ")}</span>}
          </Total>
          <StepBar bake={bake} keys={["weigh"]} />
          {sheet && <Cautions items={sheet.cautions} />}
        </div>
        <aside>
          <WaterPanel sheet={sheet} />
          <PiecePanel bake={bake} sheet={sheet} />
        </aside>
      </Two>
    </>
  );
}
