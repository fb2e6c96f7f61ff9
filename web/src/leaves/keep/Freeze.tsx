import { useState } from "react";
import { useFreezer } from "../../api/freezer";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { SAY } from "../../words/say/keep";

const WRAPS = [
  { id: "bag", text: "one bag" },
  { id: "double", text: "wrapped twice" },
  { id: "loose", text: "loose" },
] as const;

/** Puts what is left of a bread into the freezer. */
export function Freeze({ bake, kitchen, bread }: { bake: number; kitchen: number; bread: number }) {
  const { freeze, remove } = useFreezer(kitchen);
  const [count, setCount] = useState("");
  const [wrap, setWrap] = useState<"bag" | "double" | "loose">("bag");
  const [apart, setApart] = useState(true);
  const many = Number.parseInt(count, 10);
  const last = freeze.data?.rows.reduce<number | null>((a, x) => (a === null || x.id > a ? x.id : a), null) ?? null;
  return (
    <div className="freeze" data-print="no" role="group" aria-label={SAY.freezeWhatIsLeft}>
      <Field
        label="freeze"
        value={count}
        placeholder="4"
        width="5em"
        inputMode="numeric"
        onType={setCount}
        onCommit={setCount}
      />
      <Choice label="In what" value={wrap} options={WRAPS} onChange={setWrap} />
      <Choice
        label={SAY.aSheetBetweenEach}
        value={apart ? "yes" : "no"}
        options={[
          { id: "yes", text: SAY.aSheetBetweenEach2 },
          { id: "no", text: "one block" },
        ]}
        onChange={(x) => setApart(x === "yes")}
      />
      <Button
        isDisabled={!(many >= 1) || freeze.isPending}
        onPress={() => freeze.mutate({ bake, count: many, bread, wrap, divided: apart, at: null })}
      >
        Into the freezer
      </Button>
      {freeze.data && !remove.isSuccess && last !== null && (
        <span>
          Frozen.{" "}
          <Button data-kind="bare" onPress={() => remove.mutate(last)}>
            undo
          </Button>
        </span>
      )}
      {(freeze.error ?? remove.error) && <Plate>{(freeze.error ?? remove.error)!.message}</Plate>}
    </div>
  );
}
