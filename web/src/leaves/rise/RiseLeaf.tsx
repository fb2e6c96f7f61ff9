import { useMutation } from "@tanstack/react-query";
import { memo, useCallback, useMemo, useState } from "react";
import styled from "styled-components";
import { type Bake, Problem, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { askWhatIf } from "../../api/rise";
import { useBakeChange } from "../../api/bake";
import { Field } from "../../controls/Field";
import { Cautions, Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { BakeHead } from "../../frame/BakeHead";
import { StepBar } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { RiseChart } from "../../instruments/RiseChart";
import type { RisePoint } from "../../instruments/riseShapes";
import { clockNear, ms, span, temp, tempUnit, typedNumber } from "../../words/format";
import { JarCard } from "./JarCard";
import { Looks } from "./Looks";
import { Rescue } from "./Rescue";
import { RestView } from "./RestView";
import { Others } from "./Others";
import { Routes } from "./Routes";
import { Stands } from "./Stands";
import { AS_IT_IS, useWhatIf } from "./useWhatIf";
import { WhatIf } from "./WhatIf";

const Below = styled.div`
  display: grid;
  grid-template-columns: 310px minmax(0, 1fr) 330px;
  gap: 8px 28px;
  border-top: 2px solid var(--hair-2);
  padding-top: 10px;
  .big {
    font: 700 48px/1 var(--name);
  }
  > div {
    display: grid;
    gap: 8px;
    align-content: start;
  }
  .row {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
    align-items: end;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const KEYS = ["sponge", "mix", "ball", "cold_in", "cold_out", "roll"] as const;
type Rise = Schemas["RiseRead"];
const stamp = (iso: string | null): number | null => (iso === null ? null : ms(iso));
const pointsOf = (rise: Rise): RisePoint[] =>
  rise.trace.at.map((at, i) => ({
    t: ms(at),
    ratio: rise.trace.ratio[i]!,
    low: rise.trace.ratio_p10[i]!,
    high: rise.trace.ratio_p90[i]!,
    doughC: rise.trace.dough_c[i]!,
  }));

/** The jar beside the curve, the windows, the table; a look at the dough corrects it all, and every cause can be dragged. */
export function RiseLeaf({ bake }: { bake: Bake }) {
  if (bake.rest) return <RestView bake={bake} rest={bake.rest} />;
  if (!bake.rise)
    return (
      <>
        <BakeHead bake={bake} about="" />
        <Plate>{bake.faults["rise"] ?? bake.faults["weigh"] ?? "There is nothing to forecast yet."}</Plate>
        <StepBar bake={bake} keys={KEYS} />
      </>
    );
  return <Rising bake={bake} rise={bake.rise} />;
}

function Rising({ bake, rise }: { bake: Bake; rise: Rise }) {
  const units = useWords();
  const now = useNow(5000);
  const [box, width] = useWidth<HTMLDivElement>();
  const what = useWhatIf(bake.id, bake.revision);
  const shown = what.answer?.rise ?? rise;
  const points = useMemo(() => pointsOf(shown), [shown]);
  const ghost = useMemo(() => (shown === rise ? undefined : pointsOf(rise)), [shown, rise]);
  const stage = rise.stage_now === "ball proof" ? 1 : 0;
  const at = useCallback((t: number) => clockNear(t, now, units.zone), [now, units.zone]);
  const open = bake.status === "live" && !bake.taps.some((t) => t.kind === "roll");
  const mixed = bake.steps.some((s) => s.key === "mix" && s.done_at);
  // what is dragged stands where the finger is, before the answer comes
  const serve = ms(what.tried?.serve_at ?? bake.serve_at);
  const cold = shown.cold && { into: ms(shown.cold.into_at), out: ms(shown.cold.out_at) };
  const onCold = (into: number, out: number) => {
    const begin = shown.cold?.stage === "ball" ? ms(shown.balled_at) : ms(shown.mixed_at);
    what.change({
      no_cold: false,
      cold: {
        stage: shown.cold!.stage,
        after_h: Math.max((into - begin) / 3600e3, 0),
        hours: Math.max((out - into) / 3600e3, 0.25),
      },
    });
  };
  return (
    <>
      <BakeHead bake={bake} about={`${rise.stage_now ?? "not mixed yet"}; 8 in 10 land in the band`} />
      {shown.late_min >= 1 && (
        <Plate>
          The dough needs {span(shown.late_min * 60e3)} more than the table gives. Serve later, warm the dough, or take
          more yeast.
        </Plate>
      )}
      <div ref={box}>
        {width > 0 && (
          <RiseChart
            width={width}
            points={points}
            now={now}
            serve={serve}
            ratioNow={rise.ratio_now}
            doughNow={rise.dough_c_now}
            stage={stage}
            windows={shown.windows.map((w) => ({
              name: w.stage,
              begins: ms(w.begins_at),
              target: w.target_ratio,
              ready: stamp(w.ready.p50),
              from: stamp(w.best_from.p50),
              to: stamp(w.best_to.p50),
              tooFar: stamp(w.too_far.p50),
            }))}
            readings={rise.readings
              .filter((r) => r.value !== null && r.kind !== "dough_c")
              .map((r) => ({ t: ms(r.at), ratio: r.value!, id: r.id }))}
            clock={(t) => at(t)}
            degrees={(c) => `${temp(c, units)} ${tempUnit(units)}`}
            cold={cold}
            {...(ghost ? { ghost } : {})}
            {...(open ? { onServe: (t: number) => what.change({ serve_at: new Date(t).toISOString() }), onCold } : {})}
          />
        )}
      </div>
      <Windows rise={shown} at={at} />
      <Below>
        <NowStill rise={rise} bake={bake} stage={stage} at={at} />
        <StepsStill bake={bake} keys={KEYS} />
        <LooksStill bake={bake} rise={rise} at={at} />
      </Below>
      {rise.stage_now && open && <RescueStill bake={bake} />}
      {open && <WhatIf bake={bake} what={what} />}
      {open && !mixed && <RoutesStill bake={bake} />}
      {open && !mixed && <OthersStill bake={bake} />}
      <StandsStill bake={bake} rise={rise} />
      <JarStill bake={bake} />
      {rise.soda && <p>{rise.soda}</p>}
      <Cautions items={rise.cautions} />
    </>
  );
}

// what a drag does not touch stays as it was drawn
const StepsStill = memo(StepBar);
const LooksStill = memo(Looks);
const RescueStill = memo(Rescue);
const RoutesStill = memo(Routes);
const OthersStill = memo(Others);
const StandsStill = memo(Stands);
const JarStill = memo(JarCard);
const NowStill = memo(Now);

const TENTHS = (p: number) =>
  p >= 0.95 ? "It is all but sure" : p <= 0.05 ? "It is hardly possible" : `${Math.round(p * 10)} in 10`;
const ENDS: Record<string, string> = {
  gas: "it can hold no more gas",
  acid: "acid weakens it",
  strength: "age weakens it",
};

function Now({ rise, bake, stage, at }: { rise: Rise; bake: Bake; stage: number; at: (t: number) => string }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const w = rise.windows[stage]!;
  const field = change.error instanceof Problem ? change.error.fields[0]?.detail : null;
  return (
    <div>
      {rise.ratio_now !== null ? (
        <p>
          <span className="big">{rise.ratio_now.toFixed(2)}</span> × now{" "}
          <span className="quiet">
            dough {temp(rise.dough_c_now ?? 0, units, 1)} {tempUnit(units)}
          </span>
        </p>
      ) : (
        <p className="quiet">The clock starts when you mark it mixed.</p>
      )}
      <div>
        {w.stage} ready at{" "}
        <Why why={rise.why["ready"]} label="Ready time">
          <span className="big" style={{ fontSize: 40 }}>
            {w.ready.p50 ? at(ms(w.ready.p50)) : "never"}
          </span>
        </Why>
      </div>
      {w.matters.length > 0 && <p className="quiet">{w.matters.slice(0, 2).join("; ")}.</p>}
      <Chance bake={bake} said={rise.ready_by[0]} at={at} />
      {w.too_far.p50 && (
        <p className="quiet">
          Too far at {at(ms(w.too_far.p50))}: {ENDS[w.reason] ?? w.reason}.
        </p>
      )}
      {rise.workable_at && rise.cold && (
        <p>
          Warm enough to roll from <b>{at(ms(rise.workable_at))}</b>.
        </p>
      )}
      {rise.safety && (
        <p className="quiet">
          {span(rise.safety.warm_h * 3600e3)} above 5 °C by this plan; the usual count for dairy or egg is{" "}
          {span(rise.safety.limit_h * 3600e3)}
          {rise.safety.reached_at ? `, full at ${at(ms(rise.safety.reached_at))}` : ""}.
          {rise.safety.reached_at && !rise.cold
            ? " Cold instead: a night in the fridge keeps most of it under the count."
            : ""}
        </p>
      )}
      <div className="row">
        <Field
          label="bulk to"
          value={String(bake.settings.bulk_ratio)}
          unit="×"
          width="5em"
          fault={field ?? null}
          onCommit={(t) => change.mutate({ bulk_ratio: typedNumber(t) })}
        />
        <Field
          label="balls to"
          value={String(bake.settings.ball_ratio)}
          unit="×"
          width="5em"
          onCommit={(t) => change.mutate({ ball_ratio: typedNumber(t) })}
        />
      </div>
      {rise.acid && (
        <p>
          It ends <b>{rise.acid.word}</b>{" "}
          <span className="quiet">
            (acidity {rise.acid.tta_ml.toFixed(0)} mL, pH {rise.acid.ph.toFixed(1)}; taste, not safety)
          </span>
        </p>
      )}
      <p className="quiet">
        Activity of this dough {rise.activity.toFixed(2)} ×{rise.starter ? `, with ${rise.starter}` : ""}
        {rise.warm ? "" : "; a quick estimate while the fine one gets ready"}
      </p>
    </div>
  );
}

/** How likely it is that the balls can be rolled by the plan's hour, or by one that is typed. */
function Chance({ bake, said, at }: { bake: Bake; said: Schemas["ReadyBy"] | undefined; at: (t: number) => string }) {
  const ask = useMutation({ mutationFn: (by: string) => askWhatIf(bake.id, { ...AS_IT_IS, by }) });
  const [by, setBy] = useState("");
  const shown = ask.data?.rise.ready_by[1] ?? said;
  if (!shown) return null;
  return (
    <>
      <p>
        <b>{TENTHS(shown.probability)}</b> that it can be rolled by {at(ms(shown.at))}.
      </p>
      <div data-print="no">
        <Field
          label="and by"
          value={by}
          placeholder="20:00"
          width="7em"
          onType={setBy}
          onCommit={(t) => {
            setBy(t);
            if (t) ask.mutate(t);
            else ask.reset();
          }}
          fault={ask.error?.message ?? null}
        />
      </div>
    </>
  );
}

function Windows({ rise, at }: { rise: Rise; at: (t: number) => string }) {
  const cell = (b: Schemas["BandedAt"]) =>
    b.p50 === null
      ? "not reached"
      : `${at(ms(b.p50))} (${b.p10 ? at(ms(b.p10)) : "?"} to ${b.p90 ? at(ms(b.p90)) : "?"})`;
  return (
    <table className="unseen">
      <caption>Windows of the rise, 8 in 10 inside the brackets</caption>
      <thead>
        <tr>
          <th>stage</th>
          <th>ready</th>
          <th>best from</th>
          <th>best to</th>
          <th>too far</th>
        </tr>
      </thead>
      <tbody>
        {rise.windows.map((w) => (
          <tr key={w.stage}>
            <th>{w.stage}</th>
            <td>{cell(w.ready)}</td>
            <td>{cell(w.best_from)}</td>
            <td>{cell(w.best_to)}</td>
            <td>{cell(w.too_far)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
