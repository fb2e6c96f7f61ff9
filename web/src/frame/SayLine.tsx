import { type ReactNode, useState, useSyncExternalStore } from "react";
import styled from "styled-components";
import { onReach, type SayPart, serverGone } from "../api/client";
import { clockRate, serverNow, useNow } from "../api/clock";
import { useRefusal, useRefusedTaps, useWaiting } from "../api/outbox";
import { again, dequeue, tell, type Waiting } from "../api/queue";
import { tapWords } from "../words/taps";
import { clock, clockNear, ms, span } from "../words/format";
import { SAY } from "../words/say/frame";
import { useWords } from "./units";
import { LATE_MS, useLasting } from "./useLasting";

const AWAY_MS = 2500; // a request that fails and is made again at once is no outage

const Line = styled.div`
  padding: 7px 24px 6px;
  border-bottom: 5px double var(--hair-2);
  min-height: 62px;
  display: flex;
  align-items: center;
  gap: 10px 20px;
  flex-wrap: wrap;
  p {
    font: 500 31px/1.15 var(--name);
    flex: 1 1 0;
    min-width: min(100%, 18em);
  }
  b {
    font-weight: 700;
    color: var(--brass);
  }
  p[data-long="true"] {
    font-size: 25px;
  }
  .wall {
    min-width: 48px;
    min-height: 48px;
    border: 0;
    background: transparent;
    display: grid;
    place-items: center;
    color: var(--ink-2);
  }
  .wall:hover {
    color: var(--ink);
  }
  @media (max-width: 600px) {
    .wall {
      display: none;
    }
  }
  @media (max-width: 900px) {
    p {
      font-size: 25px;
    }
  }
  @media (max-width: 600px) {
    padding: 8px 16px;
    p {
      font-size: 21px;
    }
  }
`;
const Away = styled.div`
  padding: 8px 24px;
  font-weight: 650;
  border-bottom: 2px solid var(--ink);
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
  background: repeating-linear-gradient(45deg, var(--recess) 0 10px, var(--paper) 10px 20px);
  button {
    min-height: 48px;
    border: 2px solid var(--ink);
    background: var(--ground);
    padding: 0 14px;
  }
  .choice {
    display: flex;
    gap: 8px;
    flex: none;
  }
  @media (max-width: 600px) {
    flex-wrap: wrap;
    padding: 8px 16px;
  }
`;

const LONG = 58; // letters that fit in one line at full size

export function words(parts: readonly SayPart[], now: number, zone: string): { text: string; strong: boolean }[] {
  return parts.map((p) => {
    if (p.kind === "at" && p.at) return { text: clockNear(p.at, now, zone), strong: true };
    if (p.kind === "until" && p.at) return { text: span(ms(p.at) - now), strong: true };
    return { text: p.text ?? "", strong: p.kind === "figure" };
  });
}

/** A sentence with its figures set apart. */
export const Figured = ({ said }: { said: ReturnType<typeof words> }) =>
  said.map((s, i) => (s.strong ? <b key={i}>{s.text}</b> : <span key={i}>{s.text}</span>));

/** One plain sentence: what is next, when, how long it can wait. Also what assistive technology hears. */
export function SayLine({ parts, zone, children }: { parts: readonly SayPart[]; zone: string; children?: ReactNode }) {
  const now = useNow(1000);
  const said = words(parts, now, zone);
  const whole = said.map((s) => s.text).join("");
  // spoken when the sentence changes in substance, not at every minute of its countdown
  const substance = parts.map((p) => p.kind + p.text + (p.kind === "at" ? p.at : "")).join("|");
  return (
    <>
      <Line data-testid="say-line" data-print="no">
        <p data-long={whole.length > LONG}>
          <Figured said={said} />
        </p>
        {children}
        <p className="unseen" aria-live="polite">
          <Heard key={substance} text={whole} />
        </p>
      </Line>
      <WaitingTaps />
    </>
  );
}

/** Keeps the words it was first given: a new key gives it new ones. */
function Heard({ text }: { text: string }) {
  const [first] = useState(text);
  return <span>{first}</span>;
}

function WaitingTaps() {
  const waiting = useWaiting();
  const refused = useRefusal();
  const late = useLasting(waiting || null, LATE_MS);
  const kept = useRefusedTaps();
  const gone = useSyncExternalStore(onReach, serverGone);
  const units = useWords();
  const away = useLasting(gone, AWAY_MS);
  if (kept.length > 0) return <Refused kept={kept} />;
  if (refused)
    return (
      <Away role="alert" data-print="no">
        <span>{refused}</span>
        <button type="button" onClick={() => tell(null)}>
          Understood
        </button>
      </Away>
    );
  if (!late && !away) return null;
  const since = serverNow() - (Date.now() - (gone ?? Date.now())) * clockRate().rate;
  return (
    <Away role="status" data-print="no">
      {away ? SAY.theServerIsOutOfReachSince(clock(since, units.zone)) : SAY.theServerIsOutOfReach}{" "}
      {waiting > 0 && `${waiting} ${waiting === 1 ? "tap waits" : "taps wait"} ${SAY.hereAndWillBeSent}`}
    </Away>
  );
}

/** Taps that the server did not take: kept, oldest first, until the cook decides about each. */
function Refused({ kept }: { kept: readonly Waiting[] }) {
  const first = kept[0]!;
  return (
    <Away role="alert" data-print="no">
      <span>
        “{tapWords(first.tap)}
        {first.change && (first.change.at === null ? SAY.takenBack : SAY.movedTo(first.change.at))}
        {SAY.wasNotTaken} {first.refused}
        {kept.length > 1 && SAY.moreLikeIt(kept.length - 1)}
      </span>
      <span className="choice">
        <button type="button" onClick={() => void again(first)}>
          Try again
        </button>
        <button type="button" onClick={() => void dequeue(first)}>
          Let it go
        </button>
      </span>
    </Away>
  );
}
