import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { holdQuery } from "../../api/keep";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { Why } from "../../controls/Why";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { WhichBread } from "../../frame/WhichBread";
import { SoftCurves } from "../../instruments/SoftCurves";
import { clockNear, ms as instant, span, temp, tempUnit } from "../../words/format";
import { Freeze } from "./Freeze";
import { KeepPart } from "./panel";
import { SAY } from "../../words/say/keep";

type Wrap = Schemas["HoldRead"]["wrap"];
type Hold = Schemas["HoldRead"];

const Panel = styled(KeepPart)`
  .facts {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 18px;
  }
  .facts b {
    font: 700 24px/1.1 var(--name);
  }
  ol {
    margin: 0;
    padding-left: 1.2em;
    display: grid;
    gap: 3px;
    font-size: 17px;
  }
`;
const WRAPS: readonly { id: Wrap; text: string }[] = [
  { id: "cloth", text: "in cloth" },
  { id: "bag", text: "bagged when cool" },
  { id: "hot_box", text: "hot box" },
  { id: "open", text: "left open" },
  { id: "rack", text: "on a rack" },
  { id: "fridge", text: "fridge" },
  { id: "freezer", text: "freezer" },
];
const NAMES: Record<string, string> = Object.fromEntries(WRAPS.map((w) => [w.id, w.text]));
const HEATED: Record<string, string> = {
  pan: "pan",
  grill: "grill",
  oven: "oven, in foil",
  microwave: "microwave",
  toaster: "toaster",
};

/** The keeping of a bread of this bake, in the wrap that is chosen. */
export function useHeld(bake: Bake) {
  const [wrap, setWrap] = useState<Wrap | null>(null);
  const [bread, setBread] = useState(0);
  const found = useQuery(holdQuery(bake.id, wrap, bread, `${bake.revision}`));
  return { wrap, setWrap, bread, setBread, hold: found.data, fault: found.error };
}
type Chosen = ReturnType<typeof useHeld>;

/** How long the bread stays good: softness in the wrap that is chosen, until when it is good, what to do. */
export function StaysSoft({ bake, held }: { bake: Bake; held: Chosen }) {
  const { hold } = held;
  if (held.fault) return null; // the Fire leaf says why there is no bread yet
  return (
    <Panel aria-label={SAY.howLongItStaysGood} data-testid="stays">
      <div className="title">
        <h2>Stays soft</h2>
        <Pick label={SAY.howItIsKept} hideLabel value={hold?.wrap ?? "cloth"} options={WRAPS} onChange={held.setWrap} />
      </div>
      <WhichBread bake={bake} which={held.bread} onChoose={held.setBread} />
      {hold ? <Held hold={hold} /> : <p className="quiet">{SAY.workingOutHowItKeeps}</p>}
    </Panel>
  );
}

/** What is left for later: how to heat it again, and into the freezer with it. */
export function Later({ bake, held }: { bake: Bake; held: Chosen }) {
  const { hold } = held;
  if (!hold || held.fault) return null;
  return (
    <KeepPart aria-label="For later">
      <Reheating hold={hold} />
      {hold.baked && <Freeze bake={bake.id} kitchen={bake.kitchen_id} bread={held.bread} />}
    </KeepPart>
  );
}

function Held({ hold }: { hold: Hold }) {
  const units = useWords();
  const now = useNow(60_000);
  const [box, width] = useWidth<HTMLDivElement>();
  const at = (iso: string | null) => (iso ? clockNear(iso, now, units.zone) : SAY.inThreeDaysAndLater);
  const past = (iso: string | null) => iso !== null && instant(iso) < now;
  const since = (now - instant(hold.off_at)) / 3600e3;
  return (
    <>
      <div className="facts">
        {hold.now && (
          <span>
            now <b>{hold.now}</b>
          </span>
        )}
        <span>
          {past(hold.best_to.p50) ? "was " : ""}best until <b>{at(hold.best_to.p50)}</b>
        </span>
        <span>
          {past(hold.good_until.p50) ? "was " : ""}good until{" "}
          <Why why={hold.why} label="Good until">
            <b>{at(hold.good_until.p50)}</b>
          </Why>
          {hold.good_until.p10 && (
            <span className="quiet">
              {" "}
              {SAY.oneInTenBy} {at(hold.good_until.p10)})
            </span>
          )}
        </span>
      </div>
      <div ref={box}>
        {width > 0 && (
          <SoftCurves
            width={width}
            curves={hold.curves}
            band={hold.band}
            chosen={hold.wrap}
            names={NAMES}
            nowH={hold.baked ? since : null}
          />
        )}
      </div>
      <ol aria-label="What to do">
        {hold.advice.map((a) => (
          <li key={a}>{a}</li>
        ))}
      </ol>
      {hold.sweat_g > 1 && (
        <Plate>
          It sweats {hold.sweat_g.toFixed(0)} {SAY.gInThereLetItCool}
        </Plate>
      )}
      <p className="quiet">
        {SAY.atRoomTheShadeHoldsEight(
          hold.baked ? "Off the heat" : SAY.ifItComesOff,
          at(hold.off_at),
          hold.stack > 1 ? `${hold.stack} together` : "singly",
          temp(hold.room_c, units),
          tempUnit(units),
        )}
        {hold.room_days > 0 && SAY.roomAtMost(hold.room_days, hold.room_days > 1 ? "days" : "day")}
        Freezer: best {hold.freeze_best_months} month, good {hold.freeze_good_months}.
      </p>
    </>
  );
}

function Reheating({ hold }: { hold: Hold }) {
  return (
    <table>
      <caption className="unseen">Heating it again</caption>
      <thead>
        <tr>
          <th scope="col">heat it again</th>
          <th scope="col">from the room</th>
          <th scope="col">frozen</th>
        </tr>
      </thead>
      <tbody>
        {hold.reheat.map((r) => (
          <tr key={r.by}>
            <th scope="row">
              {HEATED[r.by]} <span className="quiet">{r.note}</span>
            </th>
            <td>
              {span(r.seconds * 1000)}
              {r.each_side ? " a side" : ""}
            </td>
            <td>{span((hold.reheat_frozen.find((x) => x.by === r.by)?.seconds ?? 0) * 1000)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
