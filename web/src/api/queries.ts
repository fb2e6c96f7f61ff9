import { infiniteQueryOptions, queryOptions, useMutation, useQueryClient } from "@tanstack/react-query";
import { type Answer, type Bake, type BakeChange, client, type Hearth, path, Problem, type Schemas, take, takeNews, takeWritten } from "./client";
import { clocked, syncClock } from "./clock";
import { edited } from "./edits";
import { freshHearth } from "./queue";

export const kitchensQuery = () =>
  queryOptions({ queryKey: ["kitchens"], queryFn: async () => (await take(client.GET("/api/kitchens"))).kitchens });

export const benchQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["bench", kitchen],
    queryFn: () =>
      takeNews(
        `bench ${kitchen}`,
        (headers) => client.GET("/api/kitchens/{kitchen_id}/bench", { ...path({ kitchen_id: kitchen }), headers }),
        (bench, took) => syncClock(bench.clock, took),
      ),
    refetchInterval: 15_000,
  });

/** A page of the bakes that have ended; `before` is the last one of the page before it. */
export const logbookQuery = (kitchen: number) =>
  infiniteQueryOptions({
    queryKey: ["logbook", kitchen],
    initialPageParam: undefined as number | undefined,
    queryFn: ({ pageParam }) =>
      take(client.GET("/api/kitchens/{kitchen_id}/logbook", { params: { path: { kitchen_id: kitchen }, query: { count: 40, ...(pageParam ? { before: pageParam } : {}) } } })),
    getNextPageParam: (page) => (page.more ? page.bakes.at(-1)?.id : undefined),
  });

export const bakeQuery = (bake: number) =>
  queryOptions({
    queryKey: ["bake", bake],
    queryFn: async ({ client: cache, queryKey }) => {
      const asked = Date.now();
      const found = await clocked(() => take(client.GET("/api/bakes/{bake_id}", path({ bake_id: bake }))));
      const had = cache.getQueryState<Bake>(queryKey);
      // a write that was answered meanwhile has told a newer one: what is typed next is typed on that
      return had?.data && had.dataUpdatedAt >= asked && had.data.revision > found.revision ? had.data : found;
    },
    refetchInterval: 15_000,
  });

export const hearthQuery = (bake: number) =>
  queryOptions({
    queryKey: ["hearth", bake],
    queryFn: () =>
      freshHearth(bake, () =>
        takeNews(
          `hearth ${bake}`,
          (headers) => client.GET("/api/bakes/{bake_id}/hearth", { ...path({ bake_id: bake }), headers }),
          (hearth, took) => syncClock(hearth.clock, took),
        ),
      ),
    refetchInterval: 900,
    refetchIntervalInBackground: true,
  });

export const methodsQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["methods", kitchen],
    staleTime: 60_000,
    queryFn: async () => (await take(client.GET("/api/kitchens/{kitchen_id}/methods", path({ kitchen_id: kitchen })))).methods,
  });

export const ingredientsQuery = (kitchen: number) =>
  queryOptions({
    queryKey: ["ingredients", kitchen],
    staleTime: 60_000,
    queryFn: async () => (await take(client.GET("/api/kitchens/{kitchen_id}/ingredients", path({ kitchen_id: kitchen })))).ingredients,
  });

export const weighQuery = (kitchen: number, body: Schemas["WeighReq"]) =>
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
export const askFeel = (bake: number, feel: Schemas["FeelIn"]["feel"]) =>
  take(client.POST("/api/bakes/{bake_id}/feel", { ...path({ bake_id: bake }), body: { feel } }));
export const askDose = (bake: number, body: Schemas["DoseIn"]) =>
  take(client.POST("/api/bakes/{bake_id}/dose", { ...path({ bake_id: bake }), body }));

/** What is taken away, as an edit: it is compared with what others did meanwhile, and only its revision is sent. */
type Taken = { revision?: number } & Record<string, unknown>;
/** The path of a bake, and the revision that a deletion was made on. */
const on = (bake: number, revision: number | undefined) => ({ params: { path: { bake_id: bake }, query: revision === undefined ? {} : { revision } } });

/** Sends an edit on the revision it was made on, merged where the bake was changed meanwhile. */
type Edit = <B extends object>(body: B, send: (body: B) => Promise<Answer<Bake>>, base?: Bake) => Promise<Bake>;

/**
 * Everything that changes a bake answers the whole bake, which is put where the screens read it. Writes to one bake
 * go out one after another, in the order they were pressed. It is asked for once more, as a tap may have landed while the answer was on its way.
 */
function useBakeWrite<V>(bake: number, write: (given: V, edit: Edit) => Promise<Bake>) {
  const cache = useQueryClient();
  const edit: Edit = (body, send, base) => edited(cache, bake, body as Record<string, unknown>, (b) => take(send(b as typeof body)), base);
  return useMutation({
    mutationFn: (given: V) => clocked(() => write(given, edit)),
    scope: { id: `bake-${bake}` },
    onSuccess: (found) => {
      cache.setQueryData(["bake", bake], found);
      void cache.invalidateQueries({ queryKey: ["bake", bake] });
      void cache.invalidateQueries({ queryKey: ["bench"] });
      void cache.invalidateQueries({ queryKey: ["hearth", bake] });
      void cache.invalidateQueries({ queryKey: ["logbook"] });
    },
  });
}

export const useBakeChange = (bake: number) =>
  useBakeWrite(bake, ({ base, ...change }: BakeChange & { base?: Bake | undefined }, edit) =>
    edit<BakeChange>(change, (body) => client.PATCH("/api/bakes/{bake_id}", { ...path({ bake_id: bake }), body }), base),
  );

export const useStatus = (bake: number) =>
  useBakeWrite(bake, (status: "live" | "abandoned" | "kept", edit) =>
    edit<Schemas["StatusIn"]>({ status }, (body) => client.PUT("/api/bakes/{bake_id}/status", { ...path({ bake_id: bake }), body })),
  );

export const useJudge = (bake: number) =>
  useBakeWrite(bake, (body: Schemas["OutcomeIn"]) =>
    take(client.PUT("/api/bakes/{bake_id}/outcomes", { ...path({ bake_id: bake }), body })),
  );

export const useScale = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["ScaleIn"], edit) => edit(given, (body) => client.POST("/api/bakes/{bake_id}/scale", { ...path({ bake_id: bake }), body })));

export const useAdd = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["AddIn"], edit) =>
    edit(given, (body) => client.POST("/api/bakes/{bake_id}/additions", { ...path({ bake_id: bake }), body })),
  );

export const useUnadd = (bake: number) =>
  useBakeWrite<Bake["settings"]["additions"]>(bake, (additions, edit) => edit({ additions: additions.slice(0, -1) }, ({ revision }: Taken) => client.DELETE("/api/bakes/{bake_id}/additions", on(bake, revision))));

/** Minutes to foam; null: no foam; undefined: forget the test. */
export const useBloom = (bake: number) =>
  useBakeWrite(bake, (minutes: number | null | undefined, edit) =>
    minutes === undefined
      ? edit({ bloom_foamed: null }, ({ revision }: Taken) => client.DELETE("/api/bakes/{bake_id}/bloom", on(bake, revision)))
      : edit<Schemas["BloomIn"]>({ minutes }, (body) => client.PUT("/api/bakes/{bake_id}/bloom", { ...path({ bake_id: bake }), body })),
  );

export const askRescue = (bake: number, late_min: number | null) =>
  take(client.POST("/api/bakes/{bake_id}/rescue", { ...path({ bake_id: bake }), body: { late_min } }));

/** Put the dough elsewhere from now; null brings it back, or takes the last stay away. */
export const useSpell = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["SpellIn"] | null, edit) =>
    given === null
      ? edit({ spells: null }, ({ revision }: Taken) => client.DELETE("/api/bakes/{bake_id}/spells", on(bake, revision)))
      : edit(given, (body) => client.POST("/api/bakes/{bake_id}/spells", { ...path({ bake_id: bake }), body })),
  );

export const askWhatIf = (bake: number, body: Schemas["WhatIfIn"], signal?: AbortSignal) =>
  take(client.POST("/api/bakes/{bake_id}/whatif", { ...path({ bake_id: bake }), body, ...(signal ? { signal } : {}) }));

export const useKeepWhatIf = (bake: number) =>
  useBakeWrite(bake, (given: Schemas["WhatIfIn"], edit) => edit(given, (body) => client.POST("/api/bakes/{bake_id}/whatif/keep", { ...path({ bake_id: bake }), body })));

/** Named ways to the same table; anew whenever the bake changes. */
export const routesQuery = (bake: number, revision: number) =>
  queryOptions({
    queryKey: ["routes", bake, revision],
    staleTime: 5 * 60_000,
    queryFn: async () => (await take(client.GET("/api/bakes/{bake_id}/routes", path({ bake_id: bake })))).routes,
  });

export const askCue = (body: Schemas["CueReq"]) => take(client.POST("/api/compute/cue", { body }));

/** The line at the heat, looked for longer than the bake's own answer. */
export const lineQuery = (bake: number, stamp: string) =>
  queryOptions({ queryKey: ["line", bake, stamp], staleTime: 5 * 60_000, retry: false, queryFn: () => take(client.GET("/api/bakes/{bake_id}/line", path({ bake_id: bake }))) });

/** What the seconds a cook gives each side say of how hot the surface is. */
export const habitQuery = (bake: number, first: number, second: number | null, stamp: string) =>
  queryOptions({
    queryKey: ["habit", bake, first, second, stamp], staleTime: 5 * 60_000, retry: false,
    queryFn: () => take(client.GET("/api/bakes/{bake_id}/habit", { params: { path: { bake_id: bake }, query: { first, second } } })),
  });

/** The bread with one thing changed at a time. */
export const fireIfsQuery = (bake: number, stamp: string) =>
  queryOptions({ queryKey: ["fire-ifs", bake, stamp], staleTime: 5 * 60_000, retry: false, queryFn: async () => (await take(client.GET("/api/bakes/{bake_id}/fire-ifs", path({ bake_id: bake })))).ifs });

export const useRoute = (bake: number) =>
  useBakeWrite(bake, (key: Schemas["RouteIn"]["key"], edit) =>
    edit<Schemas["RouteIn"]>({ key }, (body) => client.POST("/api/bakes/{bake_id}/route", { ...path({ bake_id: bake }), body })),
  );

export const useRead = (bake: number) =>
  useBakeWrite(bake, (body: Schemas["ReadingIn"]) => take(client.POST("/api/readings", { body })));

export const useUnread = (bake: number) =>
  useBakeWrite(bake, (reading: number) => take(client.DELETE("/api/readings/{reading_id}", path({ reading_id: reading }))));

export function useStartBake() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["BakeIn"]) => take(client.POST("/api/bakes", { body })),
    onSuccess: (found) => {
      cache.setQueryData(["bake", found.id], found);
      void cache.invalidateQueries({ queryKey: ["bench"] });
    },
  });
}

export function useDeleteBake(bake: number) {
  const cache = useQueryClient();
  const done = () => Promise.all(["bench", "logbook", "day"].map((key) => cache.invalidateQueries({ queryKey: [key] })));
  const remove = useMutation({
    scope: { id: `bake-${bake}` }, // after what was pressed before it: it is made on the revision that came of that
    mutationFn: async () => {
      try {
        return await take(client.DELETE("/api/bakes/{bake_id}", on(bake, cache.getQueryData<Bake>(["bake", bake])?.revision)));
      } catch (fault) {
        if (fault instanceof Problem && fault.current) cache.setQueryData(["bake", bake], fault.current);
        throw fault;
      }
    },
    onSuccess: done,
  });
  const restore = useMutation({
    mutationFn: () => take(client.POST("/api/bakes/{bake_id}/restore", path({ bake_id: bake }))),
    onSuccess: done,
  });
  return { remove, restore };
}

export function useKitchenWrites(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = () =>
    Promise.all([cache.invalidateQueries({ queryKey: ["kitchens"] }), cache.invalidateQueries({ queryKey: ["bench"] }), cache.invalidateQueries({ queryKey: ["bake"] })]);
  const at = path({ kitchen_id: kitchen });
  return {
    create: useMutation({ mutationFn: (body: Schemas["KitchenIn"]) => take(client.POST("/api/kitchens", { body })), onSuccess }),
    change: useMutation({
      mutationFn: (body: Schemas["KitchenChange"]) => take(client.PATCH("/api/kitchens/{kitchen_id}", { ...at, body })),
      onSuccess,
    }),
    addSurface: useMutation({
      mutationFn: (body: Schemas["SurfaceIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/surfaces", { ...at, body })),
      onSuccess,
    }),
    changeSurface: useMutation({
      mutationFn: ({ id, ...body }: Schemas["SurfaceIn"] & { id: number }) =>
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
        take(client.POST("/api/kitchens/{kitchen_id}/surfaces/{surface_id}/restore", path({ kitchen_id: kitchen, surface_id: id }))),
      onSuccess,
    }),
    removeSurface: useMutation({
      mutationFn: (id: number) =>
        take(client.DELETE("/api/kitchens/{kitchen_id}/surfaces/{surface_id}", path({ kitchen_id: kitchen, surface_id: id }))),
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
  const renew = (found: Schemas["AirOut"]) => {
    cache.setQueryData(["air", kitchen], found);
    void cache.invalidateQueries({ queryKey: ["bake"] });
    void cache.invalidateQueries({ queryKey: ["bench"] });
  };
  return {
    read: useMutation({
      mutationFn: (body: Schemas["AirIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/air", { ...path({ kitchen_id: kitchen }), body })),
      onSuccess: renew,
    }),
    undo: useMutation({
      mutationFn: (id: number) => take(client.DELETE("/api/kitchens/{kitchen_id}/air/{reading_id}", path({ kitchen_id: kitchen, reading_id: id }))),
      onSuccess: renew,
    }),
  };
}

export function useLeavenWrites(kitchen: number) {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: ({ leaven, back }: { leaven: string; back?: boolean }) => {
      const at = path({ kitchen_id: kitchen, leaven });
      return back
        ? take(client.POST("/api/kitchens/{kitchen_id}/leavens/{leaven}/back", at))
        : take(client.DELETE("/api/kitchens/{kitchen_id}/leavens/{leaven}", at));
    },
    onSuccess: () => Promise.all([cache.invalidateQueries({ queryKey: ["bench"] }), cache.invalidateQueries({ queryKey: ["bake"] })]),
  });
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
    queryFn: async () => (await take(client.GET("/api/kitchens/{kitchen_id}/starters", path({ kitchen_id: kitchen })))).starters,
  });

/** What is done with starters; each answer renews the list. */
export function useStarterWrites(kitchen: number) {
  const cache = useQueryClient();
  const onSuccess = () => ["starters", "bench", "bake", "day"].forEach((key) => void cache.invalidateQueries({ queryKey: [key] }));
  const at = (id: number) => path({ kitchen_id: kitchen, starter_id: id });
  return {
    add: useMutation({
      mutationFn: (body: Schemas["StarterIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/starters", { ...path({ kitchen_id: kitchen }), body })),
      onSuccess,
    }),
    feed: useMutation({
      mutationFn: ({ id, ...body }: Schemas["FeedIn"] & { id: number }) => take(client.POST("/api/kitchens/{kitchen_id}/starters/{starter_id}/feeds", { ...at(id), body })),
      onSuccess,
    }),
    peaked: useMutation({
      mutationFn: ({ id, when }: { id: number; when: string | null }) => take(client.PUT("/api/kitchens/{kitchen_id}/starters/{starter_id}/peak", { ...at(id), body: { at: when } })),
      onSuccess,
    }),
    undo: useMutation({ mutationFn: (id: number) => take(client.DELETE("/api/kitchens/{kitchen_id}/starters/{starter_id}/last", at(id))), onSuccess }),
    wish: useMutation({
      mutationFn: ({ id, ...body }: Schemas["FeedWishIn"] & { id: number }) => take(client.POST("/api/kitchens/{kitchen_id}/starters/{starter_id}/wish", { ...at(id), body })),
    }),
    putAway: useMutation({
      mutationFn: ({ id, back }: { id: number; back?: boolean }) =>
        back ? take(client.POST("/api/kitchens/{kitchen_id}/starters/{starter_id}/restore", at(id))) : take(client.DELETE("/api/kitchens/{kitchen_id}/starters/{starter_id}", at(id))),
      onSuccess,
    }),
  };
}

/** What a kitchen keeps of its own: ingredients, bags, methods, files brought in. */
export function usePantryWrites(kitchen: number) {
  const cache = useQueryClient();
  const at = path({ kitchen_id: kitchen });
  const renew = (...keys: string[]) => () => void keys.forEach((key) => void cache.invalidateQueries({ queryKey: [key] }));
  return {
    ingredient: useMutation({
      mutationFn: (body: Schemas["OwnIngredientIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/ingredients", { ...at, body })),
      onSuccess: renew("ingredients"),
    }),
    dropIngredient: useMutation({
      mutationFn: ({ id, back }: { id: string; back?: boolean }) => {
        const p = path({ kitchen_id: kitchen, ingredient_id: id });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/ingredients/{ingredient_id}/restore", p))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/ingredients/{ingredient_id}", p));
      },
      onSuccess: renew("ingredients"),
    }),
    bag: useMutation({
      mutationFn: (body: Schemas["BagIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/bags", { ...at, body })),
      onSuccess: renew("bench", "kitchens"),
    }),
    method: useMutation({
      mutationFn: (body: Schemas["MethodIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/methods", { ...at, body })),
      onSuccess: renew("methods"),
    }),
    dropMethod: useMutation({
      mutationFn: ({ id, back }: { id: string; back?: boolean }) => {
        const p = path({ kitchen_id: kitchen, method_id: id });
        return back
          ? take(client.POST("/api/kitchens/{kitchen_id}/methods/{method_id}/restore", p))
          : take(client.DELETE("/api/kitchens/{kitchen_id}/methods/{method_id}", p));
      },
      onSuccess: renew("methods"),
    }),
    bringIn: useMutation({
      mutationFn: (body: Schemas["ImportIn"]) => take(client.POST("/api/kitchens/{kitchen_id}/import", { ...at, body })),
      onSuccess: renew("bench", "ingredients"),
    }),
  };
}

export function useSetClock() {
  const cache = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["ClockIn"]) => clocked(async () => ({ clock: await take(client.POST("/api/clock", { body })) })),
    onSuccess: () => cache.invalidateQueries(),
  });
}

/** Taps answer the hearth. Kept apart: the outbox sends them, so that none is lost. */
export const sendTap = (bake: number, body: Schemas["TapIn"]): Promise<Hearth> =>
  takeWritten(`hearth ${bake}`, client.POST("/api/bakes/{bake_id}/taps", { ...path({ bake_id: bake }), body }));

export const moveTap = (bake: number, tap: number, at: string): Promise<Hearth> =>
  take(client.PATCH("/api/bakes/{bake_id}/taps/{tap_id}", { ...path({ bake_id: bake, tap_id: tap }), body: { at } }));

export const undoTap = (bake: number, tap: number): Promise<Hearth> =>
  take(client.DELETE("/api/bakes/{bake_id}/taps/{tap_id}", path({ bake_id: bake, tap_id: tap })));
