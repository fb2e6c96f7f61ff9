import { Link } from "react-router";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { SAY } from "../words/say/frame";

const Edge = styled.nav`
  position: relative;
  z-index: 5;
  height: 72px;
  background: var(--edge);
  display: flex;
  align-items: flex-end;
  gap: 4px;
  padding: 0 8px;
  padding-bottom: env(safe-area-inset-bottom);
  @media (max-width: 720px) {
    gap: 2px;
    padding: 0 4px env(safe-area-inset-bottom);
    &[data-wraps="true"] {
      flex-wrap: wrap;
      height: auto;
      min-height: 72px;
    }
  }
  a {
    text-decoration: none;
  }
`;
const Cut = styled(Link)`
  flex: 1 1 0;
  height: 62px;
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 12px;
  font: 600 24px/1 var(--name);
  color: var(--on-edge);
  border: 1.5px solid var(--hair-2);
  border-bottom: 0;
  border-radius: 34px 34px 0 0;
  min-width: 0;
  &[data-state="done"] {
    background: var(--edge-done);
    color: var(--on-edge-done);
    border-color: var(--edge-done);
  }
  &[data-here="true"] {
    height: 92px;
    background: var(--ground);
    color: var(--ink);
    border: 3px solid var(--brass);
    border-bottom: 0;
    font-size: 28px;
    font-weight: 700;
  }
  svg {
    flex: none;
  }
  &:focus-visible {
    outline-offset: -6px;
  }
  @media (max-width: 720px) {
    font-size: 15px;
    gap: 5px;
    border-radius: 18px 18px 0 0;
    flex-direction: column;
    justify-content: center;
    padding-top: 4px;
    &[data-here="true"] {
      font-size: 17px;
      height: 80px;
    }
  }
`;
const Back = styled(Link)`
  flex: none;
  width: 112px;
  height: 62px;
  display: grid;
  place-items: center;
  color: var(--on-edge);
  font: 600 21px/1 var(--name);
  span {
    border-bottom: 2px solid var(--brass-fill);
    padding-bottom: 4px;
  }
  @media (max-width: 720px) {
    width: 54px;
    font-size: 15px;
  }
`;
const NAMES = { weigh: "Weigh", mix: "Mix", rise: "Rise", fire: "Fire", keep: "Keep" } as const;
const WORD = { done: "done", now: "now", later: "later" } as const;

/** State as a shape: a tick when done, a notch for now, a ring for later. */
export function StateMark({ state, size = 20 }: { state: string; size?: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 20 20"
      fill="none"
      stroke="currentColor"
      strokeWidth={2.5}
      aria-hidden="true"
    >
      {state === "done" && <path d="M3 11l5 5L17 4" />}
      {state === "now" && <path d="M2 5h16l-8 10z" fill="currentColor" stroke="none" />}
      {state === "later" && <circle cx="10" cy="10" r="5.500" />}
    </svg>
  );
}

export function ThumbIndex({
  bake,
  kitchen,
  here,
  leaves,
}: {
  bake: number;
  kitchen: number;
  here: string;
  leaves: readonly Schemas["LeafRead"][];
}) {
  return (
    <Edge aria-label={SAY.leavesOfThisBake} data-print="no">
      <Back to={`/k/${kitchen}/bench`}>
        <span>Bench</span>
      </Back>
      {leaves.map((l) => (
        <Cut
          key={l.leaf}
          to={`/b/${bake}/${l.leaf}`}
          data-state={l.state}
          data-here={l.leaf === here}
          aria-current={l.leaf === here ? "page" : undefined}
        >
          <StateMark state={l.state} />
          {NAMES[l.leaf]}
          <span className="unseen">{WORD[l.state]}</span>
        </Cut>
      ))}
    </Edge>
  );
}

const Room = styled(Link)`
  height: 62px;
  padding: 0 26px;
  display: grid;
  place-items: center;
  color: var(--on-edge);
  font: 600 21px/1 var(--name);
  text-decoration: none;
  &[data-here="true"] {
    height: 66px;
    background: var(--ground);
    color: var(--ink);
    border: 3px solid var(--brass);
    border-bottom: 0;
  }
  &[data-kind="new"] {
    margin-left: auto;
    background: var(--brass-fill);
    color: var(--on-fill);
    height: 66px;
    font-weight: 700;
  }
  &:focus-visible {
    outline-offset: -6px;
  }
  @media (max-width: 720px) {
    padding: 0 6px;
    font-size: 15px;
    &[data-kind="new"] {
      padding: 0 7px;
    }
  }
`;

export function RoomBar({ kitchen, here }: { kitchen: number; here: string }) {
  const rooms = [
    ["bench", "Bench"],
    ["day", "Day"],
    ["logbook", "Logbook"],
    ["drill", "Drill"],
    ["kitchen", "Kitchen"],
  ] as const;
  return (
    <Edge aria-label="Rooms" data-print="no" data-wraps="true">
      {rooms.map(([id, name]) => (
        <Room
          key={id}
          to={`/k/${kitchen}/${id}`}
          data-here={here === id || (id === "kitchen" && here === "freezer")}
          aria-current={here === id ? "page" : undefined}
        >
          {name}
        </Room>
      ))}
      <Room to={`/k/${kitchen}/new`} data-kind="new" aria-current={here === "new" ? "page" : undefined}>
        New bake
      </Room>
    </Edge>
  );
}
