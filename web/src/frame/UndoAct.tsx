import { useQuery } from "@tanstack/react-query";
import { useNow } from "../api/clock";
import { dayQuery, useTogether } from "../api/day";
import { Button } from "../controls/Button";
import { Plate } from "../controls/Notice";
import { ms } from "../words/format";

const FRESH_MS = 15 * 60_000;

/** The last thing done to the day by one press, and the press that takes it back; with `of`, only what was just done to that bake. */
export function UndoAct({ kitchen, of }: { kitchen: number; of?: string }) {
  const day = useQuery(dayQuery(kitchen));
  const { undo } = useTogether(kitchen);
  const now = useNow(30_000);
  const act = day.data?.undo;
  const past = of !== undefined && act && now - ms(act.at) > FRESH_MS;
  if (!act || past || (of !== undefined && !act.what.startsWith(`${of}:`)))
    return undo.error ? <Plate>{undo.error.message}</Plate> : null;
  return (
    <p data-print="no" data-testid="undo-act" style={{ padding: "6px 0" }}>
      <span>Made so: {act.what.replace(/\.$/, "")}. </span>
      <Button data-kind="bare" isDisabled={undo.isPending} onPress={() => undo.mutate(act.id)}>
        take it back
      </Button>
    </p>
  );
}
