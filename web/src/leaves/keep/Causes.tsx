import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { causesQuery } from "../../api/keep";
import { Plate } from "../../controls/Notice";
import { FACTS, listed } from "../../words/faults";
import { Again } from "./Again";
import { AskFact, Making } from "./Making";
import { KeepPart } from "./panel";
import { SAY } from "../../words/say/keep";

const Panel = styled(KeepPart)`
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  li {
    display: grid;
    grid-template-columns: 1.2em minmax(0, 1fr) 74px 3.4em;
    gap: 4px 10px;
    align-items: center;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
  }
  .no {
    font: 700 26px/1 var(--name);
  }
  .bar {
    height: 18px;
    border: 1.5px solid var(--ink);
  }
  .bar span {
    display: block;
    height: 100%;
    background: var(--ink);
  }
  .bar[data-known="false"] span {
    background: var(--recess);
  }
  .share {
    font: 700 20px/1 var(--mono);
    text-align: right;
  }
  .ask {
    display: grid;
    gap: 4px;
    background: var(--brass-wash);
    padding: 8px 10px;
  }
  summary {
    min-height: 48px;
    display: flex;
    align-items: center;
    cursor: pointer;
    color: var(--ink-2);
    text-decoration: underline;
  }
  details .ask {
    background: none;
    padding: 6px 0;
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: 1.4em minmax(0, 1fr) 4em;
    }
    .bar {
      display: none;
    }
  }
`;
const SURE: Record<Schemas["CausesRead"]["verdict"], string> = {
  likely: "likely",
  perhaps: "perhaps",
  not_enough_known: SAY.notEnoughIsKnown,
};

/** Why rounds fell short, with the evidence; what to note so that it can be said; one change, carried into the next bake. */
export function Causes({ bake }: { bake: Bake }) {
  const found = useQuery({ ...causesQuery(bake.id, `${bake.revision}`), enabled: bake.keep.outcomes.length > 0 });
  const why = found.data;
  const judged = bake.keep.outcomes.length > 0;
  return (
    <Panel aria-label={SAY.whyItFellShort} data-testid="causes">
      {!judged && (
        <>
          <h2>Why</h2>
          <p className="quiet">{SAY.judgeTheBreadsWhatFellShort}</p>
        </>
      )}
      {judged &&
        !why &&
        (found.error ? <Plate>{found.error.message}</Plate> : <p className="quiet">{SAY.lookingForTheCause}</p>)}
      {why && judged && (why.rounds.length > 0 ? <Found bake={bake} why={why} /> : <h2>Nothing fell short</h2>)}
      {why && judged && <Again bake={bake} change={why.change ?? null} />}
    </Panel>
  );
}

function Found({ bake, why }: { bake: Bake; why: Schemas["CausesRead"] }) {
  return (
    <>
      <h2>
        Why {listed(why.rounds)} fell short: {SURE[why.verdict]}
      </h2>
      <ol>
        {why.causes.map((c, i) => (
          <li key={c.cause}>
            <span className="no">{i + 1}</span>
            <span>
              <b>{c.name}</b>
              <br />
              <span className="quiet">
                {why.rounds.length > (c.rounds ?? []).length ? `${listed(c.rounds ?? [])}: ` : ""}
                {c.evidence}
              </span>
            </span>
            <span className="bar" data-known={c.known} aria-hidden="true">
              <span style={{ width: `${100 * c.share}%` }} />
            </span>
            <span className="share">{(100 * c.share).toFixed(0)} %</span>
          </li>
        ))}
      </ol>
      {why.other_share >= 0.5 && <p className="quiet">{SAY.nothingThatWasLoggedExplainsIt}</p>}
      {why.ask && (FACTS[why.ask.fact] ? <AskFact bake={bake} fact={why.ask.fact} /> : <p>{why.ask.text}</p>)}
      <Making bake={bake} asked={why.ask?.fact ?? null} />
    </>
  );
}
