import { useQuery } from "@tanstack/react-query";
import { Z10 } from "../../words/format";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { lessonsQuery, useLessons } from "../../api/keep";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { LessonRow } from "../../frame/LessonRow";
import { useWords } from "../../frame/units";
import { StrengthRule } from "../../instruments/StrengthRule";
import { beliefFigure, brownsWords } from "../../words/lessons";
import { SAY } from "../../words/say/kitchen";

const One = styled.div`
  border-bottom: 1px solid var(--hair-2);
  padding: 6px 0;
  .row {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 18px;
    align-items: center;
  }
  .about {
    font-weight: 650;
  }
  .row svg {
    max-width: 100%;
  }
  summary {
    min-height: 48px;
    display: inline-flex;
    align-items: center;
    cursor: pointer;
    text-decoration: underline;
  }
  ul {
    list-style: none;
    margin: 0;
    padding: 0 0 0 14px;
  }
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 14px;
    align-items: center;
    min-height: 48px;
    border-bottom: 1px solid var(--hair);
  }
  li[data-refused="true"] > span {
    color: var(--ink-2);
  }
`;

/** What is believed here: each belief on its rule, with the lessons that made it; any may be refused, and all of one forgotten. */
export function Lessons({ kitchen }: { kitchen: number }) {
  const found = useQuery(lessonsQuery(kitchen));
  const { forget } = useLessons(kitchen);
  if (found.error) return <Plate>{found.error.message}</Plate>;
  if (!found.data) return <p className="quiet">{SAY.readingWhatWasLearned}</p>;
  return (
    <>
      {found.data.beliefs.length === 0 && <p className="quiet">{SAY.nothingLearnedYetEveryLeavenCounts}</p>}
      {found.data.beliefs.map((b) => (
        <Belief key={b.key} kitchen={kitchen} belief={b} onForget={(back) => forget.mutate({ key: b.key, back })} />
      ))}
      {forget.error && <Plate>{forget.error.message}</Plate>}
    </>
  );
}

function Belief({
  kitchen,
  belief: b,
  onForget,
}: {
  kitchen: number;
  belief: Schemas["BeliefRead"];
  onForget: (back: boolean) => void;
}) {
  const counting = b.lessons.filter((l) => l.after !== null).length;
  const forgotten = b.lessons.every((l) => l.refused);
  const units = useWords();
  const at = (side: number) =>
    b.kind === "surface" ? b.mean + side * Z10 * b.sd : b.mean * Math.exp(side * Z10 * b.sd);
  const band = `${beliefFigure(b.kind, at(-1), units)} to ${beliefFigure(b.kind, at(1), units)}`;
  return (
    <One>
      <div className="row">
        <span className="about">{b.about}</span>
        <Button data-kind="bare" onPress={() => onForget(forgotten)}>
          {forgotten ? "undo the forgetting" : "forget it"}
        </Button>
        <span>
          <b>{beliefFigure(b.kind, b.mean, units)}</b>, 8 in 10 {band}
          {b.browns != null && `; bread ${brownsWords(b.browns)}`}
        </span>
        {b.kind !== "thirst" && b.kind !== "surface" && (
          <StrengthRule mean={b.mean} sdLog={b.sd} label={`${b.about}: ${band}`} />
        )}
      </div>
      <details>
        <summary>
          {counting} of {b.lessons.length} {b.lessons.length === 1 ? "lesson counts" : "lessons count"}
        </summary>
        <ul aria-label={`Lessons: ${b.about}`}>
          {b.lessons.map((l) => (
            <LessonRow key={l.id} kitchen={kitchen} belief={b} lesson={l} />
          ))}
        </ul>
      </details>
    </One>
  );
}
