import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { useBakeWrite } from "./bake";
import { client, path, type Schemas, take } from "./client";

export const useJudge = (bake: number) =>
  useBakeWrite(bake, (body: Schemas["OutcomeUpdate"]) =>
    take(client.PUT("/api/bakes/{bake_id}/outcomes", { ...path({ bake_id: bake }), body })),
  );

/** How the bread of a bake keeps in a wrap; none chosen is the usual one of its kind. `stamp` is what it hangs on. */
export const holdQuery = (bake: number, wrap: Schemas["HoldRead"]["wrap"] | null, bread: number, stamp: string) =>
  queryOptions({
    queryKey: ["hold", bake, wrap, bread, stamp],
    queryFn: () =>
      take(
        client.GET("/api/bakes/{bake_id}/hold", {
          params: { path: { bake_id: bake }, query: { bread, ...(wrap ? { wrap } : {}) } },
        }),
      ),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
    retry: false,
  });

/** Why rounds of a bake fell short. */
export const causesQuery = (bake: number, stamp: string) =>
  queryOptions({
    queryKey: ["causes", bake, stamp],
    queryFn: () => take(client.GET("/api/bakes/{bake_id}/causes", path({ bake_id: bake }))),
    placeholderData: keepPreviousData,
  });
