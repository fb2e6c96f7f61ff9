import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Bench, Kitchen, Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { type Channel, exampleOf, instrumentsQuery, useChannelUse } from "../../api/instruments";
import { useDevices } from "../../api/session";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { Course } from "../../instruments/Course";
import { mass, ms, span, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/devices";
import { Rows } from "./rows";
import { Told } from "./Told";

const HALF_DAY_MS = 12 * 3600e3;
type Use = Schemas["ChannelUpdate"];

/** A use as one word of a list, and back. */
const wordOf = (c: Channel): string =>
  c.use === "air"
    ? `air ${c.place}`
    : c.use === "surface"
      ? `surface ${c.surface_id}`
      : c.use === "dough"
        ? `dough ${c.bake_id ?? ""}`.trim()
        : (c.use ?? "none");
function changeOf(word: string): Use {
  const [use, rest] = word.split(" ");
  if (use === "air") return { use, place: rest as NonNullable<Use["place"]> };
  if (use === "surface") return { use, surface_id: Number(rest) };
  if (use === "dough") return rest ? { use, bake_id: Number(rest) } : { use };
  return { use: use === "scale" ? use : null };
}

/** Instruments that send readings here: what each measures, what it tells now, and when it is not believed. */
export function Instruments({ kitchen, bakes }: { kitchen: Kitchen; bakes: Bench["bakes"] }) {
  const found = useQuery(instrumentsQuery(kitchen.id));
  const use = useChannelUse(kitchen.id);
  const { addInstrument, forget } = useDevices();
  const [name, setName] = useState("");
  const fault = addInstrument.error ?? forget.error ?? use.error ?? found.error;
  const live = bakes.filter((b) => b.status === "live");
  const options = (c: Channel) => [
    { id: "none", text: SAY.usedForNothing },
    ...(c.quantity === "mass"
      ? [{ id: "scale", text: SAY.theScale }]
      : [
          ...kitchen.places.map((p) => ({ id: `air ${p.key}`, text: `air, ${p.name}` })),
          { id: "dough", text: SAY.theDoughThatRises },
          ...live.map((b) => ({ id: `dough ${b.id}`, text: `dough, ${b.name}` })),
          ...kitchen.surfaces.map((s) => ({ id: `surface ${s.id}`, text: s.name })),
        ]),
  ];
  const add = () =>
    addInstrument.mutate({ kitchen_id: kitchen.id, name: name.trim() }, { onSuccess: () => setName("") });
  return (
    <div className="sheet">
      <p className="quiet">{SAY.anInstrumentSends}</p>
      {(found.data?.instruments ?? []).map((i) => (
        <section key={i.id}>
          <h3>
            {i.name}{" "}
            <Button data-kind="bare" aria-label={`Forget ${i.name}`} onPress={() => forget.mutate(i.id)}>
              forget
            </Button>
          </h3>
          {i.channels.length === 0 && <p className="quiet">{SAY.sentNothingYet}</p>}
          <Rows>
            {i.channels.map((c) => (
              <One
                key={c.id}
                channel={c}
                options={options(c)}
                onUse={(word) => use.mutate({ id: c.id, ...changeOf(word) })}
              />
            ))}
          </Rows>
        </section>
      ))}
      <section>
        <h3>{SAY.addAnInstrument}</h3>
        <div className="row">
          <Field label="called" value={name} width="14em" placeholder="Probes" onType={setName} onCommit={setName} />
          <Button onPress={add} isDisabled={!name.trim() || addInstrument.isPending}>
            Add it
          </Button>
        </div>
        {addInstrument.data && (
          <>
            <Told label={SAY.toldThisOnce} text={addInstrument.data.token} />
            <Told label="As a command" text={exampleOf(addInstrument.data.token)} />
          </>
        )}
      </section>
      {fault && <Plate role="alert">{fault.message}</Plate>}
    </div>
  );
}

function One({
  channel: c,
  options,
  onUse,
}: {
  channel: Channel;
  options: readonly { id: string; text: string }[];
  onUse: (word: string) => void;
}) {
  const units = useWords();
  const now = useNow(1000);
  const figure = (v: number) =>
    c.quantity === "mass" ? `${mass(v, units)} ${units.mass}` : `${temp(v, units, 1)} ${tempUnit(units)}`;
  const course = c.course.map((p) => [ms(p.at), p.value] as const);
  const values = course.map(([, v]) => v);
  return (
    <li>
      <span>
        <span className="name">{c.name}</span> <b className="figure">{c.value === null ? "–" : figure(c.value)}</b>{" "}
        <span className="quiet">{c.at === null ? SAY.neverHeard : `${span(Math.max(now - ms(c.at), 0))} ago`}</span>
      </span>
      <span className="acts">
        {c.quantity !== "mass" && (
          <Course
            points={course}
            from={now - HALF_DAY_MS}
            until={now}
            label={SAY.lastTwelveHours(c.name, figure(Math.min(...values)), figure(Math.max(...values)))}
          />
        )}
        <Pick label={SAY.whatItMeasures(c.name)} hideLabel value={wordOf(c)} options={options} onChange={onUse} />
      </span>
      {c.text && (
        <span className="below">
          <Plate role="note">{c.text}</Plate>
        </span>
      )}
    </li>
  );
}
