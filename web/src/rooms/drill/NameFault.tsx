import { useState } from "react";
import styled from "styled-components";
import { type Try, useAnswer } from "../../api/drill";
import { Button } from "../../controls/Button";
import { Why } from "../../controls/Why";
import { type Look, OnPlate } from "../../instruments/BreadFace";
import { faultSaid } from "../../words/drill";
import { percent } from "../../words/format";
import { SAY } from "../../words/say/drill";
import { Columns, type DrillProps, Press, Stack } from "./parts";
import { useCommand } from "./useCommand";

const UNKNOWN = "not_enough_known";
const [MOST, LEAST] = [4, 0.05]; // causes that are shown
const Options = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 8px;
  width: 100%;
  button {
    justify-content: flex-start;
    text-align: left;
    gap: 12px;
    padding: 6px 12px;
    font-size: 17px;
    line-height: 1.15;
  }
  .nth {
    font: 700 20px/1 var(--name);
    width: 1em;
    flex: none;
  }
  [data-nth] {
    background: var(--ink);
    color: var(--ground);
  }
`;
const Ranks = styled.ol`
  width: 100%;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 60px;
    gap: 2px 10px;
    padding: 4px 0;
    border-bottom: 1px solid var(--hair);
  }
  .bar {
    grid-column: 1 / -1;
    height: 6px;
    background: var(--ink);
  }
  .quiet {
    grid-column: 1 / -1;
  }
`;

/** A bread that failed and what is known of it: which cause, and why. */
export function NameFault({ kitchen, shown, onNext, how }: DrillProps) {
  const bread = shown.fault!;
  const [answered, setAnswered] = useState<Try>(shown);
  const [named, setNamed] = useState<readonly string[]>([]);
  const answer = useAnswer(kitchen, shown.id, setAnswered);
  const truth = answered.truth?.fault;
  const given = answered.answer?.fault;
  const options = [...bread.options, { cause: UNKNOWN, name: SAY.tooLittleKnown }];
  const nameOf = (cause: string): string => options.find((o) => o.cause === cause)?.name ?? cause;
  const press = (cause: string) =>
    setNamed((had) => {
      if (had.includes(cause)) return had.filter((c) => c !== cause);
      if (cause === UNKNOWN || had.includes(UNKNOWN)) return [cause];
      return [...had, cause].slice(0, 2);
    });
  const send = () => {
    const [first, second] = named;
    if (first) answer.mutate({ fault: { first, second: second ?? null } });
  };
  useCommand({ " ": truth ? onNext : named.length ? send : undefined });
  const best = truth && (truth.best === UNKNOWN ? SAY.nothingSure : nameOf(truth.best));
  return (
    <Columns>
      <Stack>
        <OnPlate look={looksOf(bread.faults)} plateC={200} size={140} about={bread.faults.map(faultSaid).join(", ")} />
        <p className="lead">{SAY.itIs(bread.faults.map(faultSaid).join(", "))}</p>
        <p>
          {bread.bread}, {bread.surface.toLowerCase()}
        </p>
        <h2>{SAY.whatIsKnown}</h2>
        <ul>
          {bread.facts.map((f) => (
            <li key={f.fact}>{f.text}</li>
          ))}
        </ul>
      </Stack>
      {truth && given ? (
        <Stack role="status">
          <p>
            {given.second ? SAY.namedTwo(nameOf(given.first), nameOf(given.second)) : SAY.named(nameOf(given.first))}{" "}
            <b>{given.first === truth.best ? SAY.thatIsRight : SAY.thatIsWrong}</b>
          </p>
          <p className="lead">
            <Why why={answered.truth?.why["cause"]} label={SAY.likeliest}>
              {best}
            </Why>
          </p>
          <Ranks>
            {truth.causes
              .filter((c, i) => i < 2 || (i < MOST && c.share >= LEAST))
              .map((c) => (
                <li key={c.cause}>
                  <span>{c.name}</span>
                  <b>{percent(c.share)} %</b>
                  <div className="bar" style={{ width: `${Math.max(100 * c.share, 1)}%` }} />
                  <span className="quiet">{c.evidence}</span>
                </li>
              ))}
          </Ranks>
          <p>{SAY.itWasPutWrong(truth.wrong)}</p>
          {truth.change && <p>{SAY.nextTime(truth.change)}</p>}
          {truth.ask && <p>{SAY.noteNext(truth.ask)}</p>}
          <Button data-kind="brass" onPress={onNext}>
            {SAY.nextFault}
          </Button>
        </Stack>
      ) : (
        <Stack>
          <p>{SAY.whyWasIt}</p>
          <Options role="group" aria-label={SAY.whyWasIt}>
            {options.map((o) => {
              const nth = named.indexOf(o.cause);
              return (
                <Button
                  key={o.cause}
                  aria-pressed={nth >= 0}
                  data-nth={nth >= 0 ? nth + 1 : undefined}
                  onPress={() => press(o.cause)}
                >
                  <span className="nth">{nth >= 0 ? nth + 1 : ""}</span>
                  {o.name}
                </Button>
              );
            })}
          </Options>
          <Press data-kind="brass" onPress={send} isDisabled={named.length === 0 || answer.isPending}>
            {SAY.sayIt}
          </Press>
          {answer.error && <p role="alert">{answer.error.message}</p>}
        </Stack>
      )}
      {how}
    </Columns>
  );
}
/** How such a bread looks, as far as a drawing can show it. */
const looksOf = (faults: readonly string[]): Look => ({
  bubbles: faults.includes("flat") ? 0.2 : 0.9,
  dull: 1,
  brown: faults.includes("pale") ? 0.12 : 0.8,
  char: faults.includes("scorched") ? 1.5 : 0,
  pocket: faults.includes("flat") || faults.includes("burst") ? 0 : faults.includes("part_pocket") ? 0.4 : 0.9,
});
