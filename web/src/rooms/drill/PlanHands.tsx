import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { type Move, orderQuery, type Try, useAnswer } from "../../api/drill";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { useWidth } from "../../controls/width";
import { Why } from "../../controls/Why";
import { LinePlan, type LineTask } from "../../instruments/LinePlan";
import { lineTime } from "../../words/drill";
import { capital, mean, percent } from "../../words/format";
import { SAY } from "../../words/say/drill";
import { type DrillProps, Press, Row, Stack } from "./parts";
import { useCommand } from "./useCommand";

const Wide = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(240px, 330px);
  gap: 8px 32px;
  align-items: start;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const tasksOf = (tasks: readonly Schemas["TaskRead"][]): LineTask[] =>
  tasks.map((t) => ({
    move: t.move,
    round: t.round_no,
    mark: String(t.round_no),
    spot: t.spot,
    cook: t.cook,
    s: t.start_s,
    hands: t.end_s - t.start_s,
  }));

/** A line put in order move by move, timed as it grows; then beside ours. */
export function PlanHands({ kitchen, shown, onNext, how }: DrillProps) {
  const line = shown.hands!;
  const [answered, setAnswered] = useState<Try>(shown);
  const [moves, setMoves] = useState<readonly Move[]>([]);
  const [cook, setCook] = useState<"1" | "2">("1");
  const [box, width] = useWidth<HTMLDivElement>();
  const answer = useAnswer(kitchen, shown.id, setAnswered);
  const order = useQuery(orderQuery(kitchen, shown.id, moves));
  const truth = answered.truth?.hands;
  const whole = line.breads * line.moves.length;
  const next = order.data?.next ?? [];
  const stale = order.isFetching && order.isPlaceholderData;
  // what is pressed before the last move is timed waits its turn: quick hands lose no press
  const [waiting, setWaiting] = useState<readonly Move[]>([]);
  const add = (name: string) => {
    const move = { move: name, cook: Number(cook) };
    if (stale || waiting.length > 0) setWaiting((had) => [...had, move]);
    else if (next.includes(name)) setMoves((had) => [...had, move]);
  };
  const first = stale ? undefined : waiting[0];
  useEffect(() => {
    if (first === undefined) return;
    setWaiting((had) => had.slice(1));
    if (order.data?.next.includes(first.move)) setMoves((had) => [...had, first]);
  }, [first, order.data]);
  const names = line.moves.map((m) => m.name);
  const rounds = line.moves.length;
  const before = moves.length >= 2 * rounds ? moves.at(-rounds) : undefined;
  const repeat = before && next.includes(before.move) && !stale;
  const send = () => answer.mutate({ hands: { moves: [...moves] } });
  const done = moves.length === whole;
  useCommand({
    " ": truth ? onNext : done ? send : repeat ? () => setMoves((had) => [...had, before]) : undefined,
    ...Object.fromEntries(truth ? [] : names.map((name) => [name[0]!, () => add(name)])),
    c: line.cooks > 1 && !truth ? () => setCook((had) => (had === "1" ? "2" : "1")) : undefined,
    Backspace: truth ? undefined : () => setMoves((had) => had.slice(0, -1)),
  });
  const plan = (tasks: readonly Schemas["TaskRead"][]) => (
    <LinePlan
      tasks={tasksOf(tasks)}
      spots={line.spots}
      grilled={false}
      width={Math.max(width, 260)}
      clock={lineTime}
      recoverS={line.recover_s}
    />
  );
  return (
    <Wide>
      <Stack ref={box}>
        {truth ? (
          <>
            <Row>
              <p className="lead" role="status">
                <Why why={answered.truth?.why["line"]} label={SAY.yourLine}>
                  {SAY.lineTook(lineTime(truth.yours_s), lineTime(truth.ours_s))}
                </Why>
              </p>
              <Button data-kind="brass" onPress={onNext}>
                {SAY.nextLine}
              </Button>
            </Row>
            {truth.broken.length > 0 && (
              <>
                <p>
                  <b>{SAY.gapsMissed(truth.broken.length)}</b>
                </p>
                <ul>
                  {truth.broken.map((b) => (
                    <li key={b}>{b}</li>
                  ))}
                </ul>
              </>
            )}
            <h2>{SAY.yourLine}</h2>
            {plan(truth.yours)}
            <h2>{SAY.ourLine}</h2>
            {plan(truth.ours)}
            <p className="quiet">{SAY.noLineUnder(lineTime(truth.bound_s), truth.held_up_by)}</p>
          </>
        ) : (
          <>
            <p>{SAY.bringThrough(line.breads, SAY.spots(line.spots), SAY.cooks(line.cooks))}</p>
            {line.cooks > 1 && (
              <Choice
                label={SAY.whoseHands}
                value={cook}
                options={[
                  { id: "1", text: SAY.handsOf(1) },
                  { id: "2", text: SAY.handsOf(2) },
                ]}
                onChange={setCook}
              />
            )}
            <Row role="group" aria-label={SAY.bringThrough(line.breads, SAY.spots(line.spots), SAY.cooks(line.cooks))}>
              {names.map((name) => (
                <Button
                  key={name}
                  style={{ minHeight: 64, minWidth: 88 }}
                  isDisabled={!next.includes(name)}
                  onPress={() => add(name)}
                >
                  {capital(name)}
                </Button>
              ))}
            </Row>
            <Row>
              <Button
                data-kind="bare"
                isDisabled={moves.length === 0}
                onPress={() => setMoves((had) => had.slice(0, -1))}
              >
                {SAY.takeBack}
              </Button>
              <Button
                data-kind="bare"
                isDisabled={!repeat}
                onPress={() => before && setMoves((had) => [...had, before])}
              >
                {SAY.asBefore}
              </Button>
              <span role="status">
                {SAY.movesLeft(whole - moves.length)}, {SAY.soFar(lineTime(order.data?.ends_s ?? 0))}
              </span>
            </Row>
            {order.data && order.data.broken.length > 0 && (
              <p>
                <b>{SAY.gapsMissed(order.data.broken.length)}</b> {order.data.broken.join("; ")}
              </p>
            )}
            {width > 0 && order.data && order.data.tasks.length > 0 && plan(order.data.tasks)}
            {done && (
              <Press data-kind="brass" onPress={send} isDisabled={answer.isPending}>
                {SAY.doIt}
              </Press>
            )}
            {(answer.error ?? order.error) && <p role="alert">{(answer.error ?? order.error)?.message}</p>}
          </>
        )}
      </Stack>
      <Stack>
        <p className="quiet">{line.bread}</p>
        <ul>
          {line.moves.map((m) => (
            <li key={m.name}>
              {SAY.aMove(m.name, m.hands_s, m.then_max_s > 0 ? SAY.thenIn(m.then_min_s, m.then_max_s) : "")}
            </li>
          ))}
        </ul>
        {how}
      </Stack>
    </Wide>
  );
}

/** How one does with lines: our time over yours. */
export function YourLines({ ratios }: { ratios: readonly number[] }) {
  return (
    <Stack>
      <h2>{SAY.yourCalls}</h2>
      {ratios.length === 0 ? (
        <p className="quiet">{SAY.noCallsYet}</p>
      ) : (
        <p>
          {SAY.lastTwelve}: <b>{SAY.ourShare(percent(mean(ratios)))}</b>
        </p>
      )}
    </Stack>
  );
}
