import {
  infiniteQueryOptions,
  keepPreviousData,
  queryOptions,
  useMutation,
  useQueryClient,
} from "@tanstack/react-query";
import { client, path, type Schemas, take } from "./client";
import { renew } from "./stale";

export type Figures = Schemas["FiguresRead"];
export type Past = Schemas["PastRead"];
export type Brought = Schemas["BroughtRead"];

/** Which past bakes: as the server asks for them; what is left out is any. */
export interface Asked {
  words?: string;
  bread?: string;
  leaven?: string;
  surface_id?: number;
  became?: "all_well" | "fell_short" | "noted" | "not_judged";
  season?: "spring" | "summer" | "autumn" | "winter";
}

/** A page of the bakes that have ended; `before` is the last one of the page before it. */
export const logbookQuery = (kitchen: number, asked: Asked) =>
  infiniteQueryOptions({
    queryKey: ["logbook", kitchen, "list", asked],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      take(
        client.GET("/api/kitchens/{kitchen_id}/logbook", {
          params: {
            path: { kitchen_id: kitchen },
            query: { ...asked, count: 60, ...(pageParam ? { before: pageParam } : {}) },
          },
        }),
      ),
    getNextPageParam: (page) => (page.more ? page.bakes.at(-1)?.id : undefined),
    placeholderData: keepPreviousData,
  });

/** What the chosen bakes show together. */
export const figuresQuery = (kitchen: number, asked: Asked) =>
  queryOptions({
    queryKey: ["logbook", kitchen, "figures", asked],
    queryFn: () =>
      take(
        client.GET("/api/kitchens/{kitchen_id}/logbook/figures", {
          params: { path: { kitchen_id: kitchen }, query: asked },
        }),
      ),
    placeholderData: keepPreviousData,
  });

/** Two bakes side by side, and what each difference cost. */
export const twoQuery = (kitchen: number, a: number, b: number) =>
  queryOptions({
    queryKey: ["logbook", kitchen, "two", a, b],
    queryFn: () =>
      take(
        client.GET("/api/kitchens/{kitchen_id}/logbook/two", {
          params: { path: { kitchen_id: kitchen }, query: { a, b } },
        }),
      ),
  });

/** A bake out of the statistics, or in again. */
export function useLeaveOut() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: ({ bake, out }: { bake: number; out: boolean }) =>
      take(client.PATCH("/api/bakes/{bake_id}", { ...path({ bake_id: bake }), body: { left_out: out } })),
    onSuccess: () => renew(cache, "bake"),
  });
}

export const lastPackageQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["packages", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/packages", path({ kitchen_id: kitchen }))),
  });

/** A package into this kitchen, and back out of it. */
export function usePackages(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = () => renew(cache, "package");
  return {
    bring: useMutation({
      mutationFn: (data: string) =>
        take(client.POST("/api/kitchens/{kitchen_id}/packages", { ...path({ kitchen_id: kitchen }), body: { data } })),
      onSuccess,
    }),
    readings: useMutation({
      mutationFn: (text: string) =>
        take(client.POST("/api/kitchens/{kitchen_id}/readings", { ...path({ kitchen_id: kitchen }), body: { text } })),
      onSuccess,
    }),
    takeBack: useMutation({
      mutationFn: (brought: number) =>
        take(
          client.POST(
            "/api/kitchens/{kitchen_id}/packages/{brought_id}/undo",
            path({ kitchen_id: kitchen, brought_id: brought }),
          ),
        ),
      onSuccess,
    }),
  };
}

/** How far the package is that is coming in; asked while one is. */
export const progressQuery = (kitchen: number, comes: boolean) =>
  queryOptions({
    queryKey: ["package-progress", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/packages/progress", path({ kitchen_id: kitchen }))),
    enabled: comes,
    refetchInterval: PROGRESS_MS,
    staleTime: 0,
    gcTime: 0,
  });
const PROGRESS_MS = 400;

/** Stop the package that is coming in. */
export const stopPackage = (kitchen: number) =>
  take(client.POST("/api/kitchens/{kitchen_id}/packages/stop", path({ kitchen_id: kitchen })));
