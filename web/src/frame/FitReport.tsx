import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Step } from "../api/client";
import { useDayMoves, wayOutQuery } from "../api/day";
import { useNow } from "../api/clock";
import { Button } from "../controls/Button";
import { Plate } from "../controls/Notice";
import { clockNear, lower } from "../words/format";
import { useWords } from "./units";

const Box = styled.section`
  border: 3px solid var(--ink);
  background: var(--paper);
  padding: 10px 16px 14px;
  margin: 6px 0 14px;
  display: grid;
  gap: 8px;
  h2 {
    font-size: 22px;
  }
  .why {
    font: 500 20px/1.3 var(--name);
  }
  ul {
    display: grid;
    gap: 8px;
    list-style: none;
    padding: 0;
    margin: 0;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    align-items: center;
  }
  li button {
    min-width: min(100%, 26em);
    justify-content: flex-start;
    text-align: left;
    padding: 8px 18px;
    line-height: 1.25;
  }
  .then {
    color: var(--ink-2);
    font-size: 16px;
  }
`;

/** Why a bake does not fit the hours there are, and changes that make it fit: each was tried, one press makes it so. */
export function FitReport({ bake, name, steps }: { bake: number; name: string; steps: readonly Step[] }) {
  const { zone } = useWords();
  const now = useNow(30_000);
  const stamp = steps
    .filter((s) => s.bake_id === bake)
    .map((s) => s.key + s.at)
    .join();
  const found = useQuery(wayOutQuery(bake, stamp));
  const { takeWayOut } = useDayMoves();
  if (found.data?.fits) return null;
  return (
    <Box data-testid="way-out" data-print="no" aria-live="polite">
      <h2>It does not fit yet: {lower(name)}</h2>
      {!found.data && !found.error && <p className="quiet">Looking for ways out…</p>}
      {found.error && <Plate>{found.error.message}</Plate>}
      {found.data && <p className="why">{found.data.because}</p>}
      {found.data && found.data.changes.length === 0 && (
        <p>
          No single change makes it fit. Try other times on its Rise leaf, serve at another hour, or give another bake’s
          hours to it.
        </p>
      )}
      <ul>
        {found.data?.changes.map((c) => (
          <li key={c.id}>
            <Button isDisabled={takeWayOut.isPending} onPress={() => takeWayOut.mutate({ bake, id: c.id })}>
              {c.text}
            </Button>
            <span className="then">{told(c.steps, c.serve_at, (t) => clockNear(t, now, zone))}</span>
          </li>
        ))}
      </ul>
      {takeWayOut.error && <Plate>{takeWayOut.error.message}</Plate>}
    </Box>
  );
}

/** The day of a way out in one line: mixed, balled, at the table. */
function told(steps: readonly Step[], serve: string, at: (t: string) => string): string {
  const said = ["mix", "ball"]
    .map((key) => steps.find((s) => s.key === key && !s.done_at))
    .filter((s) => s !== undefined)
    .map((s) => `${s.name.toLowerCase()} ${at(s.at)}`);
  return [...said, `table ${at(serve)}`].join(", ");
}
