import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { type Bake, type BakeUpdate, Problem, type Schemas } from "../../api/client";
import { kitchensQuery, startersQuery } from "../../api/kitchen";
import { useBakeChange } from "../../api/bake";
import { Button } from "../../controls/Button";
import { StageTime } from "./StageTimes";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Pick } from "../../controls/Pick";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { AirDraw } from "../../instruments/AirDraw";
import { Why } from "../../controls/Why";
import { ms, readTemp, span, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/rise";

const Box = styled.section`
  border-top: 2px solid var(--ink);
  margin-top: 16px;
  padding-top: 10px;
  display: grid;
  gap: 10px;
  .stage {
    display: grid;
    gap: 6px;
    border-bottom: 1px solid var(--hair);
    padding-bottom: 10px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 20px;
    align-items: end;
  }
  .name {
    font: 600 20px/1 var(--name);
    min-width: 5em;
    align-self: center;
  }
`;
type Which = "bulk" | "ball";

/** Where each stage stands: a place of the kitchen, or air of its own, typed or drawn; and which starter goes in. */
export function Stands({ bake, rise }: { bake: Bake; rise: Schemas["RiseRead"] }) {
  const change = useBakeChange(bake.id);
  const starters = useQuery(startersQuery(bake.kitchen_id));
  const sour = rise.acid !== null;
  const sponge = bake.settings.sponge_h;
  const ofSponge = sponge !== null || bake.settings.lines.some((line) => line.part === "sponge");
  return (
    <Box data-print="no" aria-label="Where it stands">
      <h2>Where it stands</h2>
      <Row
        bake={bake}
        rise={rise}
        which="bulk"
        name="bulk"
        hours={(ms(rise.balled_at) - ms(rise.mixed_at)) / 3600e3}
        change={change}
      />
      <Row
        bake={bake}
        rise={rise}
        which="ball"
        name="balls"
        hours={(ms(rise.windows.at(-1)!.ends_at) - ms(rise.balled_at)) / 3600e3}
        change={change}
      />
      <div className="row">
        {ofSponge && (
          <Field
            label="the sponge rests"
            value={sponge === null ? "" : String(sponge)}
            placeholder="12, overnight"
            unit="h"
            width="8em"
            onCommit={(t) => change.mutate({ sponge_time: t || null })}
          />
        )}
        {sour && (starters.data ?? []).length > 0 && (
          <Pick
            label={SAY.theStarterThatGoesIn}
            value={String(bake.settings.starter_id ?? (starters.data!.length === 1 ? starters.data![0]!.id : ""))}
            options={starters.data!.map((s) => ({ id: String(s.id), text: `${s.name}, ${s.state}` }))}
            onChange={(id) => change.mutate({ starter_id: Number(id) })}
          />
        )}
        {sour && (starters.data ?? []).length === 0 && <span className="quiet">{SAY.lookAfterAStarterInThe}</span>}
      </div>
      {change.error && (
        <Plate>
          {change.error instanceof Problem
            ? (change.error.fields[0]?.detail ?? change.error.message)
            : change.error.message}
        </Plate>
      )}
    </Box>
  );
}

function Row({
  bake,
  rise,
  which,
  name,
  hours,
  change,
}: {
  bake: Bake;
  rise: Schemas["RiseRead"];
  which: Which;
  name: string;
  hours: number;
  change: ReturnType<typeof useBakeChange>;
}) {
  const units = useWords();
  const kitchens = useQuery(kitchensQuery());
  const [drawing, setDrawing] = useState(false);
  const [box, width] = useWidth<HTMLDivElement>();
  const places = kitchens.data?.find((k) => k.id === bake.kitchen_id)?.places ?? [];
  const own = bake.settings[`${which}_air`] as [number, number][] | null;
  const place = bake.settings[`${which}_place`];
  const put = (air: [number, number][] | null) => change.mutate({ [`${which}_air`]: air } as BakeUpdate);
  const said =
    own && own.length === 1
      ? `${temp(own[0]![1], units, 1)}`
      : own
        ? own.map(([h, c]) => `${h} h ${temp(c, units)}`).join(", ")
        : "";
  const typed = (text: string) => {
    if (!text.trim()) return put(null);
    const one = readTemp(text, units);
    if (one !== null) return put([[0, one]]);
    const points = text
      .split(/[,;]/)
      .map((part) => /^\s*([\d.]+)\s*h\s+(.+)$/i.exec(part))
      .map((m) => (m ? [Number(m[1]), readTemp(m[2]!, units)] : [NaN, NaN]));
    put(points as [number, number][]);
  };
  const here = places.find((p) => p.key === place)?.now_c ?? 21;
  const start: [number, number][] =
    own && own.length > 1
      ? own
      : [0, 0.25, 0.5, 0.75, 1].map((s) => [Math.round(Math.max(hours, 1) * s * 100) / 100, own?.[0]?.[1] ?? here]);
  const w = which === "bulk" ? rise.windows[0]! : rise.windows.at(-1)!;
  return (
    <div className="stage">
      {bake.settings[`${which}_end`] !== "rise" && (
        <p>
          {bake.settings[`${which}_end`] === "skip" ? "left out" : SAY.endsWhenItsTimeIsOver}
          {w.too_far.p50 ? SAY.itWouldBeTooRipeAfter(span(ms(w.too_far.p50) - ms(w.begins_at))) : ""}
        </p>
      )}
      <p>
        {bake.settings[`${which}_end`] === "rise" ? "ready" : "ripe"}{" "}
        <Why why={rise.why[w.stage]} label={`${w.stage} takes`}>
          {w.ready.p50 ? `${span(ms(w.ready.p50) - ms(w.begins_at))} after it begins` : "never"}
        </Why>
        {w.matters.length > 0 && <span className="quiet">; {w.matters.join("; ")}</span>}
      </p>
      <div className="row">
        <span className="name">{name}</span>
        <StageTime bake={bake} which={which} empty="at its rise" change={change} />
        <Pick
          label="on"
          value={place}
          options={places.map((p) => ({
            id: p.key,
            text: `${p.name}, ${temp(p.now_c, units)} ${tempUnit(units)}`,
          }))}
          onChange={(id) => change.mutate({ [`${which}_place`]: id, [`${which}_air`]: null } as BakeUpdate)}
        />
        <Field
          label={SAY.orAirOfItsOwn}
          value={said}
          placeholder="26, or 0 h 24, 6 h 18"
          unit={tempUnit(units)}
          width="17em"
          onCommit={typed}
        />
        <Button data-kind="bare" onPress={() => setDrawing(!drawing)}>
          {drawing ? SAY.putThePencilAway : "draw it"}
        </Button>
        {own && (
          <Button data-kind="bare" onPress={() => put(null)}>
            {SAY.asThePlaceIs}
          </Button>
        )}
      </div>
      <div ref={box}>
        {drawing && width > 0 && (
          <AirDraw
            width={width}
            points={start}
            degrees={(c) => `${temp(c, units, 1)} ${tempUnit(units)}`}
            onDrawn={put}
          />
        )}
      </div>
    </div>
  );
}
