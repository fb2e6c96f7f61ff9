import { useEffect, useState } from "react";
import styled from "styled-components";
import type { SayPart, Step } from "../api/client";
import { useNow } from "../api/clock";
import { commandKey } from "../controls/keys";
import { Glyph, GLYPH_OF_STEP } from "../instruments/Glyph";
import { clock, clockNear, lower } from "../words/format";
import { SAY } from "../words/say/frame";
import { stepKind } from "../words/steps";
import { Figured, words } from "./SayLine";

const Full = styled.div`
  position: fixed;
  inset: 0;
  z-index: 30;
  background: var(--ground);
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 2vmin;
  padding: 3vmin 4vmin;
  .top {
    display: flex;
    justify-content: space-between;
    align-items: center;
    border-bottom: 5px double var(--hair-2);
    font: 700 9vmin/1 var(--mono);
  }
  .say {
    align-self: center;
    font: 500 clamp(34px, 11vmin, 140px) / 1.1 var(--name);
    overflow-wrap: anywhere;
  }
  .say[data-long="true"] {
    font-size: clamp(30px, 8vmin, 110px);
  }
  b {
    color: var(--brass);
    font-weight: 700;
  }
  ol {
    border-top: 3px solid var(--ink);
    font-size: clamp(22px, 5.5vmin, 64px);
    line-height: 1.1;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 0 3vmin;
    align-items: center;
    padding: 1vmin 0;
  }
  li b {
    font-family: var(--mono);
    color: inherit;
  }
  button {
    min-height: 56px;
    padding: 0 22px;
    border: 2px solid var(--ink);
    background: transparent;
    font: 600 20px/1 var(--text);
  }
`;
const LONG = 100; // letters that stand well at the full size

/** What now, read from across the kitchen: the clock, the sentence and the moves after it, as large as the window. By key, and `Escape`. */
export function Wall({
  say,
  steps,
  zone,
  pressed,
}: {
  say: readonly SayPart[];
  steps: readonly Step[];
  zone: string;
  /** Whether a press beside the sentence opens it too; the demo's clock stands there. */
  pressed: boolean;
}) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const key = commandKey(e);
      if (key === "z") setOpen((was) => !was);
      else if (key === "Escape") setOpen(false);
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, []);
  return (
    <>
      {pressed && (
        <button type="button" className="wall" aria-label={SAY.largeForTheWall} onClick={() => setOpen(true)}>
          <svg width={30} height={24} fill="none" stroke="currentColor" strokeWidth={2} aria-hidden="true">
            <path d="M2 22L9 3l7 19M4.500 16h9M19 22l4-11 4 11M20.500 18.500h5" />
          </svg>
        </button>
      )}
      {open && <Large say={say} steps={steps} zone={zone} onClose={() => setOpen(false)} />}
    </>
  );
}

function Large({
  say,
  steps,
  zone,
  onClose,
}: {
  say: readonly SayPart[];
  steps: readonly Step[];
  zone: string;
  onClose: () => void;
}) {
  const now = useNow(1000);
  const said = words(say, now, zone);
  const ahead = steps.filter((s) => !s.done_at).slice(1, 3);
  return (
    <Full role="dialog" aria-modal="true" aria-label={SAY.largeForTheWall} data-print="no">
      <div className="top">
        <span>{clock(now, zone)}</span>
        <button type="button" autoFocus onClick={onClose}>
          {SAY.backToTheScreen}
        </button>
      </div>
      <p className="say" data-long={said.map((s) => s.text).join("").length > LONG}>
        <Figured said={said} />
      </p>
      <ol>
        {ahead.map((s) => (
          <li key={`${s.bake_id}-${s.key}`}>
            <Glyph name={GLYPH_OF_STEP[stepKind(s.key)] ?? "mix"} size={44} />
            <b>{clockNear(s.at, now, zone)}</b>
            <span>
              {s.name}, {lower(s.bake)}
            </span>
          </li>
        ))}
      </ol>
    </Full>
  );
}
