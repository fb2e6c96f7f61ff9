import { queryOptions } from "@tanstack/react-query";
import { on, type Taken, useBakeWrite } from "./bake";
import { client, path, type Schemas, take } from "./client";

export const askRescue = (bake: number, late_min: number | null) =>
  take(client.POST("/api/bakes/{bake_id}/rescue", { ...path({ bake_id: bake }), body: { late_min } }));

/** Put the dough elsewhere from now; null brings it back, or takes the last stay away. */
export const useSpell = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["RelocationCreate"] | null, edit) =>
    given === null
      ? edit({ spells: null }, ({ revision }: Taken) =>
          client.DELETE("/api/bakes/{bake_id}/spells", on(bake, revision)),
        )
      : edit(given, (body) => client.POST("/api/bakes/{bake_id}/spells", { ...path({ bake_id: bake }), body })),
  );

export const askWhatIf = (bake: number, body: Schemas["WhatIfRequest"], signal?: AbortSignal) =>
  take(client.POST("/api/bakes/{bake_id}/whatif", { ...path({ bake_id: bake }), body, ...(signal ? { signal } : {}) }));

export const useKeepWhatIf = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["WhatIfRequest"], edit) =>
    edit(given, (body) => client.POST("/api/bakes/{bake_id}/whatif/keep", { ...path({ bake_id: bake }), body })),
  );

/** Named ways to the same table; anew whenever the bake changes. */
export const routesQuery = (bake: number, revision: number) =>
  queryOptions({
    queryKey: ["routes", bake, revision],
    staleTime: 5 * 60_000,
    queryFn: async () => (await take(client.GET("/api/bakes/{bake_id}/routes", path({ bake_id: bake })))).routes,
  });

export const useRoute = (bake: number) =>
  useBakeWrite(bake, (key: Schemas["RouteUpdate"]["key"], edit) =>
    edit<Schemas["RouteUpdate"]>({ key }, (body) =>
      client.POST("/api/bakes/{bake_id}/route", { ...path({ bake_id: bake }), body }),
    ),
  );

export const useRead = (bake: number) =>
  useBakeWrite(bake, (body: Schemas["ReadingCreate"]) => take(client.POST("/api/readings", { body })));

export const useUnread = (bake: number) =>
  useBakeWrite(bake, (reading: number) =>
    take(client.DELETE("/api/readings/{reading_id}", path({ reading_id: reading }))),
  );
