// @vitest-environment jsdom
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { afterEach, expect, it, vi } from "vitest";
import { Field } from "./Field";

afterEach(cleanup);
const shown = () => screen.getByRole<HTMLInputElement>("textbox").value;

it("sends what was typed once, on Enter or on leaving, and only when it changed", async () => {
  const sent = vi.fn();
  render(<Field label="Flour" value="500" onCommit={sent} />);
  const field = screen.getByRole("textbox");
  await userEvent.click(field);
  await userEvent.tab();
  expect(sent).not.toHaveBeenCalled();
  await userEvent.clear(field);
  await userEvent.type(field, " 620 {Enter}");
  await userEvent.tab();
  expect(sent.mock.calls).toEqual([["620"]]);
});

it("keeps a bad entry in sight with its fault, and shows the value once it is good", async () => {
  const { rerender } = render(<Field label="Flour" value="500" onCommit={() => undefined} />);
  await userEvent.clear(screen.getByRole("textbox"));
  await userEvent.type(screen.getByRole("textbox"), "lots{Enter}");
  rerender(<Field label="Flour" value="500" fault="Give grams." onCommit={() => undefined} />);
  expect(shown()).toBe("lots");
  expect(screen.getByText("Give grams.")).toBeDefined();
  rerender(<Field label="Flour" value="640" onCommit={() => undefined} />);
  expect(shown()).toBe("640");
});

it("leaves the value as it was on Escape, and keeps a draft while another change comes in", async () => {
  const sent = vi.fn();
  const { rerender } = render(<Field label="Flour" value="500" onCommit={sent} />);
  await userEvent.type(screen.getByRole("textbox"), "1");
  rerender(<Field label="Flour" value="700" onCommit={sent} />);
  expect(shown()).toBe("5001");
  await userEvent.keyboard("{Escape}");
  expect(shown()).toBe("700");
  await userEvent.tab();
  expect(sent).not.toHaveBeenCalled();
});

it("sends what stood there before when the last entry was refused", async () => {
  const sent = vi.fn();
  const { rerender } = render(<Field label="Flour" value="500" onCommit={sent} />);
  const field = screen.getByRole("textbox");
  await userEvent.clear(field);
  await userEvent.type(field, "lots{Enter}");
  rerender(<Field label="Flour" value="500" fault="Give grams." onCommit={sent} />);
  await userEvent.clear(field);
  await userEvent.type(field, "500{Enter}");
  expect(sent.mock.calls).toEqual([["lots"], ["500"]]);
});
