import { expect, test } from "vitest";
import {
  clock,
  clockNear,
  countdown,
  hourOfDay,
  mass,
  readTemp,
  span,
  temp,
  typedMeasure,
  typedMinutes,
  typedNumber,
  typedSeconds,
} from "./format";

const g = { mass: "g", temp: "C" };
const us = { mass: "oz", temp: "F" };

test("times are written in the kitchen's zone, through a changed night", () => {
  const before = Date.parse("2026-10-25T00:30:00Z");
  expect(clock(before, "Europe/Zurich")).toBe("02:30");
  expect(clock(before + 3600e3, "Europe/Zurich")).toBe("02:30");
  expect(hourOfDay(before, "UTC")).toBe(0.5);
  expect(clockNear(before + 48 * 3600e3, before, "UTC")).toBe("Tue 00:30");
});

test("spans and countdowns never show a negative or a 60", () => {
  expect(span(72 * 60e3)).toBe("1 h 12 min");
  expect(span(59.6 * 60e3)).toBe("1 h");
  expect(span(99 * 3600e3 + 58 * 60e3)).toBe("4 days 4 h");
  expect(span(71.9 * 3600e3)).toBe("3 days");
  expect(span(47.5 * 3600e3)).toBe("47 h 30 min");
  expect(countdown(-5)).toBe("0");
  expect(countdown(125_000)).toBe("2:05");
});

test("units: grams and ounces, C and F, read back as written", () => {
  expect(mass(458, g)).toBe("458");
  expect(mass(28.349523, us)).toBe("1.00");
  expect(temp(100, us)).toBe("212");
  expect(readTemp("100 F", g)).toBeCloseTo(37.78, 2);
  expect(readTemp(temp(26, us), us)).toBeCloseTo(26, 0);
  expect(readTemp("warm", g)).toBeNull();
  expect(["1,5", " 2.5 ", "", "many"].map((t) => typedNumber(t))).toEqual([1.5, 2.5, "", "many"]);
  expect(["12", "1,5 kg", "12 5", "-3", "", "3 cm", "4 oz"].map((t) => typedMeasure(t, "g", 2))).toEqual([
    24,
    1500,
    "12 5",
    "-3",
    "",
    "3 cm",
    113.398,
  ]);
  expect(["18", "180 mm", "7 inch", '7"', "1 1/2 in", "½ in"].map((t) => typedMeasure(t, "cm"))).toEqual([
    18, 18, 17.78, 17.78, 3.81, 1.27,
  ]);
  expect(["4", "0.4 cm", "1/4 inch", "8 pieces"].map((t) => typedMeasure(t, "mm"))).toEqual([4, 4, 6.35, "8 pieces"]);
  expect(["1,250", "1,250 g", "1,125 kg", "0,125", "1,25"].map((t) => typedMeasure(t, "g"))).toEqual([
    1250, 1250, 1125, 0.125, 1.25,
  ]);
  expect(["1,200", "12,5", "1200"].map((t) => typedNumber(t))).toEqual([1200, 12.5, 1200]);
  expect(["8", "8,5 min", "10 minutes", "a bit"].map(typedMinutes)).toEqual([8, 8.5, 10, "a bit"]);
  expect(["8", "8 pieces", "8 g"].map((t) => typedMeasure(t, "count"))).toEqual([8, 8, "8 g"]);
});

test("seconds on the heat are read as they are said, and what is no time goes on as it was typed", () => {
  const said = ["90", "90 s", "1:30", "1.5 min", "1,5 min", "1 min 30", "2 min 5 sec"];
  expect(said.map(typedSeconds)).toEqual([90, 90, 90, 90, 90, 90, 125]);
  expect(["", "a while", "1:75"].map(typedSeconds)).toEqual(["", "a while", "1:75"]);
});
