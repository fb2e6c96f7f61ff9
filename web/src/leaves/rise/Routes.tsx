import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake, BakeUpdate, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { routesQuery, useRoute } from "../../api/rise";
import { useBakeChange } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { RouteLine } from "../../instruments/RouteLine";
import { clockNear, ms, span } from "../../words/format";
import { lineWidth, Ways } from "./ways";
import { SAY } from "../../words/say/rise";

const Box = styled.section`
  display: grid;
  gap: 6px;
`;

/** Named ways to the same table, each worked out: when hands are wanted, what it tastes of, what it takes. */
export function Routes({ bake }: { bake: Bake }) {
  const found = useQuery(routesQuery(bake.id, bake.revision));
  const take = useRoute(bake.id);
  const back = useBakeChange(bake.id);
  const [before, setBefore] = useState<BakeUpdate | null>(null);
  const [box, width] = useWidth<HTMLDivElement>();
  const { lines, cold, bulk_place, ball_place, bulk_air, ball_air } = bake.settings;
  const press = (key: Schemas["RouteUpdate"]["key"]) => {
    const had = { lines, cold, bulk_place, ball_place, bulk_air, ball_air } as BakeUpdate;
    take.mutate(key, { onSuccess: () => setBefore(had) });
  };
  return (
    <Box ref={box} data-print="no" aria-label="Other ways">
      {found.isPending && <p className="quiet">{SAY.workingOutFiveWays}</p>}
      {found.error && <Plate>{found.error.message}</Plate>}
      {take.error && <Plate>{take.error.message}</Plate>}
      {before && (
        <p>
          Changed.{" "}
          <Button data-kind="bare" onPress={() => back.mutate(before, { onSuccess: () => setBefore(null) })}>
            undo
          </Button>
        </p>
      )}
      <Ways>
        {(found.data ?? []).map((r) => (
          <One
            key={r.key}
            route={r}
            width={width}
            busy={take.isPending}
            onTake={() => press(r.key as Schemas["RouteUpdate"]["key"])}
          />
        ))}
      </Ways>
    </Box>
  );
}

function One({
  route,
  width,
  busy,
  onTake,
}: {
  route: Schemas["RouteRead"];
  width: number;
  busy: boolean;
  onTake: () => void;
}) {
  const units = useWords();
  const now = useNow(30_000);
  const at = (iso: string) => clockNear(iso, now, units.zone);
  const first = [...route.steps].sort((a, b) => ms(a.at) - ms(b.at))[0]!;
  return (
    <li data-use={route.in_use}>
      <span>
        <span className="name">{route.name}</span>
        <br />
        <span className="quiet">{route.flavour}</span>
      </span>
      <div className="line">
        {route.fits ? (
          <>
            <RouteLine steps={route.steps} width={lineWidth(width)} clock={at} />
            <span className="quiet">
              weigh {at(first.at)}, {span(route.hours * 3600e3)} in all, {route.hands_min.toFixed(0)} min of hands;{" "}
              {route.dose_text}
            </span>
            {route.clashes && <span> {route.because}</span>}
          </>
        ) : (
          <span>{route.because}</span>
        )}
      </div>
      <span className="do">
        {route.in_use ? (
          SAY.asItIsNow
        ) : route.fits ? (
          <Button isDisabled={busy} onPress={onTake}>
            Do it so
          </Button>
        ) : (
          <span className="quiet">{SAY.itDoesNotFit}</span>
        )}
      </span>
    </li>
  );
}
