import { useMemo } from "react";
import styled from "styled-components";
import { useDueAlarms, type Alarm } from "../../alarms/due";
import type { Bake, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useTap, useTapEdits } from "../../api/outbox";
import { Button } from "../../controls/Button";
import { countdown, ms } from "../../words/format";
import { SAY } from "../../words/say/mix";

const List = styled.ol`
  display: grid;
  gap: 2px;
  counter-reset: step;
  li {
    display: grid;
    grid-template-columns: 74px minmax(0, 1fr);
    gap: 12px;
    align-items: baseline;
    padding: 7px 8px;
    border-bottom: 1px solid var(--hair);
  }
  li[data-state="now"] {
    background: var(--brass-wash);
    box-shadow: inset 6px 0 0 var(--brass);
  }
  li[data-state="done"] {
    color: var(--ink-2);
  }
  .clock {
    font: 700 24px/1 var(--mono);
    letter-spacing: -0.03em;
    text-align: right;
  }
`;
const Tests = styled.ul`
  li {
    padding: 3px 0 3px 18px;
    text-indent: -18px;
  }
  li::before {
    content: "◦ ";
  }
`;

/** The guide to the kneading as timed steps on the kitchen's clock, and what shows that it is enough. */
export function Kneading({ bake, mix }: { bake: Bake; mix: Schemas["MixRead"] }) {
  const now = useNow(500);
  const tap = useTap(bake.id);
  const edits = useTapEdits(bake.id);
  const begun = bake.taps.find((t) => t.kind === "knead");
  const mixed = bake.taps.some((t) => t.kind === "mix");
  const start = begun ? ms(begun.at) : null;
  const ends = useMemo(() => {
    let at = start ?? 0;
    return mix.guide.map((g) => (g.minutes > 0 ? (at += g.minutes * 60e3) : null));
  }, [mix.guide, start]);
  const running = start !== null && !mixed;
  const alarms = useMemo<Alarm[]>(
    () =>
      running
        ? ends.flatMap((at, i) =>
            at === null
              ? []
              : [
                  {
                    id: `${bake.id}-knead-${i}-${at}`,
                    at,
                    call: "step" as const,
                    title: mix.guide[i + 1]?.text ?? "Kneaded",
                  },
                ],
          )
        : [],
    [bake.id, ends, mix.guide, running],
  );
  useDueAlarms(alarms);
  const current = ends.findIndex((at) => at !== null && at > now);
  return (
    <section>
      <h2>At the bowl</h2>
      <Tests>
        {mix.order.map((o) => (
          <li key={o}>{o}</li>
        ))}
      </Tests>
      <List>
        {mix.guide.map((g, i) => {
          const end = ends[i] ?? null;
          const state = !running || end === null ? "later" : i === current ? "now" : end <= now ? "done" : "later";
          return (
            <li key={g.text} data-state={state}>
              <span className="clock">
                {end === null
                  ? ""
                  : running && state === "now"
                    ? countdown(end - now)
                    : running && state === "done"
                      ? "✓"
                      : `${g.minutes.toFixed(0)} min`}
              </span>
              <span>{g.text}</span>
            </li>
          );
        })}
      </List>
      {!begun && !mixed && <Button onPress={() => tap({ kind: "knead" })}>{SAY.startTheClockOnIt}</Button>}
      {begun && !mixed && (
        <Button data-kind="bare" onPress={() => edits.undo(begun)}>
          stop this clock
        </Button>
      )}
      <h2>Enough when</h2>
      <Tests>
        {mix.tests.map((t) => (
          <li key={t}>{t}</li>
        ))}
      </Tests>
      <p className="quiet">{SAY.commonPractice}</p>
    </section>
  );
}
