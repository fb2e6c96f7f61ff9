import type { Schemas } from "./client";

type SurfaceUpdate = Schemas["SurfaceUpdate"];

/** A surface as it is sent back whole, with what is changed of it. */
export const asGiven = (s: Schemas["SurfaceRead"], change: Partial<SurfaceUpdate>): SurfaceUpdate & { id: number } => ({
  id: s.id,
  name: s.name,
  kind: s.kind,
  temp_c: s.temp_c,
  source: s.source,
  sd_k: s.sd_k,
  size: s.size,
  power: s.power,
  spots: s.spots,
  heat: s.heat,
  greased: s.greased,
  nonstick: s.nonstick,
  ...change,
});
