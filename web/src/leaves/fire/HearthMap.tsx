import styled from "styled-components";
import type { Hearth, Schemas } from "../../api/client";
import { useWords } from "../../frame/units";
import { HearthSpot, type SpotView } from "../../instruments/Hearth";
import { countdown, ms, temp } from "../../words/format";
import { placeName, programOf, roundName, surfaceOf } from "../../api/rounds";
import { moveLower as lower } from "../../words/surfaces";

/** How a surface lies in the kitchen: round a clay wall, on one stone, in one pot, or pan by pan. */
const LAYS: Record<string, "ring" | "stone" | "pot"> = {
  clay_wall: "ring",
  stone_oven: "stone",
  steel_oven: "stone",
  flame_oven: "stone",
  oil: "pot",
};

const Map = styled.div`
  display: flex;
  justify-content: center;
  gap: 26px;
  min-height: 0;
  min-width: 0;
  align-items: start;
  .place {
    min-width: 0;
    min-height: 0;
    display: grid;
    justify-items: center;
    flex: 1 1 240px;
    max-width: 360px;
  }
  .grill {
    border-top: 6px solid var(--fill-edge);
    padding-top: 6px;
  }
  &[data-many="true"] {
    flex-wrap: wrap;
    gap: 6px 18px;
    align-content: center;
    overflow-y: auto;
  }
  &[data-many="true"] .place {
    flex: 0 1 150px;
  }
  &[data-many="true"] svg.disc {
    width: min(100%, 18vh, 160px);
  }
  &[data-lay="stone"] {
    border: 2.5px solid var(--ink);
    padding: 8px;
  }
  &[data-lay="pot"] {
    border: 2.5px solid var(--ink);
    border-radius: 140px;
    padding: 8px 40px 4px;
  }
  &:is([data-lay="pot"], [data-lay="stone"]) svg.disc {
    width: min(100%, 25vh, 250px);
  }
  &[data-lay="ring"][data-many="true"] {
    position: relative;
    display: block;
    overflow: visible;
    height: 100%;
    border: 2.5px solid var(--ink);
    border-radius: 150px;
  }
  &[data-lay="ring"][data-many="true"] .place {
    position: absolute;
    height: 48%;
    transform: translate(-50%, -50%);
    grid-template-rows: 100%;
  }
  &[data-lay="ring"][data-many="true"] :is(.place > button, svg.disc) {
    height: 100%;
    width: auto;
  }
  @media (max-width: 900px) {
    gap: 8px;
    flex-wrap: wrap;
    align-content: start;
    overflow-y: auto;
    .place {
      flex-basis: 130px;
    }
    &[data-many="true"] {
      align-content: start;
    }
    &[data-many="true"] .place {
      flex: 1 1 100px;
      max-width: 150px;
    }
    &[data-lay="ring"][data-many="true"] {
      display: flex;
      border: 0;
      border-radius: 0;
      overflow: hidden auto;
    }
    &[data-lay="ring"][data-many="true"] .place {
      position: static;
      height: auto;
      transform: none;
      flex: 1 1 100px;
      max-width: 150px;
    }
    &[data-lay="ring"][data-many="true"] :is(.place > button, svg.disc) {
      height: auto;
      width: 100%;
    }
  }
`;

/** Where a spot of the wall lies: clockwise, along the far side and back along the near one. */
const around = (i: number, of: number) => {
  const far = Math.ceil(of / 2);
  const across = i < far ? (i + 0.5) / far : 1 - (i - far + 0.5) / (of - far);
  return { left: `${6 + 88 * across}%`, top: i < far ? "26%" : "74%" };
};

/** The round on a spot as its disc names it. */
const roundOn = (hearth: Hearth, round: number | null | undefined): string | null =>
  round == null ? null : roundName(hearth, round);

/** The surface as it lies: each spot with its bread, its sweep to the next move and its side view. */
export function HearthMap({
  hearth,
  now,
  onAct,
}: {
  hearth: Hearth;
  now: number;
  onAct: (due: Schemas["MoveRead"], at: number) => void;
}) {
  const units = useWords();
  const own = hearth.spots.filter((s) => !s.grill).length;
  const lay = hearth.breads.length > 1 ? "row" : (LAYS[hearth.surface?.kind ?? ""] ?? "row");
  const many = hearth.spots.length > 2;
  return (
    <Map data-lay={lay} data-many={many}>
      {hearth.spots.map((s, i) => {
        const due = hearth.due.find((d) => d.spot === s.number);
        const left = due ? ms(due.at) - now : 0;
        const program = programOf(hearth, s.round_no ?? due?.round_no);
        const surface = surfaceOf(hearth, s.number);
        const since = s.since ? ms(s.since) : now;
        const elapsed = (now - since) / 1000;
        const whole =
          due && s.state === "busy"
            ? s.side === "a"
              ? (program.turn_s ?? program.off_s)
              : program.off_s - (program.turn_s ?? 0)
            : 1;
        const puffed = hearth.taps.find((t) => t.kind === "puffed" && t.round_no === s.round_no);
        const swell =
          s.state !== "busy"
            ? 0
            : puffed
              ? 1
              : program.puff_s === null
                ? 0.1
                : Math.min(1, Math.max(0.08, (elapsed - program.puff_s) / 12));
        const free = s.state !== "busy";
        const back = s.state === "recovering" && s.until ? ms(s.until) - now : 0;
        const view: SpotView = {
          number: s.number,
          state: free && back > 0 ? "recovering" : free ? "free" : "busy",
          round: roundOn(hearth, free ? due?.round_no : s.round_no),
          verb: free
            ? s.grill
              ? "grill"
              : back > 0
                ? "heating"
                : due
                  ? "load"
                  : "free"
            : lower(due?.move ?? "off", program),
          seconds: free ? (back > 0 ? countdown(back) : due ? "next" : "–") : left > 0 ? countdown(left) : "now",
          sweep: Math.min(1, Math.max(0, 1 - left / 1000 / whole)),
          due: due !== undefined && left <= 0 && back <= 0,
          swell,
          under: free
            ? `${temp(surface?.temp_c ?? 240, units)} °${units.temp}`
            : elapsed > (program.puff_s ?? 1e9)
              ? "puffing"
              : `${countdown(elapsed * 1000)} s on`,
          name: s.grill ? `grill ${s.number - own}` : placeName(hearth, s.number),
          label: due
            ? `Spot ${s.number}: ${lower(due.move, program)} ${roundName(hearth, due.round_no)}`
            : `Spot ${s.number}: ${s.state}`,
        };
        return (
          <div
            key={s.number}
            className={s.grill ? "place grill" : "place"}
            style={lay === "ring" && many ? around(i, own) : undefined}
          >
            <HearthSpot spot={view} side={!many} onPress={due ? (at) => onAct(due, at) : null} />
          </div>
        );
      })}
    </Map>
  );
}
