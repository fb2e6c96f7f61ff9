import { queryOptions } from "@tanstack/react-query";
import { client, type Hearth, path, type Schemas, take, takeNews, takeWritten } from "./client";
import { syncClock } from "./clock";
import type { Change } from "./hearth";
import { freshHearth } from "./queue";

export const hearthQuery = (bake: number) =>
  queryOptions({
    queryKey: ["hearth", bake],
    queryFn: () =>
      freshHearth(bake, () =>
        takeNews(
          `hearth ${bake}`,
          (headers) => client.GET("/api/bakes/{bake_id}/hearth", { ...path({ bake_id: bake }), headers }),
          (hearth, took) => syncClock(hearth.clock, took),
        ),
      ),
    refetchInterval: 900,
    refetchIntervalInBackground: true,
  });

export const askCue = (body: Schemas["CueRequest"]) => take(client.POST("/api/compute/cue", { body }));

/** The line at the heat, looked for longer than the bake's own answer. */
export const lineQuery = (bake: number, stamp: string) =>
  queryOptions({
    queryKey: ["line", bake, stamp],
    staleTime: 5 * 60_000,
    retry: false,
    queryFn: () => take(client.GET("/api/bakes/{bake_id}/line", path({ bake_id: bake }))),
  });

/** What the seconds a cook gives each side say of how hot the surface is. */
export const habitQuery = (bake: number, first: number, second: number | null, stamp: string) =>
  queryOptions({
    queryKey: ["habit", bake, first, second, stamp],
    staleTime: 5 * 60_000,
    retry: false,
    queryFn: () =>
      take(client.GET("/api/bakes/{bake_id}/habit", { params: { path: { bake_id: bake }, query: { first, second } } })),
  });

/** The bread with one thing changed at a time. */
export const fireIfsQuery = (bake: number, stamp: string) =>
  queryOptions({
    queryKey: ["fire-ifs", bake, stamp],
    staleTime: 5 * 60_000,
    retry: false,
    queryFn: async () => (await take(client.GET("/api/bakes/{bake_id}/fire-ifs", path({ bake_id: bake })))).ifs,
  });

/** Taps answer the hearth. Kept apart: the outbox sends them, so that none is lost. */
export const sendTap = (bake: number, body: Schemas["TapCreate"]): Promise<Hearth> =>
  takeWritten(`hearth ${bake}`, client.POST("/api/bakes/{bake_id}/taps", { ...path({ bake_id: bake }), body }));

/** Move a tap, or take it back. One that is no more has nothing to be changed: the hearth as it is. */
export async function changeTap(bake: number, { of, at }: Change, said_at: string): Promise<Hearth> {
  const hearth = await take(client.GET("/api/bakes/{bake_id}/hearth", path({ bake_id: bake })));
  const tap = hearth.taps.find((t) => t.key === of)?.id;
  if (tap === undefined) return hearth;
  const one = path({ bake_id: bake, tap_id: tap });
  return take(
    at === null
      ? client.DELETE("/api/bakes/{bake_id}/taps/{tap_id}", one)
      : client.PATCH("/api/bakes/{bake_id}/taps/{tap_id}", { ...one, body: { at, said_at } }),
  );
}
