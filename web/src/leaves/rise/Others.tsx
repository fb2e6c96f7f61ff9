import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { othersQuery, useDayMoves } from "../../api/day";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { RouteLine } from "../../instruments/RouteLine";
import { capital, clockNear } from "../../words/format";
import { lineWidth, Ways } from "./ways";
import { SAY } from "../../words/say/rise";

const Box = styled.section`
  border-top: 1px solid var(--hair-2);
  padding-top: 6px;
  display: grid;
  gap: 6px;
  h3 {
    font: 600 21px/1.2 var(--name);
  }
`;
const flavourWord = (x: number) => (x < 0.3 ? "mild" : x < 0.6 ? "fuller" : x < 0.9 ? "full" : "fullest");

/** Other ways through the day, around the hours there are and the other bakes: each was tried and holds. */
export function Others({ bake }: { bake: Bake }) {
  const { zone } = useWords();
  const now = useNow(30_000);
  const found = useQuery(othersQuery(bake.id, `${bake.revision} ${bake.steps.map((s) => s.at).join()}`));
  const { takeOther } = useDayMoves();
  const [box, width] = useWidth<HTMLDivElement>();
  const at = (iso: string) => clockNear(iso, now, zone);
  return (
    <Box ref={box} data-print="no" aria-label="Around your hours">
      <h3>Around your hours</h3>
      {found.isPending && <p className="quiet">{SAY.tryingEveryWayThroughTheDay}</p>}
      {found.error && <Plate>{found.error.message}</Plate>}
      {takeOther.error && <Plate>{takeOther.error.message}</Plate>}
      {found.data?.length === 0 && <p className="quiet">{SAY.noOtherWayFitsTheHours}</p>}
      <Ways>
        {(found.data ?? []).map((o: Schemas["WayThrough"]) => (
          <li key={o.id}>
            <span className="name">{capital(o.names.join(", "))}</span>
            <div className="line">
              <RouteLine steps={o.steps} width={lineWidth(width)} clock={at} />
              <span>
                {o.text}{" "}
                <span className="quiet">
                  Begins {at(o.begins_at)}, {o.hands_min.toFixed(0)} min of hands, {flavourWord(o.flavour)} flavour.
                </span>
              </span>
            </div>
            <span className="do">
              <Button isDisabled={takeOther.isPending} onPress={() => takeOther.mutate({ bake: bake.id, id: o.id })}>
                Do it so
              </Button>
            </span>
          </li>
        ))}
      </Ways>
    </Box>
  );
}
