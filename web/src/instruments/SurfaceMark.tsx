const MARKS: Record<string, string> = {
  iron_plate: "M8 30a24 7 0 1 0 48 0a24 7 0 1 0-48 0M18 40v8M46 40v8M32 42v8",
  skillet: "M6 24h36q0 18-18 18T6 24M42 28h18",
  stone_oven: "M8 12h48v38H8zM14 18h36v18H14zM18 32h28v4H18zM20 44h24",
  steel_oven: "M8 12h48v38H8zM14 18h36v18H14zM18 33h28M20 44h24",
  clay_wall: "M20 16h24M20 16q-14 8-10 24q3 10 22 10t22-10q4-16-10-24M24 24q-4 8 0 16M40 24q4 8 0 16",
  inverted_plate: "M10 20q22-14 44 0M54 20h8M22 48q-6-8 0-14q6 6 0 14M42 48q-6-8 0-14q6 6 0 14",
  lidded_pan: "M8 30h40v14H8zM48 34h12M10 30q18-16 36 0M28 20v-4",
  flame_oven: "M8 50V26q24-24 48 0v24zM16 44h20M44 46q-6-8 0-14q6 6 0 14",
  oil: "M8 18h48l-6 30H14zM12 26q6-4 12 0t12 0t14 0M26 36a8 3 0 1 0 14 0a8 3 0 1 0-14 0",
  pan_then_grill: "M8 38h36q0 12-18 12T8 38M44 40h16M10 14h40M16 14v6M26 14v6M36 14v6",
  oven_tray: "M6 40h52l-4 8H10zM14 38a6 6 0 0 1 12 0M26 38a6 6 0 0 1 12 0M38 38a6 6 0 0 1 12 0",
};

/** What breads are baked on, as a line drawing. */
export function SurfaceMark({ kind }: { kind: string }) {
  return (
    <svg
      width={64}
      height={54}
      viewBox="0 0 64 54"
      fill="none"
      stroke="currentColor"
      strokeWidth={2}
      aria-hidden="true"
    >
      <path d={MARKS[kind] ?? MARKS["iron_plate"]} strokeLinejoin="round" />
    </svg>
  );
}
