import type { Step } from "../api/client";
import { useNow } from "../api/clock";
import { useStarterWrites } from "../api/kitchen";
import { Button } from "../controls/Button";
import { Plate } from "../controls/Notice";
import { Glyph } from "../instruments/Glyph";
import { clockNear } from "../words/format";
import { useWords } from "./units";

/** The feed that a bake's starter wants: one press stores it as given now. */
export function FeedNow({ step, kitchen, bare = false }: { step: Step; kitchen: number; bare?: boolean }) {
  const { zone } = useWords();
  const now = useNow(30_000);
  const { feed } = useStarterWrites(kitchen);
  if (!step.feed) return null;
  const { starter_id, ...grams } = step.feed;
  const rounded = Object.fromEntries(Object.entries(grams).map(([name, g]) => [name, Math.round(g)])) as typeof grams;
  const give = (
    <Button
      data-kind={bare ? "bare" : "plain"}
      isDisabled={feed.isPending}
      onPress={() => feed.mutate({ id: starter_id, ...rounded, place: "bench" })}
    >
      Fed now
    </Button>
  );
  if (bare)
    return (
      <>
        {give}
        {feed.error && <Plate>{feed.error.message}</Plate>}
      </>
    );
  return (
    <div
      data-print="no"
      style={{
        display: "flex",
        flexWrap: "wrap",
        gap: "6px 14px",
        alignItems: "center",
        padding: "6px 0",
        borderBottom: "1px solid var(--hair)",
      }}
    >
      <Glyph name="sponge" />
      <b style={{ font: "700 22px/1 var(--mono)" }}>{clockNear(step.at, now, zone)}</b>
      <span style={{ flex: "1 1 12em" }}>Feed the starter: {step.reason}</span>
      {give}
      {feed.error && <Plate>{feed.error.message}</Plate>}
    </div>
  );
}
