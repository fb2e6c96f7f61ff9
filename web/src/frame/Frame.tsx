import { useQuery } from "@tanstack/react-query";
import { lazy, type ReactNode, Suspense, useEffect, useSyncExternalStore } from "react";
import { useLocation } from "react-router";
import styled from "styled-components";
import { type Bake, type Bench, Problem, type SayPart } from "../api/client";
import { useOutboxPump } from "../api/outbox";
import { bakeQuery, benchQuery } from "../api/bake";
import { clash, onClash } from "../api/edits";
import { newerWaits, onKept } from "../api/kept";
import { Button } from "../controls/Button";
import { StepAlarms } from "../alarms/StepAlarms";
import { BrokenBake } from "./BrokenBakes";
import { DemoClock } from "./DemoClock";
import { fetchLater } from "./later";
import { useOpened } from "./opening";
import { Keys } from "./Keys";
import { Rule } from "./Rule";
import { SayLine } from "./SayLine";
import { RoomBar, ThumbIndex } from "./ThumbIndex";
import { UnitsContext } from "./units";
import { UndoAct } from "./UndoAct";
import { Wall } from "./Wall";
import { span } from "../words/format";
import { SAY } from "../words/say/frame";

// sheets and reports that the first view has not are fetched when they are wanted
const ClashSheet = lazy(() => import("./ClashSheet").then((m) => ({ default: m.ClashSheet })));
const Newer = lazy(() => import("./Newer").then((m) => ({ default: m.Newer })));
const FitReport = lazy(() => import("./FitReport").then((m) => ({ default: m.FitReport })));

const APART_S = 2;
const FIRE = /\/fire$/; // a newer page never comes in the midst of a hearth
const FIT_H = 70; // what the report of a bake that does not fit takes [px]
const Page = styled.div`
  height: 100%;
  display: grid;
  grid-template: auto auto minmax(0, 1fr) auto auto / minmax(0, 1fr);
  > header {
    position: relative;
  }
  > main {
    position: relative;
    overflow-y: auto;
    padding: 8px 24px 40px;
    scroll-padding: 20px 20px 84px;
    display: flex;
    flex-direction: column;
  }
  > main > * {
    flex: none;
  }
  @media (max-width: 600px) {
    > main {
      padding: 12px 16px 40px;
    }
  }
  @media print {
    display: block;
    height: auto;
    > main {
      overflow: visible;
    }
  }
`;
const Centre = styled.div`
  display: grid;
  place-content: center;
  justify-items: start;
  gap: 16px;
  height: 100%;
  padding: 24px;
  max-width: 60ch;
  margin: 0 auto;
  p {
    font: 500 26px/1.25 var(--name);
  }
`;

const NOT_UP = 503; // its words say how long that takes

/** The waiting, failing and missing states of any screen. */
export function Standing({ fault, retry }: { fault: Error | null; retry: () => void }) {
  if (!fault)
    return (
      <Centre role="status">
        <p>{SAY.readingTheKitchen}</p>
      </Centre>
    );
  const away = fault instanceof Problem && fault.away;
  if (away && fault.status === NOT_UP)
    return (
      <Centre role="status">
        <p>{fault.message}</p>
        {SAY.thisPageGoesOnByItself}
      </Centre>
    );
  return (
    <Centre role="alert">
      <p>{away ? SAY.theServerIsOutOfReachNothing : fault.message}</p>
      <Button onPress={retry}>Try again</Button>
      <a href="/">{SAY.toTheFirstPage}</a>
    </Centre>
  );
}

/** A screen outside a bake: the Rule, the say-line, the room. */
export function RoomFrame({
  kitchen,
  here,
  children,
}: {
  kitchen: number;
  here: string;
  children: (bench: Bench) => ReactNode;
}) {
  const bench = useQuery(benchQuery(kitchen));
  useOutboxPump();
  if (!bench.data) return <Standing fault={bench.failureReason} retry={() => void bench.refetch()} />;
  const b = bench.data;
  return (
    <Shell room bench={b} say={b.say} foot={<RoomBar kitchen={kitchen} here={here} />}>
      <Keys kitchen={kitchen} />
      {children(b)}
    </Shell>
  );
}

/** A leaf of a bake: the same frame with the thumb index. `say` may replace the server's sentence. */
export function LeafFrame({
  bake,
  here,
  children,
  say,
  begun = false,
}: {
  bake: number;
  here: string;
  children: (bake: Bake) => ReactNode;
  say?: ((zone: string) => readonly SayPart[] | null) | null;
  begun?: boolean;
}) {
  const found = useQuery(bakeQuery(bake));
  const bench = useQuery({ ...benchQuery(found.data?.kitchen_id ?? 0), enabled: found.data !== undefined });
  useOutboxPump();
  if (!found.data || !bench.data) {
    return <Standing fault={found.failureReason ?? bench.failureReason} retry={() => void found.refetch()} />;
  }
  const b = found.data;
  return (
    <Shell
      bench={bench.data}
      say={say?.(bench.data.kitchen.zone) ?? b.say}
      foot={<ThumbIndex bake={bake} kitchen={b.kitchen_id} here={here} leaves={b.leaves} />}
    >
      <Keys kitchen={b.kitchen_id} bake={bake} />
      {b.status === "live" && b.fits && <UndoAct kitchen={b.kitchen_id} of={b.name} />}
      {b.status === "live" && !b.fits && !begun && (
        <Suspense fallback={<div style={{ height: FIT_H }} />}>
          <FitReport bake={bake} name={b.name} steps={b.steps} />
        </Suspense>
      )}
      {b.faults["bake"] ? <BrokenBake bake={{ bake_id: b.id, name: b.name, text: b.faults["bake"] }} /> : children(b)}
    </Shell>
  );
}

/** The machine's clock was set while the kitchen goes on: said until they agree again. */
function Apart({ seconds }: { seconds: number }) {
  return (
    <p className="quiet" role="note" data-print="no" style={{ padding: "4px 24px" }}>
      {SAY.theMachinesClockWasSet(span(seconds * 1000), seconds > 0 ? "back" : "forward")}
    </p>
  );
}

function Shell({
  bench,
  say,
  foot,
  room = false,
  children,
}: {
  bench: Bench;
  room?: boolean;
  say: readonly SayPart[];
  foot: ReactNode;
  children: ReactNode;
}) {
  const { pathname } = useLocation(); // another screen begins at its top
  const clashing = useSyncExternalStore(onClash, clash) !== null;
  const newer = useSyncExternalStore(onKept, newerWaits);
  const drawn = useOpened();
  useEffect(() => {
    if (drawn) fetchLater();
  }, [drawn]);
  return (
    <UnitsContext value={{ mass: bench.kitchen.mass_unit, temp: bench.kitchen.temp_unit, zone: bench.kitchen.zone }}>
      <Page>
        <header>
          <Rule steps={bench.steps} kitchen={bench.kitchen} away={bench.away} room={room} />
        </header>
        <div>
          <SayLine parts={say} zone={bench.kitchen.zone}>
            <Wall say={say} steps={bench.steps} zone={bench.kitchen.zone} pressed={!bench.clock.simulated} />
            {bench.clock.simulated && <DemoClock kitchen={bench.kitchen.id} rate={bench.clock.rate} />}
          </SayLine>
          <StepAlarms steps={bench.steps} />
          {Math.abs(bench.clock.apart_s ?? 0) > APART_S && <Apart seconds={bench.clock.apart_s!} />}
        </div>
        <main key={pathname}>{drawn && children}</main>
        <Suspense>{clashing && <ClashSheet />}</Suspense>
        <Suspense>{newer && !FIRE.test(pathname) && <Newer />}</Suspense>
        {foot}
      </Page>
    </UnitsContext>
  );
}
