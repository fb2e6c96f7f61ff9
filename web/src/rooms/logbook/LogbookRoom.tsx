import { Link } from "react-router";
import styled from "styled-components";
import type { Bench } from "../../api/client";
import { useWords } from "../../frame/units";
import { Seal } from "../../instruments/Glyph";
import { dayName, mass } from "../../words/format";

const Rows = styled.ol`
  border-top: 2px solid var(--ink); margin-top: 8px;
  li { border-bottom: 1px solid var(--hair); }
  a { display: grid; grid-template-columns: 130px 28px minmax(180px, 1fr) 120px 150px minmax(0, 1.4fr); gap: 14px; align-items: center; min-height: 56px; text-decoration: none; }
  a:hover { background: var(--brass-wash); }
  .name { font: 600 21px/1.1 var(--name); }
  .dots { display: flex; gap: 3px; }
  @media (max-width: 900px) { a { grid-template-columns: 110px 1fr auto; padding: 8px 0; } .wide { display: none; } }
`;

/** What was kept, newest first. */
export function LogbookRoom({ bench }: { bench: Bench }) {
  const units = useWords();
  const past = bench.bakes.filter((b) => b.status !== "live").sort((a, b) => b.serve_at.localeCompare(a.serve_at));
  return (
    <>
      <h1>Logbook</h1>
      {past.length === 0 ? (
        <p className="quiet">Nothing is kept yet. A bake comes here when you keep it on its last leaf.</p>
      ) : (
        <Rows>
          {past.map((b) => (
            <li key={b.id}>
              <Link to={`/b/${b.id}/keep`}>
                <span className="quiet">{dayName(b.serve_at, units.zone)}</span>
                <Seal seal={b.seal} />
                <span className="name">{b.name}</span>
                <span className="wide">{b.count} × {b.piece_g ? `${mass(b.piece_g, units)} ${units.mass}` : ""}</span>
                <span>{b.status === "abandoned" ? "abandoned" : b.outcomes ? `${b.full} of ${b.outcomes} full` : "not judged"}</span>
                <span className="quiet wide">{b.note}</span>
              </Link>
            </li>
          ))}
        </Rows>
      )}
    </>
  );
}
