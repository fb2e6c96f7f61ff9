import { useInfiniteQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import type { Bench, Brief } from "../../api/client";
import { logbookQuery } from "../../api/bake";
import { Button } from "../../controls/Button";
import { BrokenBakes } from "../../frame/BrokenBakes";
import { useWords } from "../../frame/units";
import { Seal } from "../../instruments/Glyph";
import { dayName, mass } from "../../words/format";
import { SAY } from "../../words/say/logbook";

const Rows = styled.ol`
  border-top: 2px solid var(--ink);
  margin: 8px 0;
  li {
    border-bottom: 1px solid var(--hair);
  }
  a {
    display: grid;
    grid-template-columns: 130px 28px minmax(180px, 1fr) 120px 150px minmax(0, 1.4fr);
    gap: 14px;
    align-items: center;
    min-height: 56px;
    text-decoration: none;
  }
  a:hover {
    background: var(--brass-wash);
  }
  .name {
    font: 600 21px/1.1 var(--name);
  }
  @media (max-width: 900px) {
    a {
      grid-template-columns: 110px 1fr auto;
      padding: 8px 0;
    }
    .wide {
      display: none;
    }
  }
`;

/** What was kept, newest first; older ones a page at a time. */
export function LogbookRoom({ bench }: { bench: Bench }) {
  const book = useInfiniteQuery(logbookQuery(bench.kitchen.id));
  const pages = book.data?.pages ?? [];
  const past = pages.flatMap((p) => p.bakes);
  const left = (pages[0]?.count ?? 0) - past.length;
  return (
    <>
      <h1>Logbook</h1>
      <BrokenBakes broken={pages.flatMap((p) => p.broken)} />
      {book.error && <p role="alert">{book.error.message}</p>}
      {book.data && past.length === 0 ? (
        <p className="quiet">{SAY.nothingIsKeptYetABake}</p>
      ) : (
        <Rows aria-busy={book.isPending}>
          {past.map((b) => (
            <Past key={b.id} bake={b} />
          ))}
        </Rows>
      )}
      {book.hasNextPage && (
        <Button onPress={() => void book.fetchNextPage()}>
          {book.isFetchingNextPage ? "Reading…" : `Older ones (${left})`}
        </Button>
      )}
    </>
  );
}

function Past({ bake: b }: { bake: Brief }) {
  const units = useWords();
  return (
    <li>
      <Link to={`/b/${b.id}/keep`}>
        <span className="quiet">{dayName(b.serve_at, units.zone)}</span>
        <Seal seal={b.seal} />
        <span className="name">{b.name}</span>
        <span className="wide">
          {b.count ?? "–"} × {b.piece_g ? `${mass(b.piece_g, units)} ${units.mass}` : ""}
        </span>
        <span>
          {b.status === "abandoned" ? "abandoned" : b.outcomes ? `${b.full} of ${b.outcomes} full` : "not judged"}
        </span>
        <span className="quiet wide">{b.note}</span>
      </Link>
    </li>
  );
}
