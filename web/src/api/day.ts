import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";
import { syncClock } from "./clock";

export const hoursQuery = (kitchen: number) =>
  queryOptions({ queryKey: ["hours", kitchen], queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/hours", path({ kitchen_id: kitchen }))) });

export const dayQuery = (kitchen: number) =>
  queryOptions({ queryKey: ["day", kitchen], refetchInterval: 30_000, queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/day", path({ kitchen_id: kitchen }))) });

export const wayOutQuery = (bake: number, revision: string) =>
  queryOptions({ queryKey: ["way-out", bake, revision], staleTime: 60_000, retry: false, queryFn: () => take(client.GET("/api/bakes/{bake_id}/way-out", path({ bake_id: bake }))) });

/** What changes the day: a move held or let go, another table, a way out taken. Every plan is asked for again. */
export function useDayMoves() {
  const cache = useQueryClient();
  const onSuccess = (found: Schemas["BakeOut"]) => {
    syncClock(found.clock);
    cache.setQueryData(["bake", found.id], found);
    ["bench", "day", "bake", "way-out"].forEach((key) => void cache.invalidateQueries({ queryKey: [key] }));
  };
  return {
    pin: useMutation({
      mutationFn: ({ bake, ...body }: Schemas["PinIn"] & { bake: number }) => take(client.PUT("/api/bakes/{bake_id}/pin", { ...path({ bake_id: bake }), body })),
      onSuccess,
    }),
    serve: useMutation({
      mutationFn: ({ bake, at }: { bake: number; at: string }) => take(client.PATCH("/api/bakes/{bake_id}", { ...path({ bake_id: bake }), body: { serve: at } })),
      onSuccess,
    }),
    takeWayOut: useMutation({
      mutationFn: ({ bake, ...body }: Schemas["RelaxIn"] & { bake: number }) => take(client.POST("/api/bakes/{bake_id}/way-out", { ...path({ bake_id: bake }), body })),
      onSuccess,
    }),
  };
}

/** Busy hours and calendars of a kitchen. */
export function useHoursWrites(kitchen: number) {
  const cache = useQueryClient();
  const at = { kitchen_id: kitchen };
  const onSuccess = (found: Schemas["HoursOut"]) => {
    cache.setQueryData(["hours", kitchen], found);
    ["bench", "bake", "day", "way-out"].forEach((key) => void cache.invalidateQueries({ queryKey: [key] }));
  };
  return {
    add: useMutation({ mutationFn: (body: Schemas["BusyIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/hours", { ...path(at), body })), onSuccess }),
    change: useMutation({
      mutationFn: ({ id, ...body }: Schemas["BusyIn"] & { id: number }) => take(client.PUT("/api/kitchens/{kitchen_id}/hours/{busy_id}", { ...path({ ...at, busy_id: id }), body })),
      onSuccess,
    }),
    drop: useMutation({
      mutationFn: ({ id, back }: { id: number; back?: boolean }) => {
        const p = path({ ...at, busy_id: id });
        return back ? take(client.POST("/api/kitchens/{kitchen_id}/hours/{busy_id}/restore", p)) : take(client.DELETE("/api/kitchens/{kitchen_id}/hours/{busy_id}", p));
      },
      onSuccess,
    }),
    bring: useMutation({ mutationFn: (body: Schemas["CalendarIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/calendars", { ...path(at), body })), onSuccess }),
    dropCalendar: useMutation({
      mutationFn: ({ id, back }: { id: number; back?: boolean }) => {
        const p = path({ ...at, calendar_id: id });
        return back ? take(client.POST("/api/kitchens/{kitchen_id}/calendars/{calendar_id}/restore", p)) : take(client.DELETE("/api/kitchens/{kitchen_id}/calendars/{calendar_id}", p));
      },
      onSuccess,
    }),
  };
}
