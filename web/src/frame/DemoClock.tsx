import styled from "styled-components";
import { useSetClock } from "../api/kitchen";
import { SAY } from "../words/say/frame";

const Bar = styled.div`
  display: flex;
  flex: none;
  border: 1.5px solid var(--ink);
  margin-left: auto;
  button {
    min-height: 44px;
    min-width: 48px;
    border: 0;
    border-left: 1px solid var(--hair-2);
    background: transparent;
    font: 600 15px/1 var(--mono);
    padding: 0 9px;
    display: grid;
    place-items: center;
  }
  button:first-of-type {
    border-left: 0;
  }
  button[aria-pressed="true"] {
    background: var(--ink);
    color: var(--ground);
  }
  button:hover {
    text-decoration: underline;
  }
`;

/** Demo only: the canteen's clock can pause, run, hurry, and jump to the next hand move. */
export function DemoClock({ kitchen, rate }: { kitchen: number; rate: number }) {
  const set = useSetClock();
  const run = (to: number) => set.mutate({ kitchen_id: kitchen, rate: to });
  return (
    <Bar role="group" aria-label="Demo clock" data-print="no">
      <button type="button" aria-pressed={rate === 0} aria-label={SAY.pauseTheDemoClock} onClick={() => run(0)}>
        <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
          <path d="M4 2v12M12 2v12" stroke="currentColor" strokeWidth="3.500" />
        </svg>
      </button>
      <button type="button" aria-pressed={rate === 1} aria-label={SAY.runTheDemoClockAtIts} onClick={() => run(1)}>
        1×
      </button>
      <button
        type="button"
        aria-pressed={rate === 60}
        aria-label={SAY.runTheDemoClockSixtyTimes}
        onClick={() => run(60)}
      >
        60×
      </button>
      <button
        type="button"
        aria-label={SAY.jumpToTheNextHandMove}
        onClick={() => set.mutate({ kitchen_id: kitchen, jump: "next_move" })}
      >
        <svg
          width="30"
          height="18"
          viewBox="0 0 30 18"
          fill="none"
          stroke="currentColor"
          strokeWidth="2"
          aria-hidden="true"
        >
          <path d="M2 14C6 3 16 3 21 11M21 4v7h-7M27 2v14" />
        </svg>
      </button>
    </Bar>
  );
}
