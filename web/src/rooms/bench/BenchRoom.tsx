import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import type { Bench, Brief } from "../../api/client";
import { freezerQuery } from "../../api/freezer";
import { Plate } from "../../controls/Notice";
import { BrokenBakes } from "../../frame/BrokenBakes";
import { usePrinting } from "../../frame/printing";
import { Upright } from "../../frame/Upright";
import { useWords } from "../../frame/units";
import { Thermometer } from "../../instruments/Thermometer";
import { lower, ms, temp } from "../../words/format";
import { SAY } from "../../words/say/bench";
import { DayMoves } from "../day/DayMoves";
import { LastKept, Later, OnBench, Over } from "./LiveBakes";
import { NextMoves } from "./NextMoves";

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
