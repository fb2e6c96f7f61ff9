import type { Bake } from "../../api/client";
import type { TrayBread } from "../../instruments/Tray";
import { faultWords } from "../../words/faults";
import { SAY } from "../../words/say/keep";

/** Every round of a bake as it lies on the tray, by its own name where the dough makes several breads. */
export function trayOf(bake: Bake): TrayBread[] {
  const { rounds, outcomes } = bake.keep;
  const mixed = new Set(rounds.map((x) => x.name)).size > 1;
  return rounds.map(({ round_no, name, pieces }) => {
    const found = outcomes.find((o) => o.round_no === round_no);
    const nth = rounds.filter((x) => x.name === name && x.round_no <= round_no).length;
    const own = pieces > 1 ? (mixed ? name : `Tray of ${pieces}`) : mixed ? `${name} ${nth}` : `Round ${round_no}`;
    const top = found?.colour_top ? `other side ${found.colour_top}` : null;
    return {
      round: round_no,
      name: own,
      mark: pieces > 1 ? `×${pieces}` : mixed ? `${name.slice(0, 1)}${nth}` : String(round_no),
      pocket: found?.pocket ?? null,
      colour: found?.colour ?? null,
      also: [top, found?.tender ?? null, ...(found?.faults ?? []).map(faultWords)].filter((x): x is string => !!x),
    };
  });
}

/** How many were judged, and what they were: 8 judged: 5 full, 2 part, 1 flat. */
export function tally(breads: readonly TrayBread[]): string {
  const judged = breads.filter((b) => b.pocket ?? b.colour).length;
  const of = (word: string) => breads.filter((b) => b.pocket === word).length;
  const said = ["full", "part", "flat"].filter((w) => of(w) > 0).map((w) => `${of(w)} ${w}`);
  return judged ? `${judged} judged${said.length ? `: ${said.join(", ")}` : ""}` : SAY.pressABreadSayWhatBecame;
}

/** The next bread that is not judged after one, around the tray; that one itself when all are. */
export function nextUnjudged(breads: readonly TrayBread[], after: number): number {
  const at = breads.findIndex((b) => b.round === after);
  const around = [...breads.slice(at + 1), ...breads.slice(0, at + 1)];
  return around.find((b) => !b.pocket || !b.colour)?.round ?? after;
}
