import type { Bake } from "../../api/client";
import { useNoted } from "../../api/keep";
import { Choice } from "../../controls/Choice";
import { Plate } from "../../controls/Notice";
import { FACTS, USUAL_FACTS } from "../../words/faults";
import { SAY } from "../../words/say/keep";

/** A fact of the making, asked with its answers; what was answered stays pressed. */
export function AskFact({ bake, fact }: { bake: Bake; fact: string }) {
  const noted = useNoted(bake.id);
  const words = FACTS[fact];
  if (!words) return null;
  const known = (bake.keep.noted as Record<string, unknown>)[fact];
  const at = words.options.findIndex((o) => o.value === known);
  return (
    <div className="ask">
      <span>{words.ask}</span>
      <Choice
        label={words.ask}
        value={at < 0 ? null : String(at)}
        options={words.options.map((o, i) => ({ id: String(i), text: o.text }))}
        onChange={(i) => noted.mutate({ [fact]: words.options[Number(i)]!.value })}
      />
      {noted.error && <Plate>{noted.error.message}</Plate>}
    </div>
  );
}

/** What else the cook knows of how these breads were made, folded until it is wanted. */
export function Making({ bake, asked }: { bake: Bake; asked: string | null }) {
  return (
    <details>
      <summary>{SAY.sayMoreOfHowTheyWere}</summary>
      {USUAL_FACTS.filter((f) => f !== asked).map((f) => (
        <AskFact key={f} bake={bake} fact={f} />
      ))}
    </details>
  );
}
