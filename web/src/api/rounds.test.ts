/** Names of rounds and spots on a line of several breads. */
import { expect, it } from "vitest";
import type { Hearth } from "./client";
import { breadOf, liesOn, placeName, programOf, roundMark, roundName, surfaceOf } from "./rounds";

const bread = (name: string, rounds: number[], spots: [number, number], surface: string | null = null) => ({
  name,
  rounds,
  first_spot: spots[0],
  last_spot: spots[1],
  surface: surface && { name: surface },
  program: { off_s: rounds.length },
});
const hearth = (...breads: ReturnType<typeof bread>[]) =>
  ({ breads, program: { off_s: 99 }, surface: { name: "Iron plate" } }) as unknown as Hearth;

it("a line of one bread goes by numbers alone", () => {
  const one = hearth();
  expect([roundName(one, 4), roundMark(one, 4), placeName(one, 2)]).toEqual(["round 4", "4", "spot 2"]);
  expect([breadOf(one, 4), programOf(one, 4).off_s, surfaceOf(one, 1)?.name]).toEqual([undefined, 99, "Iron plate"]);
});

it("a line of several goes by name, numbered where there are several, and by the surface each lies on", () => {
  const mixed = hearth(
    bread("Naan", [1, 2], [1, 1], "Clay wall"),
    bread("Nut rolls", [3], [2, 3], "Tray"),
    bread("Pita", [4, 5], [2, 3], "Tray"),
  );
  expect([1, 2, 3, 5].map((n) => roundName(mixed, n))).toEqual(["Naan 1", "Naan 2", "Nut rolls", "Pita 2"]);
  expect([1, 3, 4].map((n) => roundMark(mixed, n))).toEqual(["Naa1", "Nut", "P1"]); // two names begin with an n
  expect([1, 2, 3].map((s) => placeName(mixed, s))).toEqual(["clay wall", "tray 1", "tray 2"]);
  expect([programOf(mixed, 2).off_s, programOf(mixed, 3).off_s, programOf(mixed, null).off_s]).toEqual([2, 1, 99]);
  expect([surfaceOf(mixed, 1)?.name, surfaceOf(mixed, 9)?.name]).toEqual(["Clay wall", "Iron plate"]);
  expect(liesOn(mixed.breads[1]!, 1)).toBe(false);
});
