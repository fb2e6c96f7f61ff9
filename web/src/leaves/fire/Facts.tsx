import { useState } from "react";
import type { Hearth } from "../../api/client";
import { Button } from "../../controls/Button";
import { ms } from "../../words/format";
import { programOf, roundName } from "../../api/rounds";
import { SAY } from "../../words/say/fire";

const FACTS = [
  ["bubbles", "bubbles"],
  ["browned", "first brown"],
  ["puffed", "puffed"],
] as const;
type Fact = "bubbles" | "browned" | "puffed" | "dark" | "pale" | "fell";

/** The first round is the probe: what is seen of it is stored with its time, and times the rest anew. Then the colour, and what was lost. */
export function Facts({
  hearth,
  onFact,
}: {
  hearth: Hearth;
  onFact: (kind: Fact, round: number, spot: number) => void;
}) {
  const [lost, setLost] = useState(false);
  const on = hearth.spots
    .filter((s) => s.state === "busy" && s.round_no !== null)
    .sort((a, b) => a.round_no! - b.round_no!);
  const probe = on.find((s) => programOf(hearth, s.round_no).puff_s != null) ?? on[0];
  const last = hearth.off.at(-1);
  const { colour_steps = 0 } = programOf(hearth, last);
  const colour =
    last !== undefined
      ? { round: last, spot: hearth.taps.find((t) => t.kind === "off" && t.round_no === last)?.spot ?? 1 }
      : null;
  return (
    <>
      {probe ? (
        <div className="seen" role="group" aria-label={`${roundName(hearth, probe.round_no!)} shows`}>
          <span className="quiet label">{roundName(hearth, probe.round_no!)} shows</span>
          {FACTS.map(([kind, name]) => {
            const seen = hearth.taps.find((t) => t.kind === kind && t.round_no === probe.round_no);
            const after = seen && probe.since ? (ms(seen.at) - ms(probe.since)) / 1000 : null;
            return (
              <Button
                key={kind}
                isDisabled={seen !== undefined}
                onPress={() => onFact(kind, probe.round_no!, probe.number)}
              >
                {name}
                {after !== null ? ` ${after.toFixed(0)} s` : ""}
              </Button>
            );
          })}
        </div>
      ) : !hearth.started ? (
        <span className="quiet">{SAY.theFirstRoundMeasuresTheSurface}</span>
      ) : null}
      {on.length > 0 && (
        <div className="aside" role="group" aria-label="What was lost">
          {!lost && (
            <Button
              data-kind="bare"
              onPress={() => (on.length === 1 ? onFact("fell", on[0]!.round_no!, on[0]!.number) : setLost(true))}
            >
              fell off
            </Button>
          )}
          {lost &&
            on.map((s) => (
              <Button
                key={s.number}
                onPress={() => {
                  onFact("fell", s.round_no!, s.number);
                  setLost(false);
                }}
              >
                {roundName(hearth, s.round_no!)}
              </Button>
            ))}
          {lost && (
            <Button data-kind="bare" onPress={() => setLost(false)}>
              none
            </Button>
          )}
        </div>
      )}
      {colour && (
        <div className="aside" role="group" aria-label={`The colour of ${roundName(hearth, colour.round)}`}>
          <Button data-kind="bare" onPress={() => onFact("dark", colour.round, colour.spot)}>
            too dark
          </Button>
          <Button data-kind="bare" onPress={() => onFact("pale", colour.round, colour.spot)}>
            too pale
          </Button>
          {colour_steps !== 0 && (
            <span className="quiet">
              {colour_steps > 0 ? "shorter" : "longer"} by {Math.abs(colour_steps)}{" "}
              {Math.abs(colour_steps) > 1 ? "steps" : "step"}
            </span>
          )}
        </div>
      )}
    </>
  );
}
