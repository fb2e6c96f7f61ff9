import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Step } from "../api/client";
import { useDayMoves, wayOutQuery } from "../api/day";
import { useNow } from "../api/clock";
import { Button } from "../controls/Button";
import { Plate } from "../controls/Notice";
import { Sheet } from "../controls/Sheet";
import { clockNear, lower } from "../words/format";
import { useWords } from "./units";
import { SAY } from "../words/say/frame";

const Box = styled.section`
  border: 2px solid var(--ink);
  background: var(--paper);
  padding: 4px 12px;
  margin: 2px 0 6px;
  min-height: 62px; /* as high while it looks for a way as when it has one */
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
  p {
    flex: 1 1 20em;
    font: 500 18px/1.2 var(--name);
  }
  button {
    max-width: 100%;
    line-height: 1.2;
    text-align: left;
  }
`;
const List = styled.ul`
  display: grid;
  gap: 10px;
  li {
    display: grid;
    gap: 2px;
  }
  li button {
    justify-content: flex-start;
    text-align: left;
    line-height: 1.25;
    padding: 8px 18px;
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
  const [open, setOpen] = useState(false);
  if (found.data?.fits) return null;
  const changes = found.data?.changes ?? [];
  const take = (id: string) => takeWayOut.mutate({ bake, id }, { onSuccess: () => setOpen(false) });
  const [best] = changes;
  return (
    <Box data-testid="way-out" data-print="no" aria-live="polite">
      <p>
        <b>
          {name} {SAY.doesNotFitYet}
        </b>{" "}
        {found.error
          ? found.error.message
          : !found.data
            ? SAY.lookingForWhatWouldMakeIt
            : `${found.data.because}${best ? "" : SAY.noSingleChangeMakesItFit}`}
      </p>
      {best && (
        <Button data-kind="brass" isDisabled={takeWayOut.isPending} onPress={() => take(best.id)}>
          {best.text}
        </Button>
      )}
      {changes.length > 0 && (
        <Button data-kind="bare" onPress={() => setOpen(true)}>
          {changes.length > 1 ? `${changes.length - 1} more…` : SAY.howThen}
        </Button>
      )}
      {takeWayOut.error && <Plate>{takeWayOut.error.message}</Plate>}
      <Sheet title={SAY.whatWouldMakeItFit(lower(name))} isOpen={open} onClose={() => setOpen(false)}>
        <List>
          {changes.map((c) => (
            <li key={c.id}>
              <Button isDisabled={takeWayOut.isPending} onPress={() => take(c.id)}>
                {c.text}
              </Button>
              <span className="quiet">{told(c.steps, c.serve_at, (t) => clockNear(t, now, zone))}</span>
            </li>
          ))}
        </List>
      </Sheet>
    </Box>
  );
}

/** The day of a way out in one line: mixed, balled, served. */
function told(steps: readonly Step[], serve: string, at: (t: string) => string): string {
  const said = ["mix", "ball"]
    .map((key) => steps.find((s) => s.key === key && !s.done_at))
    .filter((s) => s !== undefined)
    .map((s) => `${s.name.toLowerCase()} ${at(s.at)}`);
  return [...said, `serve ${at(serve)}`].join(", ");
}
