import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { scaleQuery } from "../../api/instruments";

const LIFTED_G = 4; // the display falls by so much when the bowl is lifted, or tare pressed on the scale itself
const RIGHT_FRAC = 0.01;
const RIGHT_STEPS = 1.5;

/** How a line stands on the scale: what of it is in [g], whether that is right, and whether the scale stands still. */
export interface OnScale {
  inG: number;
  right: boolean;
  over: boolean;
  /** It has stood still since the line began, and counts from there. */
  counts: boolean;
}

/** Whether so much of a line is right: within a hundredth, or as fine as the scale shows. Pure. */
export const isRight = (inG: number, wantG: number, stepG: number): boolean =>
  Math.abs(inG - wantG) <= Math.max(wantG * RIGHT_FRAC, stepG * RIGHT_STEPS);

/**
 * A scale that is heard, for one line at a time: it is taken to zero where it stands still as the line begins, and again after the bowl
 * was lifted. `onRight` is called once, when the line's weight is right and stands still. Null where no scale is heard.
 */
export function useScale(
  kitchen: number,
  line: { key: string; wantG: number } | null,
  stepG: number,
  onRight: () => void,
): OnScale | null {
  const [zero, setZero] = useState<{ key: string; at: number } | null>(null);
  const mine = zero !== null && line !== null && zero.key === line.key ? zero.at : null;
  const heard = useQuery({
    ...scaleQuery(kitchen, line === null || mine === null ? null : mine + line.wantG),
    enabled: line !== null,
  });
  const value = heard.data?.value_g ?? null;
  const still = heard.data?.still_g ?? null;
  const told = useRef<string | null>(null);
  const key = line?.key ?? null;
  useEffect(() => {
    if (key === null || still === null) return;
    if (mine === null || still < mine - LIFTED_G) setZero({ key, at: still });
  }, [key, still, mine]);
  const right = line !== null && mine !== null && still !== null && isRight(still - mine, line.wantG, stepG);
  useEffect(() => {
    if (!right || told.current === key) return;
    told.current = key;
    onRight();
  });
  if (line === null || value === null) return null;
  const inG = mine === null ? 0 : value - mine;
  return {
    inG,
    right,
    over: mine !== null && inG > line.wantG && !isRight(inG, line.wantG, stepG),
    counts: mine !== null,
  };
}
