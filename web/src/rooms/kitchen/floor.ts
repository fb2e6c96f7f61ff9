import { COLUMNS } from "../../instruments/FloorPlan";
import { heatedBy, type SurfaceKind } from "../../words/surfaces";

/** Places of the floor plan, in two rows. */
export const PLACES = 2 * COLUMNS;
/** Where surfaces of a sort go by themselves: those on a hob from the left, ovens beside them, fires of their own at the right. */
const ORDER = {
  hob: [0, 1, 2, 6, 7, 8, 3, 4, 9, 10, 5, 11],
  oven: [3, 4, 9, 10, 2, 8, 5, 11, 1, 7, 0, 6],
  fire: [5, 11, 4, 10, 3, 9, 2, 8, 1, 7, 0, 6],
};

interface Laid {
  id: number;
  kind: SurfaceKind;
  lies?: number | null;
}

/** The place of each surface by its id: as it was set, else the first free one of its sort. Surfaces beyond the twelfth have none. */
export function placed(surfaces: readonly Laid[]): Map<number, number> {
  const found = new Map<number, number>();
  for (const s of surfaces) if (s.lies != null) found.set(s.id, s.lies);
  const taken = new Set(found.values());
  for (const s of surfaces) {
    const free = s.lies == null ? ORDER[heatedBy(s.kind)].find((p) => !taken.has(p)) : undefined;
    if (free !== undefined) {
      taken.add(free);
      found.set(s.id, free);
    }
  }
  return found;
}

/** Surfaces in the order of the plan: by rows from the left, then those that have no place on it. */
export function numbered<S extends Laid>(surfaces: readonly S[]): S[] {
  const at = placed(surfaces);
  return [...surfaces].sort((a, b) => (at.get(a.id) ?? PLACES) - (at.get(b.id) ?? PLACES));
}
