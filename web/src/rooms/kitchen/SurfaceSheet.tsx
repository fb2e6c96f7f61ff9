import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import type { useKitchenWrites } from "../../api/kitchen";
import { asGiven } from "../../api/surfaces";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";
import { useWords } from "../../frame/units";
import { COLUMNS } from "../../instruments/FloorPlan";
import { heatColour } from "../../theme/temperature";
import { temp, tempUnit, typedTemp } from "../../words/format";
import { SOURCES, sourceWords } from "../../words/heat";
import { learnedWords } from "../../words/lessons";
import { heatedBy, spotsOf, SURFACES } from "../../words/surfaces";
import { PLACES, placed } from "./floor";
import { SAY } from "../../words/say/kitchen";

type Surface = Schemas["SurfaceRead"];
type SurfaceUpdate = Schemas["SurfaceUpdate"];
type Writes = ReturnType<typeof useKitchenWrites>;
const SIZES = [
  { id: "home", text: "for a home" },
  { id: "canteen", text: "for a canteen" },
] as const;
const POWERS = [
  { id: "low", text: "low" },
  { id: "medium_low", text: "medium low" },
  { id: "medium", text: "medium" },
  { id: "medium_high", text: "medium high" },
  { id: "high", text: "high" },
] as const;
const HEATS = [
  { id: "usual", text: "its usual heat" },
  { id: "gas", text: "gas" },
  { id: "ceramic", text: "ceramic hob" },
  { id: "charcoal", text: "charcoal" },
  { id: "electric", text: "electric" },
] as const;
const AIR = [
  { id: "still", text: "still" },
  { id: "fan", text: SAY.drivenByItsFan },
] as const;
const GREASED = [
  { id: "dry", text: "dry" },
  { id: "film", text: SAY.aFilmOfFat },
  { id: "pool", text: SAY.aPoolOfFat },
] as const;
const Lies = styled.div`
  display: grid;
  grid-template-columns: repeat(${COLUMNS}, 48px);
  gap: 4px;
  button {
    height: 48px;
    padding: 0;
    border: 1.5px solid var(--ink);
    background: transparent;
    font: 700 18px/1 var(--name);
  }
  button[aria-pressed="true"] {
    background: var(--ink);
    color: var(--ground);
  }
  button:disabled {
    border-color: var(--hair-2);
    color: var(--ink-2);
    cursor: default;
  }
`;

/** One surface: how hot it is believed and why, its few settings, and where it lies. */
export function SurfaceSheet({
  surface: s,
  all,
  writes,
  onRemove,
}: {
  surface: Surface;
  /** Every surface, in the order of the plan. */
  all: readonly Surface[];
  writes: Writes;
  onRemove: () => void;
}) {
  const units = useWords();
  const put = (part: Partial<SurfaceUpdate>) => writes.changeSurface.mutate(asGiven(s, part));
  const mine = writes.changeSurface.variables?.id === s.id;
  const fault = mine ? (writes.changeSurface.error?.message ?? null) : null;
  const said = learnedWords(s.learned, s.temp_c, s.believed.p50_c, units);
  return (
    <div role="group" aria-label={s.name} className="sheet">
      <Believed surface={s} />
      {said && <p className="quiet">{said}</p>}
      <div className="row">
        <Field
          label="works at"
          value={temp(s.temp_c, units)}
          unit={tempUnit(units)}
          width="6.500em"
          onCommit={(t) => put({ temp_c: typedTemp(t, units), source: "typed", sd_k: null })}
          fault={fault}
        />
        <Pick
          label="Known by"
          value={s.source as "typed"}
          options={SOURCES}
          onChange={(source) =>
            put(source === "usual" ? { temp_c: null, source: null, sd_k: null } : { source, sd_k: null })
          }
        />
        {heatedBy(s.kind) === "hob" && (
          <Pick
            label="Set to"
            value={s.power as "high"}
            options={POWERS}
            onChange={(power) =>
              put(s.source === "usual" ? { power, temp_c: null, source: null, sd_k: null } : { power })
            }
          />
        )}
        {heatedBy(s.kind) === "oven" && (
          <Pick
            label="Air"
            value={s.fan ? "fan" : "still"}
            options={AIR}
            onChange={(air) => put({ fan: air === "fan" })}
          />
        )}
        <Pick
          label="Breads"
          value={String(s.spots)}
          options={spotsOf(s.kind).map((o) => ({ ...o, text: `${o.text} at once` }))}
          onChange={(n) => put({ spots: Number(n) })}
        />
      </div>
      <details>
        <summary>{SAY.whatItIsAndWhereIt}</summary>
        <div>
          <div className="row">
            <Pick
              label="Heated by"
              value={(s.heat ?? "usual") as (typeof HEATS)[number]["id"]}
              options={HEATS}
              onChange={(heat) => put({ heat: heat === "usual" ? null : heat })}
            />
            <Pick label="Fat" value={s.greased as "dry"} options={GREASED} onChange={(greased) => put({ greased })} />
            {s.kind === "clay_wall" && (
              <Pick label="Size" value={s.size as "home"} options={SIZES} onChange={(size) => put({ size })} />
            )}
            <Field label="Called" value={s.name} width="10em" onCommit={(name) => put({ name })} />
            <Pick
              label="Kind"
              value={s.kind}
              options={SURFACES}
              onChange={(kind) =>
                put({
                  kind,
                  fan: s.fan && heatedBy(kind) === "oven",
                  temp_c: null,
                  source: null,
                  sd_k: null,
                  spots: Math.min(s.spots, spotsOf(kind).length),
                })
              }
            />
          </div>
          <WhereItLies surface={s} all={all} onChoose={(lies) => put({ lies })} />
        </div>
      </details>
      {all.length > 1 && (
        <Button data-kind="bare" onPress={onRemove}>
          take it away
        </Button>
      )}
    </div>
  );
}

/** The believed heat when lit as a figure with its band, and how what is known narrowed it. */
function Believed({ surface: s }: { surface: Surface }) {
  const units = useWords();
  const low = Math.min(s.told.p10_c, s.believed.p10_c) - 10;
  const high = Math.max(s.told.p90_c, s.believed.p90_c) + 10;
  const x = scaleLinear().domain([low, high]).range([0, 100]);
  const learned = Math.abs(s.told.p90_c - s.told.p10_c - (s.believed.p90_c - s.believed.p10_c)) > 0.5;
  const bars = [
    { name: sourceWords(s.source ?? "usual"), band: s.told },
    ...(learned ? [{ name: "its breads", band: s.believed }] : []),
  ];
  return (
    <>
      <p>
        <span className="quiet">believed, when lit: </span>
        <b className="believed">{temp(s.believed.p50_c, units)}</b> {tempUnit(units)} <br />
        <span className="quiet">
          8 in 10 from {temp(s.believed.p10_c, units)} to {temp(s.believed.p90_c, units)}
        </span>
      </p>
      <svg width="100%" height={bars.length * 26} aria-hidden="true">
        {bars.map(({ name, band }, i) => (
          <g key={name} transform={`translate(0,${i * 26})`}>
            <text x={0} y={17} style={{ fontSize: 15 }}>
              {name}
            </text>
            <svg x="38%" width="62%" height={26} overflow="visible">
              <rect
                x={`${x(band.p10_c)}%`}
                width={`${x(band.p90_c) - x(band.p10_c)}%`}
                y={4}
                height={16}
                fill={i === bars.length - 1 ? heatColour(band.p50_c) : "var(--recess)"}
                stroke="var(--ink)"
                strokeWidth={1.5}
              />
              <line
                x1={`${x(band.p50_c)}%`}
                x2={`${x(band.p50_c)}%`}
                y1={4}
                y2={20}
                stroke={i === bars.length - 1 ? "var(--paper)" : "var(--ink)"}
                strokeWidth={2.5}
              />
            </svg>
          </g>
        ))}
      </svg>
    </>
  );
}

/** The twelve places of the floor plan; a free one is pressed to lay the surface there. */
function WhereItLies({
  surface,
  all,
  onChoose,
}: {
  surface: Surface;
  all: readonly Surface[];
  onChoose: (place: number) => void;
}) {
  const at = placed(all);
  const mine = at.get(surface.id);
  return (
    <section>
      <h3>Where it lies</h3>
      <Lies role="group" aria-label="Where it lies">
        {Array.from({ length: PLACES }, (_, place) => {
          const there = all.findIndex((s) => at.get(s.id) === place);
          const fixed = there >= 0 && all[there]!.lies != null && place !== mine;
          return (
            <button
              key={place}
              type="button"
              aria-pressed={place === mine}
              disabled={fixed}
              aria-label={`row ${Math.floor(place / COLUMNS) + 1}, place ${(place % COLUMNS) + 1}${there >= 0 ? `: ${all[there]!.name}` : ""}`}
              onClick={() => onChoose(place)}
            >
              {there >= 0 ? there + 1 : ""}
            </button>
          );
        })}
      </Lies>
    </section>
  );
}
