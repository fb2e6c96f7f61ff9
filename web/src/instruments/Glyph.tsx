import type { ReactNode } from "react";
/** Our own line drawings of hand moves, on one 24 grid: the dough, the surface, one motion. */
export type GlyphName =
  | "sponge"
  | "cold_in"
  | "cold_out"
  | "mix"
  | "weigh"
  | "ball"
  | "light"
  | "roll"
  | "load"
  | "turn"
  | "lift"
  | "wrap"
  | "serve"
  | "bubbles"
  | "brown"
  | "puff"
  | "edge"
  | "rotate"
  | "spray"
  | "lid"
  | "oven";

const PATHS: Record<GlyphName, string> = {
  weigh: "M4 8h16l-2.5 7h-11zM12 15v3M6 21h12M8 18h8v3M12 8V4",
  mix: "M3 11h18a9 9 0 0 1-18 0M8 21h8M14 11l5-8",
  sponge:
    "M3 11h18a9 9 0 0 1-18 0M8 21h8M8 7.5a1.500 1.500 0 1 0 .01 0M13 5.500a2 2 0 1 0 .01 0M16.500 8.200a1 1 0 1 0 .01 0",
  cold_in: "M5 3v18h14V3zM5 9.500h14M12 12v6M9.500 15.500L12 18l2.500-2.500M8 5.500v2",
  cold_out: "M5 3v18h14V3zM5 9.500h14M12 18v-6M9.500 14.500L12 12l2.500 2.500M8 5.500v2",
  ball: "M12 6.5a5.5 5.5 0 0 1 0 11a5.5 5.5 0 0 1 0-11M3 9c-1 6 3 12 9 12s10-6 9-12M3 9l-1 2M3 9l1.8 1.4M21 9l1 2M21 9l-1.8 1.4",
  light:
    "M3 21h18M12 17.5c-4 0-5.5-2.6-5.5-5c0-3 3-4.500 3.500-8.500c2.500 1 3.500 3 3.500 5c1-.3 1.500-1 1.700-2c1.600 1.700 2.300 3.600 2.300 5.500c0 2.400-1.500 5-5.500 5",
  roll: "M3 20.500h18M4 17c3-1.500 13-1.500 16 0M6 8.500h12v5H6zM2.500 11H6M18 11h3.500",
  load: "M3 20.500h18M5 16.500a7 1.800 0 1 0 14 0a7 1.800 0 1 0-14 0M12 3v8M9 8.500l3 3l3-3",
  turn: "M3 20.500h18M5 16.500a7 1.800 0 1 0 14 0a7 1.800 0 1 0-14 0M5.500 11c1-5 9-7 12.500-1.500M18.500 5.500V10h-4.500",
  lift: "M3 20.500h18M5 15a7 1.800 0 1 0 14 0a7 1.800 0 1 0-14 0M12 11V3M9 6l3-3l3 3",
  wrap: "M3 20.500h18M5 17c0-5 3-7 7-7s7 2 7 7zM5 17l4 3M19 17l-4 3M12 10V6",
  serve: "M5 3v18M5 4h13l-3 4l3 4H5",
  bubbles: "M3 20.500h18M5 17h14M8 13.500a1.500 1.500 0 1 0 .01 0M13 11a2 2 0 1 0 .01 0M16.500 14a1 1 0 1 0 .01 0",
  brown: "M3 20.500h18M4 17a8 2.500 0 1 0 16 0a8 2.500 0 1 0-16 0M9 16.500h1M13 17.500h1.500M11.500 18.200h1",
  edge: "M3 20.500h18M9 20c-1.500-6-1.500-11 0-15.500h4c-1.500 4.500-1.500 9.500 0 15.500M17 15V6M15 8l2-2l2 2",
  rotate:
    "M5 15a7 2.600 0 1 0 14 0a7 2.600 0 1 0-14 0M12 9.500c4.500 0 7.500 1.200 8.500 3M20.500 8.500v4h-4M12 5v4.500",
  spray: "M3 20.500h18M5 17a7 1.800 0 1 0 14 0a7 1.800 0 1 0-14 0M7 4.500v2M12 3.500v2M17 4.500v2M9.500 9v2M14.500 9v2",
  lid: "M3 20.500h18M4 16.500c0-4.500 3.500-7 8-7s8 2.500 8 7zM10 7h4M12 7v2.500",
  oven: "M4 4h16v17H4zM4 9h16M7 6.500h.1M10.500 6.500h.1M7 12.500h10v5H7z",
  puff: "M3 20.500h18M4 18.500c0-7 3-10 8-10s8 3 8 10zM12 6V3M8 6.500L6.500 4M16 6.500L17.500 4",
};

export function Glyph({ name, size = 28, stroke = 1.75 }: { name: GlyphName; size?: number; stroke?: number }) {
  return (
    <svg
      viewBox="0 0 24 24"
      width={size}
      height={size}
      fill="none"
      stroke="currentColor"
      strokeWidth={stroke}
      aria-hidden="true"
    >
      <path d={PATHS[name]} />
    </svg>
  );
}

export const GLYPH_OF_STEP: Record<string, GlyphName> = {
  feed: "sponge",
  wave: "cold_out",
  weigh: "weigh",
  sponge: "sponge",
  mix: "mix",
  ball: "ball",
  cold_in: "cold_in",
  cold_out: "cold_out",
  take_out: "cold_out",
  heat: "light",
  preheat: "light",
  roll: "roll",
  line: "load",
  serve: "serve",
  load: "load",
  turn: "turn",
  off: "lift",
  brush: "wrap",
  top: "brown",
  flip: "turn",
  edge: "edge",
  rotate: "rotate",
  spray: "spray",
  cover: "lid",
  uncover: "lid",
  finish_oven: "oven",
  bubbles: "bubbles",
  browned: "brown",
  puffed: "puff",
};

/** The seal of a bake: the shape of its bread. */
const SEALS: Record<string, ReactNode> = {
  round: <circle cx="12" cy="12" r="9" />,
  drop: <path d="M12 2.500c4 5.500 7 8.500 7 12a7 7 0 0 1-14 0c0-3.500 3-6.500 7-12z" />,
  "square-round": (
    <>
      <path d="M3 3h18v18H3z" />
      <circle cx="12" cy="12" r="5" />
    </>
  ),
  quarter: (
    <>
      <circle cx="12" cy="12" r="9" />
      <path d="M12 3v18M3 12h18" />
    </>
  ),
  thin: <ellipse cx="12" cy="12" rx="10" ry="4" />,
  stuffed: (
    <>
      <circle cx="12" cy="12" r="9" />
      <circle cx="12" cy="12" r="3.500" />
    </>
  ),
  topped: (
    <>
      <circle cx="12" cy="12" r="9" />
      <path d="M9 9h.1M15 10h.1M10 15h.1M14.500 15h.1" strokeLinecap="round" />
    </>
  ),
};

/** The shape of a bake's bread. */
export function Seal({ seal, size = 20 }: { seal: string; size?: number }) {
  return (
    <svg
      viewBox="0 0 24 24"
      width={size}
      height={size}
      fill="none"
      stroke="currentColor"
      strokeWidth={2.5}
      aria-hidden="true"
    >
      {SEALS[seal] ?? <path d="M4 4h16v16H4z" />}
    </svg>
  );
}

/** The same inside a drawing, about a point. */
export function SealShape({
  seal,
  x,
  y,
  size,
  fill,
}: {
  seal: string;
  x: number;
  y: number;
  size: number;
  fill: string;
}) {
  return (
    <g
      transform={`translate(${x - size / 2} ${y - size / 2}) scale(${size / 24})`}
      fill={fill}
      stroke="var(--ink)"
      strokeWidth={52 / size}
    >
      {SEALS[seal] ?? SEALS["round"]}
    </g>
  );
}
