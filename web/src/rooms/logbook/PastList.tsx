import { useInfiniteQuery } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { type Asked, logbookQuery, type Past, useLeaveOut } from "../../api/logbook";
import { Button } from "../../controls/Button";
import { BrokenBakes } from "../../frame/BrokenBakes";
import { useWords } from "../../frame/units";
import { Seal } from "../../instruments/Glyph";
import { dayName, mass, monthName } from "../../words/format";

const ROW_PX = 56;
const Rows = styled.ol`
  border-top: 2px solid var(--ink);
  margin: 8px 0;
  /* months out of sight are not laid out */
  > li {
    content-visibility: auto;
  }
  h2 {
    padding: 10px 0 2px;
    border-bottom: 1px solid var(--ink);
  }
  li li {
    border-bottom: 1px solid var(--hair);
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
  }
  a {
    display: grid;
    grid-template-columns: 130px 28px minmax(180px, 1fr) 120px 150px minmax(0, 1.4fr);
    gap: 14px;
    align-items: center;
    min-height: ${ROW_PX}px;
    text-decoration: none;
  }
  a:hover {
    background: var(--brass-wash);
  }
  [data-out] a {
    color: var(--ink-2);
    text-decoration: line-through;
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

/** Past bakes by month, newest first; more of them as the end comes into sight. */
export function PastList({ kitchen, asked }: { kitchen: number; asked: Asked }) {
  const { zone } = useWords();
  const book = useInfiniteQuery(logbookQuery(kitchen, asked));
  const pages = book.data?.pages ?? [];
  const past = pages.flatMap((p) => p.bakes);
  const left = (pages[0]?.count ?? 0) - past.length;
  const months = new Map<string, Past[]>();
  for (const b of past) {
    const month = monthName(b.serve_at, zone, true);
    months.set(month, [...(months.get(month) ?? []), b]);
  }
  const end = useRef<HTMLDivElement>(null);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = book;
  useEffect(() => {
    if (!end.current || !hasNextPage || isFetchingNextPage) return;
    const seen = new IntersectionObserver((found) => found.some((f) => f.isIntersecting) && void fetchNextPage());
    seen.observe(end.current);
    return () => seen.disconnect();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  return (
    <>
      <BrokenBakes broken={pages.flatMap((p) => p.broken)} />
      {book.error && <p role="alert">{book.error.message}</p>}
      <Rows aria-busy={book.isPending} aria-label="Past bakes">
        {[...months].map(([month, bakes]) => (
          <li key={month} style={{ containIntrinsicSize: `auto ${40 + bakes.length * (ROW_PX + 1)}px` }}>
            <h2>{month}</h2>
            <ol>
              {bakes.map((b) => (
                <Row key={b.id} bake={b} />
              ))}
            </ol>
          </li>
        ))}
      </Rows>
      {hasNextPage && (
        <div ref={end}>
          <Button onPress={() => void fetchNextPage()}>
            {isFetchingNextPage ? "Reading…" : `Older ones (${left})`}
          </Button>
        </div>
      )}
    </>
  );
}

function wentOf(b: Past): string {
  if (b.status === "abandoned") return "abandoned";
  if (b.opened) return `${b.full} of ${b.opened} full`;
  return b.outcomes ? `${b.outcomes - b.short} of ${b.outcomes} well` : "not judged";
}

function Row({ bake: b }: { bake: Past }) {
  const units = useWords();
  const leave = useLeaveOut();
  return (
    <li {...(b.left_out ? { "data-out": "" } : {})}>
      <Link to={`/b/${b.id}/keep`}>
        <span className="quiet">{dayName(b.serve_at, units.zone)}</span>
        <Seal seal={b.seal} />
        <span className="name">{b.name}</span>
        <span className="wide">
          {b.count ?? "–"} × {b.piece_g ? `${mass(b.piece_g, units)} ${units.mass}` : ""}
        </span>
        <span>{wentOf(b)}</span>
        <span className="quiet wide">{b.cause ?? b.note}</span>
      </Link>
      <Button
        data-kind="bare"
        aria-label={b.left_out ? `Count ${b.name} again` : `Leave ${b.name} out`}
        onPress={() => leave.mutate({ bake: b.id, out: !b.left_out })}
      >
        {b.left_out ? "count it" : "not this one"}
      </Button>
    </li>
  );
}
