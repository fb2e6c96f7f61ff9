import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Bake = Schemas["BakeOut"];
export type Bench = Schemas["BenchOut"];
export type Brief = Schemas["BakeBrief"];
export type Kitchen = Schemas["KitchenOut"];
export type Hearth = Schemas["HearthOut"];
export type Step = Schemas["StepOut"];
export type SayPart = Schemas["SayPart"];
export type Why = Schemas["WhyOut"];
export type WeighSheet = Schemas["WeighOut"];
export type BakeChange = Schemas["BakeChange"];
export type TapIn = Schemas["TapIn"];

export const client = createClient<paths>({ baseUrl: "/", fetch: (request) => globalThis.fetch(request) });

/** The parts of a request's path. */
export const path = <P extends object>(p: P) => ({ params: { path: p } });

/** A problem as the server tells it, or that it was out of reach. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly fields: { pointer: string; detail: string }[] = [],
  ) {
    super(message);
  }
  get away(): boolean {
    return this.status === 0;
  }
}

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** The data of an answer, or a Problem: told by the server, or made here when it was out of reach. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new Problem("The server is out of reach.", 0);
  }
  if (answer.response.ok && answer.data !== undefined) return answer.data;
  const told = answer.error as { detail?: string; errors?: { pointer: string; detail: string }[] } | undefined;
  throw new Problem(told?.detail ?? `The server answered ${answer.response.status}.`, answer.response.status, told?.errors ?? []);
}
