import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { on, type Taken, useBakeWrite } from "./bake";
import { type Bake, client, path, type Schemas, take } from "./client";
import { renew } from "./stale";

export const methodsQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["methods", kitchen],
    staleTime: 60_000,
    queryFn: async () =>
      (await take(client.GET("/api/kitchens/{kitchen_id}/methods", path({ kitchen_id: kitchen })))).methods,
  });

export const ingredientsQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["ingredients", kitchen],
    staleTime: 60_000,
    queryFn: async () =>
      (await take(client.GET("/api/kitchens/{kitchen_id}/ingredients", path({ kitchen_id: kitchen })))).ingredients,
  });

export const weighQuery = (kitchen: number, body: Schemas["WeighRequest"]) =>
  queryOptions({
    queryKey: ["weigh", kitchen, body],
    queryFn: () => take(client.POST("/api/kitchens/{kitchen_id}/weigh", { ...path({ kitchen_id: kitchen }), body })),
    retry: false,
    staleTime: 60_000,
    enabled: body.lines.length > 0,
  });

/** Ask without changing anything: how a list reads, what a feel wants, what dose the time asks for. */
export const readList = (kitchen: number, text: string) =>
  take(client.POST("/api/kitchens/{kitchen_id}/entry", { ...path({ kitchen_id: kitchen }), body: { text } }));

export const askFeel = (bake: number, feel: Schemas["FeelUpdate"]["feel"]) =>
  take(client.POST("/api/bakes/{bake_id}/feel", { ...path({ bake_id: bake }), body: { feel } }));

export const askDose = (bake: number, body: Schemas["DoseUpdate"]) =>
  take(client.POST("/api/bakes/{bake_id}/dose", { ...path({ bake_id: bake }), body }));

export const useScale = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["ScaleUpdate"], edit) =>
    edit(given, (body) => client.POST("/api/bakes/{bake_id}/scale", { ...path({ bake_id: bake }), body })),
  );

export const useAdd = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["AddCreate"], edit) =>
    edit(given, (body) => client.POST("/api/bakes/{bake_id}/additions", { ...path({ bake_id: bake }), body })),
  );

export const useUnadd = (bake: number) =>
  useBakeWrite<Bake["settings"]["additions"]>(bake, (additions, edit) =>
    edit({ additions: additions.slice(0, -1) }, ({ revision }: Taken) =>
      client.DELETE("/api/bakes/{bake_id}/additions", on(bake, revision)),
    ),
  );

/** What a kitchen keeps of its own: ingredients, bags, methods, files brought in. */
export function usePantryWrites(kitchen: number) {
  const cache = useQueryClient();
  const at = path({ kitchen_id: kitchen });
  const anew = (what: Parameters<typeof renew>[1]) => () => renew(cache, what);
  return {
    ingredient: useMutation({
      mutationFn: (body: Schemas["OwnIngredientCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/ingredients", { ...at, body })),
      onSuccess: anew("ingredients"),
    }),
    dropIngredient: useMutation({
      mutationFn: ({ id, back }: { id: string; back?: boolean }) => {
        const p = path({ kitchen_id: kitchen, ingredient_id: id });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/ingredients/{ingredient_id}/restore", p))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/ingredients/{ingredient_id}", p));
      },
      onSuccess: anew("ingredients"),
    }),
    bag: useMutation({
      mutationFn: (body: Schemas["BagUpdate"]) => take(client.POST("/api/kitchens/{kitchen_id}/bags", { ...at, body })),
      onSuccess: anew("bags"),
    }),
    method: useMutation({
      mutationFn: (body: Schemas["MethodCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/methods", { ...at, body })),
      onSuccess: anew("methods"),
    }),
    dropMethod: useMutation({
      mutationFn: ({ id, back }: { id: string; back?: boolean }) => {
        const p = path({ kitchen_id: kitchen, method_id: id });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/methods/{method_id}/restore", p))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/methods/{method_id}", p));
      },
      onSuccess: anew("methods"),
    }),
    bringIn: useMutation({
      mutationFn: (body: Schemas["ImportRequest"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/import", { ...at, body })),
      onSuccess: anew("brought"),
    }),
  };
}
