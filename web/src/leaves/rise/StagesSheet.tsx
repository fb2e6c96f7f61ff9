import { type Bake, Problem, type Schemas } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Quiet } from "../../controls/Notice";
import { Sheet } from "../../controls/Sheet";
import { useAt, useWords } from "../../frame/units";
import { span, temp, tempUnit, typedNumber } from "../../words/format";
import { JarCard } from "./JarCard";
import { Stands } from "./Stands";
import { SAY } from "../../words/say/rise";

type Rise = Schemas["RiseRead"];
const ENDS: Record<string, string> = {
  gas: SAY.itCanHoldNoMoreGas,
  acid: "acid weakens it",
  strength: "age weakens it",
};
interface Props {
  bake: Bake;
  rise: Rise;
  isOpen: boolean;
  onClose: () => void;
}

/** The stages of a rise: how far each goes, where it stands, what ends it; and the card of the straight jar. */
export function StagesSheet({ bake, rise, isOpen, onClose }: Props) {
  return (
    <Sheet title={SAY.stagesOfTheRise} isOpen={isOpen} onClose={onClose} wide>
      <Targets bake={bake} />
      <Told rise={rise} />
      <Stands bake={bake} rise={rise} />
      <JarCard bake={bake} />
    </Sheet>
  );
}

const HOLDS: { id: Bake["settings"]["strength"]; text: string }[] = [
  { id: "developed", text: SAY.strongFlourWellKneaded },
  { id: "kneaded", text: SAY.plainFlourKneaded },
  { id: "enriched", text: SAY.richFatSugarDairy },
  { id: "wet_unkneaded", text: SAY.wetNotKneaded },
  { id: "wholemeal", text: SAY.wholemealBranCutsIt },
];

function Targets({ bake }: { bake: Bake }) {
  const change = useBakeChange(bake.id);
  const field = change.error instanceof Problem ? change.error.fields[0]?.detail : null;
  return (
    <div style={{ display: "flex", flexWrap: "wrap", gap: "8px 24px" }}>
      <Field
        label="bulk to"
        value={String(bake.settings.bulk_ratio)}
        unit="×"
        width="5em"
        fault={field ?? null}
        onCommit={(t) => change.mutate({ bulk_ratio: typedNumber(t) })}
      />
      <Field
        label="balls to"
        value={String(bake.settings.ball_ratio)}
        unit="×"
        width="5em"
        onCommit={(t) => change.mutate({ ball_ratio: typedNumber(t) })}
      />
      <div style={{ display: "grid", gap: 4, flexBasis: "100%" }}>
        <Quiet aria-hidden="true">{SAY.howTheDoughHoldsItsGas}</Quiet>
        <Choice
          label={SAY.howTheDoughHoldsItsGas}
          value={bake.settings.strength}
          options={HOLDS}
          onChange={(strength) => change.mutate({ strength })}
        />
      </div>
    </div>
  );
}

/** What is known of the dough beside its hours: when it is too ripe and why, warm hours, acidity, how its leaven works. */
function Told({ rise }: { rise: Rise }) {
  const units = useWords();
  const at = useAt();
  return (
    <div style={{ display: "grid", gap: 6 }}>
      {rise.windows.map(
        (w) =>
          w.too_far.p50 && (
            <p key={w.stage}>
              {w.stage}: too ripe at <b>{at(w.too_far.p50)}</b>, {ENDS[w.reason] ?? w.reason}.
            </p>
          ),
      )}
      {rise.dough_c_now !== null && (
        <p>
          {SAY.theDoughIsAt} {temp(rise.dough_c_now, units, 1)} {tempUnit(units)} now.
        </p>
      )}
      {rise.workable_at && rise.cold && (
        <p>
          {SAY.warmEnoughToRollFrom} <b>{at(rise.workable_at)}</b>.
        </p>
      )}
      {rise.safety && (
        <p className="quiet">
          {span(rise.safety.warm_h * 3600e3)} {SAY.aboveCByThisPlanThe} {span(rise.safety.limit_h * 3600e3)}
          {rise.safety.reached_at ? `, full at ${at(rise.safety.reached_at)}` : ""}.
          {rise.safety.reached_at && !rise.cold ? SAY.coldInsteadANightInThe : ""}
        </p>
      )}
      {rise.acid && (
        <p>
          It ends <b>{rise.acid.word}</b>{" "}
          <span className="quiet">
            (acidity {rise.acid.tta_ml.toFixed(0)} mL, pH {rise.acid.ph.toFixed(1)}; taste, not safety)
          </span>
        </p>
      )}
      {rise.soda && <p>{rise.soda}</p>}
      <p className="quiet">
        {SAY.thisDoughsLeavenWorksAt} {rise.activity.toFixed(2)} × the usual
        {rise.starter ? `, with ${rise.starter}` : ""}
        {rise.warm ? "" : SAY.aQuickEstimateWhileTheFine}.
      </p>
    </div>
  );
}
