import { render } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { frameAt } from "./film";
import { missesWords, missWords } from "../words/drill";
import { BreadFace } from "./BreadFace";
import { CallsLine } from "./CallsLine";
import { rowsOf, spread } from "./FilmStrip";

describe("the film strip", () => {
  it("keeps labels off one another", () => {
    const labels = [
      { x: 0, w: 100 },
      { x: 40, w: 100 },
      { x: 90, w: 100 },
      { x: 200, w: 100 },
    ];
    const rows = rowsOf(labels);
    for (const [i, a] of labels.entries())
      for (const [k, b] of labels.entries())
        if (i < k && rows[i] === rows[k]) expect(a.x + a.w <= b.x || b.x + b.w <= a.x).toBe(true);
    expect(rows).toEqual([0, 1, 2, 0]);
  });

  it("moves pictures apart as little as it must, and none past an end", () => {
    expect(spread([50, 55, 200], 70, 40, 300)).toEqual([50, 120, 200]);
    expect(spread([290, 295], 70, 40, 300)).toEqual([230, 300]);
  });

  it("shows the last second of a film where it is asked beyond", () => {
    const film = {
      s: [0, 1, 2],
      bubbles: [0, 0.5, 1],
      dull: [0, 0, 1],
      brown: [0, 0, 0],
      char: [0, 0, 0],
      brown_below: [0, 0.2, 0.4],
      char_below: [0, 0, 0],
      pocket: [0, 0, 1],
    };
    expect(frameAt(film, 1.9).bubbles).toBe(0.5);
    expect(frameAt(film, 99).pocket).toBe(1);
    expect(frameAt(film, 0).dull).toBe(0);
  });
});

describe("a bread's face and one's calls", () => {
  it("has more ink as it bubbles, dulls and browns: none of it is told by colour alone", () => {
    const marks = (look: Partial<Parameters<typeof BreadFace>[0]["look"]>) =>
      render(
        <BreadFace size={100} look={{ bubbles: 0, dull: 0, brown: 0, char: 0, pocket: 0, ...look }} />,
      ).container.querySelectorAll("circle, ellipse, path").length;
    const raw = marks({});
    for (const name of ["bubbles", "dull", "brown", "char"] as const) {
      expect(marks({ [name]: 0.5 })).toBeGreaterThan(raw);
      expect(marks({ [name]: 1 })).toBeGreaterThan(marks({ [name]: 0.5 }));
    }
  });

  it("says misses in seconds, and draws a ring for each", () => {
    expect(missWords(-3.6)).toBe("4 s early");
    expect(missWords(0.4)).toBe("on the second");
    expect(missesWords([2, 4, 6])).toBe("4 s late, give or take 2");
    expect(missesWords([])).toBe("none yet");
    const { container } = render(
      <CallsLine width={300} about="calls" rows={[{ name: "last", told: "", misses: [-2, -2, 9, 40] }]} />,
    );
    expect(container.querySelectorAll("circle")).toHaveLength(4);
  });
});
