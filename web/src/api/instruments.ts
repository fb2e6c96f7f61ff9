import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";

export type Channel = Schemas["ChannelRead"];
const OFTEN_MS = 5000;
const LIST_MS = 10_000;
const SCALE_MS = 400;

export const instrumentsQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["instruments", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/instruments", path({ kitchen_id: kitchen }))),
    refetchInterval: LIST_MS,
  });

/** Say what a channel measures: every plan may hang on it. */
export function useChannelUse(kitchen: number) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: ({ id, ...body }: Schemas["ChannelUpdate"] & { id: number }) =>
      take(client.PATCH("/api/instruments/channels/{channel_id}", { ...path({ channel_id: id }), body })),
    onSuccess: (found) => {
      cache.setQueryData(["instruments", kitchen], found);
      for (const key of ["bench", "bake", "air"]) void cache.invalidateQueries({ queryKey: [key] });
    },
  });
}

/** What the scale shows, asked for twice a second while somebody weighs; `wants` is what its display is to show next [g]. */
export const scaleQuery = (kitchen: number, wants: number | null) =>
  queryOptions({
    queryKey: ["scale", kitchen],
    queryFn: () =>
      take(
        client.GET("/api/kitchens/{kitchen_id}/scale", {
          params: { path: { kitchen_id: kitchen }, query: wants === null ? {} : { wants_g: wants } },
        }),
      ),
    refetchInterval: SCALE_MS,
    retry: false,
    gcTime: 0,
  });

/** What a pyrometer reads of the kitchen's surfaces. */
export const surfacesSeenQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["surfaces-seen", kitchen],
    queryFn: async () =>
      (await take(client.GET("/api/kitchens/{kitchen_id}/surfaces-seen", path({ kitchen_id: kitchen })))).surfaces,
    refetchInterval: OFTEN_MS,
    retry: false,
  });

/** A command that sends one reading with that token. */
export const exampleOf = (token: string): string =>
  `curl -H 'Authorization: Bearer ${token}' --json '{"channel":"room","value":21.4,"unit":"C"}' ${location.origin}/api/instruments/readings`;
