import type { Schemas } from "./client";

type SurfaceUpdate = Schemas["SurfaceUpdate"];

/** A surface as it is sent back whole, with what is changed of it. */
export const asGiven = (s: Schemas["SurfaceRead"], change: Partial<SurfaceUpdate>): SurfaceUpdate & { id: number } => ({
  id: s.id,
  name: s.name,
  kind: s.kind as SurfaceUpdate["kind"],
  temp_c: s.temp_c,
  source: s.source as "typed",
  sd_k: s.sd_k,
  size: s.size as "home",
  power: s.power as "high",
  spots: s.spots,
  heat: s.heat as "gas",
  greased: s.greased as "dry",
  nonstick: s.nonstick,
  ...change,
});
