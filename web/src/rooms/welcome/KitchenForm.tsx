import { useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { useKitchenWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Column } from "../../controls/Column";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { Slide } from "../../controls/Slide";
import { SurfaceMark } from "../../instruments/SurfaceMark";
import { capital, clockNear, DEGREES, MASSES, readTemp, span, temp } from "../../words/format";
import { spotsOf, SURFACES, type SurfaceKind } from "../../words/surfaces";
import { WhatYouGet } from "./WhatYouGet";
import { SAY } from "../../words/say/welcome";

const Questions = styled.div`
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr) 220px 300px;
  gap: 16px 26px;
  > section {
    display: grid;
    gap: 10px;
    align-content: start;
    border-left: 2px solid var(--hair);
    padding-left: 18px;
  }
  > section:first-child {
    border-left: 0;
    padding-left: 0;
  }
  h2 {
    font-size: 21px;
    display: flex;
    gap: 10px;
    align-items: baseline;
  }
  h2 b {
    font-size: 30px;
    color: var(--brass);
  }
  .surfaces {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
    gap: 4px;
  }
  .surfaces button {
    border: 0;
    border-bottom: 3px solid var(--hair-2);
    background: none;
    color: inherit;
    display: grid;
    justify-items: center;
    gap: 2px;
    padding: 4px 2px 6px;
    min-height: 84px;
    font: 600 15px/1.1 var(--text);
  }
  .surfaces button[aria-pressed="true"] {
    background: var(--brass-wash);
    border-bottom-color: var(--brass);
  }
  .time {
    font: 700 58px/1 var(--name);
  }
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr);
    > section {
      border-left: 0;
      padding-left: 0;
    }
  }
`;
const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: end;
  justify-content: space-between;
  border-top: 2px solid var(--hair-2);
  padding-top: 10px;
  @media (max-width: 1100px) {
    position: sticky;
    bottom: 0;
    z-index: 2;
    background: var(--ground);
    border-top: 2px solid var(--ink);
    padding-bottom: 10px;
  }
`;
const HOUR = 3600e3;
const here = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone || "UTC";
const usualServe = () => Math.ceil((Date.now() + 4.5 * HOUR) / (HOUR / 2)) * (HOUR / 2);

/** A kitchen of one's own in four answers, each preset, each changing at once what one gets. Everything else can wait. */
export function KitchenForm() {
  const go = useNavigate();
  const { create } = useKitchenWrites(0);
  const [roomC, setRoomC] = useState(21);
  const [typed, setTyped] = useState<string | null>(null);
  const [zone, setZone] = useState(here);
  const [mass, setMass] = useState<"g" | "oz">("g");
  const [unit, setUnit] = useState<"C" | "F">("C");
  const [kind, setKind] = useState<SurfaceKind>("iron_plate");
  const [spots, setSpots] = useState("1");
  const [serve, setServe] = useState(usualServe);
  const units = { mass, temp: unit };
  const fields =
    create.error && "fields" in create.error
      ? (create.error as { fields: { pointer: string; detail: string }[] }).fields
      : [];
  const fault = (name: string) => fields.find((f) => f.pointer === `/${name}`)?.detail ?? null;
  const surface = SURFACES.find((s) => s.id === kind)!;
  const choose = (k: SurfaceKind) => {
    setKind(k);
    setSpots("1");
  };
  const send = () =>
    create.mutate(
      {
        zone,
        room_c: (typed === null ? roomC : (readTemp(typed, units) ?? typed)) as number,
        mass_unit: mass,
        temp_unit: unit,
        name: "My kitchen",
        altitude_m: 0,
        surface: { name: capital(surface.text), kind, power: "medium_high", spots: Number(spots) },
      },
      { onSuccess: (k) => void go(`/k/${k.id}/new`, { state: { serve: clockNear(serve, Date.now(), zone) } }) },
    );
  const deg = (c: number) => temp(c, units, unit === "C" && c % 1 ? 1 : 0);
  return (
    <>
      <Questions>
        <section aria-label={SAY.howWarmIsIt}>
          <h2>
            <b>1</b> {SAY.howWarmIsIt}
          </h2>
          <Column
            label={SAY.yourKitchensTemperatureC}
            value={roomC}
            low={8}
            high={36}
            ticks={[10, 20, 30]}
            says={`${deg(roomC)}°`}
            tick={(c) => temp(c, units)}
            onChange={(c) => {
              setRoomC(c);
              setTyped(null);
            }}
          />
          <Field
            label={SAY.yourKitchenIsUsuallyAt}
            value={typed ?? deg(roomC)}
            unit={`°${unit}`}
            width="11em"
            onType={(t) => {
              setTyped(t);
              const c = readTemp(t, units);
              if (c !== null && c >= 8 && c <= 36) setRoomC(c);
            }}
            onCommit={setTyped}
            fault={fault("room_c")}
            inputMode="decimal"
          />
          <Choice
            label="Temperatures in"
            value={unit}
            options={DEGREES}
            onChange={(u) => {
              setUnit(u);
              setTyped(null);
            }}
          />
        </section>
        <section aria-label={SAY.whatDoYouBakeOn}>
          <h2>
            <b>2</b> {SAY.whatDoYouBakeOn}
          </h2>
          <div className="surfaces" role="group" aria-label="You bake on">
            {SURFACES.map((s) => (
              <button key={s.id} type="button" aria-pressed={s.id === kind} onClick={() => choose(s.id)}>
                <SurfaceMark kind={s.id} />
                {s.text}
              </button>
            ))}
          </div>
          <Pick label="Breads at once" value={spots} options={spotsOf(kind)} onChange={setSpots} />
        </section>
        <section aria-label={SAY.howDoYouMeasure}>
          <h2>
            <b>3</b> {SAY.howDoYouMeasure}
          </h2>
          <Choice label="Weights in" value={mass} options={MASSES} onChange={setMass} />
          <p className="quiet">{SAY.cupsAndSpoonsAreReadToo}</p>
          <Field
            label="Time zone"
            value={zone}
            width="100%"
            onType={setZone}
            onCommit={setZone}
            fault={fault("zone")}
          />
        </section>
        <section aria-label={SAY.whenDoYouEat}>
          <h2>
            <b>4</b> {SAY.whenDoYouEat}
          </h2>
          <p>
            <span className="time">{clockNear(serve, Date.now(), safe(zone))}</span>{" "}
            <span className="quiet">in {span(serve - Date.now())}</span>
          </p>
          <Slide
            label="serve at"
            value={(serve - Date.now()) / HOUR}
            rest={4.5}
            min={1}
            max={14}
            step={0.25}
            says={clockNear(serve, Date.now(), safe(zone))}
            onChange={(h) => setServe(Math.round((Date.now() + h * HOUR) / (HOUR / 4)) * (HOUR / 4))}
          />
          <WhatYouGet roomC={roomC} kind={kind} serve={serve} zone={safe(zone)} />
        </section>
      </Questions>
      <Foot>
        <span className="quiet">{SAY.everythingCanBeChangedLaterNothing}</span>
        {create.error && fields.length === 0 && <Plate>{create.error.message}</Plate>}
        <Button data-kind="brass" onPress={send} isDisabled={create.isPending}>
          {create.isPending ? "Opening…" : "Open my kitchen"}
        </Button>
      </Foot>
    </>
  );
}

/** A zone that times can be written in, while another is being typed. */
function safe(zone: string): string {
  try {
    new Intl.DateTimeFormat("en", { timeZone: zone });
    return zone;
  } catch {
    return "UTC";
  }
}
