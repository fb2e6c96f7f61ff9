import type { QueryClient } from "@tanstack/react-query";

/** What a change makes stale: the first words of the cache's keys, by what was changed. The one table of that. */
const STALE = {
  /** One bake; its own answer is in the cache already, and asked for once more as a tap may have landed meanwhile. */
  bake: ["bench", "logbook", "lessons"],
  /** A move or a step of one bake; the bake itself is asked for beside. */
  tap: ["bench"],
  /** A bake that came or went. */
  bakes: ["bench", "logbook", "day"],
  /** A setting, a surface, a leaven, the air: every plan hangs on it. */
  kitchen: ["kitchens", "bench", "bake"],
  plans: ["bench", "bake", "day", "way-out", "others"],
  starters: ["starters", "bench", "bake", "day", "lessons"],
  bags: ["bench", "kitchens"],
  ingredients: ["ingredients"],
  methods: ["methods"],
  drill: ["drill"],
  brought: ["bench", "ingredients"],
  package: ["bench", "kitchens", "logbook", "lessons", "starters", "ingredients", "methods", "packages", "day"],
} as const;

/** Ask again for what a change of that kind made stale, but for what its answer told. */
export const renew = (cache: QueryClient, what: keyof typeof STALE, but?: string): Promise<unknown> =>
  Promise.all(STALE[what].filter((key) => key !== but).map((key) => cache.invalidateQueries({ queryKey: [key] })));
