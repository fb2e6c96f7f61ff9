import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { Problem, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { startersQuery, useStarterWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { JarCurve } from "../../instruments/JarCurve";
import { Vessel } from "../../instruments/Vessel";
import { clockNear, mass, ms, typedNumber } from "../../words/format";
import { Upkeep } from "./Upkeep";

type Starter = Schemas["StarterRead"];
const One = styled.div`
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 26px;
  border-top: 1px solid var(--hair);
  padding: 12px 0;
  align-items: start;
  .name {
    font: 600 24px/1.1 var(--name);
  }
  .big {
    font: 700 34px/1 var(--name);
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
  }
  .told {
    display: grid;
    gap: 8px;
    justify-items: start;
  }
  li {
    font-family: var(--mono);
    font-size: 17px;
    padding: 2px 0;
  }
  @media (max-width: 800px) {
    grid-template-columns: 100px minmax(0, 1fr);
    .wide {
      grid-column: 1 / -1;
    }
  }
`;

/** The starters: jar, feed, next feed, when it peaks and how long it holds, what it has been fed. */
export function Starters({ kitchen }: { kitchen: number }) {
  const starters = useQuery(startersQuery(kitchen));
  const { add, putAway } = useStarterWrites(kitchen);
  const [name, setName] = useState("");
  const [gone, setGone] = useState<number | null>(null);
  return (
    <section>
      <h2>Starters</h2>
      {starters.error && <Plate>{starters.error.message}</Plate>}
      {(starters.data ?? []).map((s) => (
        <StarterCard
          key={s.id}
          kitchen={kitchen}
          starter={s}
          onGone={() => {
            putAway.mutate({ id: s.id });
            setGone(s.id);
          }}
        />
      ))}
      {gone !== null && (
        <p>
          Put away.{" "}
          <Button
            data-kind="bare"
            onPress={() => {
              putAway.mutate({ id: gone, back: true });
              setGone(null);
            }}
          >
            undo
          </Button>
        </p>
      )}
      <div className="row">
        <Field
          label="a starter called"
          value={name}
          placeholder="Old Pell"
          width="14em"
          onType={setName}
          onCommit={setName}
          fault={add.error?.message ?? null}
        />
        <Button
          isDisabled={!name.trim() || add.isPending}
          onPress={() => add.mutate({ name, hydration_frac: 1, whole_share: 0 }, { onSuccess: () => setName("") })}
        >
          Look after it
        </Button>
      </div>
    </section>
  );
}

function StarterCard({ kitchen, starter, onGone }: { kitchen: number; starter: Starter; onGone: () => void }) {
  const units = useWords();
  const now = useNow(30_000);
  const writes = useStarterWrites(kitchen);
  const [said, setSaid] = useState({
    seed: "20",
    flour: "40",
    water: "40",
    when: "",
    peak: "",
    wish: "",
    total: "150",
  });
  const [place, setPlace] = useState<"bench" | "fridge">("bench");
  const type = (key: keyof typeof said) => (t: string) => setSaid((had) => ({ ...had, [key]: t }));
  const at = (iso: string | null | undefined) => (iso ? clockNear(iso, now, units.zone) : "–");
  const feed = (seed_g: number, flour_g: number, water_g: number, when: string | null) =>
    writes.feed.mutate(
      { id: starter.id, seed_g, flour_g, water_g, place, at: when },
      { onSuccess: () => setSaid((had) => ({ ...had, when: "" })) },
    );
  const fault = (error: Error | null, name: string) =>
    error instanceof Problem ? (error.fields.find((f) => f.pointer === `/${name}`)?.detail ?? null) : null;
  const wished = writes.wish.data;
  const [box, width] = useWidth<HTMLDivElement>();
  const trace = starter.trace?.at.map((t, i) => ({
    t: ms(t),
    ratio: starter.trace!.ratio[i]!,
    low: starter.trace!.low[i]!,
    high: starter.trace!.high[i]!,
  }));
  const g = (x: number) => `${mass(x, units)} ${units.mass}`;
  return (
    <One>
      <Vessel ratio={starter.ratio_now} target={starter.peak_ratio} doughC={null} mark="peak" />
      <div className="told">
        <span className="name">{starter.name}</span>
        <span>
          {starter.state}
          {starter.ratio_now !== null && starter.state !== "cold"
            ? `, ${starter.ratio_now.toFixed(1)} × its start`
            : ""}
          {starter.acid_word && starter.state !== "cold" ? (
            <span className="quiet">; at its peak {starter.acid_word}</span>
          ) : null}
        </span>
        {starter.peak_at && starter.state !== "cold" && (
          <span>
            peak <span className="big">{at(starter.peak_at.p50)}</span>{" "}
            <span className="quiet">
              {starter.feeds[0]?.peaked_at
                ? "seen"
                : `8 in 10 from ${at(starter.peak_at.p10)} to ${at(starter.peak_at.p90)}`}
              ; holds until {at(starter.hold_until)}
            </span>
          </span>
        )}
        {starter.next_feed_at && (
          <span>
            {ms(starter.next_feed_at) > now ? (
              <>
                next feed by <b>{at(starter.next_feed_at)}</b>
                {starter.state === "cold" ? "" : ", or into the fridge at its peak"}
              </>
            ) : (
              <b>Feed it now; two feeds if it has been long.</b>
            )}
          </span>
        )}
        <div ref={box} style={{ width: "100%" }}>
          {trace && width > 0 && starter.state !== "cold" && (
            <JarCurve
              width={width}
              points={trace}
              now={now}
              until={starter.hold_until ? ms(starter.hold_until) : null}
              clock={(t) => clockNear(t, now, units.zone)}
            />
          )}
        </div>
        <span className="quiet">
          Works at {starter.vitality.toFixed(2)} × a healthy starter; peaks you note teach this.
        </span>
        {starter.feeds.length > 0 && starter.state !== "cold" && (
          <div className="row">
            <Field
              label="it stood highest"
              value={said.peak}
              placeholder="now, 20 min ago"
              width="10em"
              onType={type("peak")}
              onCommit={type("peak")}
              fault={writes.peaked.error?.message ?? null}
            />
            <Button
              onPress={() =>
                writes.peaked.mutate(
                  { id: starter.id, when: said.peak || null },
                  { onSuccess: () => setSaid({ ...said, peak: "" }) },
                )
              }
            >
              Note it
            </Button>
          </div>
        )}
      </div>
      <div className="told wide">
        <div className="row">
          <Field
            label="starter"
            value={said.seed}
            unit="g"
            width="5em"
            onType={type("seed")}
            onCommit={type("seed")}
            fault={fault(writes.feed.error, "seed_g")}
            inputMode="decimal"
          />
          <Field
            label="flour"
            value={said.flour}
            unit="g"
            width="5em"
            onType={type("flour")}
            onCommit={type("flour")}
            fault={fault(writes.feed.error, "flour_g")}
            inputMode="decimal"
          />
          <Field
            label="water"
            value={said.water}
            unit="g"
            width="5em"
            onType={type("water")}
            onCommit={type("water")}
            fault={fault(writes.feed.error, "water_g")}
            inputMode="decimal"
          />
          <Field
            label="when"
            value={said.when}
            placeholder="now"
            width="6em"
            onType={type("when")}
            onCommit={type("when")}
            fault={fault(writes.feed.error, "at")}
          />
        </div>
        <div className="row">
          <Choice
            label={`Where ${starter.name} stands`}
            value={place}
            options={[
              { id: "bench", text: "on the bench" },
              { id: "fridge", text: "in the fridge" },
            ]}
            onChange={setPlace}
          />
          <Button
            onPress={() =>
              feed(typedNumber(said.seed), typedNumber(said.flour), typedNumber(said.water), said.when || null)
            }
          >
            Fed
          </Button>
        </div>
        <div className="row">
          <Field
            label="I want"
            value={said.total}
            unit="g"
            width="5.5em"
            onType={type("total")}
            onCommit={type("total")}
            inputMode="decimal"
          />
          <Field
            label="at its peak by"
            value={said.wish}
            placeholder="17:00"
            width="7em"
            onType={type("wish")}
            onCommit={type("wish")}
            fault={writes.wish.error?.message ?? null}
          />
          <Button
            isDisabled={!said.wish}
            onPress={() => writes.wish.mutate({ id: starter.id, total_g: typedNumber(said.total), peak_at: said.wish })}
          >
            Find the feed
          </Button>
        </div>
        {wished && (
          <p>
            {wished.text}, now.{" "}
            <Button data-kind="bare" onPress={() => feed(wished.seed_g, wished.flour_g, wished.water_g, null)}>
              fed so
            </Button>
          </p>
        )}
        {starter.feeds.length > 0 && (
          <ul aria-label={`Feeds of ${starter.name}`}>
            {starter.feeds.slice(0, 5).map((f) => (
              <li key={f.id}>
                {at(f.at)} {g(f.seed_g)} + {g(f.flour_g)} + {g(f.water_g)}
                {f.place === "fridge" ? ", fridge" : f.peaked_at ? `, peak ${at(f.peaked_at)}` : ""}
              </li>
            ))}
          </ul>
        )}
        <Upkeep kitchen={kitchen} starter={starter} />
        <div className="row">
          {starter.feeds.length > 0 && (
            <Button data-kind="bare" onPress={() => writes.undo.mutate(starter.id)}>
              undo the last
            </Button>
          )}
          <Button data-kind="bare" onPress={onGone}>
            put away
          </Button>
        </div>
        <p className="quiet">Throw it away if it shows colour or mould; do not taste it raw.</p>
      </div>
    </One>
  );
}
