import { useState } from "react";
import type { Bake, Schemas } from "../../api/client";
import { useRead } from "../../api/rise";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { typedTemp, temp, tempUnit } from "../../words/format";
import { SAY } from "../../words/say/mix";

/** One reading after mixing: the rise starts from it, and it teaches how much this way of mixing warms a dough. */
export function AfterMixing({ bake, mix }: { bake: Bake; mix: Schemas["MixRead"] }) {
  const units = useWords();
  const read = useRead(bake.id);
  const [text, setText] = useState("");
  const mixed = bake.taps.some((t) => t.kind === "mix");
  const send = () =>
    read.mutate(
      { bake_id: bake.id, kind: "dough_c", value: typedTemp(text, units), at: null },
      { onSuccess: () => setText("") },
    );
  const learned =
    mix.friction_times > 0
      ? SAY.mixingThisWayWarmsAsMuch(
          mix.friction_factor.toFixed(2),
          mix.friction_times,
          mix.friction_times === 1 ? "reading" : "readings",
        )
      : SAY.nothingIsLearnedOfThisWay;
  return (
    <section>
      <h2>After mixing</h2>
      {mix.seen_c !== null && (
        <p>
          The dough read{" "}
          <b>
            {temp(mix.seen_c, units, 1)} {tempUnit(units)}
          </b>
          {SAY.theRiseStartsFromThere}
        </p>
      )}
      {mixed ? (
        <div style={{ display: "flex", gap: 12, alignItems: "end", flexWrap: "wrap" }}>
          <Field
            label="the dough reads"
            value={text}
            unit={tempUnit(units)}
            width="8em"
            onType={setText}
            onCommit={setText}
            inputMode="decimal"
          />
          <Button isDisabled={!text || read.isPending} onPress={send}>
            Note it
          </Button>
        </div>
      ) : (
        <p className="quiet">{SAY.onceItIsMixedOneThermometer}</p>
      )}
      {read.error && <Plate>{read.error.message}</Plate>}
      <p className="quiet">{learned}</p>
    </section>
  );
}
