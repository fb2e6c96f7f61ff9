// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { Column } from "./Column";
import { Panels } from "./Panels";

beforeEach(() => localStorage.clear());
afterEach(cleanup);
const panels = [
  { id: "look", name: "Look at it", key: "l", content: <p>the look</p> },
  { id: "if", name: "What if", key: "i", content: <input aria-label="a field" /> },
];
const draw = (remember = "rise.1") => render(<Panels label="Rise" remember={remember} panels={panels} />);
const open = () => screen.getByRole("tab", { selected: true }).textContent;

it("the first panel is open, a key opens another, and it is remembered for that bake alone", () => {
  draw();
  expect(open()).toBe("Look at it");
  fireEvent.keyDown(window, { key: "i" });
  expect(open()).toBe("What if");
  cleanup();
  draw();
  expect(open()).toBe("What if");
  cleanup();
  draw("rise.2");
  expect(open()).toBe("Look at it");
});

it("letters that are typed, pressed with another key, or switched off open nothing", () => {
  draw();
  fireEvent.keyDown(window, { key: "i" });
  fireEvent.keyDown(screen.getByLabelText("a field"), { key: "l" });
  expect(open()).toBe("What if");
  fireEvent.keyDown(window, { key: "l", ctrlKey: true });
  expect(open()).toBe("What if");
  localStorage.setItem("brass-clock.keys", "off");
  fireEvent.keyDown(window, { key: "l" });
  expect(open()).toBe("What if");
});

it("a panel that is not there any more leaves the first open", () => {
  localStorage.setItem("brass-clock.panel.rise.1", "gone");
  draw();
  expect(open()).toBe("Look at it");
});

it("a column of temperature goes half a degree an arrow, and says where it stands", () => {
  const told: number[] = [];
  render(
    <Column
      label="Room"
      value={21}
      low={8}
      high={36}
      ticks={[10, 20, 30]}
      says="21°"
      tick={String}
      onChange={(c) => told.push(c)}
    />,
  );
  const handle = screen.getByRole("slider");
  expect(handle.getAttribute("aria-valuetext")).toBe("21");
  fireEvent.keyDown(handle, { key: "ArrowUp" });
  expect(told).toEqual([21.5]);
  const marks = [...document.querySelectorAll<HTMLElement>(".tick span")].map((s) => Number.parseFloat(s.style.bottom));
  expect(marks).toEqual([...marks].sort((a, b) => a - b));
  expect(marks[1]! - marks[0]!).toBeCloseTo((10 / 28) * 100, 3);
});
