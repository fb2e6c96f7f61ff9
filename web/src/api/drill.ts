import { queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";
import { renew } from "./stale";

export type DrillKind = Schemas["DrillCreate"]["kind"];
export type Try = Schemas["TryRead"];
export type Film = Schemas["FilmRead"];
export type HowKind = Schemas["KindRead"];
export type Miss = Schemas["MissRead"];
export type Answer = Schemas["AnswerCreate"];
export type Move = Schemas["HandMove"];
export type Order = Schemas["OrderRead"];

/** How a kitchen's learners do, and the calls of its real hearth. */
export const drillQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["drill", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/drill", path({ kitchen_id: kitchen }))),
  });

/** Open the next case of a kind, or the one that is open. */
export const openCase = (kitchen: number, body: Schemas["DrillCreate"]) =>
  take(client.POST("/api/kitchens/{kitchen_id}/drill", { ...path({ kitchen_id: kitchen }), body }));

/** The second side of a bread that was turned at that second. */
export const turnedAt = (kitchen: number, id: number, turn_s: number) =>
  take(
    client.GET("/api/kitchens/{kitchen_id}/drill/{try_id}/turned", {
      params: { path: { kitchen_id: kitchen, try_id: id }, query: { turn_s } },
    }),
  );

/** An order of moves, timed as far as it has come. */
export const orderQuery = (kitchen: number, id: number, moves: readonly Move[]) =>
  queryOptions({
    queryKey: ["drill-order", id, moves],
    queryFn: () =>
      take(
        client.POST("/api/kitchens/{kitchen_id}/drill/{try_id}/order", {
          ...path({ kitchen_id: kitchen, try_id: id }),
          body: { moves: [...moves] },
        }),
      ),
    staleTime: Infinity,
    placeholderData: (had: Order | undefined) => had,
  });

/** Answer a case; what it was comes back. */
export function useAnswer(kitchen: number, id: number, onDone: (answered: Try) => void) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: Answer) =>
      take(
        client.POST("/api/kitchens/{kitchen_id}/drill/{try_id}/answer", {
          ...path({ kitchen_id: kitchen, try_id: id }),
          body,
        }),
      ),
    onSuccess: (answered) => {
      onDone(answered);
      return renew(cache, "drill");
    },
  });
}
