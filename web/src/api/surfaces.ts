import type { Schemas } from "./client";

type SurfaceIn = Schemas["SurfaceIn"];

/** A surface as it is sent back whole, with what is changed of it. */
export const asGiven = (s: Schemas["SurfaceOut"], change: Partial<SurfaceIn>): SurfaceIn & { id: number } => ({
  id: s.id,
  name: s.name,
  kind: s.kind as SurfaceIn["kind"],
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
