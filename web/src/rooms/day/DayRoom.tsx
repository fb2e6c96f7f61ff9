import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import type { Bench } from "../../api/client";
import { useNow } from "../../api/clock";
import { dayQuery } from "../../api/day";
import { Button } from "../../controls/Button";
import { UndoAct } from "../../frame/UndoAct";
import { FitReport } from "../../frame/FitReport";
import { useWords } from "../../frame/units";
import { DayMoves } from "./DayMoves";
import { Together } from "./Together";
import { clockNear } from "../../words/format";
import { SAY } from "../../words/say/day";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 10px 30px;
  align-items: start;
  aside {
    border-left: 1.5px solid var(--hair-2);
    padding-left: 20px;
    display: grid;
    gap: 12px;
  }
  .links {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 22px;
    align-items: center;
  }
  .links a {
    color: var(--brass);
    font-weight: 650;
    border-bottom: 2px solid var(--brass);
    padding: 12px 0 4px;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    aside {
      border-left: 0;
      padding-left: 0;
    }
  }
  @media print {
    display: block;
    aside {
      display: none;
    }
  }
`;
const Changes = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
  li {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
    display: grid;
    gap: 2px;
  }
  b {
    font: 700 16px/1 var(--mono);
  }
`;

/** The day for those who would rather read: every hand move ahead, when, where, how long and why; and what has moved. */
export function DayRoom({ bench }: { bench: Bench }) {
  const { zone } = useWords();
  const now = useNow(10_000);
  const open = bench.steps.filter((s) => !s.done_at);
  const tight = bench.bakes.filter((b) => b.status === "live" && !b.fits);
  const live = bench.bakes.filter((b) => b.status === "live").length;
  const kitchen = bench.kitchen.id;
  return (
    <Page>
      <div>
        <UndoAct kitchen={kitchen} />
        {tight.map((b) => (
          <FitReport key={b.id} bake={b.id} name={b.name} steps={bench.steps} />
        ))}
        {open.length === 0 && (
          <p style={{ font: "500 24px/1.3 var(--name)", padding: "30px 0" }}>
            {SAY.noHandMoveLiesAhead} <Link to={`/k/${kitchen}/new`}>{SAY.startANewBake}</Link>
            {SAY.sayWhenPeopleEatAndIts}
          </p>
        )}
        <DayMoves bench={bench} />
      </div>
      <aside>
        <div className="links" data-print="no">
          <Button onPress={() => print()}>Print the day</Button>
          <a href={`/api/kitchens/${kitchen}/plan/ics`} download>
            As a calendar
          </a>
          <a href={`/api/kitchens/${kitchen}/plan/csv`} download>
            For a spreadsheet
          </a>
          <Link to={`/k/${kitchen}/kitchen?at=hours`}>Hours away</Link>
        </div>
        {live > 1 && <Together kitchen={kitchen} />}
        <Moved kitchen={kitchen} now={now} zone={zone} />
      </aside>
    </Page>
  );
}

function Moved({ kitchen, now, zone }: { kitchen: number; now: number; zone: string }) {
  const day = useQuery(dayQuery(kitchen));
  return (
    <section data-print="no">
      <h2>What has moved</h2>
      {day.error && <p role="alert">{day.error.message}</p>}
      {day.data?.moved.length === 0 && <p className="quiet">{SAY.nothingYetEveryPlanStandsAs}</p>}
      <Changes>
        {day.data?.moved.map((m) => (
          <li key={`${m.bake_id}-${m.at}`}>
            <span>
              <b>{clockNear(m.at, now, zone)}</b> {m.bake}
            </span>
            <span>{m.text}</span>
          </li>
        ))}
      </Changes>
    </section>
  );
}
