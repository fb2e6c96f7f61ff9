import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { benchQuery } from "../../api/bake";
import type { Bake, Hearth, Schemas } from "../../api/client";
import { Cautions, Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { BakeHead } from "../../frame/BakeHead";
import { useWords } from "../../frame/units";
import { WhichBread } from "../../frame/WhichBread";
import { Carpet } from "../../instruments/Carpet";
import { Swell } from "../../instruments/Profile";
import { temp, tempUnit } from "../../words/format";
import { AllBreads } from "./AllBreads";
import { HeatAndColour } from "./HeatAndColour";
import { MeasuredHeat } from "./MeasuredHeat";
import { OwnWay } from "./OwnWay";
import { pinsOf, pocketAt, stepsOf } from "./planSteps";
import { useBread } from "./useBread";

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
/** Between when and when, for eight breads of ten. */
const band = (b: Schemas["Banded"] | undefined) =>
  b?.p10 && b.p90 && b.p90 - b.p10 > 1 ? `eight of ten between ${b.p10.toFixed(0)} and ${b.p90.toFixed(0)} s` : null;

/** What is wanting until the score is called a chance: "3 more judged breads, in one more bake". */
const toChance = (fire: NonNullable<Bake["fire"]>) =>
  [
    ...(fire.breads_to_chance ? [`${fire.breads_to_chance} more judged breads`] : []),
    ...(fire.bakes_to_chance ? [`judged breads of ${fire.bakes_to_chance} more bakes`] : []),
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
          {fire.breads_to_chance <= 12 ? `; ${toChance(fire)} make it a chance` : ""}
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

type Fire = NonNullable<Bake["fire"]>;

/** The program of one bread, as a carpet, and the line of all of them. */
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
        <Plate>{bread.fault || "This bread has no size yet. Give it one on the Weigh leaf."}</Plate>
      </>
    );
  const own = bread.which === 0;
  const rounds =
    fire.surface?.kind === "oven_tray"
      ? `a tray of ${bread.count ?? "rolls"}`
      : `${hearth.breads[bread.which]?.rounds.length ?? hearth.rounds} rounds`;
  return (
    <>
      {fire.program.verdicts?.map((v) => (
        <Plate key={v.code} role="note" style={{ fontSize: 20, marginBottom: 8 }}>
          {v.text}
        </Plate>
      ))}
      <BakeHead
        bake={bake}
        about={`${rounds}, ${fire.thickness_mm.toFixed(1)} mm thick, ${fire.diameter_cm.toFixed(0)} cm across`}
      />
      {which}
      <Top>
        <HeatAndColour bread={bread} fire={fire} surfaces={surfaces} />
        <OneBread bake={bake} fire={fire} />
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
      <MeasuredHeat bake={bake} program={hearth.program} surface={surfaces.find((s) => s.id === fire.surface?.id)} />
      {own && <OwnWay bake={bake} fire={fire} begun={hearth.started} />}
      <AllBreads bake={bake} fire={fire} hearth={hearth} own={own} onLive={onLive} />
    </>
  );
}

/** One bread through the heat: its carpet, its steps with their seconds, the events as a table. */
function OneBread({ bake, fire }: { bake: Bake; fire: Fire }) {
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
      <ol className="steps" aria-label="The program of one bread">
        {stepsOf(bake, fire).map((x) => {
          const at = <span className="mid">{x.s.toFixed(0)}</span>;
          return (
            <li key={`${x.word} ${x.s}`}>
              <Swell share={pocketAt(fire.carpet, x.s)} width={104} />
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
  );
}
