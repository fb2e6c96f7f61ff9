import { useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useBakeChange, useStatus } from "../../api/bake";
import { useJudge } from "../../api/keep";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Cautions, Plate } from "../../controls/Notice";
import { BakeHead } from "../../frame/BakeHead";
import { Tray } from "../../instruments/Tray";
import { span } from "../../words/format";
import { Link } from "react-router";
import { Causes } from "./Causes";
import { StaysSoft } from "./StaysSoft";

const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.12fr) minmax(0, 1fr);
  gap: 12px 32px;
  > div {
    display: grid;
    gap: 12px;
    align-content: start;
  }
  .row {
    display: flex;
    gap: 10px 18px;
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
const Facts = styled.table`
  border-collapse: collapse;
  width: 100%;
  th {
    text-align: left;
    font-weight: 500;
    color: var(--ink-2);
    font-size: 16px;
    border-bottom: 2px solid var(--ink);
    padding: 3px 0;
  }
  td {
    border-bottom: 1px solid var(--hair);
    padding: 5px 0;
  }
  td.said {
    font-family: var(--mono);
    color: var(--ink-2);
  }
  td.was {
    font: 700 20px/1 var(--mono);
    text-align: right;
    letter-spacing: -0.03em;
  }
  th:last-child {
    text-align: right;
  }
  tr[data-inside="false"] td:first-child {
    font-weight: 700;
  }
`;

/** What happened, beside what was said. */
export function KeepLeaf({ bake }: { bake: Bake }) {
  const judge = useJudge(bake.id);
  const status = useStatus(bake.id);
  const change = useBakeChange(bake.id);
  const [chosen, setChosen] = useState<number | null>(null);
  const { rounds } = bake.keep;
  const mixed = new Set(rounds.map((x) => x.name)).size > 1;
  const breads = rounds.map(({ round_no, name, pieces }) => {
    const found = bake.keep.outcomes.find((o) => o.round_no === round_no);
    const nth = rounds.filter((x) => x.name === name && x.round_no <= round_no).length;
    const own = pieces > 1 ? (mixed ? name : `Tray of ${pieces}`) : mixed ? `${name} ${nth}` : `Round ${round_no}`;
    const mark = pieces > 1 ? String(pieces) : String(mixed ? nth : round_no);
    return { round: round_no, name: own, mark, pocket: found?.pocket ?? null, colour: found?.colour ?? null };
  });
  const current = chosen ?? breads.find((b) => !b.pocket || !b.colour)?.round ?? 1;
  const bread = breads.find((b) => b.round === current) ?? breads[0];
  const tally = (word: string) => breads.filter((b) => b.pocket === word).length;
  const judged = breads.filter((b) => b.pocket).length;
  return (
    <>
      <BakeHead
        bake={bake}
        about={
          judged
            ? `${judged} judged: ${tally("full")} full, ${tally("part")} part, ${tally("flat")} flat`
            : "press a bread, say what became of it"
        }
      />
      <Two>
        <div>
          <Tray breads={breads} named={mixed} chosen={current} onChoose={setChosen} />
          <div className="row" role="group" aria-label={bread?.name}>
            <b>{bread?.name}</b>
            <Choice
              label="Pocket"
              value={(bread?.pocket ?? null) as "full" | null}
              options={[
                { id: "full", text: "full" },
                { id: "part", text: "part" },
                { id: "flat", text: "flat" },
              ]}
              onChange={(pocket) => judge.mutate({ round_no: current, pocket })}
            />
            <Choice
              label="Colour"
              value={(bread?.colour ?? null) as "right" | null}
              options={[
                { id: "pale", text: "pale" },
                { id: "right", text: "right" },
                { id: "dark", text: "dark" },
              ]}
              onChange={(colour) => judge.mutate({ round_no: current, colour })}
            />
          </div>
          {judge.error && <Plate>{judge.error.message}</Plate>}
          <div className="row">
            {bake.status === "kept" ? (
              <>
                <b>Kept in the logbook.</b>
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
          {bake.fire?.pocket && (
            <Cautions
              items={[{ code: "steam", text: "A puffed bread is full of live steam: tear it facing away from you." }]}
            />
          )}
        </div>
        <div>
          <h2>Forecast beside fact</h2>
          <FactTable facts={bake.keep.facts} />
          <p className="quiet">
            Activity of this kitchen {bake.keep.activity_before.toFixed(2)}
            {bake.status === "kept" && bake.keep.activity_after !== bake.keep.activity_before
              ? `, after this bake ${bake.keep.activity_after.toFixed(2)}`
              : ""}
          </p>
          <label htmlFor="note">
            <h2>A line for next time</h2>
          </label>
          <Note
            id="note"
            key={`${bake.id} ${bake.settings.note}`}
            note={bake.settings.note}
            onSave={(note) => change.mutate({ note })}
          />
          {change.error && <Plate>{change.error.message}</Plate>}
        </div>
      </Two>
      <Causes bake={bake} />
      <StaysSoft bake={bake} />
    </>
  );
}

function Note({ id, note, onSave }: { id: string; note: string; onSave: (note: string) => void }) {
  const [draft, setDraft] = useState(note);
  return (
    <textarea
      id={id}
      value={draft}
      maxLength={20000}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={() => draft !== note && onSave(draft)}
      placeholder="what to change, what to keep"
    />
  );
}

const figure = (v: number | null): string => (v === null ? "–" : span(v * 1000));

function FactTable({ facts }: { facts: readonly Schemas["FactRead"][] }) {
  if (facts.length === 0)
    return (
      <p className="quiet">Nothing was marked while it happened, so there is nothing to set beside the forecast.</p>
    );
  return (
    <Facts>
      <thead>
        <tr>
          <th>what</th>
          <th>said</th>
          <th>8 in 10 band</th>
          <th>was</th>
        </tr>
      </thead>
      <tbody>
        {facts.map((f) => (
          <tr key={f.name} data-inside={f.inside ?? undefined}>
            <td>{f.name}</td>
            <td className="said">{figure(f.said)}</td>
            <td>
              <Strip place={f.place} inside={f.inside} />
            </td>
            <td className="was">{figure(f.was)}</td>
          </tr>
        ))}
      </tbody>
    </Facts>
  );
}

/** The band normalised; a ring inside it, a solid square outside. */
function Strip({ place, inside }: { place: number | null; inside: boolean | null }) {
  const x = place === null ? 0 : 24 + Math.min(1.18, Math.max(-0.18, place)) * 100;
  const word = inside === null ? "no fact" : inside ? "inside" : "outside";
  return (
    <svg width="148" height="24" role="img" aria-label={word}>
      <rect x="24" y="3" width="100" height="18" fill="var(--recess)" stroke="var(--hair-2)" />
      <line x1="74" x2="74" y1="1" y2="23" stroke="var(--ink)" strokeWidth="1.500" />
      {inside === true && <circle cx={x} cy="12" r="6" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2.500" />}
      {inside === false && <rect x={x - 6} y="6" width="12" height="12" fill="var(--ink)" />}
    </svg>
  );
}
