import { describe, expect, it } from "vitest";
import { hoursText, suits, type Wish } from "./choose";

type Method = Parameters<typeof hoursText>[0];
const method = (part: Partial<Method>): Method =>
  ({
    id: "x",
    wants: ["blister"],
    low_h: 2,
    high_h: 3,
    hands_min: 30,
    surfaces: ["skillet"],
    ingredients: ["yeast_instant", "egg_whole"],
    ...part,
  }) as Method;
const any: Wish = { want: "any", hours: "any", surface: "any", without: "" };
const known = [
  { id: "yeast_instant", name: "Instant dry yeast" },
  { id: "egg_whole", name: "Hen's egg, shelled" },
];

describe("choosing a method", () => {
  it("writes its wait as a cook would", () => {
    expect(hoursText(method({ low_h: 1.4, high_h: 3 }))).toBe("1.4 to 3 h");
    expect(hoursText(method({ low_h: 0.5, high_h: 0.5 }))).toBe("30 min");
    expect(hoursText(method({ low_h: 0.6, high_h: 24.5 }))).toBe("35 min to 25 h");
    expect(hoursText(method({ low_h: 0.04, high_h: 0.2 }))).toBe("at once");
  });

  it("fits what is wanted, the time, the surface and the cupboard", () => {
    expect(suits(method({}), any, known)).toBe(true);
    expect(suits(method({}), { ...any, want: "pocket" }, known)).toBe(false);
    expect(suits(method({}), { ...any, hours: "1" }, known)).toBe(false);
    expect(suits(method({}), { ...any, hours: "3" }, known)).toBe(true);
    expect(suits(method({}), { ...any, surface: "oil" }, known)).toBe(false);
    expect(suits(method({}), { ...any, without: "Eggs, honey" }, known)).toBe(false);
    expect(suits(method({}), { ...any, without: "honey" }, known)).toBe(true);
    expect(suits(method({ id: "blank" }), { ...any, want: "pocket" }, known)).toBe(true);
  });
});
