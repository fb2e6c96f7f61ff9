// @vitest-environment jsdom
import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { beat, serverNow } from "../api/clock";
import * as channels from "./channels";
import { type Alarm, answer, useDueAlarms, useOpenAlarms } from "./due";
import * as sound from "./sound";

let n = 0;
const alarm = (inMs: number, to: string | null = "/b/1/fire"): Alarm => ({
  id: `alarm ${n++}`,
  at: serverNow() + inMs,
  call: "turn",
  title: "Turn round 2",
  ...(to ? { to } : {}),
});
beforeEach(() => {
  localStorage.clear();
  vi.useFakeTimers({ now: Date.UTC(2026, 10, 25) });
  vi.spyOn(sound, "play").mockImplementation(() => Promise.resolve());
  vi.spyOn(channels, "speak").mockImplementation(() => undefined);
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  vi.useRealTimers();
});
const mounted = (given: readonly Alarm[]) =>
  renderHook(
    ({ list }) => {
      useDueAlarms(list);
      return useOpenAlarms();
    },
    { initialProps: { list: given } },
  );
const after = (ms: number) =>
  act(() => {
    vi.advanceTimersByTime(ms);
    beat();
  });

it("rings once when it comes due, stands until it is answered, and names itself in the page's title", () => {
  const soon = alarm(5000);
  const { result } = mounted([soon]);
  expect([result.current.length, document.title]).toEqual([0, "Brass Clock"]);
  after(6000);
  after(1000);
  expect(sound.play).toHaveBeenCalledTimes(1);
  expect(result.current.map((a) => a.id)).toEqual([soon.id]);
  expect(document.title).toBe("● Turn round 2");
  act(() => answer([soon.id]));
  expect(result.current).toEqual([]);
});

it("what was missed long ago neither rings nor stands; what was missed lately stands silent", () => {
  const { result } = mounted([alarm(-7 * 3600e3), alarm(-20 * 60e3)]);
  expect(sound.play).not.toHaveBeenCalled();
  expect(result.current).toHaveLength(1);
});

it("an alarm without a place to answer it only rings", () => {
  const { result } = mounted([alarm(-1000, null)]);
  expect(sound.play).toHaveBeenCalledTimes(1);
  expect(result.current).toEqual([]);
});

it("rings again when a new plan puts it well ahead, and not when it slides by seconds", () => {
  const first = alarm(-1000);
  const { result, rerender } = mounted([first]);
  act(() => answer([first.id]));
  rerender({ list: [{ ...first, at: serverNow() + 30e3 }] });
  after(40e3);
  expect(sound.play).toHaveBeenCalledTimes(1);
  rerender({ list: [{ ...first, at: serverNow() + 10 * 60e3 }] });
  after(11 * 60e3);
  expect(sound.play).toHaveBeenCalledTimes(2);
  expect(result.current.map((a) => a.id)).toEqual([first.id]);
});

it("says it aloud, and is gone from the title with the screen it belonged to", () => {
  const { unmount } = mounted([alarm(-1000)]);
  expect(channels.speak).toHaveBeenCalledWith("Turn round 2");
  unmount();
  expect(document.title).toBe("Brass Clock");
});
