// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ruleScale } from "../words/scale";
import { usePegDrag } from "./usePegDrag";

const NOON = Date.UTC(2026, 10, 29, 12);
const MIN = 60e3;
beforeEach(() => vi.useFakeTimers());
afterEach(() => {
  vi.useRealTimers();
  cleanup();
});

function Peg({ onMove, at = NOON }: { onMove: ((to: number) => void) | null; at?: number }) {
  const scale = ruleScale(NOON, 1000, 24, 60 * MIN, 24 * 60 * MIN);
  const { to, handlers } = usePegDrag({ at, low: NOON - 60 * MIN, high: NOON + 60 * MIN, scale, onMove });
  return (
    <div role="slider" tabIndex={0} aria-valuenow={(to ?? at) / MIN} {...handlers}>
      {to === null ? "at rest" : new Date(to).toISOString().slice(11, 16)}
    </div>
  );
}
const text = () => screen.getByRole("slider").textContent;

it("arrow keys move a peg in fives, and it settles a while after the last", () => {
  const moved = vi.fn();
  render(<Peg onMove={moved} />);
  fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowRight" });
  fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowRight" });
  expect(text()).toBe("12:10");
  vi.advanceTimersByTime(500);
  expect(moved).not.toHaveBeenCalled();
  vi.advanceTimersByTime(500);
  expect(moved.mock.calls).toEqual([[NOON + 10 * MIN]]);
});

it("Enter settles at once, Escape puts it back, and no key takes it past its bounds", () => {
  const moved = vi.fn();
  render(<Peg onMove={moved} />);
  const peg = screen.getByRole("slider");
  fireEvent.keyDown(peg, { key: "ArrowLeft" });
  fireEvent.keyDown(peg, { key: "Escape" });
  expect(text()).toBe("at rest");
  for (let i = 0; i < 40; i += 1) fireEvent.keyDown(peg, { key: "ArrowRight" });
  expect(text()).toBe("13:00");
  fireEvent.keyDown(peg, { key: "Enter" });
  expect(moved.mock.calls).toEqual([[NOON + 60 * MIN]]);
});

it("a peg that nobody may move takes no keys; a new plan lets go of a draft", () => {
  const { rerender } = render(<Peg onMove={null} />);
  fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowRight" });
  expect(text()).toBe("at rest");
  rerender(<Peg onMove={() => undefined} />);
  fireEvent.keyDown(screen.getByRole("slider"), { key: "ArrowRight" });
  expect(text()).toBe("12:05");
  rerender(<Peg onMove={() => undefined} at={NOON + 30 * MIN} />);
  expect(text()).toBe("at rest");
});
