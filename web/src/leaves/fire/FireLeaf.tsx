import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Bake, Hearth, SayPart } from "../../api/client";
import { serverNow, useNow } from "../../api/clock";
import { hearthQuery } from "../../api/fire";
import { Plate } from "../../controls/Notice";
import { BakeHead } from "../../frame/BakeHead";
import { LeafFrame } from "../../frame/Frame";
import { clockSeconds, ms, span } from "../../words/format";
import { programOf, roundName } from "../../api/rounds";
import { moveLower, moveVerb } from "../../words/surfaces";
import { FireLive } from "./FireLive";
import { FirePlan } from "./FirePlan";
import { SAY } from "../../words/say/fire";

const text = (words: string): SayPart => ({ kind: "text", text: words, at: null });

/** What the hands do next, said from the hearth: the server is not needed for the seconds to run. */
function sayLive(hearth: Hearth, now: number, zone: string): SayPart[] | null {
  if (!hearth.started || hearth.finished) return null;
  const [first, second] = hearth.due;
  if (!first) return null;
  const due = ms(first.at) - now <= 1000;
  const parts: SayPart[] = [
    text(`${moveVerb(first.move, programOf(hearth, first.round_no))} ${roundName(hearth, first.round_no)} `),
  ];
  if (due) parts.push({ kind: "figure", text: "now", at: null });
  else parts.push(text("in "), { kind: "until", text: "", at: first.at });
  if (second)
    parts.push(
      text(
        `, then ${moveLower(second.move, programOf(hearth, second.round_no))} ${hearth.breads.length > 1 ? roundName(hearth, second.round_no) : second.round_no}`,
      ),
    );
  parts.push(text("."));
  if (hearth.last_off_at)
    parts.push(
      text(" Last off at "),
      { kind: "figure", text: clockSeconds(hearth.last_off_at, zone), at: null },
      text(hearth.late_s >= 60 ? `, ${span(hearth.late_s * 1000)} late.` : "."),
    );
  return parts;
}

/** Fire: planned until the first round is loaded, live from then on. */
export function FireLeaf({ bake }: { bake: number }) {
  const hearth = useQuery(hearthQuery(bake));
  useNow(1000);
  const [wanted, setWanted] = useState<"plan" | "live" | null>(null);
  return (
    <LeafFrame
      bake={bake}
      here="fire"
      begun={hearth.data?.started ?? false}
      say={hearth.data ? (zone) => sayLive(hearth.data, serverNow(), zone) : null}
    >
      {(b: Bake) => {
        if (b.faults["fire"] || !hearth.data) {
          return (
            <>
              <BakeHead bake={b} about="" />
              <Plate>{b.faults["fire"] ?? (hearth.error ? hearth.error.message : SAY.readingTheHearth)}</Plate>
            </>
          );
        }
        const view = wanted ?? (hearth.data.started && !hearth.data.finished ? "live" : "plan");
        return view === "live" ? (
          <FireLive bake={b} hearth={hearth.data} onPlan={() => setWanted("plan")} />
        ) : (
          <FirePlan bake={b} hearth={hearth.data} onLive={() => setWanted("live")} />
        );
      }}
    </LeafFrame>
  );
}
