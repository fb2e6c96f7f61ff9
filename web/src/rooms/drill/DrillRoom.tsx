import { useQuery } from "@tanstack/react-query";
import { useCallback } from "react";
import { useSearchParams } from "react-router";
import styled from "styled-components";
import type { Bench, Schemas } from "../../api/client";
import { type DrillKind, drillQuery, openCase, type Try } from "../../api/drill";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { useWords } from "../../frame/units";
import { degrees, lower } from "../../words/format";
import { SAY } from "../../words/say/drill";
import { CallIt } from "./CallIt";
import { NameFault } from "./NameFault";
import { PlanHands, YourLines } from "./PlanHands";
import { ReadDough } from "./ReadDough";
import { useCommand } from "./useCommand";
import { YourCalls, YourShare } from "./YourCalls";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin-bottom: 10px;
`;
const KINDS = [
  { id: "call", text: "call it" },
  { id: "read", text: "read the dough" },
  { id: "fault", text: "name the fault" },
  { id: "hands", text: "plan the hands" },
] as const;
const WHOSE = [
  { id: "house", text: SAY.ofTheHouse },
  { id: "own", text: SAY.ofThisKitchen },
] as const;
const [SET, OWN_SET] = [12, 10];
type Whose = (typeof WHOSE)[number]["id"];

/** Practice without flour: four kinds of cases, of the house or of one's own kitchen. */
export function DrillRoom({ bench }: { bench: Bench }) {
  const kitchen = bench.kitchen.id;
  const [params, setParams] = useSearchParams();
  const kind = KINDS.find((k) => k.id === params.get("kind"))?.id ?? "call";
  const how = useQuery(drillQuery(kitchen));
  const mine = how.data?.kinds.find((k) => k.kind === kind);
  const whose: Whose = params.get("of") === "own" && mine?.own_left !== null ? "own" : "house";
  const set = useCallback(
    (part: Record<string, string>) =>
      setParams((had) => new URLSearchParams({ ...Object.fromEntries(had), ...part }), { replace: true }),
    [setParams],
  );
  const open = useQuery({
    queryKey: ["drill-case", kitchen, kind, whose],
    queryFn: () => openCase(kitchen, { kind, own: whose === "own" }),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const next = useCallback(() => void open.refetch(), [open]);
  useCommand(
    Object.fromEntries(KINDS.map((k, i) => [String(i + 1), () => set({ kind: k.id })])) as Record<string, () => void>,
  );
  const shown = open.data;
  return (
    <>
      <Head>
        <h1>Drill</h1>
        <Choice label={SAY.whatIsPractised} value={kind} options={KINDS} onChange={(v) => set({ kind: v })} />
        <Choice
          label={SAY.whoseCases}
          value={whose}
          options={WHOSE.map((w) => ({ ...w, disabled: w.id === "own" && mine?.own_left === null }))}
          onChange={(v) => set({ of: v })}
        />
        {shown && (
          <span className="quiet">{SAY.caseOf(shown.number, whose === "own" ? OWN_SET : SET, shown.level)}</span>
        )}
      </Head>
      {open.isFetching && <p className="quiet">{SAY.theNextCaseIsDrawn}</p>}
      {open.error && !open.isFetching && (
        <div role="alert">
          <p>{open.error.message}</p>
          <Button onPress={next}>Try again</Button>
        </div>
      )}
      {shown && !open.isFetching && !open.error && mine && (
        <Case key={shown.id} kitchen={kitchen} shown={shown} onNext={next} mine={mine} hearth={how.data!.hearth} />
      )}
    </>
  );
}

/** A bread in words: what it is, where it lies, how hot that is said to be. */
function Told({ call }: { call: Schemas["CallRead"] }) {
  const units = useWords();
  return (
    <p>
      {SAY.aBreadOn(
        call.bread,
        lower(call.surface),
        degrees(call.surface_c, units),
        call.thickness_mm.toFixed(1),
        degrees(call.dough_c, units),
      )}
    </p>
  );
}

function Case({
  kitchen,
  shown,
  onNext,
  mine,
  hearth,
}: {
  kitchen: number;
  shown: Try;
  onNext: () => void;
  mine: Schemas["KindRead"];
  hearth: readonly Schemas["RealCall"][];
}) {
  const of: Record<DrillKind, () => React.ReactNode> = {
    call: () => (
      <CallIt
        {...{ kitchen, shown, onNext }}
        how={<YourCalls how={mine} hearth={hearth} />}
        told={<Told call={shown.call!} />}
      />
    ),
    read: () => <ReadDough {...{ kitchen, shown, onNext }} how={<YourShare how={mine} />} />,
    fault: () => <NameFault {...{ kitchen, shown, onNext }} how={<YourShare how={mine} />} />,
    hands: () => (
      <PlanHands
        {...{ kitchen, shown, onNext }}
        how={<YourLines ratios={mine.last.flatMap((m) => (m.ratio == null ? [] : [m.ratio]))} />}
      />
    ),
  };
  return of[shown.kind]();
}
