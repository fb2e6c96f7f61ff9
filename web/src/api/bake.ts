import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { type Answer, type Bake, type BakeUpdate, client, path, Problem, type Schemas, take, takeNews } from "./client";
import { clocked, syncClock } from "./clock";
import { edited } from "./edits";
import { renew } from "./stale";

export const benchQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["bench", kitchen],
    queryFn: () =>
      takeNews(
        `bench ${kitchen}`,
        (headers) => client.GET("/api/kitchens/{kitchen_id}/bench", { ...path({ kitchen_id: kitchen }), headers }),
        (bench, took) => syncClock(bench.clock, took),
      ),
    refetchInterval: 15_000,
  });

export const bakeQuery = (bake: number) =>
  queryOptions({
    queryKey: ["bake", bake],
    queryFn: async ({ client: cache, queryKey }) => {
      const asked = Date.now();
      const found = await clocked(() => take(client.GET("/api/bakes/{bake_id}", path({ bake_id: bake }))));
      const had = cache.getQueryState<Bake>(queryKey);
      // a write that was answered meanwhile has told a newer one: what is typed next is typed on that
      return had?.data && had.dataUpdatedAt >= asked && had.data.revision > found.revision ? had.data : found;
    },
    refetchInterval: 15_000,
  });

/** What is taken away, as an edit: it is compared with what others did meanwhile, and only its revision is sent. */
export type Taken = { revision?: number } & Record<string, unknown>;

/** The path of a bake, and the revision that a deletion was made on. */
export const on = (bake: number, revision: number | undefined) => ({
  params: { path: { bake_id: bake }, query: revision === undefined ? {} : { revision } },
});

/** Sends an edit on the revision it was made on, merged where the bake was changed meanwhile. */
type Edit = <B extends object>(body: B, send: (body: B) => Promise<Answer<Bake>>, base?: Bake) => Promise<Bake>;

/**
 * Everything that changes a bake answers the whole bake, which is put where the screens read it. Writes to one bake
 * go out one after another, in the order they were pressed. It is asked for once more, as a tap may have landed while the answer was on its way.
 */
export function useBakeWrite<V>(bake: number, write: (given: V, edit: Edit) => Promise<Bake>) {
  const cache = useQueryClient();
  const edit: Edit = (body, send, base) =>
    edited(cache, bake, body as Record<string, unknown>, (b) => take(send(b as typeof body)), base);
  return useMutation({
    mutationFn: (given: V) => clocked(() => write(given, edit)),
    scope: { id: `bake-${bake}` },
    onSuccess: (found) => {
      cache.setQueryData(["bake", bake], found);
      void cache.invalidateQueries({ queryKey: ["bake", bake] });
      void cache.invalidateQueries({ queryKey: ["hearth", bake] });
      void renew(cache, "bake");
    },
  });
}

export const useBakeChange = (bake: number) =>
  useBakeWrite(bake, ({ base, ...change }: BakeUpdate & { base?: Bake | undefined }, edit) =>
    edit<BakeUpdate>(
      change,
      (body) => client.PATCH("/api/bakes/{bake_id}", { ...path({ bake_id: bake }), body }),
      base,
    ),
  );

export const useStatus = (bake: number) =>
  useBakeWrite(bake, (status: "live" | "abandoned" | "kept", edit) =>
    edit<Schemas["StatusRequest"]>({ status }, (body) =>
      client.PUT("/api/bakes/{bake_id}/status", { ...path({ bake_id: bake }), body }),
    ),
  );

/** What became of breads: round by round, or in a sentence. */
export const sendTray = (bake: number, body: Schemas["TrayUpdate"]): Promise<Bake> =>
  take(client.PUT("/api/bakes/{bake_id}/tray", { ...path({ bake_id: bake }), body }));

/** The Bench has asked whether a bake that is over is to be kept: told once. */
export const tellAsked = (bake: number) => take(client.POST("/api/bakes/{bake_id}/asked", path({ bake_id: bake })));

export function useStartBake() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["BakeCreate"]) => take(client.POST("/api/bakes", { body })),
    onSuccess: (found) => {
      cache.setQueryData(["bake", found.id], found);
      void renew(cache, "bakes");
    },
  });
}

export function useDeleteBake(bake: number) {
  const cache = useQueryClient();
  const done = () => renew(cache, "bakes");
  const remove = useMutation({
    scope: { id: `bake-${bake}` }, // after what was pressed before it: it is made on the revision that came of that
    mutationFn: async () => {
      try {
        return await take(
          client.DELETE("/api/bakes/{bake_id}", on(bake, cache.getQueryData<Bake>(["bake", bake])?.revision)),
        );
      } catch (fault) {
        if (fault instanceof Problem && fault.current) cache.setQueryData(["bake", bake], fault.current);
        throw fault;
      }
    },
    onSuccess: done,
  });
  const restore = useMutation({
    mutationFn: () => take(client.POST("/api/bakes/{bake_id}/restore", path({ bake_id: bake }))),
    onSuccess: done,
  });
  return { remove, restore };
}
