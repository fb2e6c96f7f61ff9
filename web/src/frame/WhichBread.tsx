import type { Bake } from "../api/client";
import { Choice } from "../controls/Choice";

interface Props {
  bake: Bake;
  /** The bake's own bread is 0, the further ones of its dough follow. */
  which: number;
  onChoose: (which: number) => void;
}

/** Which bread of the dough is shown, where there are several. */
export function WhichBread({ bake, which, onChoose }: Props) {
  if (bake.parts.length === 0) return null;
  return (
    <Choice
      label="Which bread"
      value={String(which)}
      options={[bake.name, ...bake.parts.map((p) => p.name)].map((text, i) => ({ id: String(i), text }))}
      onChange={(id) => onChoose(Number(id))}
    />
  );
}
