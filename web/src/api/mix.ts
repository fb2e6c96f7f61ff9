import { on, type Taken, useBakeWrite } from "./bake";
import { client, path, type Schemas } from "./client";

/** Minutes to foam; null: no foam; undefined: forget the test. */
export const useBloom = (bake: number) =>
  useBakeWrite(bake, (minutes: number | null | undefined, edit) =>
    minutes === undefined
      ? edit({ bloom_foamed: null }, ({ revision }: Taken) =>
          client.DELETE("/api/bakes/{bake_id}/bloom", on(bake, revision)),
        )
      : edit<Schemas["BloomCreate"]>({ minutes }, (body) =>
          client.PUT("/api/bakes/{bake_id}/bloom", { ...path({ bake_id: bake }), body }),
        ),
  );
