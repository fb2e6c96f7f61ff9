import { useEffect } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Bench, Brief } from "../../api/client";
import { tellAsked, useStatus } from "../../api/bake";
import { useNow } from "../../api/clock";
import { Button } from "../../controls/Button";
import { useWords } from "../../frame/units";
import { Glyph, GLYPH_OF_STEP, Seal } from "../../instruments/Glyph";
import { Vessel } from "../../instruments/Vessel";
import { clockNear, dayName, ms, numbered, span } from "../../words/format";
import { stepKind, stepPath, waits } from "../../words/steps";
import { SAY } from "../../words/say/bench";

const AllOff = styled.div`
  display: grid;
  gap: 6px;
  align-content: start;
  background: var(--brass-wash);
  padding: 10px 14px;
  h2 {
    font-size: 27px;
    display: flex;
    gap: 12px;
    align-items: center;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: center;
  }
`;
const Live = styled(Link)`
  text-decoration: none;
  display: grid;
  grid-template-columns: 92px minmax(0, 1fr);
  gap: 2px 18px;
  align-items: end;
  align-content: start;
  color: inherit;
  border-bottom: 3px solid var(--ink);
  padding: 4px 8px 8px 0;
  h2 {
    grid-column: 1 / -1;
    font-size: 24px;
    display: flex;
    gap: 10px;
    align-items: center;
  }
  h2 .fit:not(:empty) {
    font: 700 15px/1 var(--text);
    background: var(--ink);
    color: var(--ground);
    padding: 4px 8px;
  }
  > svg {
    width: 92px;
    height: auto;
  }
  .move {
    display: flex;
    flex-wrap: wrap;
    gap: 0 10px;
    align-items: center;
    font: 700 25px/1.1 var(--name);
  }
  .move b {
    font: 700 27px/1.1 var(--mono);
    letter-spacing: -0.03em;
  }
  .facts {
    display: grid;
    gap: 2px;
  }
  &[data-first="true"] {
    background: var(--brass-wash);
    box-shadow: -8px 0 0 var(--brass);
  }
  &:hover h2 {
    text-decoration: underline;
    text-decoration-color: var(--brass);
    text-decoration-thickness: 3px;
  }
`;
const Last = styled(Link)`
  text-decoration: none;
  display: grid;
  gap: 10px;
  align-content: end;
  padding: 0 0 46px 24px;
  border-left: 1.5px solid var(--hair-2);
  .told {
    font: 500 25px/1.25 var(--name);
  }
  &:hover .told {
    text-decoration: underline;
    text-decoration-color: var(--brass);
  }
`;
const Rest = styled.ul`
  list-style: none;
  margin: 6px 0 0;
  padding: 0;
  display: grid;
  gap: 0;
  a {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    align-items: center;
    min-height: 48px;
    text-decoration: none;
    color: inherit;
    border-bottom: 1px solid var(--hair);
  }
  b {
    font: 600 20px/1.1 var(--name);
  }
  a:hover b {
    text-decoration: underline;
  }
  .when {
    margin-left: auto;
  }
  .fit:not(:empty) {
    font-weight: 700;
    background: var(--ink);
    color: var(--ground);
    padding: 3px 8px;
  }
`;

/** A bake that is all off the heat: asked once whether it is to be kept; left alone it goes by itself. */
export function Over({ bake }: { bake: Brief }) {
  const status = useStatus(bake.id);
  useEffect(() => {
    void tellAsked(bake.id).catch(() => undefined); // asked again when it is shown again
  }, [bake.id]);
  return (
    <AllOff>
      <h2>
        <Seal seal={bake.seal} size={24} />
        {bake.name}
      </h2>
      <p>
        {SAY.allOffTheHeat} {bake.outcomes ? SAY.ofJudgedAreFull(bake.full, bake.outcomes) : SAY.howDidTheyTurnOut}
      </p>
      <p>
        <Link to={`/b/${bake.id}/keep`}>{bake.outcomes ? "See it" : "Judge them"}</Link>{" "}
        <Button isDisabled={status.isPending} onPress={() => status.mutate("kept")}>
          Keep it
        </Button>
      </p>
      <p className="quiet">{SAY.leftAloneItGoesIntoThe}</p>
      {status.error && <p role="alert">{status.error.message}</p>}
    </AllOff>
  );
}

/** A live bake: what its dough is like, and what now. */
export function OnBench({ bake, bench, first }: { bake: Brief; bench: Bench; first: boolean }) {
  const units = useWords();
  const now = useNow(10_000);
  const at = (t: string) => clockNear(t, now, units.zone);
  const step = bench.steps.find((s) => s.bake_id === bake.id && !s.done_at);
  const wait = step ? waits(step, now) : null;
  return (
    <Live to={step ? stepPath(step) : `/b/${bake.id}/${bake.leaf}`} data-first={first}>
      <h2>
        <Seal seal={bake.seal} size={22} />
        {bake.name}
        <span className="fit">{bake.fits ? "" : "does not fit"}</span>
      </h2>
      <Vessel ratio={bake.ratio} target={bake.target_ratio} doughC={bake.dough_c} />
      <span className="facts">
        {step ? (
          <>
            <span className="move">
              <Glyph name={GLYPH_OF_STEP[stepKind(step.key)] ?? "mix"} size={28} />
              {step.name} <b>{at(step.at)}</b>
            </span>
            <span>
              {ms(step.at) > now + 60e3 ? `in ${span(ms(step.at) - now)}` : "now"}
              {wait && `; ${wait.words} until ${at(wait.until)}`}
            </span>
          </>
        ) : (
          <span className="move">{SAY.nothingIsDue}</span>
        )}
        <span className="quiet">
          {bake.count === null ? "? breads" : numbered(bake.count, "bread")}, serve at {at(bake.serve_at)}
          {bake.ratio !== null ? `; risen ${bake.ratio.toFixed(2)} ×` : ""}
          {bake.ratio !== null && bake.ready_at && ms(bake.ready_at) > now ? `, ready ${at(bake.ready_at)}` : ""}
        </span>
      </span>
    </Live>
  );
}

/** Bakes whose turn comes later, a line each. */
export function Later({ bakes, bench }: { bakes: readonly Brief[]; bench: Bench }) {
  const { zone } = useWords();
  const now = useNow(30_000);
  return (
    <Rest aria-label="Bakes further ahead">
      {bakes.map((b) => (
        <li key={b.id}>
          <Link to={`/b/${b.id}/${b.leaf}`}>
            <Seal seal={b.seal} size={20} />
            <b>{b.name}</b>
            <NextOf step={bench.steps.find((s) => s.bake_id === b.id && !s.done_at)} />
            <span className="fit">{b.fits ? "" : "does not fit"}</span>
            <span className="when">serve at {clockNear(b.serve_at, now, zone)}</span>
          </Link>
        </li>
      ))}
    </Rest>
  );
}

function NextOf({ step }: { step: Bench["steps"][number] | undefined }) {
  const { zone } = useWords();
  const now = useNow(30_000);
  return step ? (
    <span>
      {step.name} {clockNear(step.at, now, zone)}
    </span>
  ) : null;
}

/** What the last kept bake said for next time. */
export function LastKept({ bench }: { bench: Bench }) {
  const { zone } = useWords();
  const kept = bench.bakes.filter((b) => b.status === "kept").sort((a, b) => b.serve_at.localeCompare(a.serve_at))[0];
  if (!kept) return null;
  return (
    <Last to={`/b/${kept.id}/keep`}>
      <span className="quiet">
        {SAY.lastInTheLogbook} {dayName(kept.serve_at, zone)}
      </span>
      <span className="told">{kept.note || SAY.noLineWasLeftForNext}</span>
      <span>{kept.outcomes ? SAY.ofHadAFullPocket(kept.full, kept.outcomes) : "not judged"}</span>
    </Last>
  );
}
