import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { type Kitchen, Problem, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { airQuery, useAirWrites, type useKitchenWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Cautions, Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { heatColour } from "../../theme/temperature";
import { clockNear, typedTemp, temp, tempUnit, plain, typedNumber } from "../../words/format";

const Table = styled.table`
  border-collapse: collapse;
  max-width: 900px;
  td,
  th {
    text-align: left;
    padding: 2px 18px 2px 0;
    border-bottom: 1px solid var(--hair);
    font-weight: 500;
  }
  th[scope="row"] {
    font-weight: 650;
    min-width: 13em;
  }
  .now {
    display: inline-flex;
    align-items: center;
    gap: 10px;
    min-width: 7em;
    font: 700 18px/1 var(--mono);
    white-space: nowrap;
  }
  .now i {
    width: 22px;
    height: 30px;
    border: 1px solid var(--ink);
  }
`;
type PlaceKey = Schemas["AirReadingCreate"]["place"];

/** The places a dough can stand in: each has a temperature of its own, or goes with the bench. */
export function Places({ kitchen: k, writes }: { kitchen: Kitchen; writes: ReturnType<typeof useKitchenWrites> }) {
  const units = useWords();
  const { change } = writes;
  const put = (key: string, part: Schemas["PlaceUpdate"]) => change.mutate({ places: { [key]: part } });
  const kelvin = (t: string) => typedNumber(t, units.temp === "F" ? plain(t) / 1.8 : plain(t));
  const scale = (x: number) => (units.temp === "F" ? x * 1.8 : x).toFixed(1);
  const fault =
    change.error instanceof Problem ? change.error.fields.find((f) => f.pointer.startsWith("/places"))?.detail : null;
  return (
    <section>
      <h2>Places for the dough</h2>
      <Table>
        <thead>
          <tr>
            <th>place</th>
            <th>now</th>
            <th>its air</th>
            <th>swings by</th>
            <th>litres</th>
          </tr>
        </thead>
        <tbody>
          {k.places.map((p) => (
            <tr key={p.key}>
              <th scope="row">{p.name}</th>
              <td>
                <span className="now">
                  <i style={{ background: heatColour(p.now_c) }} />
                  {temp(p.now_c, units, 1)} {tempUnit(units)}
                </span>
              </td>
              <td>
                {p.key === "bench" ? (
                  <span className="quiet">by the hour, below</span>
                ) : p.temp_c === null ? (
                  <Field
                    label={`${p.name}: over the bench`}
                    hideLabel
                    value={scale(p.over_k)}
                    unit="over the bench"
                    width="14em"
                    onCommit={(t) => put(p.key, { over_k: kelvin(t) })}
                    inputMode="decimal"
                  />
                ) : (
                  <Field
                    label={`${p.name}: temperature`}
                    hideLabel
                    value={temp(p.temp_c, units, 1)}
                    unit={tempUnit(units)}
                    width="7em"
                    onCommit={(t) => put(p.key, { temp_c: typedTemp(t, units) })}
                  />
                )}
              </td>
              <td>
                {p.key !== "bench" && p.temp_c !== null && (
                  <Field
                    label={`${p.name}: swing`}
                    hideLabel
                    value={scale(p.swing_c)}
                    unit="±"
                    width="5em"
                    onCommit={(t) => put(p.key, { swing_c: kelvin(t) })}
                    inputMode="decimal"
                  />
                )}
              </td>
              <td>
                {p.litres !== null && (
                  <Field
                    label={`${p.name}: litres`}
                    hideLabel
                    value={String(p.litres)}
                    unit="L"
                    width="6em"
                    onCommit={(t) => put(p.key, { litres: typedNumber(t) })}
                    inputMode="decimal"
                  />
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      {k.fridge_c > 6 && (
        <Plate>
          A fridge above 6 °C lets dough rise far faster than a plan for 4 °C. The forecast counts it as it is.
        </Plate>
      )}
      {fault && <Plate>{fault}</Plate>}
    </section>
  );
}

/** What was read of the air: one reading, or a log pasted in. Real so far, forecast ahead. */
export function AirReadings({ kitchen }: { kitchen: Kitchen }) {
  const units = useWords();
  const now = useNow(30_000);
  const air = useQuery(airQuery(kitchen.id));
  const { read, undo } = useAirWrites(kitchen.id);
  const [place, setPlace] = useState<NonNullable<PlaceKey>>("bench");
  const [said, setSaid] = useState("");
  const [when, setWhen] = useState("");
  const [log, setLog] = useState("");
  const faults = read.error instanceof Problem ? read.error.fields : [];
  const one = () =>
    read.mutate(
      { place, points: [[when || "now", typedTemp(said, units)]], source: "typed" },
      {
        onSuccess: () => {
          setSaid("");
          setWhen("");
        },
      },
    );
  const many = () => {
    const points = log
      .split(/\n/)
      .map((l) => l.trim())
      .filter(Boolean)
      .map((l): [string, number] => {
        const at = l.search(/[-\d.,]+\s*°?[cf]?$/i);
        return [
          l
            .slice(0, at)
            .replace(/[,;\t]\s*$/, "")
            .trim(),
          typedTemp(l.slice(at), units),
        ];
      });
    read.mutate({ place, points, source: "probe" }, { onSuccess: () => setLog("") });
  };
  const name = (key: string) => kitchen.places.find((p) => p.key === key)?.name ?? key;
  return (
    <section>
      <h2>The air as it was read</h2>
      <div className="row">
        <Pick
          label="where"
          value={place}
          options={kitchen.places.map((p) => ({ id: p.key, text: p.name }))}
          onChange={setPlace}
        />
        <Field
          label="reads"
          value={said}
          placeholder="21.5"
          unit={tempUnit(units)}
          width="6em"
          onType={setSaid}
          onCommit={setSaid}
          inputMode="decimal"
        />
        <Field label="when" value={when} placeholder="now" width="7em" onType={setWhen} onCommit={setWhen} />
        <Button onPress={one} isDisabled={!said || read.isPending}>
          Note it
        </Button>
      </div>
      <details>
        <summary>a probe’s log, a line each: when, temperature</summary>
        <textarea
          aria-label="Log of a probe"
          rows={4}
          value={log}
          onChange={(e) => setLog(e.target.value)}
          placeholder={"21:00 21.4\n21:30 21.1"}
          style={{
            width: "100%",
            maxWidth: 480,
            font: "500 17px/1.4 var(--mono)",
            background: "transparent",
            border: "2px solid var(--ink)",
            padding: 8,
          }}
        />
        <div>
          <Button onPress={many} isDisabled={!log.trim() || read.isPending}>
            Take the log
          </Button>
        </div>
      </details>
      {read.error && (
        <Plate>
          {faults.length
            ? faults
                .slice(0, 5)
                .map((f) => `Line ${Number(f.pointer.split("/")[2]) + 1}: ${f.detail}`)
                .join(" ")
            : read.error.message}
        </Plate>
      )}
      {read.data && (read.data.taken > 1 || read.data.skipped.length > 0) && (
        <p role="status">
          {read.data.taken} taken{read.data.skipped.length ? `; ${read.data.skipped.slice(0, 3).join(" ")}` : ""}.
        </p>
      )}
      <Cautions items={air.data?.cautions ?? []} />
      <ul className="log">
        {(air.data?.readings ?? []).slice(0, 8).map((r) => (
          <li key={r.id} style={{ display: "flex", gap: 14, alignItems: "center", fontFamily: "var(--mono)" }}>
            {clockNear(r.at, now, units.zone)} {temp(r.value, units, 1)} {tempUnit(units)}{" "}
            <span className="quiet">{name(r.place)}</span>
            <Button data-kind="bare" onPress={() => undo.mutate(r.id)}>
              undo
            </Button>
          </li>
        ))}
      </ul>
      {air.data?.readings.length === 0 && (
        <p className="quiet">
          Nothing read lately: plans go by the hours below. A reading moves today’s air, and its difference fades over
          the next hours.
        </p>
      )}
    </section>
  );
}
