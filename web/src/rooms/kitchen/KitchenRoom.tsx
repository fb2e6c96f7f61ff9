import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import { type Bench, Problem, type Schemas } from "../../api/client";
import { kitchensQuery, useKitchenWrites } from "../../api/kitchen";
import { asGiven } from "../../api/surfaces";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { type Pin, readPin, setPin } from "../../theme/pin";
import { useWords } from "../../frame/units";
import { heatColour } from "../../theme/temperature";
import { typedTemp, temp, tempUnit, typedNumber } from "../../words/format";
import { SOURCES } from "../../words/heat";
import { learnedWords } from "../../words/lessons";
import { spotsOf, SURFACES } from "../../words/surfaces";
import { OwnIngredients } from "./OwnIngredients";
import { Measures } from "./Measures";
import { Alarms } from "./Alarms";
import { Hours } from "./Hours";
import { Lessons } from "./Lessons";
import { AirReadings, Places } from "./Places";
import { Starters } from "./Starters";

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 18px;
  max-width: 1120px;
  @media (max-width: 600px) {
    > section {
      overflow-x: auto;
    }
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 12px 26px;
    align-items: end;
  }
  section {
    display: grid;
    gap: 10px;
    border-top: 2px solid var(--ink);
    padding-top: 10px;
  }
  .hours {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(76px, 1fr));
    gap: 6px;
  }
  .hours label {
    display: grid;
    justify-items: center;
    font: 500 16px/1.2 var(--mono);
  }
  .hours input {
    width: 100%;
    min-height: 48px;
    text-align: center;
    border: 0;
    border-bottom: 3px solid var(--brass);
    background: transparent;
    font: 700 19px/1 var(--mono);
  }
  .hours input[aria-invalid="true"] {
    border-bottom: 3px double var(--ink);
  }
  .hours .heat {
    width: 100%;
    height: 12px;
    border: 1.5px solid var(--ink);
  }
  .places a {
    color: var(--brass);
    font-weight: 650;
    border-bottom: 2px solid var(--brass);
    padding: 12px 0 4px;
    margin-right: 24px;
    display: inline-block;
  }
`;
type SurfaceUpdate = Schemas["SurfaceUpdate"];

/** The kitchen: its air by the hour, surfaces, units, and what is believed of its yeast. */
export function KitchenRoom({ bench }: { bench: Bench }) {
  const k = bench.kitchen;
  const units = useWords();
  const writes = useKitchenWrites(k.id);
  const kitchens = useQuery(kitchensQuery());
  const [pin, pinTo] = useState<Pin>(readPin);
  const { change } = writes;
  const fields = change.error instanceof Problem ? change.error.fields : [];
  const fault = (name: string) => fields.find((f) => f.pointer.startsWith(`/${name}`))?.detail ?? null;
  return (
    <Page>
      <div className="row">
        <Field
          label="Kitchen"
          big
          value={k.name}
          width="24em"
          onCommit={(name) => change.mutate({ name })}
          fault={fault("name")}
        />
        <Field
          label="Time zone"
          value={k.zone}
          width="12em"
          onCommit={(zone) => change.mutate({ zone })}
          fault={fault("zone")}
        />
        <Field
          label="Height above sea"
          value={String(k.altitude_m)}
          unit="m"
          width="8em"
          onCommit={(t) => change.mutate({ altitude_m: typedNumber(t) })}
          fault={fault("altitude_m")}
        />
        <Field
          label="Tap water"
          value={temp(k.tap_c, units, 1)}
          unit={tempUnit(units)}
          width="7em"
          onCommit={(t) => change.mutate({ tap_c: typedTemp(t, units) })}
          fault={fault("tap_c")}
        />
      </div>
      <div className="row">
        <Choice
          label="Weights"
          value={k.mass_unit as "g"}
          options={[
            { id: "g", text: "grams" },
            { id: "oz", text: "ounces" },
          ]}
          onChange={(mass_unit) => change.mutate({ mass_unit })}
        />
        <Choice
          label="Temperatures"
          value={k.temp_unit as "C"}
          options={[
            { id: "C", text: "°C" },
            { id: "F", text: "°F" },
          ]}
          onChange={(temp_unit) => change.mutate({ temp_unit })}
        />
        <Choice
          label="Light"
          value={pin}
          options={[
            { id: "system", text: "as the system" },
            { id: "day", text: "day" },
            { id: "night", text: "night" },
          ]}
          onChange={(p) => {
            setPin(p);
            pinTo(p);
          }}
        />
      </div>
      <Measures kitchen={k} fault={fault} onChange={(values) => change.mutate(values)} />
      <Hours kitchen={k} writes={writes} />
      <Alarms />
      <Places kitchen={k} writes={writes} />
      <AirReadings kitchen={k} />
      <section>
        <h2>The air by the hour</h2>
        <div className="hours">
          {k.hourly_c.map((c, h) => (
            <label key={h}>
              {h}:00
              <HourInput
                value={temp(c, units, 1)}
                fault={fault(`hour_c/${h}`)}
                onSave={(t) => change.mutate({ hour_c: { [h]: typedTemp(t, units) } })}
              />
              <span className="heat" style={{ background: heatColour(c) }} />
            </label>
          ))}
        </div>
        {fault("hour_c") && <Plate>{fault("hour_c")}</Plate>}
      </section>
      <section>
        <h2>Surfaces</h2>
        {k.surfaces.map((s) => (
          <SurfaceRow key={s.id} surface={s} writes={writes} alone={k.surfaces.length < 2} />
        ))}
        <div>
          <Button
            onPress={() =>
              writes.addSurface.mutate({ name: "Another plate", kind: "iron_plate", power: "medium_high", spots: 1 })
            }
          >
            Add a surface
          </Button>
        </div>
        {writes.removeSurface.data && writes.restoreSurface.variables !== writes.removeSurface.variables && (
          <p role="status">
            It is taken away; a bread on it goes on, and bakes that wait go to another surface.{" "}
            <Button data-kind="bare" onPress={() => writes.restoreSurface.mutate(writes.removeSurface.variables!)}>
              Undo
            </Button>
          </p>
        )}
        {writes.removeSurface.error && <Plate>{writes.removeSurface.error.message}</Plate>}
      </section>
      <Starters kitchen={k.id} />
      <section>
        <h2>Freezer</h2>
        <Link to={`/k/${k.id}/freezer`}>What is frozen, and what to take out for a serving</Link>
      </section>
      <OwnIngredients kitchen={k.id} />
      <section>
        <h2>What is believed here</h2>
        <Lessons kitchen={k.id} />
      </section>
      <section className="places">
        <h2>Kitchens</h2>
        <p>
          {(kitchens.data ?? [])
            .filter((o) => o.id !== k.id)
            .map((o) => (
              <Link key={o.id} to={`/k/${o.id}/bench`}>
                {o.name}
                {o.demo ? ", the demo" : ""}
              </Link>
            ))}
          <Link to="/welcome">{k.demo ? "Leave the demo for a kitchen of your own" : "Open another kitchen"}</Link>
        </p>
      </section>
    </Page>
  );
}

/** The air of one hour. What was typed stays until it is good, as in every field. */
function HourInput({ value, fault, onSave }: { value: string; fault: string | null; onSave: (text: string) => void }) {
  const [draft, setDraft] = useState<{ text: string; sent: boolean } | null>(null);
  return (
    <input
      value={draft !== null && (!draft.sent || fault) ? draft.text : value}
      inputMode="decimal"
      aria-invalid={fault !== null}
      onChange={(e) => setDraft({ text: e.target.value, sent: false })}
      onBlur={() => {
        if (draft === null || draft.sent) return;
        if (draft.text !== value) onSave(draft.text);
        setDraft({ ...draft, sent: true });
      }}
    />
  );
}

const ON_HOB = new Set(["iron_plate", "skillet", "inverted_plate", "lidded_pan", "pan_then_grill", "oil"]);
const SIZES = [
  { id: "home", text: "for a home" },
  { id: "canteen", text: "for a canteen" },
] as const;
const POWERS = [
  { id: "low", text: "low" },
  { id: "medium_low", text: "medium low" },
  { id: "medium", text: "medium" },
  { id: "medium_high", text: "medium high" },
  { id: "high", text: "high" },
] as const;
const HEATS = [
  { id: "usual", text: "its usual heat" },
  { id: "gas", text: "gas" },
  { id: "ceramic", text: "ceramic hob" },
  { id: "charcoal", text: "charcoal" },
  { id: "electric", text: "electric" },
] as const;
const GREASED = [
  { id: "dry", text: "dry" },
  { id: "film", text: "a film of fat" },
  { id: "pool", text: "a pool of fat" },
] as const;

function SurfaceRow({
  surface,
  writes,
  alone,
}: {
  surface: Schemas["SurfaceRead"];
  writes: ReturnType<typeof useKitchenWrites>;
  alone: boolean;
}) {
  const units = useWords();
  const put = (part: Partial<SurfaceUpdate>) => writes.changeSurface.mutate(asGiven(surface, part));
  const fault = writes.changeSurface.error?.message ?? null;
  const said = learnedWords(surface.learned, surface.temp_c, units);
  return (
    <div className="row" role="group" aria-label={surface.name}>
      <Field label="Surface" value={surface.name} width="10em" onCommit={(name) => put({ name })} />
      <Pick
        label="Kind"
        value={surface.kind}
        options={SURFACES}
        onChange={(kind) =>
          put({ kind, temp_c: null, source: null, sd_k: null, spots: Math.min(surface.spots, spotsOf(kind).length) })
        }
      />
      <Field
        label="works at"
        value={temp(surface.temp_c, units)}
        unit={tempUnit(units)}
        width="6.500em"
        onCommit={(t) => put({ temp_c: typedTemp(t, units), source: "typed", sd_k: null })}
        fault={writes.changeSurface.variables?.id === surface.id ? fault : null}
      />
      <Pick
        label="Known by"
        value={surface.source as "typed"}
        options={SOURCES}
        onChange={(source) =>
          put(source === "usual" ? { temp_c: null, source: null, sd_k: null } : { source, sd_k: null })
        }
      />
      {ON_HOB.has(surface.kind) && (
        <Pick
          label="Set to"
          value={surface.power as "high"}
          options={POWERS}
          onChange={(power) =>
            put(surface.source === "usual" ? { power, temp_c: null, source: null, sd_k: null } : { power })
          }
        />
      )}
      <Pick
        label="Breads"
        value={String(surface.spots)}
        options={spotsOf(surface.kind).map((o) => ({ ...o, text: `${o.text} at once` }))}
        onChange={(n) => put({ spots: Number(n) })}
      />
      <Pick
        label="Heat"
        value={(surface.heat ?? "usual") as (typeof HEATS)[number]["id"]}
        options={HEATS}
        onChange={(heat) => put({ heat: heat === "usual" ? null : heat })}
      />
      {surface.kind === "clay_wall" && (
        <Pick label="Size" value={surface.size as "home"} options={SIZES} onChange={(size) => put({ size })} />
      )}
      {said && <p className="quiet">{said}</p>}
      <Pick label="Fat" value={surface.greased as "dry"} options={GREASED} onChange={(greased) => put({ greased })} />
      {!alone && (
        <Button data-kind="bare" onPress={() => writes.removeSurface.mutate(surface.id)}>
          remove
        </Button>
      )}
    </div>
  );
}
