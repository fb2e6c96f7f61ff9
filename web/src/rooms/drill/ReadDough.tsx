import { useState } from "react";
import { type Answer, type Try, useAnswer } from "../../api/drill";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { useWords } from "../../frame/units";
import { DoughCourse } from "../../instruments/DoughCourse";
import { DoughJar } from "../../instruments/DoughJar";
import { Poke } from "../../instruments/Poke";
import { FEEL, POKE, STATES, SURE } from "../../words/drill";
import { degrees, span, typedNumber } from "../../words/format";
import { SAY } from "../../words/say/drill";
import { Columns, type DrillProps, Press, Row, Stack } from "./parts";
import { useCommand } from "./useCommand";

type State = (typeof STATES)[number]["id"];
type Sure = (typeof SURE)[number]["id"];
const HOUR_MS = 3_600_000;
const said = (state: string): string => STATES.find((s) => s.id === state)!.text;
const howSure = (sure: string): string => SURE.find((s) => s.id === sure)!.text;

/** A dough as it is seen and felt: what it is, how sure one is of that, and how long it still has. */
export function ReadDough({ kitchen, shown, onNext, how }: DrillProps) {
  const units = useWords();
  const dough = shown.read!;
  const [answered, setAnswered] = useState<Try>(shown);
  const [state, setState] = useState<State | null>(null);
  const [sure, setSure] = useState<Sure>("rather");
  const [left, setLeft] = useState("");
  const answer = useAnswer(kitchen, shown.id, setAnswered);
  const [box, width] = useWidth<HTMLDivElement>();
  const truth = answered.truth?.read;
  const given = answered.answer?.read;
  const asks = dough.asks_hours && state !== null && state !== "past";
  const send = () => {
    if (state === null) return;
    const body: NonNullable<Answer["read"]> = { state, sure, left_min: asks && left ? typedNumber(left) : null };
    answer.mutate({ read: body });
  };
  useCommand({ " ": truth ? onNext : state ? send : undefined });
  return (
    <Columns>
      <DoughJar
        level={dough.level}
        mark={dough.ready_mark}
        domed={dough.domed}
        doughC={dough.dough_c}
        about={
          SAY.jarAt(`${dough.level.toFixed(1)}×`) +
          (dough.ready_mark === null ? "" : `; ${SAY.jarMark(`${dough.ready_mark}×`)}`)
        }
      />
      <Stack>
        <p className="lead">
          {dough.dough}, {dough.leaven}
        </p>
        <p>{SAY.sinceMixing(span(dough.h * HOUR_MS))}</p>
        <p>{SAY.doughAndAir(degrees(dough.dough_c, units), degrees(dough.air_c, units))}</p>
        <Row>
          <Poke feel={FEEL[dough.poke]} />
          <p>
            {SAY.aFinger} <b>{POKE[dough.poke]}</b>
          </p>
        </Row>
        {truth && given ? (
          <>
            <p className="lead" role="status">
              <Why why={answered.truth?.why["state"]} label={SAY.itWas(said(truth.state))}>
                {`${SAY.itWas(said(truth.state))}.`}
              </Why>
            </p>
            <p>
              <b>{given.state === truth.state ? SAY.thatIsRight : SAY.thatIsWrong}</b>{" "}
              {SAY.youSaid(said(given.state), howSure(given.sure))}
            </p>
            {truth.left_min !== null &&
              (given.left_min ? (
                <p>{SAY.minutesLeft(given.left_min.toFixed(0), truth.left_min.toFixed(0))}</p>
              ) : (
                <p>{SAY.minutesWere(truth.left_min.toFixed(0))}</p>
              ))}
            {truth.misled === "domed" && <p>{SAY.wasDomed(`${truth.level.toFixed(1)}×`)}</p>}
            {truth.misled === "cold_middle" && <p>{SAY.wasColdMiddle}</p>}
            <Button data-kind="brass" onPress={onNext}>
              {SAY.nextDough}
            </Button>
          </>
        ) : (
          <>
            <Choice label={SAY.whatIsIt} value={state} options={STATES} onChange={setState} />
            <Choice label={SAY.howSure} value={sure} options={SURE} onChange={setSure} />
            {asks && (
              <Field
                label={state === "not_yet" ? SAY.minutesUntilReady : SAY.minutesUntilPast}
                value={left}
                onCommit={setLeft}
                onType={setLeft}
                inputMode="numeric"
                unit="min"
              />
            )}
            <Press data-kind="brass" onPress={send} isDisabled={state === null || answer.isPending}>
              {SAY.sayIt}
            </Press>
            {answer.error && <p role="alert">{answer.error.message}</p>}
          </>
        )}
      </Stack>
      <Stack ref={box}>
        {truth && width > 0 && (
          <DoughCourse
            h={truth.h}
            levels={truth.levels}
            at={dough.h}
            readyH={truth.ready_h}
            pastH={truth.past_h}
            width={Math.max(width - 26, 220)}
            about={SAY.courseOf}
          />
        )}
        {how}
      </Stack>
    </Columns>
  );
}
