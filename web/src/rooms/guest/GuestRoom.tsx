import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useLocation } from "react-router";
import styled from "styled-components";
import { syncClock, useNow } from "../../api/clock";
import { guestQuery } from "../../api/session";
import { Glyph } from "../../instruments/Glyph";
import { capital, clock, ms, span } from "../../words/format";
import { SAY } from "../../words/say/devices";

const Page = styled.main`
  min-height: 100%;
  display: grid;
  place-content: center;
  gap: 22px;
  padding: 24px;
  max-width: 900px;
  margin: 0 auto;
  .next {
    font: 700 clamp(40px, 8vw, 84px)/1.05 var(--name);
  }
  .in {
    font: 500 28px/1.2 var(--name);
  }
  ul {
    display: grid;
    gap: 14px;
    border-top: 5px double var(--hair-2);
    padding-top: 18px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: center;
    font: 500 24px/1.25 var(--name);
  }
  svg {
    flex: none;
  }
`;
const STAGES: Record<string, string> = {
  weigh: "being weighed",
  mix: "being mixed",
  rise: "rising",
  fire: "at the heat",
  keep: "ready",
};

/** What a guest's link shows: the next move and how far the bread is. */
export function GuestRoom() {
  const token = useLocation().hash.slice(1);
  const seen = useQuery({ ...guestQuery(token), enabled: token !== "" });
  const now = useNow(1000);
  const told = seen.data;
  useEffect(() => {
    if (told) syncClock(told.clock, 0);
  }, [told]);
  if (!told)
    return (
      <Page>
        <p className="in" role={seen.error || !token ? "alert" : "status"}>
          {seen.error || !token ? (seen.error?.message ?? SAY.linkIsOver) : "…"}
        </p>
      </Page>
    );
  const left = told.next_at === null ? null : ms(told.next_at) - now;
  return (
    <Page>
      <h1 className="unseen">Brass Clock</h1>
      {told.next === null || left === null ? (
        <p className="next">{told.breads.length ? SAY.nothingMoreToDo : SAY.nothingIsUnderWay}</p>
      ) : (
        <div>
          <p className="next">{capital(told.next)}</p>
          <p className="in">{left > 0 ? `in ${span(left)}, at ${clock(told.next_at!, told.zone)}` : "now"}</p>
        </div>
      )}
      {told.breads.length > 0 && (
        <ul>
          {told.breads.map((b, i) => (
            <li key={i}>
              <Glyph name={b.stage === "fire" ? "load" : "mix"} size={44} stroke={1.5} />
              <span>{capital(STAGES[b.stage] ?? SAY.onTheWay)}</span>
              {b.stage === "fire" && b.of !== null && <span>{SAY.breadsOffTheHeat(b.off, b.of)}</span>}
              <span className="quiet">{SAY.readyAbout(clock(b.serve_at, told.zone))}</span>
            </li>
          ))}
        </ul>
      )}
    </Page>
  );
}
