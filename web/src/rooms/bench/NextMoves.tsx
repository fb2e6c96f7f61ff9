import { Link } from "react-router";
import styled from "styled-components";
import type { Bench } from "../../api/client";
import { useNow } from "../../api/clock";
import { useWords } from "../../frame/units";
import { Glyph, GLYPH_OF_STEP, Seal } from "../../instruments/Glyph";
import { clockNear, span } from "../../words/format";
import { stepKind, stepPath, waits } from "../../words/steps";

const Moves = styled.ol`
  li {
    border-bottom: 1px solid var(--hair);
  }
  a {
    display: grid;
    grid-template-columns: 92px 34px 26px minmax(0, 1fr) auto auto;
    gap: 12px;
    align-items: center;
    min-height: 48px;
    text-decoration: none;
  }
  li[data-now="true"] a {
    background: var(--brass-wash);
    box-shadow: -6px 0 0 var(--brass);
  }
  .at {
    font: 700 24px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  li[data-now="true"] .at {
    font-size: 27px;
  }
  .name {
    font-weight: 600;
    font-size: 20px;
  }
  .wait {
    color: var(--ink-2);
    font-size: 16px;
  }
  .until {
    font: 700 20px/1 var(--mono);
  }
  a:hover .name {
    text-decoration: underline;
  }
  @media (max-width: 600px) {
    a {
      grid-template-columns: 76px 30px minmax(0, 1fr) auto;
    }
    .seal,
    .wait {
      display: none;
    }
  }
`;

/** The hand moves of all bakes, the soonest six. */
export function NextMoves({ bench }: { bench: Bench }) {
  const now = useNow(5000);
  const open = bench.steps.filter((s) => !s.done_at).slice(0, 6);
  return (
    <section style={{ marginTop: 14 }}>
      <h2 style={{ borderBottom: "2px solid var(--ink)", paddingBottom: 4 }}>Next moves</h2>
      <Moves>
        {open.map((s, i) => (
          <NextMove key={`${s.bake_id}-${s.key}`} step={s} first={i === 0} now={now} />
        ))}
      </Moves>
    </section>
  );
}

function NextMove({ step, first, now }: { step: Bench["steps"][number]; first: boolean; now: number }) {
  const { zone } = useWords();
  const wait = waits(step, now);
  return (
    <li data-now={first}>
      <Link to={stepPath(step)}>
        <span className="at">{clockNear(step.at, now, zone)}</span>
        <Glyph name={GLYPH_OF_STEP[stepKind(step.key)] ?? "mix"} size={30} />
        <span className="seal">
          <Seal seal={step.seal} size={18} />
        </span>
        <span className="name">
          {step.name}, {step.bake.toLowerCase()}
        </span>
        <span className="wait">
          {wait && `${wait.words}${wait.leftMs === null ? "" : ` ${span(wait.leftMs)},`} until`}
        </span>
        <span className="until">{wait && clockNear(wait.until, now, zone)}</span>
      </Link>
    </li>
  );
}
