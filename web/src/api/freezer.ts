import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";

type Freezer = Schemas["FreezerRead"];

export const freezerQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["freezer", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/freezer", path({ kitchen_id: kitchen }))),
  });

/** What to take out for so many breads at a table. */
export const thawQuery = (kitchen: number, wanted: number, serve: string) =>
  queryOptions({
    queryKey: ["freezer", kitchen, "plan", wanted, serve],
    queryFn: () =>
      take(
        client.GET("/api/kitchens/{kitchen_id}/freezer/plan", {
          params: { path: { kitchen_id: kitchen }, query: { wanted, serve } },
        }),
      ),
    retry: false,
  });

/** Changes of the freezer; every one answers the whole of it. */
export function useFreezer(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = (found: Freezer) => {
    cache.setQueryData(["freezer", kitchen], found);
    void cache.invalidateQueries({ queryKey: ["freezer", kitchen, "plan"] });
    void cache.invalidateQueries({ queryKey: ["bench"] });
  };
  const at = (row: number) => path({ kitchen_id: kitchen, row_id: row });
  return {
    freeze: useMutation({
      mutationFn: ({ bake, ...body }: Schemas["FreezeCreate"] & { bake: number }) =>
        take(client.POST("/api/bakes/{bake_id}/freeze", { ...path({ bake_id: bake }), body })),
      onSuccess,
    }),
    plan: useMutation({
      mutationFn: (body: Schemas["ServingCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/freezer/servings", { ...path({ kitchen_id: kitchen }), body })),
      onSuccess,
    }),
    mark: useMutation({
      mutationFn: ({ serving, ...body }: Schemas["ServingUpdate"] & { serving: number }) =>
        take(
          client.PUT("/api/kitchens/{kitchen_id}/freezer/servings/{serving_id}", {
            ...path({ kitchen_id: kitchen, serving_id: serving }),
            body,
          }),
        ),
      onSuccess,
    }),
    take: useMutation({
      mutationFn: ({ row, count }: { row: number; count: number }) =>
        take(client.POST("/api/kitchens/{kitchen_id}/freezer/{row_id}/take", { ...at(row), body: { count } })),
      onSuccess,
    }),
    back: useMutation({
      mutationFn: (row: number) => take(client.DELETE("/api/kitchens/{kitchen_id}/freezer/{row_id}/take", at(row))),
      onSuccess,
    }),
    remove: useMutation({
      mutationFn: (row: number) => take(client.DELETE("/api/kitchens/{kitchen_id}/freezer/{row_id}", at(row))),
      onSuccess,
    }),
    restore: useMutation({
      mutationFn: (row: number) => take(client.POST("/api/kitchens/{kitchen_id}/freezer/{row_id}/restore", at(row))),
      onSuccess,
    }),
  };
}
