import type { Kitchen } from "../../api/client";
import { useLeavenWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { StrengthRule } from "../../instruments/StrengthRule";

/** What is believed of each leaven here, on one rule; it can be forgotten, and that undone. */
export function Leavens({ kitchen: k }: { kitchen: Kitchen }) {
  const write = useLeavenWrites(k.id);
  return (
    <>
      {k.leavens.length === 0 && (
        <p className="quiet">
          Nothing learned yet: every leaven counts at the table’s strength, and 8 in 10 doughs within 0.6 to 1.6 of it.
          Looks at kept bakes teach this.
        </p>
      )}
      {k.leavens.map((l) => (
        <div key={l.leaven} className="row" style={{ alignItems: "center" }}>
          <span style={{ minWidth: "11em", fontWeight: 650 }}>{l.name}</span>
          <StrengthRule
            mean={l.mean}
            sdLog={l.sd_log}
            label={`${l.name}: ${l.mean.toFixed(2)} times the table, 8 in 10 between ${(l.mean * Math.exp(-1.28 * l.sd_log)).toFixed(2)} and ${(l.mean * Math.exp(1.28 * l.sd_log)).toFixed(2)}`}
          />
          <span>
            {l.mean.toFixed(2)} × the table’s, from {l.bakes} {l.bakes === 1 ? "bake" : "bakes"}
          </span>
          {l.forgotten ? (
            <Button data-kind="bare" onPress={() => write.mutate({ leaven: l.leaven, back: true })}>
              undo the forgetting
            </Button>
          ) : (
            <Button data-kind="bare" onPress={() => write.mutate({ leaven: l.leaven })}>
              forget it
            </Button>
          )}
        </div>
      ))}
      {write.error && <Plate>{write.error.message}</Plate>}
    </>
  );
}
