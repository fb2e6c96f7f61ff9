import { useBakeWrite } from "./bake";
import { client, path, type Schemas, take } from "./client";

export const useJudge = (bake: number) =>
  useBakeWrite(bake, (body: Schemas["OutcomeUpdate"]) =>
    take(client.PUT("/api/bakes/{bake_id}/outcomes", { ...path({ bake_id: bake }), body })),
  );
