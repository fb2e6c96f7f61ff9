import { Link } from "react-router";
import styled from "styled-components";
import type { Bench, Step } from "../../api/client";
import { useNow } from "../../api/clock";
import { useDayMoves } from "../../api/day";
import { Button } from "../../controls/Button";
import { FeedNow } from "../../frame/FeedNow";
import { useWords } from "../../frame/units";
import { Glyph, GLYPH_OF_STEP, Seal } from "../../instruments/Glyph";
import { clock, clockNear, dayName, lower, ms, span } from "../../words/format";
import { SAY } from "../../words/say/day";
import { stepKind, stepPath, waits } from "../../words/steps";

const Moves = styled.ol`
  list-style: none;
  margin: 0 0 14px;
  padding: 0;
  li {
    display: grid;
    grid-template-columns: 92px 34px minmax(0, 1fr) auto;
    gap: 2px 14px;
    align-items: center;
    min-height: 56px;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
  }
  li[data-next="true"] {
    background: var(--brass-wash);
    box-shadow: -6px 0 0 var(--brass);
  }
  .at {
    font: 700 26px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  .what {
    font-weight: 650;
    font-size: 20px;
    text-decoration: none;
    color: var(--ink);
    display: inline-flex;
    gap: 8px;
    align-items: center;
    min-height: 30px;
  }
  .what:hover {
    text-decoration: underline;
    text-decoration-color: var(--brass);
  }
  .how {
    grid-column: 3;
    color: var(--ink-2);
    font-size: 16px;
  }
  .wait {
    grid-row: 1;
    grid-column: 4;
    text-align: right;
    font-size: 16px;
    color: var(--ink-2);
    b {
      font: 700 20px/1 var(--mono);
      color: var(--ink);
    }
  }
  .away {
    grid-column: 3 / 5;
    font-weight: 650;
    padding-left: 22px;
    position: relative;
    &::before {
      content: "";
      position: absolute;
      left: 2px;
      top: 3px;
      width: 14px;
      height: 14px;
      background: repeating-linear-gradient(45deg, var(--ink) 0 2px, transparent 2px 5px);
      border: 1.5px solid var(--ink);
    }
  }
  .held {
    grid-column: 3 / 5;
    display: flex;
    gap: 14px;
    align-items: center;
    font-size: 16px;
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: 76px minmax(0, 1fr) auto;
      > svg {
        display: none;
      }
    }
    .how {
      grid-column: 2 / 4;
    }
    .wait {
      grid-row: auto;
      grid-column: 2 / 4;
      text-align: left;
    }
    .away,
    .held {
      grid-column: 1 / 4;
    }
    .at {
      font-size: 22px;
    }
  }
  @media print {
    li {
      grid-template-columns: 118px minmax(0, 1fr) auto;
      break-inside: avoid;
      > svg {
        display: none;
      }
    }
    .at {
      font-size: 30px;
    }
    .what {
      font-size: 26px;
    }
    .how,
    .wait {
      font-size: 19px;
      grid-column: 2;
    }
    .wait {
      grid-column: 3;
    }
    .held button {
      display: none;
    }
  }
`;
/** Every hand move ahead by its day: when, what, where, how long, why, and how long it can wait. */
export function DayMoves({ bench }: { bench: Bench }) {
  const { zone } = useWords();
  const now = useNow(10_000);
  const open = bench.steps.filter((s) => !s.done_at);
  return groupByDay(open, zone).map(([day, steps]) => (
    <section key={day}>
      <h2 style={{ borderBottom: "2px solid var(--ink)", paddingBottom: 4 }}>{day}</h2>
      <Moves>
        {steps.map((s) => (
          <MoveLine
            key={`${s.bake_id}-${s.key}`}
            step={s}
            now={now}
            zone={zone}
            next={s === open[0]}
            kitchen={bench.kitchen.id}
          />
        ))}
      </Moves>
    </section>
  ));
}

function groupByDay(steps: readonly Step[], zone: string): [string, Step[]][] {
  const days = new Map<string, Step[]>();
  for (const s of steps) {
    const day = dayName(s.at, zone);
    days.set(day, [...(days.get(day) ?? []), s]);
  }
  return [...days];
}

function MoveLine({
  step: s,
  now,
  zone,
  next,
  kitchen,
}: {
  step: Step;
  now: number;
  zone: string;
  next: boolean;
  kitchen: number;
}) {
  const { pin } = useDayMoves();
  const wait = waits(s, now);
  const hands = s.hands_min >= 1.5 ? `${Math.round(s.hands_min)} min of hands` : s.key === "serve" ? "" : "a moment";
  return (
    <li data-next={next}>
      <span className="at">{clock(s.at, zone)}</span>
      <Glyph name={GLYPH_OF_STEP[stepKind(s.key)] ?? "mix"} size={30} />
      <Link className="what" to={stepPath(s)}>
        <Seal seal={s.seal} size={18} />
        {s.name}, {lower(s.bake)}
      </Link>
      <span className="wait">
        {next && ms(s.at) > now ? (
          <>
            in {span(ms(s.at) - now)}
            {wait ? "; " : ""}
          </>
        ) : null}
        {wait && (
          <>
            until <b>{clockNear(wait.until, ms(s.at), zone)}</b>
          </>
        )}
      </span>
      <span className="how">{[s.place, hands, s.reason].filter(Boolean).join("; ")}</span>
      {s.away && (
        <span className="away">
          {SAY.noFreeHandsThen} {s.away}
        </span>
      )}
      {s.feed && (
        <span className="held">
          <FeedNow step={s} kitchen={kitchen} bare />
        </span>
      )}
      {s.pinned && (
        <span className="held">
          {SAY.heldHere}{" "}
          <Button data-kind="bare" onPress={() => pin.mutate({ bake: s.bake_id, key: s.key, at: null })}>
            Let it go
          </Button>
        </span>
      )}
    </li>
  );
}
