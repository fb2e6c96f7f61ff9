import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { vi } from "vitest";

export interface Asked {
  method: string;
  path: string;
  body: unknown;
}
type Told = { status?: number; body: unknown } | Error;

/** Stands in for the server: `answer` tells what each request gets; all that was asked is kept in order. */
export function served(answer: (asked: Asked) => Told | Promise<Told>): Asked[] {
  const all: Asked[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.text();
    const asked = { method: request.method, path: new URL(request.url).pathname, body: text ? JSON.parse(text) : null };
    all.push(asked);
    const told = await answer(asked);
    if (told instanceof Error) throw told;
    return new Response(JSON.stringify(told.body), {
      status: told.status ?? 200,
      headers: { "Content-Type": "application/json" },
    });
  });
  return all;
}

/** A cache for one test, and the wrapper that hands it to hooks. */
export function cached() {
  const cache = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={cache}>{children}</QueryClientProvider>
  );
  return { cache, wrapper };
}

/** The clock of an answer. */
export const CLOCK = { now: "2026-11-25T01:00:00Z", rate: 1, simulated: false, set_at: null };

/** A promise that the test settles itself. */
export function held<T>(): { promise: Promise<T>; give: (value: T) => void } {
  let give: (value: T) => void = () => undefined;
  const promise = new Promise<T>((done) => (give = done));
  return { promise, give };
}
