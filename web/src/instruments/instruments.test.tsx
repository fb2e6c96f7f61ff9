// @vitest-environment jsdom
/** What an instrument draws is where its figures say: read off the drawing itself. */
import { cleanup, render } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { HearthSpot } from "./Hearth";
import { LiftChart } from "./LiftChart";
import { LinePlan, type LineTask } from "./LinePlan";
import { RiseChart } from "./RiseChart";
import type { RisePoint } from "./riseShapes";
import { SodaBeam } from "./SodaBeam";
import { StrengthRule } from "./StrengthRule";
import { drawingLabel as label, num, points, texts } from "../testing/drawn";

afterEach(cleanup);
const TASKS: LineTask[] = [
  { move: "load", round: 1, mark: "1", spot: 1, cook: 1, s: 0, hands: 8 },
  { move: "load", round: 2, mark: "2", spot: 2, cook: 1, s: 20, hands: 8 },
  { move: "turn", round: 1, mark: "1", spot: 1, cook: 1, s: 50, hands: 4 },
  { move: "off", round: 1, mark: "1", spot: 1, cook: 1, s: 100, hands: 4 },
  { move: "off", round: 2, mark: "2", spot: 2, cook: 1, s: 130, hands: 4 },
];
const plan = (over: Partial<Parameters<typeof LinePlan>[0]> = {}) =>
  render(<LinePlan tasks={TASKS} spots={2} grilled={false} width={600} clock={String} recoverS={10} {...over} />)
    .container;

it("a line's hands lie where their seconds are, as long as they last", () => {
  const root = plan();
  const hands = [...root.querySelectorAll('rect[stroke-width="1.5"]')].filter((r) => num(r, "height") === 22);
  const xs = hands.slice(0, 5).map((r) => num(r, "x"));
  const perS = (xs[3]! - xs[0]!) / 100;
  expect(xs.map((x) => Math.round((x - xs[0]!) / perS))).toEqual([0, 20, 50, 100, 130]);
  expect(num(hands[0]!, "width") + 1).toBeCloseTo(8 * perS, 5);
  expect(label(root)).toBe("2 rounds on 2 spots, last off after 2 min");
});

it("a line has a lane for each spot, for the grill, and a rail for each cook", () => {
  expect(texts(plan())).toEqual(expect.arrayContaining(["hands", "spot 1", "spot 2", "towel"]));
  cleanup();
  const two = TASKS.map((t) => ({ ...t, cook: t.move === "off" ? 2 : 1 }));
  const root = plan({ tasks: two, grilled: true });
  expect(texts(root)).toEqual(expect.arrayContaining(["cook 1", "cook 2", "grill"]));
});

it("the beam sinks on the side that is left over, by how much", () => {
  const side = (name: string, mmol: number, flour = false) => ({ name, mmol, flour });
  const tilt = (excess: number) => {
    const { container } = render(
      <SodaBeam
        soda={[side("soda", 34)]}
        acid={[side("yoghurt", 17), side("flour", 7, true)]}
        excess={excess}
        width={400}
      />,
    );
    const beam = [...container.querySelectorAll("path")].find((p) => p.getAttribute("stroke-width") === "5")!;
    const [[, acidY], [, sodaY]] = points(beam.getAttribute("d")!) as [
      readonly [number, number],
      readonly [number, number],
    ];
    const drawn = { squares: container.querySelectorAll("rect").length, label: label(container) };
    cleanup();
    return { drop: sodaY - acidY, ...drawn };
  };
  expect(tilt(0).drop).toBeCloseTo(0);
  expect(tilt(0.1).drop).toBeGreaterThan(tilt(0.05).drop);
  expect(tilt(-0.1).drop).toBeCloseTo(-tilt(0.1).drop);
  expect(tilt(9).drop).toBeCloseTo(tilt(0.3).drop); // held at its stop
  expect(tilt(0).squares).toBe(10);
  expect(tilt(-0.2).label).toContain("0.20 g of acid, as soda, left");
});

it("a strength stands on its rule as its logarithm, eight in ten about it", () => {
  const at = (mean: number, sdLog: number) => {
    const { container } = render(<StrengthRule mean={mean} sdLog={sdLog} label="x" />);
    const bar = container.querySelector("rect")!;
    const notch = points(container.querySelector("path")!.getAttribute("d")!)[0]![0];
    cleanup();
    return { notch, low: num(bar, "x"), high: num(bar, "x") + num(bar, "width") };
  };
  const one = at(1, 0.2);
  expect(one.notch - at(0.5, 0.2).notch).toBeCloseTo(at(2, 0.2).notch - one.notch);
  expect(one.notch - one.low).toBeCloseTo(one.high - one.notch);
  expect(at(1, 0.4).high - one.notch).toBeCloseTo(2 * (one.high - one.notch));
  expect(at(50, 0.2).notch).toBeCloseTo(290); // held at the end of the rule
});

it("the lift wanes through its half where the figures say so", () => {
  const h = [0, 1, 2, 3, 4];
  const lift = h.map((x) => 3 * Math.exp(-0.35 * x) + 1);
  const here = { h: 2, low_h: 1.5, high_h: 2.6, best_lift: 4, curve: { h, lift, low: lift, high: lift } };
  const { container } = render(
    <LiftChart width={700} here={here} fridge={null} from={0} cookH={1} nowH={0.5} clock={(t) => `${t / 3600e3} h`} />,
  );
  const curve = [...container.querySelectorAll("path")].find((p) => p.getAttribute("stroke-width") === "2.5")!;
  const drawn = points(curve.getAttribute("d")!);
  expect(drawn.map((p) => p[1])).toEqual([...drawn.map((p) => p[1])].sort((a, b) => a - b));
  const dashed = [...container.querySelectorAll("line")].find((l) => l.getAttribute("stroke-dasharray") === "7 5")!;
  expect(num(dashed, "y1")).toBeGreaterThan(drawn[1]![1]);
  expect(num(dashed, "y1")).toBeLessThan(drawn[2]![1]);
  expect(label(container)).toContain("half of that after 1.5 to 2.6 hours");
});

it("the rise's curve reaches its target at the instant that is called ready", () => {
  const H = 3600e3;
  const rise: RisePoint[] = [0, 1, 2, 3].map((h) => ({
    t: h * H,
    ratio: 1 + h / 2,
    low: 1 + h / 3,
    high: 1 + h,
    doughC: 24,
  }));
  const bulk = { name: "bulk", begins: 0, target: 2, ready: 2 * H, from: 2 * H, to: 2.5 * H, tooFar: 3 * H };
  const { container } = render(
    <RiseChart
      width={1000}
      points={rise}
      windows={[bulk]}
      readings={[]}
      now={H}
      serve={3 * H}
      ratioNow={1.5}
      doughNow={24}
      stage={0}
      clock={(t) => `${t / H}`}
      degrees={String}
    />,
  );
  const curve = [...container.querySelectorAll("path")].find((p) => p.getAttribute("stroke-width") === "2.5")!;
  const drawn = points(curve.getAttribute("d")!);
  expect(drawn).toHaveLength(4);
  const perH = drawn[1]![0] - drawn[0]![0];
  expect(drawn[3]![0] - drawn[0]![0]).toBeCloseTo(3 * perH, 1);
  const target = [...container.querySelectorAll("line")].find((l) => Math.abs(num(l, "y1") - drawn[2]![1]) < 0.5);
  expect(target).toBeDefined();
});

it("the plates of now and of serving never lie on each other, and serving is moved from where its plate stands", () => {
  const H = 3600e3;
  const rise: RisePoint[] = [0, 1, 2, 3, 4].map((h) => ({ t: h * H, ratio: 1 + h / 4, low: 1, high: 2, doughC: 24 }));
  const bulk = { name: "bulk", begins: 0, target: 1.8, ready: 3 * H, from: 3 * H, to: 3.4 * H, tooFar: 4 * H };
  for (const serve of [2.5, 3, 3.05, 3.2, 4]) {
    const told: number[] = [];
    const { container } = render(
      <RiseChart
        width={1000}
        points={rise}
        windows={[bulk]}
        readings={[]}
        moves={[
          { key: "mix", at: 0, done: true, next: false },
          { key: "roll", at: 3 * H, done: false, next: true },
        ]}
        now={3 * H}
        serve={serve * H}
        ratioNow={1.5}
        doughNow={24}
        stage={0}
        clock={(t) => `0${(t / H).toFixed(2)}`}
        degrees={String}
        onServe={(t) => told.push(t)}
      />,
    );
    const plates = [...container.querySelectorAll("rect")]
      .filter((r) => r.getAttribute("height") === "28")
      .map((r) => [num(r, "x"), num(r, "x") + num(r, "width")] as const)
      .sort((a, b) => a[0] - b[0]);
    expect(plates).toHaveLength(2);
    expect(plates[1]![0]).toBeGreaterThan(plates[0]![1]);
    const grip = container.querySelector("[role=slider]")!;
    grip.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowRight", bubbles: true }));
    expect(told).toEqual([Math.round((serve * H + 5 * 60e3) / (5 * 60e3)) * 5 * 60e3]);
    cleanup();
  }
});

it("a spot tells by its ring what is left until the next move, and by its name which bread it has", () => {
  const spot = {
    number: 1,
    name: "spot 1",
    state: "busy" as const,
    round: "round 3",
    verb: "turn",
    seconds: "0:20",
    sweep: 0.25,
    due: false,
    swell: 0.5,
    under: "",
    label: "spot 1, bread 3, turn in 20 s",
  };
  const draw = (sweep: number) => {
    const { container } = render(<HearthSpot spot={{ ...spot, sweep }} side={false} onPress={() => undefined} />);
    const dash = container.querySelector("circle.sweep")!.getAttribute("stroke-dasharray")!;
    const name = container.querySelector("button")!.getAttribute("aria-label");
    cleanup();
    return { share: Number(dash.split(/[ ,]+/)[0]), name };
  };
  expect(draw(0.75).share).toBeCloseTo(draw(0.25).share / 3, 3);
  expect(draw(0.25).name).toContain("bread 3");
});
