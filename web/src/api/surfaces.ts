import type { Schemas } from "./client";

type SurfaceUpdate = Schemas["SurfaceUpdate"];

/** All of a surface that can be set: what a change leaves out would be set to its default. */
const whole = (s: Schemas["SurfaceRead"]): Required<SurfaceUpdate> => ({
  name: s.name,
  kind: s.kind,
  temp_c: s.temp_c,
  source: s.source ?? null,
  sd_k: s.sd_k ?? null,
  size: s.size ?? "home",
  power: s.power,
  spots: s.spots,
  heat: s.heat,
  greased: s.greased,
  nonstick: s.nonstick,
  fan: s.fan,
  lies: s.lies ?? null,
});

/** A surface as it is sent back whole, with what is changed of it. */
export const asGiven = (s: Schemas["SurfaceRead"], change: Partial<SurfaceUpdate>): SurfaceUpdate & { id: number } => ({
  id: s.id,
  ...whole(s),
  ...change,
});
