import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { useTogether } from "../../api/day";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { Seal } from "../../instruments/Glyph";
import { clockNear } from "../../words/format";
import { SAY } from "../../words/say/day";

const Box = styled.section`
  display: grid;
  gap: 8px;
  border-bottom: 2px solid var(--ink);
  padding-bottom: 12px;
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
    display: grid;
    gap: 8px;
  }
  li {
    border-top: 1px solid var(--hair);
    padding-top: 8px;
    display: grid;
    gap: 2px;
  }
  .name {
    display: flex;
    gap: 8px;
    align-items: center;
    font-weight: 650;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
  }
`;

/** One day for every live bake: looked for at a press, shown bake by bake, made so by another press. */
export function Together({ kitchen }: { kitchen: number }) {
  const { look, make } = useTogether(kitchen);
  const { zone } = useWords();
  const now = useNow(30_000);
  const found = look.data;
  const told = found?.bakes.filter((b) => !b.placed || b.text || b.moves > 0) ?? [];
  const still = found?.bakes.filter((b) => !told.includes(b)) ?? [];
  const changed = told.some((b) => b.placed);
  const bakes = found?.bakes.map(({ bake_id, way }) => ({ bake_id, way })) ?? [];
  return (
    <Box data-print="no" data-testid="together" aria-live="polite">
      <h2>All bakes together</h2>
      {!found && <p className="quiet">{SAY.oneDayForAllOfThem}</p>}
      {!found && (
        <Button isDisabled={look.isPending} onPress={() => look.mutate()}>
          {look.isPending ? "Looking…" : SAY.lookForSuchADay}
        </Button>
      )}
      {look.error && <Plate>{look.error.message}</Plate>}
      {make.error && <Plate>{make.error.message}</Plate>}
      {found && (
        <>
          <ul>
            {told.map((b) => (
              <One key={b.bake_id} bake={b} at={(iso) => clockNear(iso, now, zone)} />
            ))}
          </ul>
          {still.length > 0 && (
            <p className="quiet">
              {told.length === 0
                ? SAY.everyBakeHasItsPlaceNothing
                : `${list(still.map((b) => b.bake))} ${still.length > 1 ? SAY.stayAsTheyAre : SAY.staysAsItIs}.`}
            </p>
          )}
          <div className="row">
            {changed && (
              <Button
                data-kind="brass"
                isDisabled={make.isPending}
                onPress={() => make.mutate({ bakes }, { onSuccess: () => look.reset() })}
              >
                Plan it so
              </Button>
            )}
            <Button
              data-kind="bare"
              onPress={() => {
                look.reset();
                make.reset();
              }}
            >
              {changed ? SAY.leaveItAsItWas : "put it away"}
            </Button>
          </div>
        </>
      )}
    </Box>
  );
}

/** Names one after another: a, b and c. */
const list = (names: string[]) =>
  names.length < 2 ? names.join() : `${names.slice(0, -1).join(", ")} and ${names.at(-1)}`;

function One({ bake: b, at }: { bake: Schemas["PackBakeRead"]; at: (iso: string) => string }) {
  const mix = b.steps.find((s) => s.key === "mix" && !s.done_at);
  const said = b.placed ? b.text || SAY.otherHoursNothingElse : SAY.noPlaceAtThatHour(b.text);
  return (
    <li>
      <span className="name">
        <Seal seal={b.seal} size={18} />
        {b.bake}
      </span>
      <span>
        {said}
        {b.placed && b.moves > 0 && mix ? ` Mixed ${at(mix.at)}.` : ""}
      </span>
    </li>
  );
}
