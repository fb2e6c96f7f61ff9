import { useState } from "react";
import styled from "styled-components";
import { type Bake, type Hearth, Problem, type Schemas } from "../../api/client";
import { benchQuery } from "../../api/bake";
import { lineQuery } from "../../api/fire";
import { placeName, roundMark } from "../../api/rounds";
import { useQuery } from "@tanstack/react-query";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Cautions, Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { BakeHead } from "../../frame/BakeHead";
import { StepBar } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { WhichBread } from "../../frame/WhichBread";
import { Carpet } from "../../instruments/Carpet";
import { LinePlan } from "../../instruments/LinePlan";
import { CueSheet } from "./CueSheet";
import { Ifs } from "./Ifs";
import { MeasuredHeat } from "./MeasuredHeat";
import { pocketAt, stepsOf } from "./planSteps";
import { OwnWay } from "./OwnWay";
import { useBread } from "./useBread";
import { Swell } from "../../instruments/Profile";
import { heatingWords } from "../../words/heating";
import { clockSeconds, ms, typedTemp, span, temp, tempUnit } from "../../words/format";
import { COLOURS, heatBand, sourceWords } from "../../words/heat";
import { secondOf } from "../../words/surfaces";

const Top = styled.div`
  display: grid;
  grid-template-columns: 252px minmax(0, 1fr) 272px;
  gap: 8px 26px;
  border-bottom: 2px solid var(--hair-2);
  padding-bottom: 10px;
  .big {
    font: 700 66px/1 var(--name);
  }
  .mid {
    font: 700 32px/1 var(--name);
  }
  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 10px;
  }
  .col {
    display: grid;
    gap: 8px;
    align-content: start;
  }
  .steps {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
    list-style: none;
    margin: 0;
    padding: 0;
    li {
      display: grid;
      grid-template-rows: 40px 46px auto;
      max-width: 150px;
      font-size: 17px;
      line-height: 1.2;
    }
  }
  .reason {
    display: grid;
    grid-template-columns: 3em 1fr;
    font-size: 17px;
  }
  .reason b {
    font-family: var(--mono);
  }
  aside {
    border-left: 1.5px solid var(--hair-2);
    padding-left: 20px;
  }
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
    aside {
      border-left: 0;
      padding-left: 0;
    }
  }
`;
const Foot = styled.div`
  padding-top: 8px;
  .say .quiet {
    font: 500 17px/1.35 var(--text);
    display: block;
  }
  .say > span {
    flex: 1 1 24em;
    min-width: 0;
  }
  .say {
    font: 600 22px/1.2 var(--name);
    display: flex;
    flex-wrap: wrap;
    gap: 10px 24px;
    align-items: center;
    justify-content: space-between;
  }
`;

const NECK: Record<string, string> = {
  spots: "The surface is the neck",
  hands: "The hands are the neck",
  grill: "The grill is the neck",
};

/** What one more spot, or one more pair of hands, would save; while that is looked for, that it is. */
function Saved({ line }: { line: Schemas["HeatLineRead"] | undefined }) {
  if (!line) return <span className="quiet">Looking for a shorter line…</span>;
  const said = [
    [line.spot_saves_s, "another spot"],
    [line.cook_saves_s, "another pair of hands"],
  ]
    .filter((x): x is [number, string] => typeof x[0] === "number")
    .map(([s, what]) => (s < 30 ? `${what} saves nothing` : `${what} saves ${span(s * 1000)}`));
  const over = line.minutes - line.bound_min;
  return (
    <span className="quiet">
      {said.join(", ")}. {over < 0.5 ? "No line is shorter." : `No line is more than ${span(over * 60e3)} shorter.`} The
      first waits {span(line.towel_min * 60e3)} in the towel, {line.towel_feel} then.
    </span>
  );
}

/** Between when and when, for eight breads of ten. */
const band = (b: Schemas["Banded"] | undefined) =>
  b?.p10 && b.p90 && b.p90 - b.p10 > 1 ? `eight of ten between ${b.p10.toFixed(0)} and ${b.p90.toFixed(0)} s` : null;

/** How likely a full pocket is, and what speaks against it. */
function Puffs({ fire }: { fire: NonNullable<Bake["fire"]> }) {
  return (
    <>
      {fire.chance ? (
        <p>
          <span className="big">{(100 * fire.chance.p).toFixed(0)}</span> % full pockets,{" "}
          {(100 * fire.chance.p10).toFixed(0)} to {(100 * fire.chance.p90).toFixed(0)}, by {fire.chance.breads} breads
          judged here
        </p>
      ) : (
        <p>
          <span className="big">{fire.score.toFixed(0)}</span> of 100, a score
          {fire.breads_to_chance <= 12 ? `; ${fire.breads_to_chance} more judged breads make it a chance` : ""}
        </p>
      )}
      {fire.reasons
        .filter((r) => r.points < -1.5)
        .slice(0, 3)
        .map((r) => (
          <p key={r.factor} className="reason">
            <b>−{Math.abs(r.points).toFixed(0)}</b>
            {r.text}
          </p>
        ))}
      {fire.reasons.every((r) => r.points >= -1.5) && <p className="quiet">Nothing speaks against a full pocket.</p>}
    </>
  );
}

/** The program of one bread, as a carpet, and the line of all of them. */
export function FirePlan({ bake, hearth, onLive }: { bake: Bake; hearth: Hearth; onLive: () => void }) {
  const units = useWords();
  const bread = useBread(bake);
  const { change, fire } = bread;
  const bench = useQuery(benchQuery(bake.kitchen_id));
  const [box, width] = useWidth<HTMLDivElement>();
  const [foot, footWidth] = useWidth<HTMLDivElement>();
  const [asking, setAsking] = useState(false);
  const longer = useQuery({
    ...lineQuery(bake.id, `${bake.revision} ${fire?.program.off_s} ${fire?.program.turn_s}`),
    enabled: fire !== null,
  });
  if (!fire)
    return (
      <>
        <BakeHead bake={bake} about="" />
        <WhichBread bake={bake} which={bread.which} onChoose={bread.choose} />
        <Plate>{bread.fault || "This bread has no size yet. Give it one on the Weigh leaf."}</Plate>
      </>
    );
  const deg = (c: number) => `${temp(c, units)} ${tempUnit(units)}`;
  const e = (name: string) => fire.events[name]?.p50 ?? null;
  const pins = [
    ["bubbles", e("bubbles"), false],
    [secondOf(fire.program).lower, fire.program.turn_s, true],
    ["opens", e("puff"), false],
    ["full", e("full"), false],
    ["take off", fire.program.off_s, true],
  ]
    .filter((p): p is [string, number, boolean] => p[1] !== null)
    .map(([name, s, strong]) => ({ name, s, strong }));
  const steps = stepsOf(bake, fire);
  const own = bread.which === 0;
  const fault = change.error instanceof Problem ? (change.error.fields[0]?.detail ?? change.error.message) : null;
  const line = longer.data && longer.data.minutes <= fire.line.minutes ? longer.data : fire.line;
  const begin = Math.min(...line.tasks.map((t) => ms(t.at)), Infinity);
  return (
    <>
      {fire.program.verdicts?.map((v) => (
        <Plate key={v.code} role="note" style={{ fontSize: 20, marginBottom: 8 }}>
          {v.text}
        </Plate>
      ))}
      <BakeHead
        bake={bake}
        about={`${fire.surface?.kind === "oven_tray" ? `a tray of ${bread.count ?? "rolls"}` : `${hearth.breads[bread.which]?.rounds.length ?? hearth.rounds} rounds`}, ${fire.thickness_mm.toFixed(1)} mm thick, ${fire.diameter_cm.toFixed(0)} cm across`}
      />
      <WhichBread bake={bake} which={bread.which} onChoose={bread.choose} />
      <Top>
        <div className="col">
          <Pick
            label="Baked on"
            value={String(bread.settings.surface_id ?? "")}
            options={(bench.data?.kitchen.surfaces ?? []).map((s) => ({ id: String(s.id), text: s.name }))}
            onChange={(id) => bread.set({ surface_id: Number(id) })}
          />
          {own && (
            <Field
              label="how hot"
              big
              width="6em"
              value={temp(fire.surface?.temp_c ?? fire.surface_c.p50!, units)}
              unit={tempUnit(units)}
              fault={fault}
              onCommit={(t) => change.mutate({ surface_c: typedTemp(t, units) })}
            />
          )}
          <p className="quiet">
            {own ? "by" : `${deg(fire.surface?.temp_c ?? fire.surface_c.p50!)}, by`} {sourceWords(fire.surface_source)}:{" "}
            {heatBand(fire.surface_c, units)}, eight of ten
          </p>
          {own && (
            <div>
              <Button data-kind="bare" onPress={() => setAsking(true)}>
                tell it by a sign…
              </Button>
            </div>
          )}
          <CueSheet
            isOpen={asking}
            onClose={() => setAsking(false)}
            onUse={(surface_c, surface_source, surface_sd_k) =>
              change.mutate({ surface_c, surface_source, surface_sd_k })
            }
          />
          <div className="pair">
            <Pick
              label="How brown"
              value={bread.settings.doneness}
              options={COLOURS}
              onChange={(doneness) => bread.set({ doneness })}
            />
            <Pick
              label="the upper side"
              value={bread.settings.colour_top ?? "same"}
              options={[{ id: "same", text: "the same" }, ...COLOURS]}
              onChange={(c) => bread.set({ colour_top: c === "same" ? null : c })}
            />
          </div>
          <p className="quiet">
            After one bread it is at {deg(fire.surface_after_c)}, back{" "}
            {fire.program.recover_s < 1 ? "at once" : `in ${span(fire.program.recover_s * 1000)}`}
            {fire.recovered ? "" : " or longer"}.
          </p>
          {fire.program.heating && (
            <p className="quiet" role="note">
              {heatingWords(fire.program.heating, fire.surface?.power ?? "medium_high", units).join(" ")}
            </p>
          )}
        </div>
        <div ref={box}>
          {width > 0 && (
            <Carpet
              s={fire.carpet.s}
              depthMm={fire.carpet.depth_mm}
              tempC={fire.carpet.temp_c}
              pocket={fire.carpet.pocket}
              bottom={fire.carpet.bottom}
              top={fire.carpet.top}
              turnS={fire.program.turn_s}
              offS={fire.program.off_s}
              pins={pins}
              startC={deg(fire.bread_c)}
              degrees={(c) => `${temp(c, units)}°`}
              width={width}
            />
          )}
          <ol className="steps" aria-label="The program of one bread">
            {steps.map((x) => (
              <li key={`${x.word} ${x.s}`}>
                <Swell share={pocketAt(fire.carpet, x.s)} width={104} />
                <span className="at">
                  {x.why ? (
                    <Why why={fire.why[x.why]} label={x.label}>
                      <span className="mid">{x.s.toFixed(0)}</span>
                    </Why>
                  ) : (
                    <span className="mid">{x.s.toFixed(0)}</span>
                  )}{" "}
                  s
                </span>
                <span>{x.word}</span>
              </li>
            ))}
          </ol>
          <p className="quiet">
            Off{" "}
            {band(fire.actions.find((a) => a.action === "off")?.at_s) ??
              `at ${fire.program.off_s.toFixed(0)} s, as you say`}
            ; first side {fire.colours.bottom_at_off}, other side {fire.colours.top_at_off};{" "}
            {fire.matters[0] ?? "how hot the surface is"} matters most. Watch the bread first.
          </p>
          <table className="unseen">
            <caption>Events in seconds from contact</caption>
            <tbody>
              {Object.entries(fire.events).map(([name, b]) => (
                <tr key={name}>
                  <th>{name.replace("_", " ")}</th>
                  <td>
                    {b.p50 === null
                      ? "does not happen"
                      : `${b.p50.toFixed(0)} (${b.p10?.toFixed(0)} to ${b.p90?.toFixed(0)})`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <aside className="col">
          <h2>{fire.pocket ? "Will it puff?" : "It bakes flat"}</h2>
          {fire.pocket ? (
            <Puffs fire={fire} />
          ) : (
            <p className="quiet">No pocket is wanted; it comes off when it is through and has its colour.</p>
          )}
          <Cautions items={fire.cautions.filter((c) => c.code !== "wide_band")} most={3} />
        </aside>
      </Top>
      <MeasuredHeat
        bake={bake}
        program={hearth.program}
        surface={bench.data?.kitchen.surfaces.find((s) => s.id === fire.surface?.id)}
      />
      {own && <OwnWay bake={bake} fire={fire} begun={hearth.started} />}
      <Foot ref={foot}>
        <div className="say">
          <span>
            {NECK[line.bottleneck] ?? "The hands are the neck"}: one round every {line.cycle_s.toFixed(0)} s, all{" "}
            {hearth.rounds} in {span(line.minutes * 60e3)}.
            <Saved line={longer.data} />
          </span>
          <Button data-kind="brass" onPress={onLive}>
            {hearth.started ? "Back to the live hearth" : "Stand at the heat"}
          </Button>
        </div>
        {footWidth > 0 && (
          <LinePlan
            width={footWidth}
            spots={hearth.spots.filter((x) => !x.grill).length}
            grilled={fire.program.second === "grill"}
            places={hearth.breads.length > 1 ? hearth.spots.map((x) => placeName(hearth, x.number)) : undefined}
            recoverS={fire.program.recover_s}
            tasks={line.tasks.map((t) => ({
              move: t.move,
              round: t.round_no,
              mark: roundMark(hearth, t.round_no),
              spot: t.spot,
              cook: t.cook,
              s: (ms(t.at) - begin) / 1000,
              hands: t.hands_s,
            }))}
            clock={(s) => clockSeconds(begin + s * 1000, units.zone)}
          />
        )}
        <StepBar bake={bake} keys={["preheat", "roll"]} />
        {own && <Ifs bake={bake} stamp={`${bake.revision} ${fire.program.off_s}`} />}
      </Foot>
    </>
  );
}
