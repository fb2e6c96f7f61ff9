import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import { firstDayQuery, firstTurnQuery } from "../../api/first";
import { Glyph, type GlyphName } from "../../instruments/Glyph";
import { clockNear } from "../../words/format";
import { SAY } from "../../words/say/welcome";

const List = styled.dl`
  display: grid;
  grid-template-columns: 30px minmax(0, 1fr) auto;
  margin: 0;
  border-top: 2px solid var(--ink);
  > * {
    border-bottom: 1px solid var(--hair);
    min-height: 40px;
    display: flex;
    align-items: center;
  }
  dd {
    margin: 0;
    font: 700 24px/1 var(--name);
  }
`;
const MOVES: readonly (readonly [string, GlyphName, string])[] = [
  ["weigh", "weigh", "Weigh 8 pitas"],
  ["ball", "ball", "Ball the dough"],
  ["line", "load", "First one on"],
];

/** The first forecast of a kitchen that is not there yet: it moves with every answer. */
export function WhatYouGet({ roomC, kind, serve, zone }: { roomC: number; kind: string; serve: number; zone: string }) {
  const day = useQuery(firstDayQuery(Math.round(roomC), new Date(serve).toISOString()));
  const turn = useQuery(firstTurnQuery(kind));
  const now = Date.now();
  const none = day.data && Object.keys(day.data).length === 0;
  return (
    <div aria-live="polite" aria-label="What you get">
      <p className="quiet">What you get{none ? SAY.thatIsTooSoonForA : ""}</p>
      <List>
        {MOVES.map(([key, glyph, name]) => (
          <Row key={key} glyph={glyph} name={name}>
            {day.data?.[key] ? clockNear(day.data[key], now, zone) : day.isFetching ? "…" : "–"}
          </Row>
        ))}
        <Row glyph="turn" name="Turn it after">
          {turn.data ? `${turn.data.toFixed(0)} s` : turn.isFetching ? "…" : "not turned"}
        </Row>
      </List>
      {day.error && <p role="alert">{day.error.message}</p>}
    </div>
  );
}

const Row = ({ glyph, name, children }: { glyph: GlyphName; name: string; children: string }) => (
  <>
    <dt aria-hidden="true">
      <Glyph name={glyph} size={24} />
    </dt>
    <dt>{name}</dt>
    <dd>{children}</dd>
  </>
);
