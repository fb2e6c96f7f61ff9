import type { Step } from "../api/client";
import { ms } from "../words/format";

export interface Hands {
  key: string;
  from: number;
  to: number;
  /** Whether no cook was free for it. */
  clash: boolean;
}

/** The moves of a stretch on the hands of `cooks` cooks: each to the first who is free; and when none was. */
export function handsOf(steps: readonly Step[], cooks: number): { rows: Hands[][]; clashes: number[] } {
  const rows: Hands[][] = Array.from({ length: cooks }, () => []);
  const clashes: number[] = [];
  for (const s of [...steps].sort((a, b) => ms(a.at) - ms(b.at))) {
    const from = ms(s.at);
    if (s.hands_min <= 0) continue;
    const free = rows.findIndex((row) => (row.at(-1)?.to ?? -Infinity) <= from);
    const row = rows[Math.max(free, 0)]!;
    if (free < 0) clashes.push(from);
    row.push({ key: `${s.bake_id}-${s.key}-${s.at}`, from, to: from + s.hands_min * 60e3, clash: free < 0 });
  }
  return { rows, clashes };
}
