import type { ReactNode } from "react";
import type { Schemas, Why as WhyText } from "../../api/client";
import { Why } from "../../controls/Why";
import { missWords } from "../../words/drill";
import { percent } from "../../words/format";
import { SAY } from "../../words/say/drill";
import { Stack } from "./parts";

const became = (b: Schemas["BecameRead"]) => [percent(b.pocket), b.bottom, b.top] as const;

/** What a call was: the turn in seconds, the end in seconds, and what it cost. */
export function CallTruth({
  truth,
  answer,
  why,
  children,
}: {
  truth: Schemas["CallTruth"];
  answer: Schemas["CallAnswer"];
  why: WhyText | undefined;
  children: ReactNode;
}) {
  const late = truth.turn_late_s;
  const right = truth.turn_s.toFixed(0);
  return (
    <Stack role="status">
      {late === null ? (
        <>
          <p className="lead">{SAY.notCalled}</p>
          <Why why={why} label={SAY.notCalled}>
            {`${SAY.notCalledLong} ${right} s`}
          </Why>
        </>
      ) : (
        <>
          <p>
            {SAY.youTurnedAt(answer.turn_s!.toFixed(0))}, <b>{SAY.rightAt(right)}</b>
          </p>
          <p>
            <Why why={why} label={SAY.rightAt(right)}>
              <span className="big">
                {missWords(late)
                  .split(" ")
                  .map((word, i) => (i === 0 ? <span key={i}>{word} </span> : <small key={i}>{word} </small>))}
              </span>
            </Why>
          </p>
          <p>
            {SAY.youTookOffAt((answer.off_s ?? 0).toFixed(0))}
            {": "}
            <b>
              {truth.off_late_s === null
                ? SAY.neverDone
                : truth.off_late_s === 0
                  ? SAY.onTime
                  : missWords(truth.off_late_s)}
            </b>
            {truth.off_low_s !== null &&
              `, ${SAY.rightFrom(truth.off_low_s.toFixed(0), (truth.off_high_s ?? truth.off_low_s).toFixed(0))}`}
          </p>
          {truth.yours && !truth.yours.cooked && (
            <p>
              <b>{SAY.notCookedThrough}</b>
            </p>
          )}
          {truth.yours && (
            <p className="quiet">
              {SAY.itBecame(...became(truth.yours))} {SAY.wouldHaveBeen(...became(truth.right))}
            </p>
          )}
        </>
      )}
      {children}
    </Stack>
  );
}
