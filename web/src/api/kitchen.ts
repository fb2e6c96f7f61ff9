import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";
import { clocked } from "./clock";
import { renew } from "./stale";

export const kitchensQuery = () =>
  queryOptions({ queryKey: ["kitchens"], queryFn: async () => (await take(client.GET("/api/kitchens"))).kitchens });

export function useKitchenWrites(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = () => renew(cache, "kitchen");
  const at = path({ kitchen_id: kitchen });
  return {
    create: useMutation({
      mutationFn: (body: Schemas["KitchenCreate"]) => take(client.POST("/api/kitchens", { body })),
      onSuccess,
    }),
    change: useMutation({
      mutationFn: (body: Schemas["KitchenUpdate"]) => take(client.PATCH("/api/kitchens/{kitchen_id}", { ...at, body })),
      onSuccess,
    }),
    addSurface: useMutation({
      mutationFn: (body: Schemas["SurfaceUpdate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/surfaces", { ...at, body })),
      onSuccess,
    }),
    changeSurface: useMutation({
      mutationFn: ({ id, ...body }: Schemas["SurfaceUpdate"] & { id: number }) =>
        take(
          client.PUT("/api/kitchens/{kitchen_id}/surfaces/{surface_id}", {
            ...path({ kitchen_id: kitchen, surface_id: id }),
            body,
          }),
        ),
      onSuccess,
    }),
    restoreSurface: useMutation({
      mutationFn: (id: number) =>
        take(
          client.POST(
            "/api/kitchens/{kitchen_id}/surfaces/{surface_id}/restore",
            path({ kitchen_id: kitchen, surface_id: id }),
          ),
        ),
      onSuccess,
    }),
    removeSurface: useMutation({
      mutationFn: (id: number) =>
        take(
          client.DELETE(
            "/api/kitchens/{kitchen_id}/surfaces/{surface_id}",
            path({ kitchen_id: kitchen, surface_id: id }),
          ),
        ),
      onSuccess,
    }),
  };
}

export const airQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["air", kitchen],
    refetchInterval: 60_000,
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/air", path({ kitchen_id: kitchen }))),
  });

/** Readings of the air, and what is believed of leavens: both move every plan. */
export function useAirWrites(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = (found: Schemas["AirRead"]) => {
    cache.setQueryData(["air", kitchen], found);
    void renew(cache, "kitchen");
  };
  return {
    read: useMutation({
      mutationFn: (body: Schemas["AirReadingCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/air", { ...path({ kitchen_id: kitchen }), body })),
      onSuccess,
    }),
    undo: useMutation({
      mutationFn: (id: number) =>
        take(
          client.DELETE("/api/kitchens/{kitchen_id}/air/{reading_id}", path({ kitchen_id: kitchen, reading_id: id })),
        ),
      onSuccess,
    }),
  };
}

export const askUpkeep = (kitchen: number, starter: number, use_g: number, every_days: number) =>
  take(
    client.GET("/api/kitchens/{kitchen_id}/starters/{starter_id}/upkeep", {
      params: { path: { kitchen_id: kitchen, starter_id: starter }, query: { use_g, every_days } },
    }),
  );

export const startersQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["starters", kitchen],
    refetchInterval: 60_000,
    queryFn: async () =>
      (await take(client.GET("/api/kitchens/{kitchen_id}/starters", path({ kitchen_id: kitchen })))).starters,
  });

/** What is done with starters; each answer renews the list. */
export function useStarterWrites(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = () => renew(cache, "starters");
  const at = (id: number) => path({ kitchen_id: kitchen, starter_id: id });
  return {
    add: useMutation({
      mutationFn: (body: Schemas["StarterCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/starters", { ...path({ kitchen_id: kitchen }), body })),
      onSuccess,
    }),
    feed: useMutation({
      mutationFn: ({ id, ...body }: Schemas["FeedCreate"] & { id: number }) =>
        take(client.POST("/api/kitchens/{kitchen_id}/starters/{starter_id}/feeds", { ...at(id), body })),
      onSuccess,
    }),
    peaked: useMutation({
      mutationFn: ({ id, when }: { id: number; when: string | null }) =>
        take(client.PUT("/api/kitchens/{kitchen_id}/starters/{starter_id}/peak", { ...at(id), body: { at: when } })),
      onSuccess,
    }),
    undo: useMutation({
      mutationFn: (id: number) => take(client.DELETE("/api/kitchens/{kitchen_id}/starters/{starter_id}/last", at(id))),
      onSuccess,
    }),
    wish: useMutation({
      mutationFn: ({ id, ...body }: Schemas["FeedPlanUpdate"] & { id: number }) =>
        take(client.POST("/api/kitchens/{kitchen_id}/starters/{starter_id}/wish", { ...at(id), body })),
    }),
    putAway: useMutation({
      mutationFn: ({ id, back }: { id: number; back?: boolean }) =>
        back
          ? take(client.POST("/api/kitchens/{kitchen_id}/starters/{starter_id}/restore", at(id)))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/starters/{starter_id}", at(id))),
      onSuccess,
    }),
  };
}

export function useSetClock() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["ClockUpdate"]) =>
      clocked(async () => ({ clock: await take(client.POST("/api/clock", { body })) })),
    onSuccess: () => cache.invalidateQueries(),
  });
}
