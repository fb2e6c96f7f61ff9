import { useState } from "react";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { asBefore, type Judgement, useJudge } from "../../api/keep";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Tray } from "../../instruments/Tray";
import { listed } from "../../words/faults";
import { AlsoSheet } from "./AlsoSheet";
import { nextUnjudged, trayOf } from "./breads";
import { SAY } from "../../words/say/keep";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  margin-top: 8px;
  > b {
    font: 700 22px/1 var(--name);
    min-width: 5.2em;
  }
  @media (max-width: 600px) {
    gap: 6px;
    > b {
      min-width: 0;
      width: 100%;
    }
  }
  .say {
    margin-left: auto;
    display: flex;
    flex-wrap: wrap;
    align-items: end;
    gap: 4px 8px;
  }
`;
type Words = Omit<Judgement, "round_no">;
const POCKETS = [
  { id: "full", text: "full" },
  { id: "part", text: "part" },
  { id: "flat", text: "flat" },
] as const;
const COLOURS = [
  { id: "pale", text: "pale" },
  { id: "right", text: "right" },
  { id: "dark", text: "dark" },
] as const;
const BY_KEY: Record<string, Words> = {
  ...Object.fromEntries(POCKETS.map((p, i) => [String(i + 1), { pocket: p.id }])),
  ...Object.fromEntries(COLOURS.map((c, i) => [String(i + 4), { colour: c.id }])),
};

/** The tray, and what is said of the breads that are chosen on it: by press, by key, or in a sentence. */
export function JudgeBar({
  bake: stored,
  pockets,
  picked,
  onPick,
}: {
  bake: Bake;
  pockets: boolean;
  picked: number[] | null;
  onPick: (rounds: number[]) => void;
}) {
  const { judge, outcomes } = useJudge(stored.id, stored.keep.outcomes);
  const bake = { ...stored, keep: { ...stored.keep, outcomes } };
  const breads = trayOf(bake);
  const [also, setAlso] = useState(false);
  const chosen = picked ?? [nextUnjudged(breads, breads.at(-1)?.round ?? 1)];
  const first = bake.keep.outcomes.find((o) => o.round_no === chosen[0]);
  const told = (o: Words | undefined) => Boolean((o?.pocket || !pockets) && o?.colour);
  const say = (words: Words) => {
    judge(chosen.map((round_no) => ({ ...words, round_no })));
    const only = chosen.length === 1 ? chosen[0]! : null;
    // a bread of which all is said hands on to the next; one that is judged anew stays chosen
    if (only !== null && told({ ...first, ...words }) && !told(first)) onPick([nextUnjudged(breads, only)]);
  };
  const names = chosen.map((n) => breads.find((b) => b.round === n)?.name ?? String(n));
  const title = names.length > 1 ? listed(names) : (names[0] ?? "");
  return (
    <>
      <Tray
        breads={breads}
        chosen={chosen}
        onChoose={onPick}
        onKey={(key) => {
          const words = BY_KEY[key];
          if (words) say(words);
          return words !== undefined;
        }}
      />
      <Bar role="group" aria-label={title}>
        <b>{names.length > 1 ? `${names.length} breads` : title}</b>
        {pockets && (
          <Choice
            label="Pocket"
            value={first?.pocket ?? null}
            options={POCKETS}
            onChange={(pocket) => say({ pocket })}
          />
        )}
        <Choice label="Colour" value={first?.colour ?? null} options={COLOURS} onChange={(colour) => say({ colour })} />
        <Button data-kind="bare" onPress={() => setAlso(true)}>
          {SAY.alsoBurstStiffRaw}
        </Button>
        <Sentence bake={stored} />
      </Bar>
      <AlsoSheet
        open={also}
        title={title}
        outcome={first}
        onSay={(words) => judge(chosen.map((round_no) => ({ ...words, round_no })))}
        onClose={() => setAlso(false)}
      />
    </>
  );
}

/** The whole tray in a sentence, and that undone. */
function Sentence({ bake }: { bake: Bake }) {
  const { write } = useJudge(bake.id, bake.keep.outcomes);
  const [said, setSaid] = useState("");
  const [before, setBefore] = useState<Judgement[] | null>(null);
  const judge = () => {
    const had = asBefore(
      bake.keep.outcomes,
      bake.keep.rounds.map((x) => x.round_no),
    );
    write.mutate(
      { said },
      {
        onSuccess: () => {
          setSaid("");
          setBefore(had);
        },
      },
    );
  };
  return (
    <span className="say">
      <Field
        label={SAY.theTrayInASentence}
        hideLabel
        value={said}
        placeholder={SAY.allFullExceptAndFlat}
        width="17em"
        fault={write.error?.message ?? null}
        onType={setSaid}
        onCommit={setSaid}
      />
      <Button isDisabled={!said.trim() || write.isPending} onPress={judge}>
        Judge
      </Button>
      {before && (
        <Button
          data-kind="bare"
          onPress={() => write.mutate({ outcomes: before }, { onSuccess: () => setBefore(null) })}
        >
          undo
        </Button>
      )}
    </span>
  );
}
