import { expect, it } from "vitest";
import { waits } from "./steps";

const step = { key: "ball", at: "2026-11-24T12:00:00Z", can_wait_until: "2026-11-24T12:40:00Z" };
const at = (clock: string) => Date.parse(`2026-11-24T${clock}:00Z`);

it("a dough keeps from its move on, and has kept once that is over", () => {
  expect(waits(step, at("11:00"))).toMatchObject({ leftMs: 40 * 60e3, words: "dough keeps" });
  expect(waits(step, at("12:30"))).toMatchObject({ leftMs: 10 * 60e3, words: "dough keeps" });
  expect(waits(step, at("13:00"))).toMatchObject({ leftMs: null, words: "dough kept" });
  expect(waits({ ...step, key: "mix" }, at("13:00"))).toMatchObject({ words: "could wait" });
  expect(waits({ ...step, can_wait_until: step.at }, at("12:30"))).toBeNull();
});
