// @vitest-environment jsdom
/** Instruments of heat: what is drawn stands where its figure says. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { scaleLinear } from "d3-scale";
import { afterEach, expect, it, vi } from "vitest";
import { drawingLabel, num, points, stroked, texts, textWith } from "../testing/drawn";
import { AirDraw } from "./AirDraw";
import { Carpet } from "./Carpet";
import { FaceStrips } from "./FaceStrips";
import { HeatAccount } from "./HeatAccount";
import { Thermometer } from "./Thermometer";

afterEach(cleanup);
const degrees = (c: number) => `${c.toFixed(0)} °C`;

it("the bowl's bars are as long as their heat, to the side it goes, the greatest first", () => {
  const rows = [
    { name: "flour", joules: -4000 },
    { name: "water", joules: 8000 },
    { name: "salt", joules: 20 },
  ];
  const { container } = render(
    <HeatAccount rows={rows} doughC={26} liquidC={34} flourC={18} limitC={50} yeasted degrees={degrees} width={900} />,
  );
  const [water, flour] = [...container.querySelectorAll("rect.bar")] as [Element, Element];
  expect(container.querySelectorAll("rect.bar")).toHaveLength(2); // what brings next to nothing is left out
  expect(num(water, "width")).toBeCloseTo(2 * num(flour, "width"));
  expect(num(flour, "x") + num(flour, "width")).toBeCloseTo(num(water, "x"));
  expect(texts(container)).toEqual(expect.arrayContaining(["+8.0", "−4.0", "yeast suffers from 50 °C"]));
  expect(drawingLabel(container)).toContain("26 °C");
});

it("leaders of three near temperatures do not lie on each other, the warmest on top", () => {
  const { container } = render(
    <HeatAccount
      rows={[]}
      doughC={21.2}
      liquidC={21.4}
      flourC={21}
      limitC={50}
      yeasted={false}
      degrees={(c) => c.toFixed(1)}
      width={380}
    />,
  );
  const at = ["21.4", "21.2", "21.0"].map((words) => num(textWith(container, words), "y"));
  expect(at[1]! - at[0]!).toBeGreaterThanOrEqual(40);
  expect(at[2]! - at[1]!).toBeGreaterThanOrEqual(40);
  expect(texts(container)).toContain("too hot from 50.0");
});

const columns = Array.from({ length: 10 }, (_, i) => [30 + 8 * i, 28 + 6 * i, 25 + 3 * i]);
const carpet = (over: Partial<Parameters<typeof Carpet>[0]> = {}) =>
  render(
    <Carpet
      s={columns.map((_, i) => (i + 1) * 10)}
      depthMm={[0.5, 1.5, 2.5]}
      tempC={columns}
      pocket={columns.map((_, i) => (i > 5 ? 1 : 0))}
      bottom={columns.map((_, i) => (i < 4 ? "raw" : "golden"))}
      top={columns.map(() => "raw")}
      turnS={40}
      offS={80}
      pins={[
        { name: "turn", s: 40, strong: true },
        { name: "opens", s: 62, strong: false },
        { name: "bubbles", s: 30, strong: false },
      ]}
      startC="24 °C"
      degrees={degrees}
      width={800}
      {...over}
    />,
  ).container;

it("a bread's heat: pins stand at their seconds, the black edge changes side at the turn", () => {
  const root = carpet();
  const ticks = [...root.querySelectorAll("text.mono")];
  const px = (s: number) =>
    num(
      ticks.find((t) => t.textContent === String(s))!,
      "x",
    );
  const stems = [...root.querySelectorAll("path")].map((p) => p.getAttribute("d")!).filter((d) => d.includes("40V44"));
  const foot = (d: string) => Number(/L(-?[\d.]+) 52/.exec(d)![1]);
  expect(stems.map(foot).map((x) => Math.round(((x - px(0)) / (px(80) - px(0))) * 80))).toEqual([30, 40, 62]);
  const edges = [...root.querySelectorAll('rect[height="6"]')];
  expect(num(edges[0]!, "width")).toBeCloseTo(px(40) - px(0));
  expect(num(edges[1]!, "x")).toBeCloseTo(px(40));
  expect(num(edges[1]!, "width")).toBeCloseTo(px(80) - px(40));
  expect(texts(root)).toEqual(expect.arrayContaining(["golden", "if left on", "70 °C sets"]));
});

it("a bread that is not turned has one edge; its pocket is not drawn before it opens", () => {
  const root = carpet({ turnS: null, pocket: columns.map(() => 0) });
  expect(root.querySelectorAll('rect[height="6"]')).toHaveLength(1);
  expect(screen.getByTestId("pocket").getAttribute("d")).toBe("");
});

it("on a narrow page only the chief events keep their pins", () => {
  expect(texts(carpet({ width: 390 }))).not.toContain("bubbles");
  expect(texts(carpet())).toContain("bubbles");
});

it("each face is tall while it lies on the surface and says its colours in words", () => {
  const x = scaleLinear().domain([0, 100]).range([0, 100]);
  const { container } = render(
    <svg>
      <FaceStrips
        bottom={[
          { word: "raw", from_s: 0 },
          { word: "golden", from_s: 30 },
        ]}
        top={[{ word: "raw", from_s: 0 }]}
        turnS={40}
        offS={80}
        opensS={50}
        x={x}
        width={100}
      />
    </svg>,
  );
  const tall = [...container.querySelectorAll('rect[height="20"][stroke]')].map((r) => [num(r, "x"), num(r, "width")]);
  expect(tall).toEqual([
    [0, 30],
    [30, 10],
    [40, 40],
  ]);
  expect(container.querySelector("[aria-label]")!.getAttribute("aria-label")).toBe(
    "Side A raw, golden from 30 s. Side B raw.",
  );
});

it("a column has its marks apart and in the order of their heat", () => {
  const marks = [
    { name: "fridge", c: 4 },
    { name: "counter", c: 21, strong: true },
    { name: "sill", c: 20 },
  ];
  const { container } = render(<Thermometer marks={marks} low={19} high={23} degrees={degrees} tick={String} />);
  const at = ["counter", "sill", "fridge"].map((name) => num(textWith(container, name), "y"));
  expect(at[1]! - at[0]!).toBeGreaterThanOrEqual(34);
  expect(at[2]!).toBeGreaterThan(at[1]!);
  expect(drawingLabel(container)).toContain("fridge 4 °C");
});

it("the air that is drawn moves by half degrees, by key, and stays on its scale", () => {
  const drawn = vi.fn();
  const { container } = render(
    <AirDraw
      width={600}
      points={[
        [0, 20],
        [4, 39.5],
      ]}
      degrees={degrees}
      onDrawn={drawn}
    />,
  );
  const [first, last] = screen.getAllByRole("slider");
  fireEvent.keyDown(first!, { key: "ArrowDown" });
  fireEvent.keyDown(last!, { key: "PageUp" });
  fireEvent.keyDown(last!, { key: "x" });
  expect(drawn.mock.calls).toEqual([
    [
      [
        [0, 19.5],
        [4, 39.5],
      ],
    ],
    [
      [
        [0, 20],
        [4, 40],
      ],
    ],
  ]);
  const line = points(stroked(container, "2.5").getAttribute("d")!);
  expect(line[0]![1]).toBeGreaterThan(line[1]![1]); // warmer is higher
});
