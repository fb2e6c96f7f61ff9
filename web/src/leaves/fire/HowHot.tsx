import { useQuery } from "@tanstack/react-query";
import { type Bake, type Kitchen, Problem, type Schemas } from "../../api/client";
import { surfacesSeenQuery } from "../../api/instruments";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { temp, tempUnit, typedTemp } from "../../words/format";
import { SAY } from "../../words/say/devices";
import { heatBand, sourceWords } from "../../words/heat";
import { learnedWords } from "../../words/lessons";
import type { useBread } from "./useBread";

type Shown = ReturnType<typeof useBread>;
type Fire = NonNullable<Bake["fire"]>;

/** What it is baked on, how hot that is and by what that is known. */
export function HowHot({
  bread,
  fire,
  surfaces,
  kitchen,
}: {
  bread: Shown;
  fire: Fire;
  surfaces: Kitchen["surfaces"];
  kitchen: number;
}) {
  const units = useWords();
  const { change } = bread;
  const all = useQuery(surfacesSeenQuery(kitchen)).data;
  const seen = all?.find((x) => x.surface_id === bread.settings.surface_id);
  const own = bread.which === 0;
  const deg = (c: number) => `${temp(c, units)} ${tempUnit(units)}`;
  const hot = fire.surface?.temp_c ?? fire.surface_c.p50!;
  const said =
    fire.surface && learnedWords(fire.surface.learned, fire.surface.temp_c, fire.surface.believed.p50_c, units);
  const fault = change.error instanceof Problem ? (change.error.fields[0]?.detail ?? change.error.message) : null;
  return (
    <div className="col">
      <Pick
        label="Baked on"
        value={String(bread.settings.surface_id ?? "")}
        options={surfaces.map((s) => ({ id: String(s.id), text: s.name }))}
        onChange={(id) => bread.set({ surface_id: Number(id) })}
      />
      {own && (
        <Field
          label="how hot"
          big
          width="6em"
          value={temp(hot, units)}
          unit={tempUnit(units)}
          fault={fault}
          onCommit={(t) => change.mutate({ surface_c: typedTemp(t, units) })}
        />
      )}
      <p className="quiet">
        {own ? "by" : `${deg(hot)}, by`} {sourceWords(fire.surface_source)}: {heatBand(fire.surface_c, units)}, eight of
        ten
      </p>
      {seen ? (
        <Pyrometer seen={seen} right={fire.right_heat?.surface_c ?? null} />
      ) : (
        said && <p className="quiet">{said}</p>
      )}
    </div>
  );
}

/** What the pyrometer reads of the surface, and whether that is hot enough for this bread. */
function Pyrometer({ seen, right }: { seen: Schemas["SurfaceSeenRead"]; right: Fire["surface_c"] | null }) {
  const units = useWords();
  const band = right && heatBand(right, units);
  const cold = right?.p10 != null && seen.value_c < right.p10;
  const hot = right?.p90 != null && seen.value_c > right.p90;
  return (
    <p role="note" data-testid="pyrometer">
      {SAY.pyrometerReads(`${temp(seen.value_c, units)} ${tempUnit(units)}`)}
      {band && <b>{cold ? SAY.notHotEnough(band) : hot ? SAY.tooHot(band) : SAY.hotEnough}</b>}
    </p>
  );
}
