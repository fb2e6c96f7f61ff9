import { useState } from "react";
import type { Bake, Schemas } from "../../api/client";
import { useBloom } from "../../api/mix";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { typedMinutes } from "../../words/format";
import { SAY } from "../../words/say/mix";

/** How to bloom this yeast, and the bloom as a test of an old packet: minutes to foam set what is believed of it. */
export function Bloom({ bake, mix }: { bake: Bake; mix: Schemas["MixRead"] }) {
  const bloom = useBloom(bake.id);
  const [minutes, setMinutes] = useState("");
  if (!mix.bloom) return null;
  const told = bake.settings.bloom_foamed !== null;
  const send = () => bloom.mutate(typedMinutes(minutes));
  return (
    <section>
      <h2>The yeast</h2>
      <p>{mix.bloom}</p>
      {told ? (
        <p>
          <Plate as="span">{mix.bloom_said}</Plate>{" "}
          <Button data-kind="bare" onPress={() => bloom.mutate(undefined)}>
            forget the test
          </Button>
        </p>
      ) : (
        <div style={{ display: "flex", gap: 12, alignItems: "end", flexWrap: "wrap" }}>
          <Field
            label="it foamed after"
            value={minutes}
            unit="min"
            width="7em"
            onType={setMinutes}
            onCommit={setMinutes}
            fault={bloom.error?.message ?? null}
            inputMode="decimal"
          />
          <Button isDisabled={!minutes || bloom.isPending} onPress={send}>
            {SAY.noteItAsATest}
          </Button>
          <Button onPress={() => bloom.mutate(null)}>no foam</Button>
        </div>
      )}
    </section>
  );
}
