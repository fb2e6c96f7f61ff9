import { useQuery } from "@tanstack/react-query";
import type { Bake } from "../../api/client";
import { lessonsQuery } from "../../api/keep";
import { LessonRow } from "../../frame/LessonRow";
import { KeepPart } from "./panel";
import { SAY } from "../../words/say/keep";

/** What this bake taught the kitchen, each lesson with a press that refuses it. */
export function Taught({ bake }: { bake: Bake }) {
  const found = useQuery({ ...lessonsQuery(bake.kitchen_id), enabled: bake.status === "kept" });
  const rows = (found.data?.beliefs ?? []).flatMap((b) =>
    b.lessons.filter((l) => l.bake_id === bake.id).map((l) => ({ belief: b, lesson: l })),
  );
  if (bake.status !== "kept" || rows.length === 0) return null;
  return (
    <KeepPart aria-label="What it taught">
      <h2>{SAY.whatItTaughtThisKitchen}</h2>
      <ul className="lessons">
        {rows.map(({ belief, lesson }) => (
          <LessonRow key={lesson.id} kitchen={bake.kitchen_id} belief={belief} lesson={lesson} named />
        ))}
      </ul>
    </KeepPart>
  );
}
