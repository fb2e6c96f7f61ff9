import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake, Hearth, Schemas } from "../../api/client";
import { lineQuery } from "../../api/fire";
import { placeName, roundMark } from "../../api/rounds";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { LinePlan } from "../../instruments/LinePlan";
import { clockSeconds, ms, span } from "../../words/format";
import { SAY } from "../../words/say/fire";

type Fire = NonNullable<Bake["fire"]>;

const Foot = styled.div`
  .say .quiet {
    font: 500 16px/1.3 var(--text);
    display: block;
  }
  .say > span {
    flex: 1 1 24em;
    min-width: 0;
  }
  .say {
    font: 600 19px/1.2 var(--name);
    display: flex;
    flex-wrap: wrap;
    gap: 10px 24px;
    align-items: center;
    justify-content: space-between;
  }
`;

const SLOWEST: Record<string, string> = { spots: "the surface", hands: "the hands", grill: "the grill" };

/** What one more spot, or one more pair of hands, would save; while that is looked for, that it is. */
function Saved({ line }: { line: Schemas["HeatLineRead"] | undefined }) {
  if (!line) return <span className="quiet">{SAY.lookingForAShorterLine}</span>;
  const said = [
    [line.spot_saves_s, "another spot"],
    [line.cook_saves_s, SAY.anotherPairOfHands],
  ]
    .filter((x): x is [number, string] => typeof x[0] === "number")
    .map(([s, what]) => (s < 30 ? `${what} saves nothing` : `${what} saves ${span(s * 1000)}`));
  const over = line.minutes - line.bound_min;
  return (
    <span className="quiet">
      {said.join(", ")}. {over < 0.5 ? SAY.noLineIsShorter : SAY.noLineIsMoreThanShorter(span(over * 60e3))} The first
      waits {span(line.towel_min * 60e3)} in the towel, {line.towel_feel} then.
    </span>
  );
}

/** The line of all breads: how long it takes and what holds it up, its threads. */
export function AllBreads({ bake, fire, hearth }: { bake: Bake; fire: Fire; hearth: Hearth }) {
  const { zone } = useWords();
  const [box, width] = useWidth<HTMLDivElement>();
  const longer = useQuery(lineQuery(bake.id, `${bake.revision} ${fire.program.off_s} ${fire.program.turn_s}`));
  const line = longer.data && longer.data.minutes <= fire.line.minutes ? longer.data : fire.line;
  const begin = Math.min(...line.tasks.map((t) => ms(t.at)), Infinity);
  return (
    <Foot ref={box}>
      <div className="say">
        <span>
          Slowest step: {SLOWEST[line.bottleneck] ?? "the hands"}. One round every {line.cycle_s.toFixed(0)} s, all{" "}
          {hearth.rounds} in {span(line.minutes * 60e3)}.
          <Saved line={longer.data} />
        </span>
      </div>
      {width > 0 && (
        <LinePlan
          width={width}
          spots={hearth.spots.filter((x) => !x.grill).length}
          grilled={fire.program.second === "grill"}
          places={hearth.breads.length > 1 ? hearth.spots.map((x) => placeName(hearth, x.number)) : undefined}
          recoverS={fire.program.recover_s}
          tasks={line.tasks.map((t) => ({
            move: t.move,
            round: t.round_no,
            mark: roundMark(hearth, t.round_no),
            spot: t.spot,
            cook: t.cook,
            s: (ms(t.at) - begin) / 1000,
            hands: t.hands_s,
          }))}
          clock={(s) => clockSeconds(begin + s * 1000, zone)}
        />
      )}
    </Foot>
  );
}
