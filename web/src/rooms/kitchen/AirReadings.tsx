import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Kitchen, Problem, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { airQuery, useAirWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Cautions, Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { clockNear, temp, tempUnit, typedTemp } from "../../words/format";
import { SAY } from "../../words/say/kitchen";

type PlaceKey = Schemas["AirReadingCreate"]["place"];

/** What was read of the air: one reading, or a log pasted in. Real so far, forecast ahead. */
export function AirReadings({ kitchen, place: first }: { kitchen: Kitchen; place: NonNullable<PlaceKey> }) {
  const units = useWords();
  const now = useNow(30_000);
  const air = useQuery(airQuery(kitchen.id));
  const { read, undo } = useAirWrites(kitchen.id);
  const [place, setPlace] = useState<NonNullable<PlaceKey>>(first);
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
      <h3>{SAY.theAirAsItWasRead}</h3>
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
        <summary>{SAY.aProbesLogALineEach}</summary>
        <textarea
          aria-label={SAY.logOfAProbe}
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
      {air.data?.readings.length === 0 && <p className="quiet">{SAY.nothingReadLatelyPlansGoBy}</p>}
    </section>
  );
}
