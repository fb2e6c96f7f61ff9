import { describe, expect, it } from "vitest";
import { monthsIn, placeOf, stretches } from "./brokenTime";

const DAY = 24 * 3600e3;
const day = (iso: string) => Date.parse(`${iso}T12:00:00Z`);
const WINTERS = [day("2025-11-08"), day("2025-12-20"), day("2026-01-30"), day("2026-10-02"), day("2026-11-20")];

describe("a broken time axis", () => {
  it("cuts a summer out and keeps the order and the scale within each stretch", () => {
    const all = stretches(WINTERS, 100, 1000);
    expect(all.map((s) => s.from)).toEqual([WINTERS[0], WINTERS[3]]);
    const x = WINTERS.map((t) => placeOf(t, all));
    expect(x).toEqual([...x].sort((a, b) => a - b));
    expect([x[0], x[4]]).toEqual([100, 1000]);
    const share = (WINTERS[1]! - WINTERS[0]!) / (WINTERS[2]! - WINTERS[0]!);
    expect((x[1]! - x[0]!) / (x[2]! - x[0]!)).toBeCloseTo(share);
    expect(x[3]! - x[2]!).toBeLessThan(40);
  });
  it("holds one bake, two on the same instant, and none", () => {
    expect(placeOf(5, stretches([5], 0, 200))).toBe(100);
    expect(placeOf(5, stretches([5, 5], 0, 200))).toBe(100);
    expect(stretches([], 0, 200)).toEqual([]);
  });
  it("stays between its edges however many silences there are", () => {
    const many = Array.from({ length: 40 }, (_, i) => i * 70 * DAY);
    const all = stretches(many, 0, 1300);
    expect(all.length).toBe(40);
    expect(all.at(-1)!.right).toBeCloseTo(1300);
  });
  it("names the months of the stretches alone", () => {
    const named = monthsIn(stretches(WINTERS, 0, 900)).map((t) => new Date(t).toISOString().slice(0, 7));
    expect(named).toEqual(["2025-12", "2026-01", "2026-10", "2026-11"]);
  });
});
