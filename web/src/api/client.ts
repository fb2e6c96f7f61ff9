import createClient, { type Middleware } from "openapi-fetch";
import { newKey } from "./key";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type Bake = Schemas["BakeRead"];
export type Bench = Schemas["BenchRead"];
export type Brief = Schemas["BakeSummary"];
export type Kitchen = Schemas["KitchenRead"];
export type Hearth = Schemas["HearthRead"];
export type Step = Schemas["StepRead"];
export type SayPart = Schemas["SayPart"];
export type Why = Schemas["WhyRead"];
export type WeighSheet = Schemas["WeighRead"];
export type BakeUpdate = Schemas["BakeUpdate"];
export type TapCreate = Schemas["TapCreate"];

const AGAIN_MS = 400;
const KEY = "Idempotency-Key";
const SIGN_IN = "/sign-in";

/** A write that got no answer is sent once more under its key: if it was done the first time, it is not done again. */
async function reach(request: Request): Promise<Response> {
  try {
    const answer = heard(await sent(request));
    if (answer.status === 401 && !request.url.endsWith("/api/session")) toSignIn();
    return answer;
  } catch (fault) {
    if (!request.signal.aborted) unheard();
    throw fault;
  }
}

async function sent(request: Request): Promise<Response> {
  if (!request.headers.has(KEY)) return globalThis.fetch(request);
  const again = request.clone();
  try {
    return await globalThis.fetch(request);
  } catch (fault) {
    if (request.signal.aborted) throw fault;
    await new Promise((done) => setTimeout(done, AGAIN_MS));
    return globalThis.fetch(again);
  }
}

/** This kitchen asks for its passcode; what was pressed waits in the queue meanwhile. */
function toSignIn(): void {
  if (location.pathname === SIGN_IN) return;
  location.replace(`${SIGN_IN}?next=${encodeURIComponent(location.pathname + location.search)}`);
}

let goneSince: number | null = null; // by the device's own clock: of this page alone
const reachListeners = new Set<() => void>();
/** Since when the server has not answered [ms of the device's clock]; null while it does. */
export const serverGone = (): number | null => goneSince;
export const onReach = (listener: () => void): (() => void) => {
  reachListeners.add(listener);
  return () => void reachListeners.delete(listener);
};
function reachIs(since: number | null): void {
  if ((goneSince === null) === (since === null)) return;
  goneSince = since;
  reachListeners.forEach((l) => l());
}
const heard = (answer: Response): Response => {
  reachIs(answer.status === 503 ? (goneSince ?? Date.now()) : null);
  return answer;
};
const unheard = (): void => reachIs(goneSince ?? Date.now());

const COOKIE = /(?:^|; )brass-clock-csrf=([^;]+)/;
/** The token that this page's writes carry where a passcode is asked for. */
const pageToken = (): string | undefined => COOKIE.exec(document.cookie)?.[1];

const keyed: Middleware = {
  onRequest({ request }) {
    if (request.method === "GET") return request;
    request.headers.set(KEY, newKey());
    const token = pageToken();
    if (token) request.headers.set("X-CSRF-Token", token);
    return request;
  },
};

export const client = createClient<paths>({ baseUrl: location.origin, fetch: reach });
client.use(keyed);

/** The parts of a request's path. */
export const path = <P extends object>(p: P) => ({ params: { path: p } });

/** A problem as the server tells it, or that it was out of reach (or not up yet). `current` is the bake as it is now, where an edit was made on an older one. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status: number,
    readonly fields: { pointer: string; detail: string }[] = [],
    readonly current: Bake | null = null,
  ) {
    super(message);
  }
  /** The server is out of reach for a while, not up yet, or asks for its passcode first: what was pressed waits. */
  get away(): boolean {
    return this.status === 0 || this.status === 503 || this.status === 401 || this.status === 429;
  }
}

export interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}
interface Told {
  detail?: string;
  errors?: { pointer: string; detail: string }[];
  current?: Bake;
}

/** The answer, or a Problem when the server was out of reach. */
async function reached<T>(asked: Promise<Answer<T>>): Promise<Answer<T>> {
  try {
    return await asked;
  } catch {
    throw new Problem("The server is out of reach.", 0);
  }
}

/** The data of an answer, or a Problem: told by the server, or made here when it was out of reach. */
export async function take<T>(asked: Promise<Answer<T>>): Promise<T> {
  const answer = await reached(asked);
  if (answer.response.ok && answer.data !== undefined) return answer.data;
  const told = answer.error as Told | undefined;
  throw new Problem(
    told?.detail ?? `The server answered ${answer.response.status}.`,
    answer.response.status,
    told?.errors ?? [],
    told?.current ?? null,
  );
}

/** What the server says of a field, or of a part of it; null where it says nothing. */
export function faultOf(error: Error | null, field: string): string | null {
  if (!(error instanceof Problem)) return null;
  return error.fields.find((f) => f.pointer.startsWith(`/${field}`))?.detail ?? null;
}

/** When an answer was asked for [ms of performance.now]: earlier than `asked`, where the page itself had it fetched beside the scripts. */
function askedAt(url: string, asked: number): number {
  const [ahead] = performance.getEntriesByName(url, "resource") as PerformanceResourceTiming[];
  return ahead?.initiatorType === "link" ? Math.min(asked, ahead.startTime) : asked;
}

const last = new Map<string, { tag: string; data: unknown }>();

/**
 * What is asked for again and again: the server says in a word when nothing is new, and then what it told last stands. `onNews` sees
 * what was told now, never an old answer: its clock is of long ago; and how long that took to come [ms].
 */
export async function takeNews<T>(
  name: string,
  ask: (headers: Record<string, string>) => Promise<Answer<T>>,
  onNews: (data: T, tookMs: number) => void,
): Promise<T> {
  const had = last.get(name);
  const asked = performance.now();
  const answer = await reached(ask(had ? { "If-None-Match": had.tag } : {}));
  if (answer.response.status === 304 && had) return had.data as T;
  const data = await takeNamed(name, answer);
  onNews(data, performance.now() - (had ? asked : askedAt(answer.response.url, asked)));
  return data;
}

/** The data of a write's answer, which is also the news of that name: it is not told once more. */
export const takeWritten = async <T>(name: string, asked: Promise<Answer<T>>): Promise<T> =>
  takeNamed(name, await reached(asked));

async function takeNamed<T>(name: string, answer: Answer<T>): Promise<T> {
  const data = await take(Promise.resolve(answer));
  const tag = answer.response.headers.get("ETag");
  if (tag) last.set(name, { tag, data });
  else last.delete(name);
  return data;
}
