import styled from "styled-components";
import { countdown } from "../words/format";
import { bare } from "../words/surfaces";
import { Glyph, GLYPH_OF_STEP } from "./Glyph";

export interface Ahead {
  move: string;
  words: string;
  round: string;
  cook: number;
  inMs: number;
}

const List = styled.ol`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 2px;
  li {
    display: grid;
    grid-template-columns: 58px 28px 1fr auto;
    gap: 6px;
    align-items: center;
    min-height: 32px;
    border-bottom: 1px solid var(--hair);
  }
  b {
    font: 700 20px/1 var(--mono);
    text-align: right;
  }
  .no {
    font: 700 20px/1 var(--name);
  }
  .cook {
    font: 700 15px/20px var(--text);
    border: 1.5px solid var(--ink);
    width: 20px;
    text-align: center;
  }
`;

/** What the hands do next, by the line as it stands: when, what, which round, and by whom where there are two. */
export function HandsList({ ahead, most, label }: { ahead: readonly Ahead[]; most: number; label: string }) {
  const several = ahead.some((t) => t.cook > 1);
  return (
    <List aria-label={label} data-testid="hands">
      {ahead.slice(0, most).map((t) => (
        <li key={`${t.move}-${t.round}`}>
          <b>{t.inMs > 0 ? countdown(t.inMs) : "now"}</b>
          <Glyph name={GLYPH_OF_STEP[bare(t.move)] ?? "wrap"} size={26} stroke={2} />
          <span className="no">
            <span className="unseen">{t.words} </span>
            {t.round}
          </span>
          {several && (
            <span className="cook" title={`cook ${t.cook}`}>
              {t.cook}
            </span>
          )}
        </li>
      ))}
    </List>
  );
}
