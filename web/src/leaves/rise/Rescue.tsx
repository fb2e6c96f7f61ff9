import { useMutation } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { askRescue, useSpell } from "../../api/rise";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { clockNear, ms, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/rise";

const Box = styled.section`
  display: grid;
  gap: 8px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: center;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 4px 18px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    min-height: 54px;
  }
  li b {
    font: 700 19px/1 var(--mono);
    letter-spacing: -0.03em;
  }
  @media (max-width: 700px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    li .window {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
`;

/** When guests are late or the dough runs away: the least disruptive change first, each with the window it gives. */
export function Rescue({ bake }: { bake: Bake }) {
  const units = useWords();
  const now = useNow(10_000);
  const ask = useMutation({ mutationFn: (late: number | null) => askRescue(bake.id, late) });
  const spell = useSpell(bake.id);
  const at = (iso: string) => clockNear(iso, now, units.zone);
  const last = bake.settings.spells.at(-1);
  const away = last && ms(last.end) > now;
  const move = (o: Schemas["RescueOption"]) =>
    spell.mutate({ temp_c: o.temp_c!, minutes: o.minutes! }, { onSuccess: () => ask.reset() });
  const window = (o: Schemas["RescueOption"]) => (
    <span className="window">
      ready <b>{at(o.ready_at)}</b>, best until <b>{at(o.best_until)}</b>, too ripe <b>{at(o.too_far_at)}</b>
    </span>
  );
  return (
    <Box data-print="no">
      {last && (
        <div className="row">
          <span>
            {away
              ? SAY.itStandsAtUntil(temp(last.temp_c, units), tempUnit(units), at(last.end))
              : SAY.itStoodAtFromTo(temp(last.temp_c, units), tempUnit(units), at(last.start), at(last.end))}{" "}
            {SAY.theCurveFollows}
          </span>
          <Button data-kind="bare" onPress={() => spell.mutate(null)}>
            {away ? "it is back" : SAY.itWasNotSo}
          </Button>
        </div>
      )}
      <div className="row" role="group" aria-label={SAY.whatChanged}>
        <span className="quiet">{SAY.guestsAreLateBy}</span>
        {[30, 60, 120].map((m) => (
          <Button key={m} onPress={() => ask.mutate(m)}>
            {m < 60 ? `${m} min` : `${m / 60} h`}
          </Button>
        ))}
        <Button onPress={() => ask.mutate(null)}>{SAY.theDoughIsTooFast}</Button>
      </div>
      {ask.error && <Plate>{ask.error.message}</Plate>}
      {spell.error && <Plate>{spell.error.message}</Plate>}
      {ask.data && (
        <div role="status">
          {ask.data.options[0]?.kind !== "leave" && (
            <p className="quiet">
              {SAY.leftWhereItIs} {window(ask.data.as_it_stands)}
            </p>
          )}
          {ask.data.options.length === 0 && <p>{SAY.nothingHereHoldsItThatLong}</p>}
          <ul>
            {ask.data.options.map((o) => (
              <li key={o.text}>
                <span>{o.kind === "leave" ? SAY.leaveItItHolds : o.text}</span>
                {window(o)}
                {o.temp_c !== null ? <Button onPress={() => move(o)}>Put it there</Button> : <span />}
              </li>
            ))}
          </ul>
        </div>
      )}
    </Box>
  );
}
