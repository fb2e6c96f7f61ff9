import type { ReactNode } from "react";
import styled from "styled-components";
import { heatColour, onHeat } from "../theme/temperature";
import { heatedBy, type SurfaceKind } from "../words/surfaces";

/** Surfaces beside each other on the plan. */
export const COLUMNS = 6;
const Room = styled.div`
  position: relative;
  display: grid;
  gap: 6px 0;
  padding: 16px;
  background: repeating-linear-gradient(45deg, var(--ground) 0 5px, var(--hair-2) 5px 6.5px);
  border: 1.5px solid var(--ink);
  &::before {
    content: "";
    position: absolute;
    inset: 8px;
    background: var(--ground);
    border: 1.5px solid var(--ink);
  }
  .floor {
    position: relative;
    display: grid;
    grid-template-columns: repeat(${COLUMNS}, minmax(0, 1fr));
    grid-auto-rows: 64px;
    gap: 6px;
  }
  .furniture {
    position: relative;
    min-height: 56px;
    display: flex;
    gap: 8px;
  }
  .spot,
  .floor button.add {
    border: 1.5px dashed var(--hair);
    background: transparent;
  }
  .floor button.add {
    border-color: var(--brass);
    font: 600 16px/1.1 var(--text);
  }
  button {
    min-width: 0;
    border: 0;
    padding: 0;
    background: transparent;
    display: grid;
    place-items: center;
  }
  .floor button {
    background: var(--recess);
    border: 1.5px solid var(--ink);
  }
  button[aria-pressed="true"] {
    outline: 4px solid var(--brass);
    outline-offset: -1px;
  }
  .furniture button {
    flex: 0 1 auto;
    display: flex;
    align-items: center;
    gap: 8px;
    padding: 0 10px;
    border: 1.5px solid var(--ink);
    background: var(--paper);
    font: 500 16px/1.1 var(--text);
    text-align: left;
    min-width: 48px;
  }
  .furniture .bench {
    flex: 1 1 auto;
    background: var(--recess);
  }
`;

export interface FloorMark {
  id: number;
  number: number;
  name: string;
  kind: SurfaceKind;
  c: number;
  spots: number;
  place: number;
}

/** The kitchen from above: surfaces as they lie, in the colour of their believed heat, and what else a dough can stand on. */
export function FloorPlan({
  marks,
  chosen,
  degrees,
  onChoose,
  onAdd,
  children,
}: {
  marks: readonly FloorMark[];
  chosen: number | null;
  degrees: (c: number) => string;
  onChoose: (id: number) => void;
  onAdd: () => void;
  /** What stands along the wall: buttons. */
  children: ReactNode;
}) {
  // the second row is drawn once something lies in it, or the first is full
  const first = Array.from({ length: COLUMNS }, (_, place) => place);
  const second = marks.some((m) => m.place >= COLUMNS) || first.every((p) => marks.some((m) => m.place === p));
  const places = second ? [...first, ...first.map((p) => p + COLUMNS)] : first;
  const toAdd = places.find((p) => !marks.some((m) => m.place === p));
  return (
    <Room role="group" aria-label="Floor plan">
      <div className="floor">
        {places.map((place) => {
          const m = marks.find((x) => x.place === place);
          return m ? (
            <button
              key={place}
              type="button"
              aria-pressed={m.id === chosen}
              aria-label={`${m.number}: ${m.name}, ${degrees(m.c)}`}
              onClick={() => onChoose(m.id)}
            >
              <SurfaceFace mark={m} />
            </button>
          ) : place === toAdd ? (
            <button key={place} type="button" className="add" aria-label="Add a surface" onClick={onAdd}>
              add
            </button>
          ) : (
            <span key={place} className="spot" />
          );
        })}
      </div>
      <div className="furniture">{children}</div>
    </Room>
  );
}

/** A surface from above with its number: round on a hob, square in an oven, a mouth with a rim where it has a fire of its own. */
function SurfaceFace({ mark: m }: { mark: FloorMark }) {
  const fill = heatColour(m.c);
  const heated = heatedBy(m.kind);
  return (
    <svg viewBox="0 0 60 56" width="100%" height="56" stroke="var(--ink)" strokeWidth={2}>
      {heated === "hob" ? (
        <>
          <circle cx={30} cy={28} r={24} fill={fill} />
          <circle cx={30} cy={28} r={20} fill="none" stroke={onHeat(m.c)} strokeWidth={1} />
          {m.kind === "oil" && <path d="M14 20q4-4 8 0t8 0t8 0t8 0" fill="none" stroke={onHeat(m.c)} />}
        </>
      ) : heated === "fire" ? (
        <>
          <circle cx={30} cy={28} r={26} fill="var(--ground)" />
          <circle cx={30} cy={28} r={17} fill={fill} />
        </>
      ) : (
        <>
          <path d="M4 4h52v48H4z" fill="var(--paper)" />
          <path d="M10 9h40v38H10z" fill={fill} />
        </>
      )}
      <text x={30} y={36} textAnchor="middle" className="number" stroke="none" style={{ fill: onHeat(m.c) }}>
        {m.number}
      </text>
    </svg>
  );
}
