import { useQuery } from "@tanstack/react-query";
import { useCallback, useState } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import type { Bench } from "../../api/client";
import { type Asked, figuresQuery } from "../../api/logbook";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { SAY } from "../../words/say/logbook";
import { ChooseBakes } from "./ChooseBakes";
import { Believed, Costs, Ready } from "./Lower";
import { PackageSheet } from "./PackageSheet";
import { PastList } from "./PastList";
import { Pockets } from "./Pockets";
import { TwoBakes } from "./TwoBakes";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  align-items: center;
  > :last-child {
    margin-left: auto;
  }
`;
const Lower = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(300px, 1fr));
  gap: 12px 28px;
  border-top: 2px solid var(--hair-2);
  padding-top: 8px;
`;
const FEW = 4; // bakes: fewer show nothing together yet
const VIEWS = [
  { id: "drawn", text: "instruments" },
  { id: "list", text: "list" },
] as const;
const NAMES = ["words", "bread", "leaven", "surface_id", "became", "season"] as const;

/** Past bakes: what they show together, or one by one; chosen by what they were and by the words they hold. */
export function LogbookRoom({ bench }: { bench: Bench }) {
  const kitchen = bench.kitchen.id;
  const [params, setParams] = useSearchParams();
  const asked: Asked = Object.fromEntries(NAMES.flatMap((n) => (params.get(n) ? [[n, params.get(n)]] : [])));
  const figures = useQuery(figuresQuery(kitchen, asked));
  const kept = figures.data?.breads.reduce((sum, b) => sum + b.bakes, 0) ?? FEW;
  const view = (params.get("view") ?? (kept < FEW ? "list" : "drawn")) === "list" ? "list" : "drawn";
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [sheet, setSheet] = useState(false);
  const set = useCallback(
    (part: Record<string, string | null>) =>
      setParams(
        (had) => {
          const next = new URLSearchParams(had);
          for (const [name, value] of Object.entries(part)) {
            if (value === null) next.delete(name);
            else next.set(name, value);
          }
          return next;
        },
        { replace: true },
      ),
    [setParams],
  );
  const choose = (bake: number) =>
    setChosen((had) => (had.includes(bake) ? had.filter((x) => x !== bake) : [...had.slice(-1), bake]));
  const f = figures.data;
  const none = f && f.breads.length === 0;
  return (
    <>
      <Head>
        <h1>Logbook</h1>
        {f && (
          <span className="quiet" role="status">
            {SAY.bakes(f.bakes)}
            {f.left_out > 0 && `, ${SAY.someLeftOut(f.left_out)}`}
          </span>
        )}
        <Choice label={SAY.howTheyAreShown} value={view} options={VIEWS} onChange={(v) => set({ view: v })} />
        <Button data-kind="bare" onPress={() => setSheet(true)}>
          {SAY.takeAwayBringIn}
        </Button>
      </Head>
      {none ? (
        <p className="quiet">{SAY.nothingIsKeptYetABake}</p>
      ) : (
        <>
          <ChooseBakes asked={asked} figures={f} onAsk={set} />
          {figures.error && <p role="alert">{figures.error.message}</p>}
          {f && f.bakes === 0 && <p>{SAY.noneIsLikeThat}</p>}
          {view === "list" ? (
            <PastList kitchen={kitchen} asked={asked} />
          ) : (
            f &&
            f.bakes > 0 && (
              <>
                <Pockets figures={f} chosen={chosen} onChoose={choose} />
                <Lower>
                  <Ready figures={f} chosen={chosen} onChoose={choose} />
                  <Believed figures={f} />
                  <TwoBakes kitchen={kitchen} chosen={chosen} />
                  <Costs figures={f} />
                </Lower>
              </>
            )
          )}
        </>
      )}
      {sheet && <PackageSheet kitchen={kitchen} onClose={() => setSheet(false)} />}
    </>
  );
}
