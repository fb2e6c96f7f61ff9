import { useMemo } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Step } from "../api/client";
import { Button } from "../controls/Button";
import { lower, ms } from "../words/format";
import { stepKind, stepPath } from "../words/steps";
import { type Alarm, answer, useDueAlarms, useOpenAlarms } from "./due";

const CALLED = new Set(["feed", "mix", "sponge", "ball", "cold_in", "cold_out", "preheat", "roll", "take_out", "heat"]);
const SOON_MS = 10 * 60e3;
const SHOWN = 2;

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  padding: 4px 24px;
  border-bottom: 2px solid var(--ink);
  background: var(--brass-wash);
  p {
    font: 600 20px/1.2 var(--name);
    flex: 1 1 14em;
    min-width: 0;
  }
  a {
    color: inherit;
    text-decoration: underline;
    text-decoration-color: var(--brass);
    text-decoration-thickness: 2px;
  }
  .narrow {
    display: none;
  }
  @media (max-width: 600px) {
    padding: 4px 16px;
    flex-wrap: nowrap;
    .wide {
      display: none;
    }
    .narrow {
      display: inline;
    }
  }
`;

/** A move soon, due, or with its window closing: three alarms of one step. */
function alarmsOf(s: Step): Alarm[] {
  const at = ms(s.at);
  const what = `${s.name}, ${lower(s.bake)}`;
  const one = (kind: string, when: number, call: Alarm["call"], title: string): Alarm => ({
    id: `${s.bake_id}-${s.key}-${kind}`,
    at: when,
    call,
    title,
    to: stepPath(s),
  });
  const found = [
    one("soon", at - SOON_MS, "soon", `In ten minutes: ${what}`),
    one("due", at, "step", `${s.name}: ${s.bake}`),
  ];
  const closes = s.can_wait_until ? ms(s.can_wait_until) : null;
  if (closes !== null && closes - SOON_MS > at + 2 * 60e3)
    found.push(one("closing", closes - SOON_MS, "closing", `Ten minutes left: ${what}`));
  return found;
}

/** Rings for the hand moves of every live bake, wherever the cook is; what rang stands here until it is answered. */
export function StepAlarms({ steps }: { steps: readonly Step[] }) {
  const alarms = useMemo(
    () => steps.filter((s) => CALLED.has(stepKind(s.key)) && !s.done_at).flatMap(alarmsOf),
    [steps],
  );
  useDueAlarms(alarms);
  const open = useOpenAlarms();
  // of one move only its newest alarm speaks
  const shown = open.filter(
    (a, i) => open.findIndex((b) => b.to === a.to && b.id.split("-")[1] === a.id.split("-")[1]) === i,
  );
  if (shown.length === 0) return null;
  return (
    <Bar role="alert" data-print="no" data-testid="alarms">
      {shown.slice(0, SHOWN).map((a, i) => (
        <p key={a.id} className={i > 0 ? "wide" : ""}>
          <Link to={a.to!}>{a.title}</Link>
          {i === 0 && shown.length > 1 && <span className="narrow"> and {shown.length - 1} more</span>}
        </p>
      ))}
      {shown.length > SHOWN && <p className="wide">and {shown.length - SHOWN} more</p>}
      <Button onPress={() => answer(open.map((a) => a.id))}>Heard</Button>
    </Bar>
  );
}
