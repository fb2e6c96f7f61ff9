import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Bench, Brief } from "../../api/client";
import { tellAsked, useStatus } from "../../api/bake";
import { useNow } from "../../api/clock";

import { freezerQuery } from "../../api/freezer";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { BrokenBakes } from "../../frame/BrokenBakes";
import { usePrinting } from "../../frame/printing";
import { Upright } from "../../frame/Upright";
import { useWords } from "../../frame/units";
import { DayMoves } from "../day/DayMoves";
import { Glyph, GLYPH_OF_STEP, Seal } from "../../instruments/Glyph";
import { Thermometer } from "../../instruments/Thermometer";
import { Vessel } from "../../instruments/Vessel";
import { clockNear, dayName, lower, ms, span, temp } from "../../words/format";
import { stepKind, stepPath } from "../../words/steps";
import { SAY } from "../../words/say/bench";

const DOUGH = new Set(["ball", "roll", "line"]);
const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 346px;
  gap: 10px 28px;
  min-height: 100%;
  .upright,
  .sheet {
    display: none;
  }
  @media print {
    > * {
      display: none;
    }
    .sheet {
      display: block;
      grid-column: 1 / -1;
    }
  }
  @media (max-width: 600px) {
    .upright {
      display: block;
      margin-bottom: 16px;
    }
    .level {
      display: none;
    }
  }
  aside {
    border-left: 1.5px solid var(--hair-2);
    padding-left: 20px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    aside {
      border-left: 0;
      padding: 0;
    }
  }
`;
const Vessels = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(340px, 1fr));
  gap: 10px 26px;
  .on-bench {
    border-bottom: 5px double var(--ink);
  }
  .over {
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
const Moves = styled.ol`
  li {
    border-bottom: 1px solid var(--hair);
  }
  a {
    display: grid;
    grid-template-columns: 92px 34px 26px minmax(0, 1fr) auto auto;
    gap: 12px;
    align-items: center;
    min-height: 48px;
    text-decoration: none;
  }
  li[data-now="true"] a {
    background: var(--brass-wash);
    box-shadow: -6px 0 0 var(--brass);
  }
  .at {
    font: 700 24px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  li[data-now="true"] .at {
    font-size: 27px;
  }
  .name {
    font-weight: 600;
    font-size: 20px;
  }
  .wait {
    color: var(--ink-2);
    font-size: 16px;
  }
  .until {
    font: 700 20px/1 var(--mono);
  }
  a:hover .name {
    text-decoration: underline;
  }
  @media (max-width: 600px) {
    a {
      grid-template-columns: 76px 30px minmax(0, 1fr) auto;
    }
    .seal,
    .wait {
      display: none;
    }
  }
`;
const Empty = styled.div`
  display: grid;
  gap: 12px;
  padding: 40px 0;
  max-width: 46ch;
  p {
    font: 500 24px/1.3 var(--name);
  }
  a {
    font: 700 22px/1 var(--name);
    color: var(--brass);
    border-bottom: 3px solid var(--brass);
    width: fit-content;
    padding: 12px 0 6px;
  }
`;

/** What is alive now, the next hand moves, the kitchen's temperatures. */
export function BenchRoom({ bench }: { bench: Bench }) {
  const units = useWords();
  const soonest = (b: Brief) => ms(bench.steps.find((s) => s.bake_id === b.id && !s.done_at)?.at ?? b.serve_at);
  const isOver = (b: Brief) => b.leaves.some((l) => l.leaf === "fire" && l.state === "done");
  const over = bench.bakes.filter((b) => b.status === "live" && isOver(b));
  const live = bench.bakes.filter((b) => b.status === "live" && !isOver(b)).sort((a, b) => soonest(a) - soonest(b));
  const shown = live.length > 4 ? live.slice(0, 4) : live;
  const printing = usePrinting();
  const deg = (c: number) => `${temp(c, units, 1)}°`;
  const { hourly_c } = bench.kitchen;
  const marks = [
    { name: "room", c: bench.room_c, strong: true },
    ...live
      .filter((b) => b.dough_c !== null)
      .slice(0, 3)
      .map((b) => ({ name: b.name.toLowerCase().slice(0, 12), c: b.dough_c! })),
    { name: "tap water", c: bench.kitchen.tap_c },
    { name: "fridge", c: bench.kitchen.fridge_c },
  ];
  return (
    <Two>
      {printing && (
        <div className="sheet">
          <h1>{bench.kitchen.name}</h1>
          <DayMoves bench={bench} />
        </div>
      )}
      <div>
        <BrokenBakes broken={bench.broken} />
        {bench.instruments.map((n) => (
          <Plate key={n.channel_id} role="note">
            {n.text}
          </Plate>
        ))}
        {live.length + over.length === 0 && bench.broken.length === 0 ? (
          <Empty>
            <p>{SAY.theBenchIsClearSayWhen}</p>
            <Link to={`/k/${bench.kitchen.id}/new`}>{SAY.startANewBake}</Link>
            {bench.steps.some((s) => !s.done_at) && <NextMoves bench={bench} />}
          </Empty>
        ) : (
          <>
            <div className="upright">
              <Upright bench={bench} />
            </div>
            <Vessels>
              {over.map((b) => (
                <Over key={b.id} bake={b} />
              ))}
              {shown.map((b) => (
                <OnBench key={b.id} bake={b} bench={bench} first={b === shown[0]} />
              ))}
              {live.length < 2 && <LastKept bench={bench} />}
            </Vessels>
            {live.length > shown.length && <Later bakes={live.slice(shown.length)} bench={bench} />}
            <div className="level">
              <NextMoves bench={bench} />
            </div>
          </>
        )}
      </div>
      <aside>
        <h2>{bench.kitchen.name}</h2>
        <Thermometer
          marks={marks}
          low={Math.min(...hourly_c)}
          high={Math.max(...hourly_c)}
          degrees={deg}
          tick={(c) => temp(c, units)}
          height={430}
        />
        <Stock kitchen={bench.kitchen.id} />
      </aside>
    </Two>
  );
}

/** A bake that is all off the heat: asked once whether it is to be kept; left alone it goes by itself. */
function Over({ bake }: { bake: Brief }) {
  const status = useStatus(bake.id);
  useEffect(() => {
    void tellAsked(bake.id).catch(() => undefined); // asked again when it is shown again
  }, [bake.id]);
  return (
    <div className="over">
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
    </div>
  );
}

/** A live bake: what its dough is like, and what now. */
function OnBench({ bake, bench, first }: { bake: Brief; bench: Bench; first: boolean }) {
  const units = useWords();
  const now = useNow(10_000);
  const at = (t: string) => clockNear(t, now, units.zone);
  const step = bench.steps.find((s) => s.bake_id === bake.id && !s.done_at);
  const wait = step?.can_wait_until && ms(step.can_wait_until) - ms(step.at) > 60e3 ? step.can_wait_until : null;
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
              {wait && `; ${DOUGH.has(step.key) ? "dough keeps" : "can wait"} until ${at(wait)}`}
            </span>
          </>
        ) : (
          <span className="move">{SAY.nothingIsDue}</span>
        )}
        <span className="quiet">
          {bake.count ?? "?"} breads, serve at {at(bake.serve_at)}
          {bake.ratio !== null ? `; risen ${bake.ratio.toFixed(2)} ×` : ""}
          {bake.ratio !== null && bake.ready_at && ms(bake.ready_at) > now ? `, ready ${at(bake.ready_at)}` : ""}
        </span>
      </span>
    </Live>
  );
}

/** Bakes whose turn comes later, a line each. */
function Later({ bakes, bench }: { bakes: readonly Brief[]; bench: Bench }) {
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
function LastKept({ bench }: { bench: Bench }) {
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

function NextMoves({ bench }: { bench: Bench }) {
  const { zone } = useWords();
  const now = useNow(5000);
  const open = bench.steps.filter((s) => !s.done_at).slice(0, 6);
  return (
    <section style={{ marginTop: 14 }}>
      <h2 style={{ borderBottom: "2px solid var(--ink)", paddingBottom: 4 }}>Next moves</h2>
      <Moves>
        {open.map((s, i) => (
          <li key={`${s.bake_id}-${s.key}`} data-now={i === 0}>
            <Link to={stepPath(s)}>
              <span className="at">{clockNear(s.at, now, zone)}</span>
              <Glyph name={GLYPH_OF_STEP[stepKind(s.key)] ?? "mix"} size={30} />
              <span className="seal">
                <Seal seal={s.seal} size={18} />
              </span>
              <span className="name">
                {s.name}, {s.bake.toLowerCase()}
              </span>
              <span className="wait">
                {s.can_wait_until && ms(s.can_wait_until) - ms(s.at) > 60e3
                  ? `${DOUGH.has(s.key) ? "dough keeps" : "can wait"} ${span(ms(s.can_wait_until) - Math.max(now, ms(s.at)))}, until`
                  : ""}
              </span>
              <span className="until">{s.can_wait_until ? clockNear(s.can_wait_until, now, zone) : ""}</span>
            </Link>
          </li>
        ))}
      </Moves>
    </section>
  );
}

/** What the freezer holds, in a line. */
function Stock({ kitchen }: { kitchen: number }) {
  const stock = useQuery(freezerQuery(kitchen));
  const rows = stock.data?.rows.filter((x) => x.left > 0) ?? [];
  if (rows.length === 0) return null;
  return (
    <p>
      <Link to={`/k/${kitchen}/freezer`}>In the freezer</Link>:{" "}
      {rows.map((x) => `${x.left} ${lower(x.name)}`).join(", ")}
    </p>
  );
}
