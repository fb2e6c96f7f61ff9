import { memo, useCallback, useMemo, useState } from "react";
import styled from "styled-components";
import { type Bake, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { Button } from "../../controls/Button";
import { Cautions, Plate } from "../../controls/Notice";
import { Panels } from "../../controls/Panels";
import { useWidth } from "../../controls/width";
import { BakeHead } from "../../frame/BakeHead";
import { LeafPage } from "../../frame/LeafPage";
import { NextMove, StepBar } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { RiseChart } from "../../instruments/RiseChart";
import type { RisePoint } from "../../instruments/riseShapes";
import { clockNear, ms, span, temp, tempUnit } from "../../words/format";
import { Figures } from "./Figures";
import { Looks } from "./Looks";
import { Others } from "./Others";
import { Rescue } from "./Rescue";
import { RestView } from "./RestView";
import { Routes } from "./Routes";
import { StagesSheet } from "./StagesSheet";
import { useWhatIf } from "./useWhatIf";
import { WhatIf } from "./WhatIf";
import { SAY } from "../../words/say/rise";

const Picture = styled.div`
  display: grid;
  grid-template-columns: 196px minmax(0, 1fr);
  gap: 0 14px;
  @media (max-width: 760px) {
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
        <Plate>{bake.faults["rise"] ?? bake.faults["weigh"] ?? SAY.thereIsNothingToForecastYet}</Plate>
        <StepBar bake={bake} keys={KEYS} />
      </>
    );
  return <Rising bake={bake} rise={bake.rise} />;
}

function Rising({ bake, rise }: { bake: Bake; rise: Rise }) {
  const units = useWords();
  const now = useNow(5000);
  const [box, width] = useWidth<HTMLDivElement>();
  const [staging, setStaging] = useState(false);
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
    <LeafPage>
      <div>
        <BakeHead bake={bake} about={rise.stage_now ?? "not mixed yet"}>
          <Button data-kind="bare" onPress={() => setStaging(true)}>
            stages…
          </Button>
        </BakeHead>
        {shown.late_min >= 1 && (bake.fits || what.tried) && (
          <Plate>
            The dough needs {span(shown.late_min * 60e3)} {SAY.moreThanThereIsServeLater}
          </Plate>
        )}
      </div>
      <Picture className="instrument">
        <FiguresStill rise={rise} bake={bake} stage={stage} at={at} />
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
              moves={movesOf(bake, what.answer?.steps)}
              clock={(t) => at(t)}
              degrees={(c) => `${temp(c, units)} ${tempUnit(units)}`}
              cold={cold}
              {...(ghost ? { ghost } : {})}
              {...(open
                ? { onServe: (t: number) => what.change({ serve_at: new Date(t).toISOString() }), onCold }
                : {})}
            />
          )}
        </div>
      </Picture>
      <Windows rise={shown} at={at} />
      <div className="foot" data-print="no">
        <Panels
          label="Rise"
          low={shown.cold !== null}
          remember={`rise.${bake.id}`}
          panels={[
            { id: "look", name: "Look at it", key: "l", content: <LooksStill bake={bake} rise={rise} at={at} /> },
            {
              id: "if",
              name: "What if",
              key: "i",
              content: open ? (
                <WhatIf bake={bake} what={what} />
              ) : (
                <p className="quiet">{SAY.itIsRolledNothingMoreCan}</p>
              ),
            },
            {
              id: "ways",
              name: "Other ways",
              key: "o",
              content:
                open && !mixed ? <WaysStill bake={bake} /> : <p className="quiet">{SAY.itIsMixedAnotherWayIs}</p>,
            },
            {
              id: "late",
              name: "Late or fast",
              key: "e",
              content:
                rise.stage_now && open ? (
                  <RescueStill bake={bake} />
                ) : (
                  <p className="quiet">{open ? SAY.onceItIsMixedWhatHolds : SAY.itIsRolledBakeItWhile}</p>
                ),
            },
          ]}
        />
        <NextStill bake={bake} keys={KEYS} after={<Cautions items={rise.cautions} />} />
      </div>
      <StagesSheet bake={bake} rise={rise} isOpen={staging} onClose={() => setStaging(false)} />
    </LeafPage>
  );
}

/** The moves of the rise for its lane: those that are done, and those ahead as they stand or as they are tried. */
function movesOf(bake: Bake, tried: Bake["steps"] | undefined) {
  const steps = (tried ?? bake.steps).filter((s) => (KEYS as readonly string[]).includes(s.key));
  const next = [...steps].filter((s) => !s.done_at).sort((a, b) => ms(a.at) - ms(b.at))[0];
  return steps.map((s) => ({ key: s.key, at: ms(s.at), done: s.done_at !== null, next: s === next }));
}

function Ways({ bake }: { bake: Bake }) {
  return (
    <>
      <Routes bake={bake} />
      <Others bake={bake} />
    </>
  );
}

// what a drag does not touch stays as it was drawn
const NextStill = memo(NextMove);
const LooksStill = memo(Looks);
const RescueStill = memo(Rescue);
const WaysStill = memo(Ways);
const FiguresStill = memo(Figures);

function Windows({ rise, at }: { rise: Rise; at: (t: number) => string }) {
  const cell = (b: Schemas["BandedAt"]) =>
    b.p50 === null
      ? "not reached"
      : `${at(ms(b.p50))} (${b.p10 ? at(ms(b.p10)) : "?"} to ${b.p90 ? at(ms(b.p90)) : "?"})`;
  return (
    <table className="unseen">
      <caption>{SAY.windowsOfTheRiseInInside}</caption>
      <thead>
        <tr>
          <th>stage</th>
          <th>ready</th>
          <th>best from</th>
          <th>best to</th>
          <th>too ripe</th>
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
