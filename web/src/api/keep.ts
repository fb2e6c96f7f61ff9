import { keepPreviousData, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { sendTray, useBakeWrite } from "./bake";
import { client, path, type Schemas, take } from "./client";
import { useJudged } from "./outbox";
import type { Judgement } from "./queue";
import { renew } from "./stale";

export type { Judgement } from "./queue";
export type Outcome = Schemas["OutcomeRead"];

const UNSAID: Omit<Outcome, "round_no"> = {
  pocket: null,
  colour: null,
  colour_top: null,
  tender: null,
  faults: [],
  note: "",
};
/** The outcomes with what is said now on top; null takes a word back. */
export function withJudged(outcomes: readonly Outcome[], said: readonly Judgement[]): Outcome[] {
  const all = new Map(outcomes.map((o) => [o.round_no, o]));
  for (const { round_no, ...words } of said) {
    const given = Object.entries(words).filter(([, v]) => v !== undefined);
    const plain = given.map(([k, v]) => [k, v ?? UNSAID[k as keyof typeof UNSAID]]);
    all.set(round_no, { ...UNSAID, ...all.get(round_no), ...Object.fromEntries(plain), round_no });
  }
  return [...all.values()].sort((a, b) => a.round_no - b.round_no);
}

/** What is to be said of rounds so that they are as they were: for an undo. */
export const asBefore = (outcomes: readonly Outcome[], rounds: readonly number[]): Judgement[] =>
  rounds.map((round_no) => ({ ...UNSAID, ...outcomes.find((o) => o.round_no === round_no), round_no }));

/**
 * What became of breads: round by round or in a sentence, all or none. What is said round by round waits in the queue of taps and
 * shows at once, on top of what the server has: the answer to an earlier press never takes a later one off the screen.
 */
export function useJudge(bake: number, stored: readonly Outcome[]) {
  const write = useBakeWrite(bake, (body: Schemas["TrayUpdate"]) => sendTray(bake, body));
  const { waiting, judge } = useJudged(bake);
  return { write, judge, outcomes: withJudged(stored, waiting) };
}

/** What the cook knows of the making. */
export const useNoted = (bake: number) =>
  useBakeWrite(bake, (body: Schemas["NotedUpdate"]) =>
    take(client.PUT("/api/bakes/{bake_id}/noted", { ...path({ bake_id: bake }), body })),
  );

/** Pictures of a bake: kept, removed, brought back. */
export const usePhotos = (bake: number) => ({
  add: useBakeWrite(bake, (body: Schemas["PhotoCreate"]) =>
    take(client.POST("/api/bakes/{bake_id}/photos", { ...path({ bake_id: bake }), body })),
  ),
  remove: useBakeWrite(bake, ({ id, back }: { id: number; back?: boolean }) => {
    const at = path({ photo_id: id });
    return take(back ? client.POST("/api/photos/{photo_id}/restore", at) : client.DELETE("/api/photos/{photo_id}", at));
  }),
});

/** The same bread for another table; answers the new bake. */
export function useAgain(bake: number) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["AgainCreate"]) =>
      take(client.POST("/api/bakes/{bake_id}/again", { ...path({ bake_id: bake }), body })),
    onSuccess: (found) => {
      cache.setQueryData(["bake", found.id], found);
      void renew(cache, "bakes");
    },
  });
}

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

/** What made a bake late or early. */
export const timesQuery = (bake: number, stamp: string) =>
  queryOptions({
    queryKey: ["times", bake, stamp],
    queryFn: () => take(client.GET("/api/bakes/{bake_id}/times", path({ bake_id: bake }))),
    placeholderData: keepPreviousData,
  });

/** What a kitchen believes, each belief with its lessons. */
export const lessonsQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["lessons", kitchen],
    queryFn: () => take(client.GET("/api/kitchens/{kitchen_id}/lessons", path({ kitchen_id: kitchen }))),
  });

/** A lesson refused or restored, a whole belief forgotten or recalled: every plan hangs on that. */
export function useLessons(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = (found: Schemas["LessonsRead"]) => {
    cache.setQueryData(["lessons", kitchen], found);
    void renew(cache, "kitchen", "lessons");
  };
  return {
    change: useMutation({
      mutationFn: ({ id, ...body }: Schemas["LessonUpdate"] & { id: number }) =>
        take(
          client.PUT("/api/kitchens/{kitchen_id}/lessons/{lesson_id}", {
            ...path({ kitchen_id: kitchen, lesson_id: id }),
            body,
          }),
        ),
      onSuccess,
    }),
    forget: useMutation({
      mutationFn: ({ key, back }: { key: string; back?: boolean }) => {
        const at = path({ kitchen_id: kitchen, key });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/beliefs/{key}/back", at))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/beliefs/{key}", at));
      },
      onSuccess,
    }),
  };
}
