import { useState } from "react";
import styled from "styled-components";
import { faultOf, type Kitchen, type Schemas } from "../../api/client";
import type { useKitchenWrites } from "../../api/kitchen";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { heatColour } from "../../theme/temperature";
import { plain, temp, tempUnit, typedNumber, typedTemp } from "../../words/format";
import { AirReadings } from "./AirReadings";
import { SAY } from "../../words/say/kitchen";

const Hours = styled.div`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 6px;
  label {
    display: grid;
    justify-items: center;
    font: 500 15px/1.2 var(--mono);
  }
  input {
    width: 100%;
    min-height: 48px;
    text-align: center;
    border: 0;
    border-bottom: 3px solid var(--brass);
    background: transparent;
    font: 700 18px/1 var(--mono);
  }
  input[aria-invalid="true"] {
    border-bottom: 3px double var(--ink);
  }
  .heat {
    width: 100%;
    height: 10px;
    border: 1.5px solid var(--ink);
  }
`;
type Writes = ReturnType<typeof useKitchenWrites>;
type Place = Schemas["PlaceRead"];

/** A place for the dough: how warm it is now, what sets that, and what was read there. */
export function PlaceSheet({ kitchen: k, place: p, writes }: { kitchen: Kitchen; place: Place; writes: Writes }) {
  const units = useWords();
  const { change } = writes;
  const fault = faultOf(change.error, "places");
  return (
    <>
      <p>
        now <b className="believed">{temp(p.now_c, units, 1)}</b> {tempUnit(units)}
      </p>
      {p.key === "bench" ? <AirByHour kitchen={k} writes={writes} /> : <PlaceAir place={p} writes={writes} />}
      {fault && <Plate>{fault}</Plate>}
      {p.key === "fridge" && (
        <Field
          label={SAY.ofThemFreeForDough}
          value={String(k.shelf_l)}
          unit="L"
          width="8em"
          inputMode="decimal"
          onCommit={(t) => change.mutate({ shelf_l: typedNumber(t) })}
          fault={faultOf(change.error, "shelf_l")}
        />
      )}
      {p.key === "fridge" && k.fridge_c > 6 && <Plate>{SAY.aFridgeAboveCLetsDough}</Plate>}
      <AirReadings kitchen={k} place={p.key} />
    </>
  );
}

/** The air of a place other than the bench: its own temperature, or so much over the bench; its swing; its litres. */
function PlaceAir({ place: p, writes }: { place: Place; writes: Writes }) {
  const units = useWords();
  const put = (part: Schemas["PlaceUpdate"]) => writes.change.mutate({ places: { [p.key]: part } });
  const kelvin = (t: string) => typedNumber(t, units.temp === "F" ? plain(t) / 1.8 : plain(t));
  const scale = (x: number) => (units.temp === "F" ? x * 1.8 : x).toFixed(1);
  return (
    <div className="row">
      {p.temp_c === null ? (
        <Field
          label="over the bench"
          value={scale(p.over_k)}
          unit={tempUnit(units)}
          width="9em"
          onCommit={(t) => put({ over_k: kelvin(t) })}
          inputMode="decimal"
        />
      ) : (
        <>
          <Field
            label="temperature"
            value={temp(p.temp_c, units, 1)}
            unit={tempUnit(units)}
            width="7em"
            onCommit={(t) => put({ temp_c: typedTemp(t, units) })}
          />
          <Field
            label="swings by"
            value={scale(p.swing_c)}
            unit="±"
            width="6em"
            onCommit={(t) => put({ swing_c: kelvin(t) })}
            inputMode="decimal"
          />
        </>
      )}
      {p.litres !== null && (
        <Field
          label="holds"
          value={String(p.litres)}
          unit="L"
          width="6em"
          onCommit={(t) => put({ litres: typedNumber(t) })}
          inputMode="decimal"
        />
      )}
    </div>
  );
}

/** The air of the bench, hour by hour of a usual day. */
function AirByHour({ kitchen: k, writes: { change } }: { kitchen: Kitchen; writes: Writes }) {
  const units = useWords();
  const fault = (name: string) => faultOf(change.error, name);
  return (
    <section>
      <h3>{SAY.theAirByTheHour}</h3>
      <Hours>
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
      </Hours>
      {fault("hour_c") && <Plate>{fault("hour_c")}</Plate>}
    </section>
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
