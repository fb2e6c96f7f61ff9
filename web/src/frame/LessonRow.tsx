import type { Schemas } from "../api/client";
import { useLessons } from "../api/keep";
import { Button } from "../controls/Button";
import { dayName } from "../words/format";
import { lessonWords } from "../words/lessons";
import { useWords } from "./units";
import { SAY } from "../words/say/frame";

/** One lesson: what it was seen by, what it moved, and the press that refuses or restores it. */
export function LessonRow({
  kitchen,
  belief,
  lesson,
  named = false,
}: {
  kitchen: number;
  belief: Schemas["BeliefRead"];
  lesson: Schemas["LessonRead"];
  /** Whether it says what it is about. */
  named?: boolean;
}) {
  const words = useWords();
  const { zone } = words;
  const { change } = useLessons(kitchen);
  const set = (refused: boolean, sure?: boolean) =>
    change.mutate({ id: lesson.id, refused, ...(sure === undefined ? {} : { sure }) });
  const source = lesson.bake || (belief.kind === "vitality" ? SAY.aPeakThatWasSeen : "from before");
  return (
    <li data-refused={lesson.refused}>
      <span>
        {named && <b>{belief.about}. </b>}
        {named ? "" : `${source}, ${dayName(lesson.at, zone)}: `}
        {lessonWords(belief.kind, lesson, words)}
      </span>
      {lesson.odd && !lesson.refused && (
        <Button data-kind="bare" isDisabled={change.isPending} onPress={() => set(false, true)}>
          {SAY.itWasSoCountIt}
        </Button>
      )}
      <Button data-kind="bare" isDisabled={change.isPending} onPress={() => set(!lesson.refused)}>
        {lesson.refused ? "count it again" : "refuse it"}
      </Button>
      {change.error && <span role="alert">{change.error.message}</span>}
    </li>
  );
}
