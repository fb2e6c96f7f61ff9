// @vitest-environment jsdom
import { cleanup, render, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { cached, served } from "../../testing/served";
import { WhatYouGet } from "./WhatYouGet";

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});
const SERVE = Date.UTC(2026, 10, 25, 19, 30);
const STEPS = [
  { step: "weigh", start: "2026-11-25T16:48:00Z" },
  { step: "ball", start: "2026-11-25T18:16:00Z" },
  { step: "line", start: "2026-11-25T19:15:00Z" },
];
interface DayBody {
  kitchen: { hourly_c: number[] };
  serve_at: string;
}

function show(steps: typeof STEPS, turn: number | null) {
  const asked = served(({ path }) =>
    path.endsWith("/day")
      ? { body: { steps } }
      : { body: { program: turn === null ? [] : [{ action: "turn", at_s: { p50: turn } }] } },
  );
  const { wrapper } = cached();
  render(<WhatYouGet roomC={17.4} kind="skillet" serve={SERVE} zone="UTC" />, { wrapper });
  return asked;
}

it("the first forecast is asked with the room and the hour that were answered, and told in the kitchen's zone", async () => {
  const asked = show(STEPS, 41.2);
  await waitFor(() => expect(screen.getByText("41 s")).toBeTruthy());
  for (const time of ["16:48", "18:16", "19:15"]) expect(document.body.textContent).toContain(time);
  const day = asked.find((a) => a.path.endsWith("/day"))!.body as DayBody;
  expect(day.kitchen.hourly_c).toEqual(Array(24).fill(17));
  expect(day.serve_at).toBe("2026-11-25T19:30:00.000Z");
  expect(asked.find((a) => a.path.endsWith("/puff"))!.body).toMatchObject({ surface: { kind: "skillet" } });
});

it("an hour that is too soon says so, and a bread that is not turned is told as such", async () => {
  show([], null);
  await waitFor(() => expect(document.body.textContent).toContain("too soon for a yeasted dough"));
  await waitFor(() => expect(screen.getByText("not turned")).toBeTruthy());
});
