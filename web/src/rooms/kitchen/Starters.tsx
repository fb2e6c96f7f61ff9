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
import { useAt, useWords } from "../../frame/units";
import { JarCurve } from "../../instruments/JarCurve";
import { Vessel } from "../../instruments/Vessel";
import { clockNear, mass, ms, typedMeasure } from "../../words/format";
import { Upkeep } from "./Upkeep";
import { SAY } from "../../words/say/kitchen";

type Starter = Schemas["StarterRead"];
const One = styled.div`
  display: grid;
  grid-template-columns: 118px minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 26px;
  align-items: start;
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

/** One starter: jar, feed, next feed, when it peaks and how long it holds, what it has been fed. */
export function Starters({ kitchen, only }: { kitchen: number; only: number }) {
  const starters = useQuery(startersQuery(kitchen));
  const { putAway } = useStarterWrites(kitchen);
  const [gone, setGone] = useState(false);
  const starter = starters.data?.find((s) => s.id === only);
  if (starters.error) return <Plate>{starters.error.message}</Plate>;
  if (gone)
    return (
      <p>
        {SAY.putAway}{" "}
        <Button
          data-kind="bare"
          onPress={() => {
            putAway.mutate({ id: only, back: true });
            setGone(false);
          }}
        >
          undo
        </Button>
      </p>
    );
  if (!starter)
    return starters.data ? <p>{SAY.thisStarterWasPutAway}</p> : <p className="quiet">{SAY.lookingAtTheJar}</p>;
  return (
    <StarterCard
      kitchen={kitchen}
      starter={starter}
      onGone={() => {
        putAway.mutate({ id: only });
        setGone(true);
      }}
    />
  );
}

/** The kitchen's starters by name, each opens; and a new one. */
export function AddStarter({ kitchen, onOpen }: { kitchen: number; onOpen: (id: number) => void }) {
  const starters = useQuery(startersQuery(kitchen));
  const { add } = useStarterWrites(kitchen);
  const [name, setName] = useState("");
  const at = useAt();
  return (
    <>
      {starters.error && <Plate>{starters.error.message}</Plate>}
      {starters.data?.length === 0 && <p className="quiet">{SAY.noneYetAStartersFeedsTell}</p>}
      {(starters.data ?? []).map((s) => (
        <p key={s.id}>
          <Button onPress={() => onOpen(s.id)}>{s.name}</Button>{" "}
          <span className="quiet">
            {s.state}
            {s.next_feed_at ? `, next feed by ${at(s.next_feed_at)}` : ""}
          </span>
        </p>
      ))}
      <div className="row">
        <Field
          label="a starter called"
          value={name}
          placeholder="Old Pell"
          width="12em"
          onType={setName}
          onCommit={setName}
          fault={add.error?.message ?? null}
        />
        <Button
          isDisabled={!name.trim() || add.isPending}
          onPress={() =>
            add.mutate(
              { name, hydration_frac: 1, whole_share: 0 },
              {
                onSuccess: (made) => {
                  setName("");
                  onOpen(made.id);
                },
              },
            )
          }
        >
          Look after it
        </Button>
      </div>
    </>
  );
}

type Writes = ReturnType<typeof useStarterWrites>;
const faultAt = (error: Error | null, name: string) =>
  error instanceof Problem ? (error.fields.find((f) => f.pointer === `/${name}`)?.detail ?? null) : null;

function StarterCard({ kitchen, starter, onGone }: { kitchen: number; starter: Starter; onGone: () => void }) {
  const writes = useStarterWrites(kitchen);
  return (
    <One>
      <Vessel ratio={starter.ratio_now} target={starter.peak_ratio} doughC={null} mark="peak" />
      <div className="told">
        <Stands starter={starter} />
        {starter.feeds.length > 0 && starter.state !== "cold" && <PeakSeen starter={starter} writes={writes} />}
      </div>
      <div className="told wide">
        <Feeding starter={starter} writes={writes} />
        <Feeds starter={starter} />
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
        <p className="quiet">{SAY.throwItAwayIfItShows}</p>
      </div>
    </One>
  );
}

/** How a starter stands: its state, its peak, its next feed, its height since the last. */
function Stands({ starter }: { starter: Starter }) {
  const { zone } = useWords();
  const now = useNow(30_000);
  const at = useAt();
  const [box, width] = useWidth<HTMLDivElement>();
  const warm = starter.state !== "cold";
  const trace = starter.trace?.at.map((t, i) => ({
    t: ms(t),
    ratio: starter.trace!.ratio[i]!,
    low: starter.trace!.low[i]!,
    high: starter.trace!.high[i]!,
  }));
  return (
    <>
      <span>
        {starter.state}
        {starter.ratio_now !== null && warm ? `, ${starter.ratio_now.toFixed(1)} × its start` : ""}
        {starter.acid_word && warm ? <span className="quiet">; at its peak {starter.acid_word}</span> : null}
      </span>
      {starter.peak_at && warm && (
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
              {warm ? SAY.orIntoTheFridgeAtIts : ""}
            </>
          ) : (
            <b>{SAY.feedItNowTwoFeedsIf}</b>
          )}
        </span>
      )}
      <div ref={box} style={{ width: "100%" }}>
        {trace && width > 0 && warm && (
          <JarCurve
            width={width}
            points={trace}
            now={now}
            until={starter.hold_until ? ms(starter.hold_until) : null}
            clock={(t) => clockNear(t, now, zone)}
          />
        )}
      </div>
      <span className="quiet">
        Works at {starter.vitality.toFixed(2)} {SAY.aHealthyStarterPeaksYouNote}
      </span>
    </>
  );
}

function PeakSeen({ starter, writes }: { starter: Starter; writes: Writes }) {
  const [when, setWhen] = useState("");
  return (
    <div className="row">
      <Field
        label="it stood highest"
        value={when}
        placeholder="now, 20 min ago"
        width="10em"
        onType={setWhen}
        onCommit={setWhen}
        fault={writes.peaked.error?.message ?? null}
      />
      <Button
        onPress={() => writes.peaked.mutate({ id: starter.id, when: when || null }, { onSuccess: () => setWhen("") })}
      >
        Note it
      </Button>
    </div>
  );
}

/** A feed that was given, or the one to give so that the starter peaks when it is wanted. */
function Feeding({ starter, writes }: { starter: Starter; writes: Writes }) {
  const [said, setSaid] = useState({ seed: "20", flour: "40", water: "40", when: "" });
  const [place, setPlace] = useState<"bench" | "fridge">("bench");
  const type = (key: keyof typeof said) => (t: string) => setSaid((had) => ({ ...had, [key]: t }));
  const feed = (seed_g: number, flour_g: number, water_g: number, when: string | null) =>
    writes.feed.mutate(
      { id: starter.id, seed_g, flour_g, water_g, place, at: when },
      { onSuccess: () => setSaid((had) => ({ ...had, when: "" })) },
    );
  const grams = (key: "seed" | "flour" | "water", label: string) => (
    <Field
      label={label}
      value={said[key]}
      unit="g"
      width="5em"
      onType={type(key)}
      onCommit={type(key)}
      fault={faultAt(writes.feed.error, `${key}_g`)}
      inputMode="decimal"
    />
  );
  return (
    <>
      <div className="row">
        {grams("seed", "starter")}
        {grams("flour", "flour")}
        {grams("water", "water")}
        <Field
          label="when"
          value={said.when}
          placeholder="now"
          width="6em"
          onType={type("when")}
          onCommit={type("when")}
          fault={faultAt(writes.feed.error, "at")}
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
            feed(
              typedMeasure(said.seed, "g"),
              typedMeasure(said.flour, "g"),
              typedMeasure(said.water, "g"),
              said.when || null,
            )
          }
        >
          Fed
        </Button>
      </div>
      <Wish starter={starter} writes={writes} onFed={(seed, flour, water) => feed(seed, flour, water, null)} />
    </>
  );
}

function Wish({
  starter,
  writes,
  onFed,
}: {
  starter: Starter;
  writes: Writes;
  onFed: (seed: number, flour: number, water: number) => void;
}) {
  const [total, setTotal] = useState("150");
  const [by, setBy] = useState("");
  const wished = writes.wish.data;
  return (
    <>
      <div className="row">
        <Field
          label="I want"
          value={total}
          unit="g"
          width="5.5em"
          onType={setTotal}
          onCommit={setTotal}
          inputMode="decimal"
        />
        <Field
          label={SAY.atItsPeakBy}
          value={by}
          placeholder="17:00"
          width="7em"
          onType={setBy}
          onCommit={setBy}
          fault={writes.wish.error?.message ?? null}
        />
        <Button
          isDisabled={!by}
          onPress={() => writes.wish.mutate({ id: starter.id, total_g: typedMeasure(total, "g"), peak_at: by })}
        >
          Find the feed
        </Button>
      </div>
      {wished && (
        <p>
          {wished.text}, now.{" "}
          <Button data-kind="bare" onPress={() => onFed(wished.seed_g, wished.flour_g, wished.water_g)}>
            fed so
          </Button>
        </p>
      )}
    </>
  );
}

function Feeds({ starter }: { starter: Starter }) {
  const units = useWords();
  const at = useAt();
  const g = (x: number) => `${mass(x, units)} ${units.mass}`;
  if (starter.feeds.length === 0) return null;
  return (
    <ul aria-label={`Feeds of ${starter.name}`}>
      {starter.feeds.slice(0, 5).map((f) => (
        <li key={f.id}>
          {at(f.at)} {g(f.seed_g)} + {g(f.flour_g)} + {g(f.water_g)}
          {f.place === "fridge" ? ", fridge" : f.peaked_at ? `, peak ${at(f.peaked_at)}` : ""}
        </li>
      ))}
    </ul>
  );
}
