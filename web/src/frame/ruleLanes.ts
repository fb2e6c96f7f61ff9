/** Where the Rule's lanes lie from above: heads, bakes, hours away, air, hours [px]. */
export interface RuleLanes {
  height: number;
  /** Where the stems of heads end. */
  stems: number;
  bakes: number;
  /** From one bake's lane to the next, and how many there are. */
  pitch: number;
  most: number;
  away: number;
  air: { top: number; bottom: number };
  hours: number;
  /** Width of the gutter at the left that never scrolls. */
  gutter: number;
  named: boolean;
}

/**
 * In a room the lanes have names and room for four bakes; in a bake, and on a phone, for two or three unnamed. No more are drawn
 * than `used` of them hold a bake.
 */
export function ruleLanes(room: boolean, narrow: boolean, used: (most: number) => number): RuleLanes {
  const named = room && !narrow;
  const pitch = named ? 16 : 10;
  const most = Math.max(used(named ? 4 : narrow ? 3 : 2), 1);
  const bakes = 58;
  const away = bakes + (most - 1) * pitch + 8;
  return {
    height: away + 50,
    stems: bakes - 10,
    bakes,
    pitch,
    most,
    away,
    air: { top: away + 12, bottom: away + 26 },
    hours: away + 26,
    gutter: narrow ? 46 : 88,
    named,
  };
}
