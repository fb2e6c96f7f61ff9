import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { useBakeChange } from "../../api/bake";
import type { Bake, Schemas } from "../../api/client";
import { causesQuery } from "../../api/keep";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { KeepPart } from "./panel";

const Panel = styled(KeepPart)`
  ol {
    list-style: none;
    margin: 0;
    padding: 0;
    max-width: 860px;
  }
  li {
    display: grid;
    grid-template-columns: 1.6em minmax(0, 1fr) 120px 4em;
    gap: 4px 14px;
    align-items: center;
    padding: 6px 0;
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
  .change {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 24px;
    align-items: center;
    max-width: 860px;
  }
  .change b {
    font: 700 26px/1.15 var(--name);
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
  not_enough_known: "not enough is known",
};

/** Which rounds, as they are said: 2, 3 and 7. */
const listed = (rounds: readonly number[]): string =>
  rounds.length < 2 ? String(rounds[0] ?? "") : `${rounds.slice(0, -1).join(", ")} and ${rounds.at(-1)}`;

/** Why rounds fell short, with the evidence; one change for next time, or what to note so that it can be said. */
export function Causes({ bake }: { bake: Bake }) {
  const short = bake.keep.outcomes.some(
    (o) => (o.pocket !== null && o.pocket !== "full") || (o.colour !== null && o.colour !== "right"),
  );
  const found = useQuery({ ...causesQuery(bake.id, `${bake.revision}`), enabled: short });
  const change = useBakeChange(bake.id);
  if (!short) return null;
  const why = found.data;
  const line = why?.change ? `Next time: ${why.change.text.toLowerCase()}.` : "";
  const written = line !== "" && bake.settings.note.includes(line);
  return (
    <Panel aria-label="Why it fell short" data-testid="causes">
      {!why && (found.error ? <Plate>{found.error.message}</Plate> : <p className="quiet">Looking for the cause…</p>)}
      {why && why.rounds.length > 0 && (
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
                  <span className="quiet">{c.evidence}</span>
                </span>
                <span className="bar" data-known={c.known} aria-hidden="true">
                  <span style={{ width: `${100 * c.share}%` }} />
                </span>
                <span className="share">{(100 * c.share).toFixed(0)} %</span>
              </li>
            ))}
          </ol>
          {why.other_share >= 0.5 && <p className="quiet">Nothing that was logged explains it.</p>}
          {why.ask && <p>{why.ask.text}</p>}
          {why.change && (
            <div className="change">
              <span className="quiet">Change one thing</span>
              <b>{why.change.text}</b>
              {written ? (
                <span>written down for next time</span>
              ) : (
                <Button
                  data-kind="brass"
                  onPress={() => change.mutate({ note: [bake.settings.note, line].filter(Boolean).join("\n") })}
                >
                  Write it down for next time
                </Button>
              )}
            </div>
          )}
        </>
      )}
    </Panel>
  );
}
