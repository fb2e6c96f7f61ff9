import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useKeepWhatIf } from "../../api/rise";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { Slide } from "../../controls/Slide";
import { useAt, useWords } from "../../frame/units";
import { ms, span } from "../../words/format";
import type { useWhatIf } from "./useWhatIf";
import { SAY } from "../../words/say/rise";

const Box = styled.section`
  display: grid;
  gap: 8px;
  .rails {
    display: grid;
    grid-template-columns: repeat(3, minmax(0, 1fr)) 190px;
    gap: 2px 20px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    align-items: center;
  }
  .becomes {
    grid-column: 4;
    grid-row: 1 / 3;
    display: grid;
    gap: 4px;
    align-content: start;
    border-left: 2px solid var(--hair);
    padding-left: 14px;
    font-size: 16px;
  }
  .becomes b {
    font-size: 18px;
  }
  .hold {
    list-style: none;
    margin: 0;
    padding: 0;
    li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto 130px;
      gap: 4px 18px;
      align-items: center;
      min-height: 54px;
      border-top: 1px solid var(--hair);
    }
  }
  b {
    font: 700 21px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  @media (max-width: 900px) {
    .rails {
      grid-template-columns: minmax(0, 1fr);
    }
    .becomes {
      grid-column: 1;
      grid-row: auto;
      border-left: 0;
      padding-left: 0;
    }
    .hold li {
      grid-template-columns: minmax(0, 1fr) auto;
      padding: 6px 0;
    }
  }
`;
const HOUR = 3600e3;
const signed = (x: number, digits = 1) => `${x < 0 ? "−" : "+"}${Math.abs(x).toFixed(digits)}`;

interface Part {
  bake: Bake;
  what: ReturnType<typeof useWhatIf>;
}

/** Drag a cause, see the evening move: kitchen, leaven, dough after mixing, table, fridge. Nothing is stored until it is made so. */
export function WhatIf({ bake, what }: Part) {
  const keep = useKeepWhatIf(bake.id);
  const { tried, clear } = what;
  return (
    <Box data-print="no" aria-label="What if">
      <div className="rails">
        <Rails bake={bake} what={what} />
        <div className="becomes">
          <div className="row" role="status">
            <Outcome bake={bake} what={what} />
          </div>
          {tried && (
            <div className="row">
              <Button
                data-kind="brass"
                isDisabled={keep.isPending}
                onPress={() => keep.mutate(tried, { onSuccess: clear })}
              >
                Change it so
              </Button>
              <Button data-kind="bare" onPress={clear}>
                leave it
              </Button>
            </div>
          )}
        </div>
      </div>
      <Holds what={what} />
      {tried && tried.room_k !== 0 && <p className="quiet">{SAY.theKitchensOwnAirIsNot}</p>}
      {what.fault && <Plate>{what.fault}</Plate>}
      {keep.error && <Plate>{keep.error.message}</Plate>}
    </Box>
  );
}

/** The five causes under the finger. */
function Rails({ bake, what: { tried, answer, change } }: Part) {
  const units = useWords();
  const at = useAt();
  const mixed = bake.steps.some((s) => s.key === "mix" && s.done_at);
  const kelvin = (k: number) => (units.temp === "F" ? `${signed(k * 1.8)} °F` : `${signed(k)} °C`);
  const doughC = tried?.dough_c ?? bake.settings.dough_c;
  const serve = tried?.serve_at ?? bake.serve_at;
  const moved = ms(serve) - ms(bake.serve_at);
  const cold = tried?.no_cold ? null : (tried?.cold ?? bake.settings.cold);
  const coldH = cold?.hours ?? 0;
  const dose = tried?.dose_factor ?? 1;
  const spoken = answer?.dose_text?.split(",")[0]!.split(" ").slice(0, 2).join(" ");
  const onFridge = (hours: number) =>
    hours < 0.25
      ? change({ cold: null, no_cold: true })
      : change({
          no_cold: false,
          cold: { stage: bake.settings.cold?.stage ?? "bulk", after_h: cold?.after_h ?? 0.5, hours },
        });
  return (
    <>
      <Slide
        label="the kitchen"
        value={tried?.room_k ?? 0}
        rest={0}
        min={-6}
        max={6}
        step={0.5}
        says={tried?.room_k ? kelvin(tried.room_k) : "as it is"}
        onChange={(room_k) => change({ room_k })}
      />
      <Slide
        label="the leaven"
        value={Math.log2(dose)}
        rest={0}
        min={-3}
        max={1.5}
        step={0.05}
        disabled={mixed}
        says={dose === 1 ? "as weighed" : `${dose.toFixed(2)} ×${spoken ? `, ${spoken}` : ""}`}
        onChange={(p) => change({ dose_factor: p === 0 ? 1 : 2 ** p })}
      />
      <Slide
        label="dough at"
        value={doughC}
        rest={bake.settings.dough_c}
        min={16}
        max={34}
        step={0.5}
        disabled={mixed}
        says={units.temp === "F" ? `${(doughC * 1.8 + 32).toFixed(0)} °F` : `${doughC.toFixed(1)} °C`}
        onChange={(dough_c) => change({ dough_c })}
      />
      <Slide
        label="serve at"
        value={moved / HOUR}
        rest={0}
        min={-6}
        max={12}
        step={0.25}
        says={moved === 0 ? at(serve) : `${at(serve)}, ${span(moved)} ${moved > 0 ? "later" : "sooner"}`}
        onChange={(h) => change({ serve_at: new Date(ms(bake.serve_at) + h * HOUR).toISOString() })}
      />
      <Slide
        label="in the fridge"
        value={coldH}
        rest={(bake.settings.cold?.["hours"] as number | undefined) ?? 0}
        min={0}
        max={72}
        step={0.5}
        says={coldH < 0.25 ? "none" : `${coldH.toFixed(1)} h`}
        onChange={onFridge}
      />
    </>
  );
}

/** What the evening becomes with what is tried; as it stands where nothing is. */
function Outcome({ bake, what: { answer } }: Part) {
  const now = useNow(10_000);
  const at = useAt();
  const shown = answer?.rise ?? bake.rise;
  const steps = answer?.steps ?? bake.steps;
  const open = (key: string) => steps.find((s) => s.key === key && !s.done_at);
  const first = steps.filter((s) => !s.done_at && s.key !== "serve").sort((a, b) => ms(a.at) - ms(b.at))[0];
  const ball = shown?.windows.at(-1);
  // ripe in the cold is not yet warm enough to roll
  const rollable = [ball?.ready.p50, shown?.cold ? shown.workable_at : null]
    .filter((t) => t)
    .sort((a, b) => ms(b!) - ms(a!))[0];
  return (
    <>
      {first && (
        <span>
          {first.name} {ms(first.at) <= now + 60e3 ? <b>now</b> : <b>{at(first.at)}</b>}
        </span>
      )}
      {open("ball") && (
        <span>
          ball <b>{at(open("ball")!.at)}</b>
        </span>
      )}
      <span>
        ready to roll <b>{at(rollable)}</b>
      </span>
      <span>
        too ripe <b>{at(ball?.too_far.p50)}</b>
      </span>
      {open("cold_out") && (
        <span>
          {SAY.outOfTheCold} <b>{at(open("cold_out")!.at)}</b>
        </span>
      )}
      {answer && answer.maturity !== null && (
        <span>
          maturity <b>{answer.maturity.toFixed(2)}</b>
        </span>
      )}
      {answer && answer.pocket_score !== null && (
        <span>
          pocket <b>{answer.pocket_score.toFixed(0)}</b> of 100
        </span>
      )}
      <span>
        serve <b>{at(steps.find((s) => s.key === "serve")?.at)}</b>
        {shown && shown.late_min >= 1 ? `, ${span(shown.late_min * 60e3)} late` : ""}
      </span>
    </>
  );
}

/** What holds the dough until the table that is tried. */
function Holds({ what: { tried, answer, change } }: Pick<Part, "what">) {
  const at = useAt();
  if (!answer || (answer.rescues.length === 0 && !tried?.spell)) return null;
  const chosen = (o: Schemas["RescueOption"]) => tried?.spell?.minutes === o.minutes && tried.spell.temp_c === o.temp_c;
  return (
    <ul className="hold" aria-label={SAY.whatHoldsTheDoughThatLong}>
      {answer.rescues.map((o) => {
        const on = chosen(o);
        return (
          <li key={o.text}>
            <span>{o.kind === "leave" ? SAY.itHoldsThatLongWhereIt : o.text}</span>
            <span>
              best until <b>{at(o.best_until)}</b>, too ripe <b>{at(o.too_far_at)}</b>
            </span>
            {o.temp_c !== null && (
              <Button onPress={() => change({ spell: on ? null : { temp_c: o.temp_c!, minutes: o.minutes! } })}>
                {on ? "without it" : "with it"}
              </Button>
            )}
          </li>
        );
      })}
      {tried?.spell && !answer.rescues.some(chosen) && (
        <li>
          <span>
            {SAY.itStandsElsewhereFor} {span(tried.spell.minutes * 60e3)}
            {SAY.notLongEnough}
          </span>
          <span />
          <Button onPress={() => change({ spell: null })}>without it</Button>
        </li>
      )}
    </ul>
  );
}
