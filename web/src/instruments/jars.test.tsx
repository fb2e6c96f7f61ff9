// @vitest-environment jsdom
/** Jars, trays and lines of a bake: what stands where. */
import { cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { drawingLabel, num, points, stroked, texts, textWith } from "../testing/drawn";
import { Grip } from "./Grip";
import { HandsList } from "./HandsList";
import { JarCurve } from "./JarCurve";
import { JarRule } from "./JarRule";
import { PieceProfile, swellPath } from "./Profile";
import { RouteLine } from "./RouteLine";
import { SoftCurves } from "./SoftCurves";
import { Tray } from "./Tray";
import { Vessel } from "./Vessel";

afterEach(cleanup);
const H = 3600e3;

it("a printed jar is one millimetre to the millimetre, its marks at their heights over the foot", () => {
  const { container } = render(<JarRule startMm={40} marks={[{ name: "ready", ratio: 2, mm: 80 }]} />);
  const [, , , tall] = container.querySelector("svg")!.getAttribute("viewBox")!.split(" ").map(Number);
  expect(container.querySelector("svg")!.getAttribute("height")).toBe(`${tall}mm`);
  const line = (words: string) =>
    num(textWith(container, words).previousElementSibling ?? textWith(container, words), "y1");
  expect(line("start, 40") - line("ready 2")).toBeCloseTo(40);
  expect(drawingLabel(container)).toBe("Jar: start at 40 mm, ready at 80 mm");
});

it("a starter's curve is as high as its ratio; what lies past the curve is not marked", () => {
  const curve = [0, 1, 2, 3].map((h) => ({ t: h * H, ratio: 1 + h / 3, low: 1, high: 1.2 + h / 3 }));
  const draw = (until: number | null, now: number) => {
    const { container } = render(
      <JarCurve width={500} points={curve} now={now} until={until} clock={(t) => `${t / H}`} />,
    );
    const mid = points(stroked(container, "2.5").getAttribute("d")!);
    const found = {
      rises: mid.map((p) => p[1]),
      dashed: container.querySelectorAll('line[stroke-dasharray="7 5"]').length,
      now: container.querySelectorAll('line[stroke-width="3"]').length,
    };
    cleanup();
    return found;
  };
  const { rises } = draw(2 * H, H);
  expect(rises[0]! - rises[1]!).toBeCloseTo(rises[2]! - rises[3]!);
  expect([draw(2 * H, H), draw(9 * H, 9 * H), draw(null, H)].map(({ dashed, now }) => [dashed, now])).toEqual([
    [1, 1],
    [0, 0],
    [0, 1],
  ]);
});

it("a piece is drawn to scale, and swells as its share says", () => {
  const { container } = render(<PieceProfile diameterCm={20} thicknessMm={4} width={400} />);
  const [line] = [...container.querySelectorAll("line")];
  const across = num(line!, "x2") - num(line!, "x1");
  expect(across).toBeCloseTo((200 * 360) / 200); // as wide as the page allows
  cleanup();
  const small = render(<PieceProfile diameterCm={10} thicknessMm={4} width={900} />).container.querySelector("line")!;
  expect(num(small, "x2") - num(small, "x1")).toBeCloseTo(220); // but never more than so large
  const top = (share: number) => Number(/95 (-?[\d.]+)S/.exec(swellPath(share))![1]);
  expect(57 - top(1)).toBeCloseTo(((6 + 38) / 6) * (57 - top(0)));
});

it("a way to the table says every move, and writes only what has room", () => {
  const key = ["weigh", "mix", "ball", "roll", "serve", "preheat"];
  const steps = key.map((k, i) => ({ key: k, name: k, at: new Date(i < 2 ? i * 60e3 : i * H).toISOString() }));
  const { container } = render(<RouteLine steps={steps} width={300} clock={(iso) => iso.slice(11, 16)} />);
  expect(drawingLabel(container)).toBe("weigh 00:00, mix 00:01, ball 02:00, roll 03:00, serve 04:00");
  expect(texts(container)).not.toContain("00:01"); // a minute after the weighing
  expect(container.querySelectorAll('line[y1="24"]')).toHaveLength(5);
});

it("softness falls along its curve, the chosen wrap thick, and the end is said in a word", () => {
  const h = [0.1, 1, 6, 24, 72];
  const curve = (wrap: string, soft: number[]) => ({
    wrap,
    h,
    soft,
    low: soft.map((s) => s - 5),
    high: soft.map((s) => s + 5),
  });
  const [bag, open] = [curve("bag", [99, 98, 92, 80, 60]), curve("open", [99, 80, 30, 5, 0])];
  const draw = (chosen: string) => {
    const { container } = render(
      <SoftCurves
        width={500}
        curves={[bag, open]}
        band={chosen === "bag" ? bag : open}
        chosen={chosen}
        names={{ bag: "in a bag", open: "open" }}
        nowH={6}
      />,
    );
    const last = [
      ...stroked(container, "3.5")
        .getAttribute("d")!
        .matchAll(/(-?[\d.]+),(-?[\d.]+)/g),
    ].at(-1)!;
    const said = drawingLabel(container);
    cleanup();
    return { low: Number(last[2]), said };
  };
  expect(draw("bag").said).toBe("Softness over three days, in a bag: pliable in the end");
  expect(draw("open").said).toContain("open: hard in the end");
  expect(draw("open").low).toBeGreaterThan(draw("bag").low);
});

it("a tray names each bread with what was judged, and a press chooses it", () => {
  const chosen = vi.fn();
  const breads = [
    { round: 1, name: "round 1", mark: "1", pocket: "full", colour: "dark", also: ["burst"] },
    { round: 2, name: "round 2", mark: "2", pocket: null, colour: null, also: [] },
  ];
  const { container } = render(<Tray breads={breads} chosen={[2]} onChoose={chosen} />);
  fireEvent.click(screen.getByRole("button", { name: "round 1: full, dark, burst" }));
  expect(chosen.mock.calls).toEqual([[[1]]]);
  expect(screen.getByRole("button", { name: "round 2: not judged" }).getAttribute("aria-pressed")).toBe("true");
  expect(container.querySelectorAll("ellipse")).toHaveLength(30);
});

it("a handle moves in fives by key, an hour by page, and tells where it stands", () => {
  const moved = vi.fn();
  render(
    <svg>
      <Grip
        label="Table"
        at={H}
        y={0}
        x={(t) => t / 60e3}
        t={(px) => px * 60e3}
        say={(t) => `${t / H} h`}
        onMove={moved}
        onHold={() => undefined}
      />
    </svg>,
  );
  const grip = screen.getByRole("slider", { name: "Table" });
  for (const key of ["ArrowRight", "ArrowLeft", "PageUp", "x"]) fireEvent.keyDown(grip, { key });
  expect(moved.mock.calls.map(([t]) => (t as number) / 60e3)).toEqual([65, 55, 120]);
  expect(grip.getAttribute("aria-valuetext")).toBe("1 h");
});

it("the next moves count down, say now when they are due, and name the cook only where there are two", () => {
  const ahead = [
    { move: "turn", words: "Turn", round: "2", cook: 1, inMs: 0 },
    { move: "off", words: "Take off", round: "1", cook: 1, inMs: 32_000 },
    { move: "load", words: "Load", round: "3", cook: 1, inMs: 50_000 },
  ];
  const read = (list: typeof ahead) => {
    render(<HandsList ahead={list} most={2} label="Next" />);
    const said = screen.getAllByRole("listitem").map((li) => li.textContent);
    cleanup();
    return said;
  };
  expect(read(ahead)).toEqual(["nowTurn 2", "32Take off 1"]);
  expect(read(ahead.map((t, i) => ({ ...t, cook: (i % 2) + 1 })))).toEqual(["nowTurn 21", "32Take off 12"]);
});

it("a vessel is an empty bowl before mixing; its dough stands at its ratio after", () => {
  const { container, rerender } = render(<Vessel ratio={null} target={2} doughC={null} />);
  expect(container.querySelector("svg")!.getAttribute("height")).toBe("124");
  const level = (ratio: number) => {
    rerender(<Vessel ratio={ratio} target={2} doughC={24} />);
    return Number(/M3 (-?[\d.]+)/.exec(stroked(container, "2").getAttribute("d")!)![1]);
  };
  const [one, half, two] = [level(1), level(1.5), level(2)];
  expect(one - half).toBeCloseTo(half - two);
  expect(two).toBeCloseTo(num(textWith(container, "ready"), "y") + 6);
});
