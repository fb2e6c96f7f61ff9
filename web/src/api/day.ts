import { type QueryClient, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { type Answer, type Bake, client, path, type Schemas, take } from "./client";
import { clocked } from "./clock";
import { edited } from "./edits";
import { renew } from "./stale";

export const hoursQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["hours", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/hours", path({ kitchen_id: kitchen }))),
  });

export const dayQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["day", kitchen],
    refetchInterval: 30_000,
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/day", path({ kitchen_id: kitchen }))),
  });

export const wayOutQuery = (bake: number, revision: string) =>
  queryOptions({
    queryKey: ["way-out", bake, revision],
    staleTime: 60_000,
    retry: false,
    queryFn: () => take(client.GET("/api/bakes/{bake_id}/way-out", path({ bake_id: bake }))),
  });

export const othersQuery = (bake: number, stamp: string) =>
  queryOptions({
    queryKey: ["others", bake, stamp],
    staleTime: 60_000,
    retry: false,
    queryFn: async () => (await take(client.GET("/api/bakes/{bake_id}/others", path({ bake_id: bake })))).others,
  });

/** Everything that hangs on how the plans stand is asked for again. */
const plansAnew = (cache: QueryClient, but?: string) => void renew(cache, "plans", but);

/** A day for all live bakes: asked for by a press, made so by another, and any act taken back. */
export function useTogether(kitchen: number) {
  const cache = useQueryClient();
  const at = path({ kitchen_id: kitchen });
  const onSuccess = (found: Schemas["DayRead"]) => {
    cache.setQueryData(["day", kitchen], found);
    plansAnew(cache, "day");
  };
  return {
    look: useMutation({ mutationFn: () => take(client.GET("/api/kitchens/{kitchen_id}/day/together", at)) }),
    make: useMutation({
      mutationFn: (body: Schemas["PackRequest"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/day/together", { ...at, body })),
      onSuccess,
    }),
    undo: useMutation({
      mutationFn: (act: number) =>
        take(
          client.POST("/api/kitchens/{kitchen_id}/day/acts/{act_id}/undo", path({ kitchen_id: kitchen, act_id: act })),
        ),
      onSuccess,
    }),
  };
}

/** What changes the day: a move held or let go, another table, a way out taken. Every plan is asked for again. */
export function useDayMoves() {
  const cache = useQueryClient();
  const edit = <B extends object>(bake: number, body: B, send: (body: B) => Promise<Answer<Bake>>) =>
    clocked(() => edited(cache, bake, body as Record<string, unknown>, (b) => take(send(b as B))));
  const onSuccess = (found: Schemas["BakeRead"]) => {
    cache.setQueryData(["bake", found.id], found);
    plansAnew(cache);
  };
  return {
    pin: useMutation({
      mutationFn: ({ bake, ...given }: Schemas["PinUpdate"] & { bake: number }) =>
        edit(bake, given, (body) => client.PUT("/api/bakes/{bake_id}/pin", { ...path({ bake_id: bake }), body })),
      onSuccess,
    }),
    serve: useMutation({
      mutationFn: ({ bake, at }: { bake: number; at: string }) =>
        edit<Schemas["BakeUpdate"]>(bake, { serve: at }, (body) =>
          client.PATCH("/api/bakes/{bake_id}", { ...path({ bake_id: bake }), body }),
        ),
      onSuccess,
    }),
    takeOther: useMutation({
      mutationFn: ({ bake, ...given }: Schemas["AlternativeRequest"] & { bake: number }) =>
        edit(bake, given, (body) => client.POST("/api/bakes/{bake_id}/others", { ...path({ bake_id: bake }), body })),
      onSuccess,
    }),
    takeWayOut: useMutation({
      mutationFn: ({ bake, ...given }: Schemas["FitRequest"] & { bake: number }) =>
        edit(bake, given, (body) => client.POST("/api/bakes/{bake_id}/way-out", { ...path({ bake_id: bake }), body })),
      onSuccess,
    }),
  };
}

/** Busy hours and calendars of a kitchen. */
export function useHoursWrites(kitchen: number) {
  const cache = useQueryClient();
  const at = { kitchen_id: kitchen };
  const onSuccess = (found: Schemas["HoursRead"]) => {
    cache.setQueryData(["hours", kitchen], found);
    plansAnew(cache);
  };
  return {
    add: useMutation({
      mutationFn: (body: Schemas["BusyCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/hours", { ...path(at), body })),
      onSuccess,
    }),
    change: useMutation({
      mutationFn: ({ id, ...body }: Schemas["BusyCreate"] & { id: number }) =>
        take(client.PUT("/api/kitchens/{kitchen_id}/hours/{busy_id}", { ...path({ ...at, busy_id: id }), body })),
      onSuccess,
    }),
    drop: useMutation({
      mutationFn: ({ id, back }: { id: number; back?: boolean }) => {
        const p = path({ ...at, busy_id: id });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/hours/{busy_id}/restore", p))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/hours/{busy_id}", p));
      },
      onSuccess,
    }),
    bring: useMutation({
      mutationFn: (body: Schemas["CalendarCreate"]) =>
        take(client.POST("/api/kitchens/{kitchen_id}/calendars", { ...path(at), body })),
      onSuccess,
    }),
    dropCalendar: useMutation({
      mutationFn: ({ id, back }: { id: number; back?: boolean }) => {
        const p = path({ ...at, calendar_id: id });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/calendars/{calendar_id}/restore", p))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/calendars/{calendar_id}", p));
      },
      onSuccess,
    }),
  };
}
