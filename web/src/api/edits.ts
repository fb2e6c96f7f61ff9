import type { QueryClient } from "@tanstack/react-query";
import { diff3Merge } from "node-diff3";
import { type Bake, Problem } from "./client";

type Values = Record<string, unknown>;
/** A value as text, the same whatever order its members came in. */
const text = (value: unknown): string =>
  JSON.stringify(value ?? null, (_, v: unknown) =>
    v && typeof v === "object" && !Array.isArray(v)
      ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
      : v,
  );
const same = (a: unknown, b: unknown): boolean => text(a) === text(b);
/** What of a bake an edit's field changes, where it has another name there. */
const SHOWN_AS: Record<string, (bake: Bake) => unknown> = {
  serve: (b) => b.serve_at,
  serve_until: (b) => b.serve_until,
  name: (b) => b.name,
  revision: () => null,
  surface_c: (b) => b.fire?.surface?.temp_c,
  surface_source: (b) => b.fire?.surface?.source,
  surface_sd_k: (b) => b.fire?.surface?.sd_k,
};
const shown = (bake: Bake, field: string): unknown =>
  (SHOWN_AS[field] ?? ((b: Bake) => (b.settings as unknown as Values)[field]))(bake);

export interface Merged {
  /** What can be sent on the newer bake. */
  body: Values;
  /** Fields that both have changed otherwise: the cook is asked. */
  clash: string[];
}

/** Two lists that grew from one: every line that either changed, or null where both changed the same one. Lines added at one place are all kept. */
export function mergedLines(
  mine: readonly unknown[],
  base: readonly unknown[],
  theirs: readonly unknown[],
): unknown[] | null {
  const found: string[] = [];
  for (const part of diff3Merge(mine.map(text), base.map(text), theirs.map(text))) {
    if (part.ok) found.push(...part.ok);
    else if (part.conflict && part.conflict.o.length === 0)
      found.push(...part.conflict.b, ...part.conflict.a.filter((x) => !part.conflict!.b.includes(x)));
    else return null;
  }
  return found.map((x) => JSON.parse(x) as unknown);
}

/** Ticks that two have set and taken away since `base`: every one of either. */
const ticked = (mine: readonly number[], base: readonly number[], theirs: readonly number[]): number[] => [
  ...theirs.filter((n) => mine.includes(n) || !base.includes(n)),
  ...mine.filter((n) => !theirs.includes(n) && !base.includes(n)),
];

/** An edit that was made on `base`, for a bake that is `theirs` by now. */
export function merged(body: Values, base: Bake, theirs: Bake): Merged {
  const out: Merged = { body: {}, clash: [] };
  for (const [field, mine] of Object.entries(body)) {
    const [was, is] = [shown(base, field), shown(theirs, field)];
    if (same(was, is) || same(mine, is) || field === "revision") out.body[field] = mine;
    else if (Array.isArray(mine) && Array.isArray(was) && Array.isArray(is) && field === "lines") {
      const whole = mergedLines(mine, was, is);
      if (whole) out.body[field] = whole;
      else out.clash.push(field);
    } else if (field === "weighed") out.body[field] = ticked(mine as number[], was as number[], is as number[]);
    else out.clash.push(field);
  }
  return out;
}

/** A question to the cook: the same was changed here and elsewhere. */
export interface Clash {
  bake: Bake;
  fields: string[];
  mine: Values;
  theirs: Values;
  /** True puts the cook's own in its place; false leaves what is there. */
  answer: (mine: boolean) => void;
}
let open: Clash | null = null;
const listeners = new Set<() => void>();
export const clash = (): Clash | null => open;
export const onClash = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Ask the cook; resolves with the answer. One question at a time. */
async function ask(bake: Bake, fields: string[], body: Values): Promise<boolean> {
  const mine = await new Promise<boolean>((answer) => {
    open = { bake, fields, mine: body, theirs: Object.fromEntries(fields.map((f) => [f, shown(bake, f)])), answer };
    listeners.forEach((l) => l());
  });
  open = null;
  listeners.forEach((l) => l());
  return mine;
}

const TRIES = 5;

/**
 * Send an edit on the revision it was made on. Where the bake was changed meanwhile, what does not overlap is merged and sent again; about
 * the rest the cook is asked. `base` is the bake as it was when the edit was begun: left out, as the screens have it.
 */
export async function edited(
  cache: QueryClient,
  bake: number,
  body: Values,
  send: (body: Values) => Promise<Bake>,
  base = cache.getQueryData<Bake>(["bake", bake]),
): Promise<Bake> {
  let [now, todo] = [base, body];
  for (let n = 0; ; n += 1) {
    try {
      return await send(now ? { ...todo, revision: now.revision } : todo);
    } catch (fault) {
      if (!(fault instanceof Problem) || !fault.current || !now || n >= TRIES) throw fault;
      const found = merged(todo, now, fault.current);
      const forced = found.clash.length > 0 && (await ask(fault.current, found.clash, todo));
      if (found.clash.length > 0 && !forced) {
        if (Object.keys(found.body).length === 0) return fault.current;
        todo = found.body;
      } else todo = forced ? { ...todo, ...found.body } : found.body;
      now = fault.current;
    }
  }
}
