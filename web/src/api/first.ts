import { keepPreviousData, queryOptions } from "@tanstack/react-query";
import { client, path, take } from "./client";

const METHOD = "hatch-pita"; // the first bake is quick, and its yeast as the method has it
const YEAST_FRAC = 0.01;
const ROUND = { thickness_mm: 3.4, diameter_cm: 18, hydration_frac: 0.62, temp_c: 22 };

/** What a kitchen that is not there yet would get: when to weigh, ball and load, and after how many seconds a bread is turned. */
export interface FirstForecast {
  moves: Record<string, string>;
  turnS: number | null;
}
interface DayAnswer {
  steps: { step: string; start: string }[];
}
interface PuffAnswer {
  program: { action: string; at_s: { p50: number } }[];
}

/** A computation by contract: its body and its answer have the contract's shapes, which the API's document leaves open. */
async function compute<T>(kind: string, body: object): Promise<T> {
  const asked = { ...path({ kind }), body };
  return (await take(client.POST("/api/compute/{kind}", asked as never))) as T;
}

/** The day of a first bake in a room of `roomC` [C], served at `serve`; no moves where that is too soon. */
export const firstDayQuery = (roomC: number, serve: string) =>
  queryOptions({
    queryKey: ["first-day", roomC, serve],
    queryFn: async () => {
      const found = await compute<DayAnswer>("day", {
        serve_at: serve,
        kitchen: { hourly_c: Array.from({ length: 24 }, () => roomC) },
        bakes: [{ name: "first", method: METHOD }],
        allow: { dose_range: [YEAST_FRAC, YEAST_FRAC], cold_nights: 0 },
      });
      return Object.fromEntries(found.steps.map((s) => [s.step, s.start]));
    },
    placeholderData: keepPreviousData,
    retry: false,
  });

/** Seconds after which a thin round is turned on a surface; null where it is not. */
export const firstTurnQuery = (kind: string) =>
  queryOptions({
    queryKey: ["first-turn", kind],
    queryFn: async () => {
      const found = await compute<PuffAnswer>("puff", { bread: ROUND, surface: { kind } });
      return found.program.find((p) => p.action === "turn")?.at_s.p50 ?? null;
    },
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: Infinity,
  });
