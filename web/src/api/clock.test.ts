import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { serverNow, syncClock } from "./clock";

const T0 = Date.parse("2026-11-25T01:00:00Z");
const told = (at: number) =>
  ({ now: new Date(at).toISOString(), rate: 1, simulated: false, set_at: null }) as unknown as Parameters<
    typeof syncClock
  >[0];

describe("the kitchen's clock on a device", () => {
  let here = 0;
  beforeEach(() => {
    vi.spyOn(performance, "now").mockImplementation(() => here);
    vi.spyOn(Date, "now").mockReturnValue(T0 + 3600e3); // the device is an hour out
  });
  afterEach(() => vi.restoreAllMocks());

  it("stays with the kitchen for an hour, whatever the device's own time, late answers or a stopped tab", () => {
    syncClock(told(T0 + here), 0);
    let worst = 0;
    for (let s = 1; s <= 3600; s += 1) {
      here += 1000;
      if (s % 600 === 0) here += 40_000; // the tab slept
      const late = s % 10 === 0 ? 8000 : (s * 7919) % 300; // an answer is up to 0.3 s old when it is read, and eight when the server has much to do
      const before = serverNow();
      syncClock(told(T0 + here - late), late);
      if (s % 600 !== 0) expect(serverNow()).toBeGreaterThanOrEqual(before); // never set back
      worst = Math.max(worst, Math.abs(serverNow() - (T0 + here)));
    }
    expect(worst).toBeLessThan(700);
  });
});
