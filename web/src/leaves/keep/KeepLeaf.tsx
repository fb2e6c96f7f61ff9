import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { useBakeChange, useStatus } from "../../api/bake";
import type { Bake } from "../../api/client";
import { Button } from "../../controls/Button";
import { Cautions, Plate } from "../../controls/Notice";
import { BakeHead } from "../../frame/BakeHead";
import { Strip } from "../../frame/Strip";
import { tally, trayOf } from "./breads";
import { Causes } from "./Causes";
import { JudgeBar } from "./JudgeBar";
import { KeepPart } from "./panel";
import { Photos } from "./Photos";
import { SaidAndWas } from "./SaidAndWas";
import { Later, StaysSoft, useHeld } from "./StaysSoft";
import { Taught } from "./Taught";
import { SAY } from "../../words/say/keep";

const Three = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) minmax(0, 1fr);
  border-top: 2px solid var(--hair-2);
  margin-top: 10px;
  padding-top: 8px;
  > * + * {
    border-left: 2px solid var(--hair-2);
    margin-left: 16px;
    padding-left: 16px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    gap: 16px;
    > * + * {
      border-left: 0;
      margin-left: 0;
      padding-left: 0;
      border-top: 2px solid var(--hair-2);
      padding-top: 10px;
    }
  }
`;
const Foot = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 10px 28px;
  border-top: 2px solid var(--hair-2);
  margin-top: 12px;
  padding-top: 10px;
  .row {
    display: flex;
    gap: 8px 18px;
    flex-wrap: wrap;
    align-items: center;
  }
  textarea {
    width: 100%;
    min-height: 84px;
    border: 2px solid var(--ink);
    background: var(--paper);
    padding: 10px;
    font-size: 18px;
    resize: vertical;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;

/** What happened, beside what was said; why; until when it is good; and what was learned. */
export function KeepLeaf({ bake }: { bake: Bake }) {
  const breads = trayOf(bake);
  const held = useHeld(bake);
  const [picked, setPicked] = useState<number[] | null>(null);
  const pockets = (bake.fire?.pocket ?? true) || bake.parts.some((p) => p.fire?.pocket);
  return (
    <>
      <BakeHead bake={bake} about={tally(breads)} />
      <JudgeBar
        bake={bake}
        pockets={pockets || bake.keep.outcomes.some((o) => o.pocket)}
        picked={picked}
        onPick={setPicked}
      />
      <Three>
        <SaidAndWas bake={bake} />
        <Causes bake={bake} />
        <StaysSoft bake={bake} held={held} />
      </Three>
      <Foot>
        <KeepPart>
          <Later bake={bake} held={held} />
          <h2>Pictures</h2>
          <Photos bake={bake} chosen={picked?.length === 1 ? picked[0]! : null} />
        </KeepPart>
        <KeepPart>
          <Note bake={bake} />
          <Taught bake={bake} />
          {bake.fire?.pocket && <Cautions items={[{ code: "steam", text: SAY.aPuffedBreadIsFullOf }]} />}
        </KeepPart>
      </Foot>
      <Strip data-due={bake.status === "live"} data-print="no">
        <Keeping bake={bake} />
      </Strip>
    </>
  );
}

/** Into the logbook, and out of it again. */
function Keeping({ bake }: { bake: Bake }) {
  const status = useStatus(bake.id);
  return (
    <>
      <div className="row">
        {bake.status === "kept" ? (
          <>
            <b>{SAY.keptInTheLogbook}</b>
            <Button data-kind="bare" onPress={() => status.mutate("live")}>
              undo
            </Button>
            <Link to={`/k/${bake.kitchen_id}/logbook`}>to the logbook</Link>
          </>
        ) : (
          <Button data-kind="brass" onPress={() => status.mutate("kept")} isDisabled={status.isPending}>
            Keep this bake
          </Button>
        )}
      </div>
      {status.error && <Plate>{status.error.message}</Plate>}
    </>
  );
}

function Note({ bake }: { bake: Bake }) {
  const change = useBakeChange(bake.id);
  const stored = bake.settings.note;
  const [draft, setDraft] = useState(stored);
  const [shown, setShown] = useState(stored);
  if (stored !== shown) {
    // another tablet wrote it: that stands, unless it is being written here
    if (draft === shown) setDraft(stored);
    setShown(stored);
  }
  return (
    <>
      <label htmlFor="note">
        <h2>{SAY.aLineForNextTime}</h2>
      </label>
      <textarea
        id="note"
        value={draft}
        maxLength={20000}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={() => draft !== stored && change.mutate({ note: draft })}
        placeholder={SAY.whatToChangeWhatToKeep}
      />
      {change.error && <Plate>{change.error.message}</Plate>}
    </>
  );
}
