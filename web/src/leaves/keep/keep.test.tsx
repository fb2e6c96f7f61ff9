// @vitest-environment jsdom
import "fake-indexeddb/auto";
/** What the Keep leaf computes: the tray, what is said of it, what was said before, facts on an axis. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { asBefore, type Outcome, withJudged } from "../../api/keep";
import type { Bake } from "../../api/client";
import { SaidAxis, type SaidRow } from "../../instruments/SaidAxis";
import { Tray } from "../../instruments/Tray";
import { num, stroked, texts } from "../../testing/drawn";
import { FACTS, faultWords, listed, USUAL_FACTS } from "../../words/faults";
import { beliefFigure, learnedWords, lessonWords, offSet } from "../../words/lessons";
import { nextUnjudged, tally, trayOf } from "./breads";

afterEach(cleanup);
const C = { mass: "g", temp: "C" };
const outcome = (round_no: number, over: Partial<Outcome> = {}): Outcome => ({
  round_no,
  pocket: null,
  colour: null,
  colour_top: null,
  tender: null,
  faults: [],
  note: "",
  ...over,
});

describe("what is said of breads", () => {
  it("stands beside what was said before; null takes a word back; other breads stay", () => {
    const had = [outcome(1, { pocket: "full", faults: ["burst"] }), outcome(3, { colour: "dark" })];
    const now = withJudged(had, [
      { round_no: 2, pocket: "flat" },
      { round_no: 1, colour: "right", faults: null },
    ]);
    expect(now).toEqual([
      outcome(1, { pocket: "full", colour: "right" }),
      outcome(2, { pocket: "flat" }),
      outcome(3, { colour: "dark" }),
    ]);
  });

  it("can be taken back whole: each bread is told every word it had, or none", () => {
    const had = [outcome(1, { pocket: "full", tender: "tough", note: "ate well" })];
    const after = withJudged(
      had,
      [1, 2].map((round_no) => ({ round_no, pocket: "flat" as const, tender: "tender" as const })),
    );
    expect(withJudged(after, asBefore(had, [1, 2]))).toEqual([had[0], outcome(2)]);
  });
});

describe("the tray", () => {
  const bake = (rounds: [number, string, number?][], outcomes: Outcome[]) =>
    ({
      keep: { rounds: rounds.map(([round_no, name, pieces]) => ({ round_no, name, pieces: pieces ?? 1 })), outcomes },
    }) as unknown as Bake;

  it("names rounds by their number, by their bread where there are several, and a tray by its pieces", () => {
    const one = trayOf(
      bake(
        [
          [1, "Pita"],
          [2, "Pita"],
        ],
        [outcome(2, { faults: ["one_side"], colour_top: "pale", tender: "chewy" })],
      ),
    );
    expect(one.map((b) => b.name)).toEqual(["Round 1", "Round 2"]);
    expect(one[1]!.also).toEqual(["other side pale", "chewy", "opened on one side"]);
    const mixed = trayOf(
      bake(
        [
          [1, "Pita"],
          [2, "Naan"],
          [3, "Naan"],
          [4, "Rolls", 8],
        ],
        [],
      ),
    );
    expect(mixed.map((b) => [b.name, b.mark])).toEqual([
      ["Pita 1", "P1"],
      ["Naan 1", "N1"],
      ["Naan 2", "N2"],
      ["Rolls", "×8"],
    ]);
  });

  it("counts what was judged, and hands on to the next that was not, around the end", () => {
    const breads = trayOf(
      bake(
        [
          [1, "P"],
          [2, "P"],
          [3, "P"],
        ],
        [outcome(1, { pocket: "full", colour: "right" }), outcome(3, { pocket: "flat" })],
      ),
    );
    expect(tally(breads)).toBe("2 judged: 1 full, 1 flat");
    expect(tally(breads.map((b) => ({ ...b, pocket: null, colour: null })))).toContain("press a bread");
    expect([1, 2, 3].map((n) => nextUnjudged(breads, n))).toEqual([2, 3, 2]);
    expect(
      nextUnjudged(
        breads.map((b) => ({ ...b, pocket: "full", colour: "right" })),
        3,
      ),
    ).toBe(3);
  });

  it("goes by arrow keys, chooses several with Shift, and hands other keys on", () => {
    const [chosen, keyed] = [vi.fn(), vi.fn(() => true)];
    const breads = [1, 2, 3].map((round) => ({
      round,
      name: `Round ${round}`,
      mark: `${round}`,
      pocket: null,
      colour: null,
      also: [],
    }));
    render(<Tray breads={breads} chosen={[2]} onChoose={chosen} onKey={keyed} />);
    const at = screen.getByRole("button", { name: "Round 2: not judged" });
    expect(screen.getAllByRole("button").map((b) => b.tabIndex)).toEqual([-1, 0, -1]);
    for (const key of ["ArrowRight", "Home", "5"]) fireEvent.keyDown(at, { key });
    fireEvent.keyDown(at, { key: "ArrowRight", shiftKey: true });
    fireEvent.keyDown(at, { key: "a", ctrlKey: true });
    fireEvent.click(screen.getByRole("button", { name: "Round 3: not judged" }), { shiftKey: true });
    expect(chosen.mock.calls.map(([x]) => x as number[])).toEqual([[3], [1], [2, 3], [1, 2, 3], [2, 3]]);
    expect(keyed.mock.calls).toEqual([["5"]]);
  });
});

it("what was said and what was lie on one axis, a ring inside the band and a square outside", () => {
  const row = (name: string, said: number, was: number | null): SaidRow => ({
    name,
    said,
    p10: said - 5,
    p90: said + 5,
    was,
    inside: was === null ? null : Math.abs(was - said) <= 5,
  });
  const { container } = render(
    <SaidAxis rows={[row("bubbles", 30, 33), row("turn", 40, 52), row("off", 70, null)]} width={420} />,
  );
  const bands = [...container.querySelectorAll("rect.band")].map((r) => num(r, "x") + num(r, "width") / 2);
  const perS = (bands[1]! - bands[0]!) / 10;
  const ring = container.querySelector("circle")!;
  const square = container.querySelector("rect.outside")!;
  expect((num(ring, "cx") - bands[0]!) / perS).toBeCloseTo(3);
  expect((num(square, "x") + 6 - bands[0]!) / perS).toBeCloseTo(22);
  expect(container.querySelectorAll("circle, rect.outside")).toHaveLength(2);
  expect(texts(container)).toEqual(expect.arrayContaining(["30 s", "52 s", "–"]));
  expect(container.querySelector("svg")!.getAttribute("aria-label")).toContain("off 70 s and –");
  expect(stroked(container, "2.5")).toBeUndefined(); // marks, not curves
});

describe("words of Keep", () => {
  it("every usual fact can be asked, its answers apart from each other", () => {
    for (const fact of USUAL_FACTS) {
      const { ask, options } = FACTS[fact]!;
      expect(ask.endsWith("?")).toBe(true);
      expect(new Set(options.map((o) => o.value)).size).toBe(options.length);
    }
    expect([faultWords("fell_off"), faultWords("part_pocket")]).toEqual(["fell off", "part pocket"]);
    expect([listed([]), listed([3]), listed([3, 7]), listed([1, 2, 3])]).toEqual(["", "3", "3 and 7", "1, 2 and 3"]);
  });

  it("a lesson says what was seen and what that moved, as times the table's or as water", () => {
    const lesson = { seen: 1.3, before: 1, after: 1.21, refused: false, odd: false };
    expect(lessonWords("activity", lesson, C)).toBe("seen 1.30 ×; believed 1.00 ×, then 1.21 ×");
    expect(lessonWords("thirst", { ...lesson, seen: 1.03, after: 1.022 }, C)).toBe(
      "seen +3.0 % water; believed +0.0 % water, then +2.2 % water",
    );
    expect(lessonWords("activity", { ...lesson, after: null, refused: true }, C)).toContain("teaches nothing");
    expect(lessonWords("activity", { ...lesson, after: null, odd: true }, C)).toContain("set aside");
    expect(beliefFigure("thirst", 0.985, C)).toBe("−1.5 % water");
  });

  it("a surface is said to be hotter or cooler than set, with what browns, and only at the setting it is known at", () => {
    const learned = { set_c: 235, shift_k: -18.4, browns: 1.31, here: 2 };
    expect(learnedWords(learned, 235, 216.6, C)).toBe(
      "Its breads say: 18 °C cooler than set, so 217 °C; bread browns 1.31 × as fast.",
    );
    expect(learnedWords(learned, 260, 260, C)).toBe("Its breads say: bread browns 1.31 × as fast.");
    expect(learnedWords(null, 235, 235, C)).toBeNull();
    expect(offSet(10, { mass: "g", temp: "F" })).toBe("18 °F hotter than set");
    const lesson = { seen: 1.2, before: 0, after: -9, browns_before: 1, browns_after: 0.8, refused: false, odd: false };
    expect(lessonWords("surface", lesson, C)).toBe(
      "times 1.20 × those told; believed as hot as set and browns as usual, then 9 °C cooler than set and browns 0.80 × as fast",
    );
  });
});
