import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "react-router";
import { type Bench, faultOf } from "../../api/client";
import { kitchensQuery, startersQuery, useKitchenWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { commandKey } from "../../controls/keys";
import { Plate } from "../../controls/Notice";
import { useHeight } from "../../controls/width";
import { useWords } from "../../frame/units";
import { FloorPlan } from "../../instruments/FloorPlan";
import { HeatBands } from "../../instruments/HeatBands";
import { type PlaceMark, PlaceScale } from "../../instruments/PlaceScale";
import { capital, temp } from "../../words/format";
import { Alarms } from "./Alarms";
import { Backups } from "./Backups";
import { addressOf, type Chosen, NAMED, type Named, useChosen } from "./chosen";
import { numbered, placed, PLACES } from "./floor";
import { Devices } from "./Devices";
import { Hours } from "./Hours";
import { House } from "./House";
import { Instruments } from "./Instruments";
import { Lessons } from "./Lessons";
import { Measures } from "./Measures";
import { OwnIngredients } from "./OwnIngredients";
import { Page } from "./Page";
import { PlaceSheet } from "./PlaceSheet";
import { AddStarter, Starters } from "./Starters";
import { SurfaceSheet } from "./SurfaceSheet";
import { SAY } from "../../words/say/kitchen";

const LEAST_H = 366; // of the scale of places [px]
const MOST_H = 640;
const HEAD_H = 56;
/** The sheets that need more room than the column beside the plan. */
const WIDE = new Set<Chosen["kind"]>([
  "hours",
  "ingredients",
  "starter",
  "learned",
  "instruments",
  "devices",
  "backups",
]);
const TITLES: Record<Named, string> = {
  house: "House",
  hours: "Hours away",
  measures: "Cups",
  ingredients: "Ingredients",
  starters: "Starters",
  alarms: "Alarms",
  learned: "Learned",
  instruments: "Instruments",
  devices: "Devices",
  backups: "Backups",
  kitchens: "Kitchens",
};
const TAP = "tap";
/** Sheets that are reached from the sheet of the devices. */
const BESIDE = new Set<Named>(["instruments", "backups"]);
const OF_THE_HOUSE = ["devices", "instruments", "backups"] as const;

/** The kitchen as a plan: its places on one scale, its surfaces as they lie, and the sheet of whatever is pressed. */
export function KitchenRoom({ bench }: { bench: Bench }) {
  const k = bench.kitchen;
  const [chosen, choose] = useChosen();
  const surfaces = numbered(k.surfaces);
  const writes = useKitchenWrites(k.id);
  const add = () =>
    writes.addSurface.mutate(
      { name: "Another plate", kind: "iron_plate", power: "medium_high", spots: 1 },
      { onSuccess: (now) => choose({ kind: "surface", id: Math.max(...now.surfaces.map((s) => s.id)) }) },
    );
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const key = commandKey(e);
      if (key === "Escape") return choose(null);
      const surface = key && /^[1-9]$/.test(key) ? surfaces[Number(key) - 1] : undefined;
      if (surface) choose({ kind: "surface", id: surface.id });
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  });
  return (
    <Page data-wide={chosen !== null && WIDE.has(chosen.kind)} data-open={chosen !== null}>
      <h1>{k.name}</h1>
      <Places bench={bench} chosen={chosen} onChoose={choose} />
      <div className="plan">
        <Floor bench={bench} surfaces={surfaces} chosen={chosen} onChoose={choose} onAdd={add} />
        <Removed writes={writes} />
      </div>
      <nav aria-label={SAY.theRestOfTheKitchen}>
        {NAMED.filter((kind) => !BESIDE.has(kind)).map((kind) => (
          <button key={kind} type="button" aria-pressed={chosen?.kind === kind} onClick={() => choose({ kind })}>
            {TITLES[kind]}
          </button>
        ))}
        <Link to={`/k/${k.id}/freezer`}>Freezer</Link>
      </nav>
      <Opened key={chosen ? addressOf(chosen) : ""} bench={bench} chosen={chosen} onChoose={choose} writes={writes} />
    </Page>
  );
}

interface Part {
  bench: Bench;
  chosen: Chosen | null;
  onChoose: (next: Chosen | null) => void;
}

/** The places for the dough on one scale, with the tap beside them. */
function Places({ bench, chosen, onChoose }: Part) {
  const k = bench.kitchen;
  const units = useWords();
  const [room, height] = useHeight<HTMLElement>();
  const live = bench.bakes.filter((b) => b.status === "live");
  const [low, high] = [Math.min(...k.hourly_c), Math.max(...k.hourly_c)];
  const marks: PlaceMark[] = k.places.map((p) => ({
    key: p.key,
    name: p.name,
    c: p.now_c,
    low: p.temp_c === null ? low + p.over_k : p.now_c - p.swing_c,
    high: p.temp_c === null ? high + p.over_k : p.now_c + p.swing_c,
    stands: live.filter((b) => b.stands === p.key),
  }));
  return (
    <section className="places" ref={room} aria-labelledby="places">
      <h2 id="places">
        Places for dough <span className="quiet">{SAY.nowAndHowFarItSwings}</span>
      </h2>
      <PlaceScale
        height={Math.max(LEAST_H, Math.min(height - HEAD_H, MOST_H))}
        marks={[...marks, { key: TAP, name: "tap water", c: k.tap_c, low: k.tap_c, high: k.tap_c, stands: [] }]}
        chosen={chosen?.kind === "place" ? chosen.key : null}
        degrees={(c) => `${temp(c, units, 1)}°`}
        tick={(c) => temp(c, units)}
        onChoose={(key) => onChoose(key === TAP ? { kind: "house" } : { kind: "place", key })}
      />
    </section>
  );
}

/** Surfaces from above and their heat on one scale. */
function Floor({
  bench,
  surfaces,
  chosen,
  onChoose,
  onAdd,
}: Part & { surfaces: readonly Bench["kitchen"]["surfaces"][number][]; onAdd: () => void }) {
  const k = bench.kitchen;
  const units = useWords();
  const starters = useQuery(startersQuery(k.id));
  const at = placed(k.surfaces);
  const degrees = (c: number) => `${temp(c, units)}°`;
  const id = chosen?.kind === "surface" ? chosen.id : null;
  const rows = surfaces.map((s, i) => ({ ...s, number: i + 1, c: s.believed.p50_c, place: at.get(s.id) ?? PLACES }));
  const place = (key: string) => k.places.find((p) => p.key === key);
  const furniture = (key: string, name: string, words: string) => (
    <button
      type="button"
      className={key}
      aria-pressed={chosen?.kind === "place" && chosen.key === key}
      onClick={() => onChoose({ kind: "place", key })}
    >
      {name} {words}
    </button>
  );
  return (
    <>
      <h2>
        Surfaces <span className="quiet">{SAY.lineAsSetBarAsBelieved}</span>
      </h2>
      <FloorPlan
        marks={rows}
        chosen={id}
        degrees={degrees}
        onChoose={(surface) => onChoose({ kind: "surface", id: surface })}
        onAdd={onAdd}
      >
        {furniture("fridge", "fridge", degrees(place("fridge")?.now_c ?? k.fridge_c))}
        {furniture("bench", "the bench", degrees(place("bench")?.now_c ?? bench.room_c))}
        {(starters.data ?? []).slice(0, 2).map((s) => (
          <button
            key={s.id}
            type="button"
            aria-pressed={chosen?.kind === "starter" && chosen.id === s.id}
            onClick={() => onChoose({ kind: "starter", id: s.id })}
          >
            <svg width={16} height={26} fill="none" stroke="currentColor" strokeWidth={2} aria-hidden="true">
              <path d="M3 2h10M3 6h10v18H3z" />
              <path d="M4 15h8v8H4z" fill="currentColor" stroke="none" />
            </svg>
            {s.name}
          </button>
        ))}
      </FloorPlan>
      <HeatBands
        rows={rows}
        chosen={id}
        degrees={degrees}
        tick={(c) => temp(c, units)}
        onChoose={(surface) => onChoose({ kind: "surface", id: surface })}
      />
    </>
  );
}

/** What taking a surface away did, with its undo. */
function Removed({ writes }: { writes: ReturnType<typeof useKitchenWrites> }) {
  const { removeSurface, restoreSurface } = writes;
  if (removeSurface.error) return <Plate>{removeSurface.error.message}</Plate>;
  if (!removeSurface.data || restoreSurface.variables === removeSurface.variables) return null;
  return (
    <p role="status">
      {SAY.itIsTakenAwayABread}{" "}
      <Button data-kind="bare" onPress={() => restoreSurface.mutate(removeSurface.variables!)}>
        Undo
      </Button>
    </p>
  );
}

/** The sheet of what is pressed; the house where nothing is. */
function Opened({ bench, chosen, onChoose, writes }: Part & { writes: ReturnType<typeof useKitchenWrites> }) {
  const k = bench.kitchen;
  const { change } = writes;
  const fault = (name: string) => faultOf(change.error, name);
  const surface = chosen?.kind === "surface" ? k.surfaces.find((s) => s.id === chosen.id) : undefined;
  const place = chosen?.kind === "place" ? k.places.find((p) => p.key === chosen.key) : undefined;
  const starters = useQuery({ ...startersQuery(k.id), enabled: chosen?.kind === "starter" });
  const starter = chosen?.kind === "starter" ? starters.data?.find((s) => s.id === chosen.id) : undefined;
  const kind = chosen?.kind ?? "house";
  const title =
    surface?.name ??
    starter?.name ??
    (place ? capital(place.name) : kind in TITLES ? TITLES[kind as Named] : "Starter");
  return (
    <aside aria-labelledby="opened">
      <header>
        <h2 id="opened">{title}</h2>
        {chosen && (
          <Button data-kind="bare" onPress={() => onChoose(null)}>
            close
          </Button>
        )}
      </header>
      {surface && (
        <SurfaceSheet
          surface={surface}
          all={numbered(k.surfaces)}
          writes={writes}
          onRemove={() => writes.removeSurface.mutate(surface.id, { onSuccess: () => onChoose(null) })}
        />
      )}
      {(kind === "surface" && !surface) || (kind === "place" && !place) ? <p>{SAY.itIsNotInThisKitchen}</p> : null}
      {place && <PlaceSheet kitchen={k} place={place} writes={writes} />}
      {chosen?.kind === "starter" && <Starters kitchen={k.id} only={chosen.id} />}
      {kind === "house" && <House kitchen={k} fault={fault} onChange={(values) => change.mutate(values)} />}
      {kind === "hours" && <Hours kitchen={k} writes={writes} />}
      {kind === "measures" && <Measures kitchen={k} fault={fault} onChange={(values) => change.mutate(values)} />}
      {kind === "ingredients" && <OwnIngredients kitchen={k.id} />}
      {kind === "starters" && <AddStarter kitchen={k.id} onOpen={(id) => onChoose({ kind: "starter", id })} />}
      {kind === "alarms" && <Alarms />}
      {kind === "learned" && <Lessons kitchen={k.id} />}
      {OF_THE_HOUSE.some((x) => x === kind) && (
        <Choice
          label="Devices"
          value={kind as (typeof OF_THE_HOUSE)[number]}
          options={OF_THE_HOUSE.map((id) => ({ id, text: TITLES[id] }))}
          onChange={(next) => onChoose({ kind: next })}
        />
      )}
      {kind === "instruments" && <Instruments kitchen={k} bakes={bench.bakes} />}
      {kind === "devices" && <Devices kitchen={k.id} />}
      {kind === "backups" && <Backups />}
      {kind === "kitchens" && <Others kitchen={k} />}
    </aside>
  );
}

function Others({ kitchen: k }: { kitchen: Bench["kitchen"] }) {
  const kitchens = useQuery(kitchensQuery());
  return (
    <ul className="places-to-go">
      {(kitchens.data ?? [])
        .filter((o) => o.id !== k.id)
        .map((o) => (
          <li key={o.id}>
            <Link to={`/k/${o.id}/bench`}>
              {o.name}
              {o.demo ? ", the demo" : ""}
            </Link>
          </li>
        ))}
      <li>
        <Link to="/welcome">{k.demo ? SAY.leaveTheDemoForAKitchen : "Open another kitchen"}</Link>
      </li>
    </ul>
  );
}
