import { useQuery } from "@tanstack/react-query";
import { memo, useDeferredValue, useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { ingredientsQuery } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Cautions, Plate } from "../../controls/Notice";
import { BakeHead } from "../../frame/BakeHead";
import { FeedNow } from "../../frame/FeedNow";
import { LeafStrip } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { mass, massUnit, numbered } from "../../words/format";
import { EntrySheet } from "./EntrySheet";
import { FilesSheet } from "./FilesSheet";
import { FormulaRow } from "./FormulaRow";
import { HandsPanel } from "./HandsPanel";
import { LeavenPanel } from "./LeavenPanel";
import { PiecePanel } from "./PiecePanel";
import { ScaleSheet } from "./ScaleSheet";
import { SodaPanel } from "./SodaPanel";
import { UnreadLines } from "./UnreadLines";
import { useFormula } from "./useFormula";
import { WaterPanel } from "./WaterPanel";
import { WeighMode } from "./WeighMode";
import { SAY } from "../../words/say/weigh";

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 10px 32px;
  aside {
    border-left: 1.5px solid var(--hair-2);
    padding-left: 24px;
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 18px;
    align-content: start;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    aside {
      border-left: 0;
      padding-left: 0;
      border-top: 1.5px solid var(--hair-2);
      padding-top: 12px;
    }
  }
`;
const Grid = styled.div`
  --cols: 118px minmax(120px, 1fr) 84px 66px 96px 40px;
  display: grid;
  .head {
    display: grid;
    grid-template-columns: var(--cols);
    gap: 10px;
    border-bottom: 2px solid var(--ink);
    color: var(--ink-2);
    font-size: 16px;
    padding: 2px 0;
  }
  .right {
    text-align: right;
  }
  .part {
    font: 600 18px/1 var(--name);
    padding: 10px 0 2px;
  }
  @media (max-width: 600px) {
    --cols: 92px minmax(80px, 1fr) 64px 0 0 34px;
    gap: 0;
    .wide {
      display: none;
    }
    .head {
      gap: 4px;
    }
  }
`;
const Total = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  border-top: 2px solid var(--ink);
  padding: 8px 0;
  font-size: 18px;
  b {
    font: 700 26px/1 var(--name);
  }
`;
const [Hands, Water, Soda, Piece, Leaven] = [
  memo(HandsPanel),
  memo(WaterPanel),
  memo(SodaPanel),
  memo(PiecePanel),
  memo(LeavenPanel),
] as const;
const NONE: readonly Schemas["IngredientRead"][] = [];
type Open = "list" | "scale" | "files" | "weigh" | null;

/** What goes in the bowl: lines as typed, grams beside them, water, leaven, soda, pieces. */
export function WeighLeaf({ bake }: { bake: Bake }) {
  const formula = useFormula(bake);
  const known = useQuery(ingredientsQuery(bake.kitchen_id));
  const units = useWords();
  const [open, setOpen] = useState<Open>(null);
  const sheet = formula.sheet;
  // what stands beside the lines follows them once they are drawn: a keystroke waits for its grams alone
  const beside = useDeferredValue(formula);
  const beyond = { sheet: beside.sheet, formula: beside };
  const close = () => setOpen(null);
  let running = 0;
  return (
    <>
      <BakeHead
        bake={bake}
        about={
          sheet?.pieces
            ? [
                `${numbered(sheet.pieces["count"] ?? 0, "bread")} × ${mass(sheet.pieces["mass_g"]!, units)} ${massUnit(units)}`,
                ...bake.settings.parts.map((p) => `${p.count} ${p.name.toLowerCase()} × ${mass(p.piece_g, units)}`),
              ].join(", ")
            : SAY.typeWhatGoesInTheBowl
        }
      />
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
              const part = line.part && line.part !== formula.lines[i - 1]?.part ? line.part : "";
              return (
                <div key={i}>
                  {part && <p className="part">{part}</p>}
                  <FormulaRow
                    line={line}
                    got={got}
                    running={running}
                    items={known.data ?? NONE}
                    fault={formula.faultOf(line)}
                    at={i}
                    onSet={formula.set}
                    onRemove={formula.remove}
                  />
                </div>
              );
            })}
          </Grid>
          <UnreadLines bake={bake} formula={formula} />
          <Total>
            {sheet && (
              <span>
                dough <b>{mass(sheet.total_g, units)}</b> {massUnit(units)}
              </span>
            )}
            <span className="quiet" role="status">
              {formula.saved ? "kept" : sheet ? "keeping…" : SAY.notKeptUntilEveryLineCan}
            </span>
            {sheet && sheet.allergens.length > 0 && (
              <span className="quiet">contains {sheet.allergens.join(", ")}</span>
            )}
          </Total>
          <Total data-print="no" role="group" aria-label={SAY.workOnTheFormula}>
            <Button onPress={formula.add}>Add a line</Button>
            <Button onPress={() => setOpen("list")}>Paste a list</Button>
            <Button isDisabled={!sheet || sheet.lines.length === 0} onPress={() => setOpen("scale")}>
              Scale
            </Button>
            <Button isDisabled={!sheet || sheet.lines.length === 0} data-kind="brass" onPress={() => setOpen("weigh")}>
              Weigh it
            </Button>
            <Button onPress={() => setOpen("files")}>Print, save</Button>
            {formula.canUndo && (
              <Button data-kind="bare" onPress={formula.undo}>
                undo
              </Button>
            )}
          </Total>
          {formula.otherFaults.map((f) => (
            <Plate key={f}>{f}</Plate>
          ))}
          {sheet?.whole.map((w) => (
            <p className="quiet" key={w.code}>
              {w.text}
            </p>
          ))}
          {bake.steps
            .filter((s) => s.key === "feed")
            .map((s) => (
              <FeedNow key={s.key} step={s} kitchen={bake.kitchen_id} />
            ))}
          <Hands bake={bake} {...beyond} />
          {sheet && <Cautions items={sheet.cautions} />}
        </div>
        <aside>
          <Water sheet={beside.sheet} />
          <Soda {...beyond} />
          <Piece bake={bake} sheet={beside.sheet} />
          <Leaven bake={bake} {...beyond} />
        </aside>
      </Two>
      <EntrySheet bake={bake} formula={formula} open={open === "list"} onClose={close} />
      <ScaleSheet bake={bake} sheet={sheet} formula={formula} open={open === "scale"} onClose={close} />
      <FilesSheet bake={bake} open={open === "files"} onClose={close} />
      <LeafStrip bake={bake} keys={["weigh"]} />
      {open === "weigh" && sheet && <WeighMode bake={bake} sheet={sheet} onClose={close} />}
    </>
  );
}
