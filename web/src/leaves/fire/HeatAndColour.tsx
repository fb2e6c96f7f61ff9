import { useState } from "react";
import { type Bake, type Kitchen, Problem } from "../../api/client";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { span, temp, tempUnit, typedTemp } from "../../words/format";
import { COLOURS, heatBand, sourceWords } from "../../words/heat";
import { heatingWords } from "../../words/heating";
import { learnedWords } from "../../words/lessons";
import { CueSheet } from "./CueSheet";
import type { useBread } from "./useBread";

type Shown = ReturnType<typeof useBread>;
type Fire = NonNullable<Bake["fire"]>;

/** What it is baked on, how hot that is and by what that is known, and the colour that is wanted. */
export function HeatAndColour({ bread, fire, surfaces }: { bread: Shown; fire: Fire; surfaces: Kitchen["surfaces"] }) {
  const units = useWords();
  const { change } = bread;
  const [asking, setAsking] = useState(false);
  const own = bread.which === 0;
  const deg = (c: number) => `${temp(c, units)} ${tempUnit(units)}`;
  const hot = fire.surface?.temp_c ?? fire.surface_c.p50!;
  const said = fire.surface && learnedWords(fire.surface.learned, fire.surface.temp_c, units);
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
      {said && <p className="quiet">{said}</p>}
      {own && (
        <div>
          <Button data-kind="bare" onPress={() => setAsking(true)}>
            tell it by a sign…
          </Button>
        </div>
      )}
      <CueSheet
        isOpen={asking}
        onClose={() => setAsking(false)}
        onUse={(surface_c, surface_source, surface_sd_k) => change.mutate({ surface_c, surface_source, surface_sd_k })}
      />
      <div className="pair">
        <Pick
          label="How brown"
          value={bread.settings.doneness}
          options={COLOURS}
          onChange={(doneness) => bread.set({ doneness })}
        />
        <Pick
          label="the upper side"
          value={bread.settings.colour_top ?? "same"}
          options={[{ id: "same", text: "the same" }, ...COLOURS]}
          onChange={(c) => bread.set({ colour_top: c === "same" ? null : c })}
        />
      </div>
      <p className="quiet">
        After one bread it is at {deg(fire.surface_after_c)}, back{" "}
        {fire.program.recover_s < 1 ? "at once" : `in ${span(fire.program.recover_s * 1000)}`}
        {fire.recovered ? "" : " or longer"}.
      </p>
      {fire.program.heating && (
        <p className="quiet" role="note">
          {heatingWords(fire.program.heating, fire.surface?.power ?? "medium_high", units).join(" ")}
        </p>
      )}
    </div>
  );
}
