import { useMemo, useState } from "react";
import styled from "styled-components";
import { type Bake, Problem, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useBakeChange, useRead, useUnread } from "../../api/queries";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Cautions, Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { BakeHead } from "../../frame/BakeHead";
import { StepBar } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { RiseChart } from "../../instruments/RiseChart";
import { Rescue } from "./Rescue";
import { clockNear, ms, span, temp, tempUnit } from "../../words/format";

const Below = styled.div`
  display: grid; grid-template-columns: 290px minmax(0, 1fr) 330px; gap: 8px 28px; border-top: 2px solid var(--hair-2); padding-top: 10px;
  .big { font: 700 48px/1 var(--name); }
  > div { display: grid; gap: 8px; align-content: start; }
  .row { display: flex; gap: 10px; flex-wrap: wrap; align-items: end; }
  li { display: flex; gap: 12px; align-items: center; font-family: var(--mono); }
  @media (max-width: 1000px) { grid-template-columns: minmax(0, 1fr); }
`;

/** The jar beside the curve, the windows, the table; a look at the dough corrects it all. */
export function RiseLeaf({ bake }: { bake: Bake }) {
  const units = useWords();
  const now = useNow(5000);
  const [box, width] = useWidth<HTMLDivElement>();
  const rise = bake.rise;
  const points = useMemo(
    () =>
      rise?.trace.at.map((at, i) => ({
        t: ms(at), ratio: rise.trace.ratio[i]!, low: rise.trace.ratio_p10[i]!, high: rise.trace.ratio_p90[i]!, doughC: rise.trace.dough_c[i]!,
      })) ?? [],
    [rise],
  );
  if (!rise) return (<><BakeHead bake={bake} about="" /><Plate>{bake.faults["rise"] ?? bake.faults["weigh"] ?? "There is nothing to forecast yet."}</Plate><StepBar bake={bake} keys={["mix", "ball", "roll"]} /></>);
  const stage = rise.stage_now === "ball proof" ? 1 : 0;
  const at = (t: number) => clockNear(t, now, units.zone);
  return (
    <>
      <BakeHead bake={bake} about={`${rise.stage_now ?? "not mixed yet"}; 8 in 10 land in the band`} />
      {rise.late_min >= 1 && <Plate>The dough needs {span(rise.late_min * 60e3)} more than the table gives. Serve later, warm the dough, or take more yeast.</Plate>}
      <div ref={box}>
        {width > 0 && (
          <RiseChart
            width={width} points={points} now={now} serve={ms(bake.serve_at)} ratioNow={rise.ratio_now} doughNow={rise.dough_c_now} stage={stage}
            windows={rise.windows.map((w) => ({
              name: w.stage, begins: ms(w.begins_at), target: w.target_ratio, ready: stamp(w.ready.p50), from: stamp(w.best_from.p50), to: stamp(w.best_to.p50), tooFar: stamp(w.too_far.p50),
            }))}
            readings={rise.readings.filter((r) => r.value !== null).map((r) => ({ t: ms(r.at), ratio: r.value!, id: r.id }))}
            clock={(t) => at(t)} degrees={(c) => `${temp(c, units)} ${tempUnit(units)}`}
          />
        )}
      </div>
      <Windows rise={rise} at={at} />
      <Below>
        <Now rise={rise} bake={bake} stage={stage} at={at} />
        <StepBar bake={bake} keys={["mix", "ball", "roll"]} />
        <Looks bake={bake} rise={rise} at={at} />
      </Below>
      {rise.stage_now && bake.status === "live" && !bake.taps.some((t) => t.kind === "roll") && <Rescue bake={bake} />}
      <Cautions items={rise.cautions} />
    </>
  );
}

const stamp = (iso: string | null): number | null => (iso === null ? null : ms(iso));

function Now({ rise, bake, stage, at }: { rise: Schemas["RiseOut"]; bake: Bake; stage: number; at: (t: number) => string }) {
  const units = useWords();
  const change = useBakeChange(bake.id);
  const w = rise.windows[stage]!;
  const field = change.error instanceof Problem ? change.error.fields[0]?.detail : null;
  return (
    <div>
      {rise.ratio_now !== null ? (
        <p><span className="big">{rise.ratio_now.toFixed(2)}</span> × now <span className="quiet">dough {temp(rise.dough_c_now ?? 0, units, 1)} {tempUnit(units)}</span></p>
      ) : (
        <p className="quiet">The clock starts when you mark it mixed.</p>
      )}
      <div>
        {w.stage} ready at{" "}
        <Why why={rise.why["ready"]} label="Ready time"><span className="big" style={{ fontSize: 40 }}>{w.ready.p50 ? at(ms(w.ready.p50)) : "never"}</span></Why>
      </div>
      <div className="row">
        <Field label="bulk to" value={String(bake.settings.bulk_ratio)} unit="×" width="5em" fault={field ?? null} onCommit={(t) => change.mutate({ bulk_ratio: (Number.isNaN(Number(t)) ? t : Number(t)) as number })} />
        <Field label="balls to" value={String(bake.settings.ball_ratio)} unit="×" width="5em" onCommit={(t) => change.mutate({ ball_ratio: (Number.isNaN(Number(t)) ? t : Number(t)) as number })} />
      </div>
      {rise.acid && <p>It ends <b>{rise.acid.word}</b> <span className="quiet">(acidity {rise.acid.tta_ml.toFixed(0)} mL, pH {rise.acid.ph.toFixed(1)}; taste, not safety)</span></p>}
      <p className="quiet">Activity of this dough {rise.activity.toFixed(2)} ×{rise.warm ? "" : "; a quick estimate while the fine one gets ready"}</p>
    </div>
  );
}

function Looks({ bake, rise, at }: { bake: Bake; rise: Schemas["RiseOut"]; at: (t: number) => string }) {
  const read = useRead(bake.id);
  const unread = useUnread(bake.id);
  const [ratio, setRatio] = useState("");
  const [when, setWhen] = useState("");
  const send = () => {
    const value = Number.parseFloat(ratio.replace(",", ".").replace(/[x×]/i, ""));
    read.mutate(
      { bake_id: bake.id, kind: "ratio", value: (Number.isNaN(value) ? ratio : value) as number, at: when || null },
      { onSuccess: () => { setRatio(""); setWhen(""); } },
    );
  };
  return (
    <div>
      <h2>A look at the dough</h2>
      <div className="row">
        <Field label="times its start" value={ratio} placeholder="1.4" unit="×" width="6em" onType={setRatio} onCommit={setRatio} inputMode="decimal" />
        <Field label="when" value={when} placeholder="now" width="7.500em" onType={setWhen} onCommit={setWhen} />
        <Button data-kind="brass" onPress={send} isDisabled={!ratio || read.isPending}>Take it</Button>
      </div>
      {read.error && <Plate>{read.error.message}</Plate>}
      {rise.worth[0] && (
        <p>
          Most worth taking: <b>{rise.worth[0].words}</b>{rise.worth[0].at ? ` at ${at(ms(rise.worth[0].at))}` : ""}
          <span className="quiet">, it narrows the hour by {span(rise.worth[0].narrows_min * 60e3)}{rise.worth[1] ? `; next ${rise.worth[1].words}, ${span(rise.worth[1].narrows_min * 60e3)}` : ""}</span>
        </p>
      )}
      <div className="row" role="group" aria-label="How it feels">
        {(["not_yet", "just", "past"] as const).map((feel) => (
          <Button key={feel} onPress={() => read.mutate({ bake_id: bake.id, kind: "feel", feel, at: when || null })}>{feel.replace("_", " ")}</Button>
        ))}
      </div>
      <ul>
        {[...rise.readings].reverse().map((r) => (
          <li key={r.id}>
            {at(ms(r.at))} {r.value !== null ? `${r.value} ×` : r.feel?.replace("_", " ")}
            <Button data-kind="bare" onPress={() => unread.mutate(r.id)}>undo</Button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Windows({ rise, at }: { rise: Schemas["RiseOut"]; at: (t: number) => string }) {
  const cell = (b: Schemas["BandedAt"]) =>
    b.p50 === null ? "not reached" : `${at(ms(b.p50))} (${b.p10 ? at(ms(b.p10)) : "?"} to ${b.p90 ? at(ms(b.p90)) : "?"})`;
  return (
    <table className="unseen">
      <caption>Windows of the rise, 8 in 10 inside the brackets</caption>
      <thead><tr><th>stage</th><th>ready</th><th>best from</th><th>best to</th><th>too far</th></tr></thead>
      <tbody>
        {rise.windows.map((w) => (
          <tr key={w.stage}><th>{w.stage}</th><td>{cell(w.ready)}</td><td>{cell(w.best_from)}</td><td>{cell(w.best_to)}</td><td>{cell(w.too_far)}</td></tr>
        ))}
      </tbody>
    </table>
  );
}
