import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { benchQuery } from "../../api/bake";
import type { Bake, Hearth, Schemas } from "../../api/client";
import { Button } from "../../controls/Button";
import { Cautions, Plate } from "../../controls/Notice";
import { Panels } from "../../controls/Panels";
import { Pick } from "../../controls/Pick";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { BakeHead } from "../../frame/BakeHead";
import { LeafPage } from "../../frame/LeafPage";
import { NextMove } from "../../frame/StepBar";
import { useWords } from "../../frame/units";
import { WhichBread } from "../../frame/WhichBread";
import { Carpet } from "../../instruments/Carpet";
import { Swell } from "../../instruments/Profile";
import { numbered, temp, tempUnit } from "../../words/format";
import { COLOURS } from "../../words/heat";
import { AllBreads } from "./AllBreads";
import { Dressing } from "./Dressing";
import { HowHot } from "./HowHot";
import { Ifs } from "./Ifs";
import { MeasuredHeat } from "./MeasuredHeat";
import { pinsOf, pocketAt, stepsOf } from "./planSteps";
import { TheHeat } from "./TheHeat";
import { useBread } from "./useBread";
import { SAY } from "../../words/say/fire";

const Picture = styled.div`
  display: grid;
  grid-template-columns: 214px minmax(0, 1fr) 250px;
  gap: 6px 22px;
  .big {
    font: 700 56px/1 var(--name);
  }
  .col {
    display: grid;
    gap: 6px;
    align-content: start;
    min-width: 0;
  }
  .reason {
    display: grid;
    grid-template-columns: 2.6em 1fr;
    font-size: 16px;
    line-height: 1.25;
  }
  .reason b {
    font-family: var(--mono);
  }
  aside {
    border-left: 2px solid var(--hair);
    padding-left: 18px;
  }
  @media (min-width: 1101px) {
    aside {
      max-height: 272px;
      overflow-y: auto;
    }
  }
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
    aside {
      border-left: 0;
      padding-left: 0;
    }
  }
`;
const Steps = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 226px;
  gap: 6px 20px;
  .mid {
    font: 700 30px/1 var(--name);
  }
  .steps {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 10px;
    li {
      display: grid;
      grid-template-rows: 36px 44px auto;
      max-width: 112px;
      font-size: 16px;
      line-height: 1.2;
    }
  }
  .colours {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 8px;
    align-content: start;
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
/** Between when and when, for eight breads of ten. */
const band = (b: Schemas["Banded"] | undefined) =>
  b?.p10 && b.p90 && b.p90 - b.p10 > 1 ? SAY.eightOfTenBetweenAndS(b.p10.toFixed(0), b.p90.toFixed(0)) : null;

/** What is wanting until the score is called a chance: "3 more judged breads, in one more bake". */
const toChance = (fire: NonNullable<Bake["fire"]>) =>
  [
    ...(fire.breads_to_chance ? [`${fire.breads_to_chance} more judged breads`] : []),
    ...(fire.bakes_to_chance
      ? [`judged breads of ${fire.bakes_to_chance === 1 ? "one more bake" : `${fire.bakes_to_chance} more bakes`}`]
      : []),
  ].join(" and ");

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
          {fire.breads_to_chance <= 12 ? SAY.makeItAChance(toChance(fire)) : ""}
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
      {fire.reasons.every((r) => r.points >= -1.5) && <p className="quiet">{SAY.nothingSpeaksAgainstAFullPocket}</p>}
    </>
  );
}

type Fire = NonNullable<Bake["fire"]>;
const RISEN = 1.15; // times as thick as it was rolled: by its gas

/** The plan of the heat in one window: one bread through it always in sight, the rest in panels beside the next move. */
export function FirePlan({ bake, hearth, onLive }: { bake: Bake; hearth: Hearth; onLive: () => void }) {
  const bread = useBread(bake);
  const { fire } = bread;
  const bench = useQuery(benchQuery(bake.kitchen_id));
  const surfaces = bench.data?.kitchen.surfaces ?? [];
  const which = <WhichBread bake={bake} which={bread.which} onChoose={bread.choose} />;
  if (!fire)
    return (
      <>
        <BakeHead bake={bake} about="" />
        {which}
        <Plate>{bread.fault || SAY.thisBreadHasNoSizeYet}</Plate>
      </>
    );
  const own = bread.which === 0;
  const rolledMm = own && !bake.settings.filling ? (bake.weigh?.shape?.thickness_mm ?? null) : null;
  const risen = rolledMm !== null && fire.thickness_mm > RISEN * rolledMm;
  const rounds =
    fire.surface?.kind === "oven_tray"
      ? `a tray of ${bread.count ?? "rolls"}`
      : numbered(hearth.breads[bread.which]?.rounds.length ?? hearth.rounds, "round");
  const stamp = `${bake.revision} ${fire.program.off_s}`;
  return (
    <LeafPage>
      <div>
        <BakeHead
          bake={bake}
          about={(risen ? SAY.risenToMmCmAcross : SAY.mmThickCmAcross)(
            rounds,
            fire.thickness_mm.toFixed(risen ? 0 : 1),
            fire.diameter_cm.toFixed(0),
          )}
        />
        {which}
      </div>
      <Picture className="instrument">
        <HowHot bread={bread} fire={fire} surfaces={surfaces} kitchen={bake.kitchen_id} />
        <OneBread fire={fire} />
        <aside className="col" tabIndex={0} aria-label={SAY.howItWillComeOut}>
          {fire.program.verdicts?.map((v) => (
            <Plate key={v.code} role="note">
              {v.text}
            </Plate>
          ))}
          <h2>{fire.pocket ? SAY.willItPuff : "It bakes flat"}</h2>
          {fire.pocket ? <Puffs fire={fire} /> : <p className="quiet">{SAY.noPocketIsWantedItComes}</p>}
          <Cautions items={fire.cautions.filter((c) => c.code !== "wide_band")} most={3} />
        </aside>
      </Picture>
      <div className="foot" data-print="no">
        <Panels
          label="Fire"
          remember={`fire.${bake.id}`}
          panels={[
            {
              id: "bread",
              name: "The bread",
              key: "o",
              content: <TheBread bake={bake} bread={bread} fire={fire} begun={hearth.started} />,
            },
            {
              id: "heat",
              name: "The heat",
              key: "h",
              content: (
                <>
                  <MeasuredHeat
                    bake={bake}
                    program={hearth.program}
                    surface={surfaces.find((s) => s.id === fire.surface?.id)}
                  />
                  <TheHeat bake={bake} bread={bread} fire={fire} begun={hearth.started} />
                </>
              ),
            },
            { id: "line", name: "The line", key: "l", content: <AllBreads bake={bake} fire={fire} hearth={hearth} /> },
            {
              id: "if",
              name: "What if",
              key: "i",
              content: own ? <Ifs bake={bake} stamp={stamp} /> : <p className="quiet">{SAY.askedOfTheBakesOwnBread}</p>,
            },
          ]}
        />
        <NextMove
          bake={bake}
          keys={["preheat", "roll"]}
          plain
          after={
            <Button data-kind="brass" onPress={onLive}>
              {hearth.started ? SAY.backToTheLiveHearth : SAY.standAtTheHeat}
            </Button>
          }
        />
      </div>
    </LeafPage>
  );
}

/** The picture of one bread through the heat, and its events as a table. */
function OneBread({ fire }: { fire: Fire }) {
  const units = useWords();
  const [box, width] = useWidth<HTMLDivElement>();
  return (
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
          pins={pinsOf(fire)}
          startC={`${temp(fire.bread_c, units)} ${tempUnit(units)}`}
          degrees={(c) => `${temp(c, units)}°`}
          width={width}
        />
      )}
      <table className="unseen">
        <caption>{SAY.eventsInSecondsFromContact}</caption>
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
  );
}

/** The program of one bread in seconds, the colours that are wanted, and what goes on it. */
function TheBread({
  bake,
  bread,
  fire,
  begun,
}: {
  bake: Bake;
  bread: ReturnType<typeof useBread>;
  fire: Fire;
  begun: boolean;
}) {
  return (
    <Steps>
      <div>
        <ol className="steps" aria-label={SAY.theProgramOfOneBread}>
          {stepsOf(bake, fire).map((x) => {
            const at = <span className="mid">{x.s.toFixed(0)}</span>;
            return (
              <li key={`${x.word} ${x.s}`}>
                <Swell share={pocketAt(fire.carpet, x.s)} width={92} />
                <span className="at">
                  {x.why ? (
                    <Why why={fire.why[x.why]} label={x.label}>
                      {at}
                    </Why>
                  ) : (
                    at
                  )}{" "}
                  s
                </span>
                <span>{x.word}</span>
              </li>
            );
          })}
        </ol>
        <p className="quiet">
          Off{" "}
          {band(fire.actions.find((a) => a.action === "off")?.at_s) ?? SAY.atSAsYouSay(fire.program.off_s.toFixed(0))};
          first side {fire.colours.bottom_at_off}, other side {fire.colours.top_at_off};{" "}
          {fire.matters[0] ?? SAY.howHotTheSurfaceIs} {SAY.mattersMostWatchTheBreadFirst}
        </p>
      </div>
      <div>
        <div className="colours">
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
        {bread.which === 0 && (
          <Dressing
            key={JSON.stringify(bake.settings.dressing)}
            bake={bake}
            totalG={fire.dressing_g}
            begun={begun}
            change={bread.change}
          />
        )}
      </div>
    </Steps>
  );
}
