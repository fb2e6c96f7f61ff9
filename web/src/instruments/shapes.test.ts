/** Geometry behind the drawings: instants, depths and heights, before a pixel is drawn. */
import { describe, expect, it } from "vitest";
import { colourStretches, isoline, layerEdges, pocketLens } from "./carpetShapes";
import {
  hourTicks,
  laneWords,
  riseFrame,
  type RisePoint,
  riseSpan,
  type RiseWindow,
  spindle,
  stretches,
  strips,
  within,
} from "./riseShapes";

const H = 3600e3;
const at = (t: number, ratio: number, doughC = 24): RisePoint => ({
  t,
  ratio,
  low: ratio * 0.9,
  high: ratio * 1.1,
  doughC,
});
const PLAIN = { ahead: 1, cold: false, moves: true, over: null };
const rise = Array.from({ length: 9 }, (_, i) => at((i / 2) * H, 1 + i / 8));
const bulk: RiseWindow = { name: "bulk", begins: 0, target: 2, ready: 2 * H, from: 2 * H, to: 2.5 * H, tooFar: 3 * H };

describe("the frame of a rise", () => {
  it("shows the table even when it lies past the last point, and no more than an hour past that for a window's end", () => {
    expect(riseSpan(rise, [bulk], 6 * H, H)[1]).toBe(6.1 * H);
    expect(riseSpan(rise, [{ ...bulk, to: 30 * H }], 3 * H, H)[1]).toBe(5.1 * H);
    expect(riseSpan([], [], 3 * H, H)).toEqual([H, 3.1 * H]);
  });

  it("has room for every curve, band and target, and none of a jar on a narrow page", () => {
    for (const width of [390, 1280]) {
      const f = riseFrame(width, riseSpan(rise, [bulk], 4 * H, H), rise, [{ ...bulk, target: 3 }], PLAIN);
      for (const q of [...rise.map((r) => r.high), 3]) expect(f.y(q)).toBeGreaterThanOrEqual(f.top);
      expect(f.heat(24)).toBeGreaterThan(f.heat.range()[1]!);
      expect(f.heat(24)).toBeLessThan(f.heatBottom);
      expect(f.narrow).toBe(width === 390);
      expect([within(f, -9 * H), within(f, 99 * H)]).toEqual([f.left, f.right]);
      const ticks = hourTicks(f);
      expect(ticks.length).toBeGreaterThan(2);
      expect(Math.min(...ticks.slice(1).map((t, i) => f.x(t) - f.x(ticks[i]!)))).toBeGreaterThan(40);
    }
  });

  it("gives a stay in the cold a band of its own between the windows and the heat", () => {
    const span = riseSpan(rise, [bulk], 4 * H, H);
    const [without, with_] = [false, true].map((cold) => riseFrame(900, span, rise, [bulk], { ...PLAIN, cold }));
    expect(with_!.height - without!.height).toBe(with_!.heatBottom - without!.heatBottom);
    expect(with_!.height).toBeGreaterThan(without!.height);
  });

  it("cuts the curve at a knock-back and nowhere else", () => {
    const knocked = [at(0, 1), at(H, 2), at(H, 1.1), at(2 * H, 1.08), at(3 * H, 1.9)];
    expect(stretches(knocked).map((s) => s.length)).toEqual([2, 3]);
    expect(stretches([])).toEqual([[]]);
  });

  it("thins the strips of a long rise and keeps its last point", () => {
    const long = Array.from({ length: 1001 }, (_, i) => at(i * 60e3, 1));
    const thin = strips(long);
    expect(thin.length).toBeLessThan(80);
    expect(thin.at(-1)).toBe(long.at(-1));
    expect(strips(rise)).toHaveLength(rise.length);
  });

  it("folds a stage that is over into a strip, and writes no hours in it", () => {
    const lanes = { ...PLAIN, over: 4 * H };
    const f = riseFrame(1000, [0, 8 * H], rise, [bulk], lanes);
    expect(f.fold).not.toBeNull();
    expect(f.x(4 * H) - f.left).toBeCloseTo(76);
    expect(f.x(f.end)).toBeCloseTo(f.right);
    for (const h of hourTicks(f)) expect(f.x(h)).toBeGreaterThan(f.fold!.x);
    expect(f.x.invert(f.x(6 * H)).getTime()).toBeCloseTo(6 * H, -1);
    // a stage that takes less room than its strip stays as it is
    expect(riseFrame(1000, [0, 8 * H], rise, [bulk], { ...PLAIN, over: H / 2 }).fold).toBeNull();
  });

  it("draws a window from ready to too far in order, its words inside the plot", () => {
    const f = riseFrame(1000, [0, 8 * H], rise, [bulk], PLAIN);
    for (const shift of [-3, 0, 2, 5, 7]) {
      const moved = (t: number) => t + shift * H;
      const w = { ...bulk, ready: moved(2 * H), from: moved(2.2 * H), to: moved(2.5 * H), tooFar: moved(3 * H) };
      const s = spindle(f, w);
      const corners = [f.left, s.ready, s.from, s.to, s.tooFar, f.x(f.end)];
      expect(corners).toEqual([...corners].sort((a, b) => a - b));
    }
  });

  it("writes a window's words where they have room, none over another or past an edge", () => {
    const f = riseFrame(1000, [0, 8 * H], rise, [bulk], PLAIN);
    const say = {
      ready: "bulk: ready 12:00",
      best: "best from 12:12 to 12:30",
      short: "best until 12:30",
      far: "too ripe 13:00",
    };
    for (const hours of [0.3, 2, 5])
      for (const shift of [-2, 0, 2, 4, 5.5]) {
        const w = {
          ...bulk,
          ready: shift * H,
          from: shift * H,
          to: (shift + hours) * H,
          tooFar: (shift + 1.2 * hours) * H,
        };
        const s = spindle(f, w);
        const boxes = laneWords(f, s, say)
          .map((x) => ({ ...x, wide: x.text.length * 8.2 }))
          .map((x) => [x.x - { start: 0, middle: x.wide / 2, end: x.wide }[x.anchor], x.wide] as const)
          .map(([from, wide]) => [from, from + wide] as const)
          .sort((a, b) => a[0] - b[0]);
        boxes.forEach(([from, to], i) => {
          expect(from).toBeGreaterThanOrEqual(f.left - 1);
          expect(to).toBeLessThanOrEqual(f.right + 44);
          expect(from).toBeGreaterThanOrEqual(boxes[i - 1]?.[1] ?? 0);
        });
      }
  });
});

describe("the heat in a bread", () => {
  it("has layers that share their edges and fill it", () => {
    const edges = layerEdges([0.5, 1.5, 2.5], 3);
    expect(edges).toEqual([0, 1, 2, 3]);
  });

  it("finds the depth of a temperature between two layers by their straight line", () => {
    const mids = [0.5, 1.5, 2.5];
    expect(isoline([[90, 70, 50]], mids, 80)).toEqual([1]);
    expect(isoline([[90, 70, 50]], mids, 55)[0]).toBeCloseTo(2.25);
    expect(
      isoline(
        [
          [60, 50, 40],
          [99, 98, 97],
        ],
        mids,
        70,
      ),
    ).toEqual([null, null]);
  });

  it("joins one colour's instants to one stretch that ends when the bread comes off", () => {
    const words = ["raw", "raw", "light", "light", "golden"];
    expect(colourStretches(words, [10, 20, 30, 40, 50], 35)).toEqual([
      { word: "raw", from: 0, to: 20 },
      { word: "light", from: 20, to: 35 },
    ]);
  });

  it("opens a lens about the middle as far as the pocket is full, and none while it is shut", () => {
    expect(pocketLens([0, 0, 0], [1, 2, 3], 4, 9)).toEqual([]);
    const lens = pocketLens([0, 0.5, 1, 1], [1, 2, 3, 4], 4, 3);
    expect(lens[0]).toEqual([1, 2]); // it opens a second before the first instant it is seen open
    const heights = lens.slice(1).map(([s, d]) => [s, Math.abs(d - 2)]);
    expect(heights.filter(([s]) => s === 3).map(([, h]) => h)).toEqual(
      [0.68, 0.68].map((x) => expect.closeTo(x, 6) as number),
    );
    expect(heights.filter(([s]) => s === 2).map(([, h]) => h)).toEqual(
      [0.34, 0.34].map((x) => expect.closeTo(x, 6) as number),
    );
    expect(Math.max(...lens.map(([s]) => s))).toBe(3);
  });
});
