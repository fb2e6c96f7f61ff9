import { useCallback, useEffect, useState } from "react";
import type { Schemas } from "../../api/client";
import { type Answer, type Film, turnedAt, type Try, useAnswer } from "../../api/drill";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { useWidth } from "../../controls/width";
import { OnPlate, Underside } from "../../instruments/BreadFace";
import { frameAt, lastS } from "../../instruments/film";
import { FilmStrip } from "../../instruments/FilmStrip";
import { SAY } from "../../words/say/drill";
import { CallTruth } from "./CallTruth";
import { Columns, type DrillProps, Press, Row, Stack } from "./parts";
import { useCommand } from "./useCommand";
import { useRun } from "./useRun";

const PACES = [
  { id: "1", text: SAY.trueSeconds },
  { id: "2", text: SAY.timesAsFast(2) },
  { id: "4", text: SAY.timesAsFast(4) },
] as const;
const NARROW = 700; // px: there the bread and its press alone fill the window
const PAST = 1.15; // of the last moment
type Pace = (typeof PACES)[number]["id"];
const STORE = "brass-clock.drill-pace";
const readPace = (): Pace => PACES.find((p) => p.id === localStorage.getItem(STORE))?.id ?? "1";

type Phase =
  | { at: "waits" }
  | { at: "first" }
  | { at: "second"; turnS: number; film: Film | null; signs: readonly { s: number; text: string }[] };

/** Where the film of an answer ends [s]: a little past its last moment. */
const filmEnd = (t: Schemas["CallTruth"], a: Schemas["CallAnswer"]): number =>
  Math.min(lastS(t.film), PAST * Math.max(t.turn_s, t.off_low_s ?? 0, a.turn_s ?? 0, a.off_s ?? 0));

/** A bread on the heat, at true seconds: turned and taken off by its signs; then what was right, and the film of it. */
export function CallIt({ kitchen, shown, onNext, how, told }: DrillProps & { told: React.ReactNode }) {
  const call = shown.call!;
  const [answered, setAnswered] = useState<Try>(shown);
  const [phase, setPhase] = useState<Phase>({ at: "waits" });
  const [pace, setPace] = useState(readPace);
  const run = useRun(Number(pace));
  const answer = useAnswer(kitchen, shown.id, setAnswered);
  const [box, width] = useWidth<HTMLDivElement>();
  const narrow = width > 0 && width < NARROW;
  const [fault, setFault] = useState<string | null>(null);
  const truth = answered.truth?.call;
  const [again, setAgain] = useState(false);
  const film = truth?.film ?? (phase.at === "second" && phase.film ? phase.film : call.film);
  const say = useCallback((body: NonNullable<Answer["call"]>) => answer.mutate({ call: body }), [answer]);

  const turn = async () => {
    const turnS = Math.max(run.now(), 0.5);
    setPhase({ at: "second", turnS, film: null, signs: [] });
    try {
      const side = await turnedAt(kitchen, shown.id, turnS);
      setPhase({ at: "second", turnS, film: side.film, signs: side.signs });
    } catch (e) {
      run.stop();
      setPhase({ at: "waits" });
      setFault((e as Error).message);
    }
  };
  const off = () => {
    if (phase.at !== "second" || !phase.film) return;
    run.stop();
    say({ turn_s: phase.turnS, off_s: run.now() });
  };
  const press = () => {
    if (truth) return onNext();
    setFault(null);
    if (phase.at === "waits") {
      setPhase({ at: "first" });
      run.start(0);
      if (narrow) box.current?.scrollIntoView({ block: "start" });
    } else if (phase.at === "first") void turn();
    else off();
  };
  // a bread that nobody calls: its film ends, and it is not called, or comes off at the end
  const ended = run.running && !truth && phase.at !== "waits" && !(phase.at === "second" && !phase.film);
  const over = ended && run.s >= lastS(film);
  useEffect(() => {
    if (!over || answer.isPending) return;
    run.stop();
    say(phase.at === "second" ? { turn_s: phase.turnS, off_s: lastS(film) } : {});
  }, [over, answer.isPending, film, phase, run, say]);
  const replay = () => {
    setAgain(true);
    run.start(0);
  };
  const replayEnds = again && run.s >= lastS(film);
  useEffect(() => {
    if (replayEnds) {
      run.stop();
      setAgain(false);
    }
  }, [replayEnds, run]);
  useCommand({ " ": press, a: truth ? replay : undefined });

  const second = truth ? (answered.answer?.call?.off_s ?? lastS(film)) : run.s;
  const look = frameAt(film, again ? run.s : second);
  const live = !truth && phase.at !== "waits";
  const signs = (phase.at === "second" ? phase.signs : call.signs).filter((g) => live && g.s <= run.s);
  return (
    <div ref={box}>
      <Columns>
        <OnPlate look={look} plateC={call.surface_c} size={truth ? 190 : narrow ? 200 : 300} about={SAY.itLies} />
        {truth ? (
          <CallTruth truth={truth} answer={answered.answer?.call ?? {}} why={answered.truth?.why["turn"]}>
            <Row>
              <Button data-kind="brass" onPress={onNext}>
                {SAY.nextBread}
              </Button>
              <Button data-kind="bare" onPress={again ? run.stop : replay}>
                {SAY.seeItAgain}
              </Button>
            </Row>
          </CallTruth>
        ) : (
          <Stack>
            {(phase.at === "waits" || !narrow) && told}
            <p className="lead" role="status">
              {phase.at === "waits" ? SAY.pressWhenReady : phase.at === "first" ? SAY.itLies : SAY.itIsTurned}
            </p>
            <Press data-kind="brass" onPress={press} isDisabled={answer.isPending}>
              {phase.at === "waits" ? SAY.putItOn : phase.at === "first" ? SAY.turnIt : SAY.takeItOff}
            </Press>
            {phase.at === "waits" && (
              <Choice
                label={SAY.howFast}
                value={pace}
                options={PACES}
                onChange={(v) => {
                  localStorage.setItem(STORE, v);
                  setPace(v);
                }}
              />
            )}
            {live && call.underside && (
              <figure className="wide" style={{ margin: 0 }}>
                <Underside brown={look.brownBelow} char={look.charBelow} width={260} />
                <figcaption className="quiet">{SAY.underside}</figcaption>
              </figure>
            )}
            {signs.length > 0 && (
              <ul aria-live="polite">
                {signs.map((g) => (
                  <li key={g.text}>{`${g.s.toFixed(0)} s: ${g.text}`}</li>
                ))}
              </ul>
            )}
            {(fault ?? answer.error?.message) && <p role="alert">{fault ?? answer.error?.message}</p>}
          </Stack>
        )}
        {how}
      </Columns>
      {truth && width > 0 && (
        <FilmStrip
          lookAt={(s) => frameAt(truth.film, s)}
          endS={filmEnd(truth, answered.answer?.call ?? {})}
          width={width}
          about={SAY.filmOf}
          signs={truth.signs.filter((g) => g.s <= filmEnd(truth, answered.answer?.call ?? {}))}
          framed={[
            { s: truth.turn_s, kind: "right" },
            ...(truth.off_low_s === null ? [] : [{ s: truth.off_low_s, kind: "right" as const }]),
            ...[answered.answer?.call?.turn_s, answered.answer?.call?.off_s].flatMap((s) =>
              s == null ? [] : [{ s, kind: "yours" as const }],
            ),
          ]}
        />
      )}
    </div>
  );
}
