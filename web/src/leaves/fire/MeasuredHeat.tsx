import type { Bake, Hearth, Schemas } from "../../api/client";
import { useKitchenWrites } from "../../api/kitchen";
import { asGiven } from "../../api/surfaces";
import { Button } from "../../controls/Button";
import { useWords } from "../../frame/units";
import { temp, tempUnit } from "../../words/format";
import { step } from "../../words/heating";
import { SAY } from "../../words/say/fire";

const NEAR_K = 1;

/** What the breads of this session said of their surface, to be kept for the next session or not. */
export function MeasuredHeat({
  bake,
  program,
  surface,
}: {
  bake: Bake;
  program: Hearth["program"];
  surface: Schemas["SurfaceRead"] | undefined;
}) {
  const units = useWords();
  const { changeSurface } = useKitchenWrites(bake.kitchen_id);
  const { surface_c: heat, surface_sd_c: sd, surface_was_c: was } = program;
  if (heat == null || sd == null || was == null || !surface) return null;
  const { name } = surface;
  const put = (change: Partial<Schemas["SurfaceUpdate"]>) => changeSurface.mutate(asGiven(surface, change));
  const kept = surface.source === "first_bread" && Math.abs(surface.temp_c - heat) <= NEAR_K;
  return (
    <p
      role="status"
      style={{ display: "flex", flexWrap: "wrap", gap: "8px 18px", alignItems: "center", padding: "8px 0" }}
    >
      <span>
        Its breads say{" "}
        <b>
          {temp(heat, units)} {tempUnit(units)}
        </b>
        , give or take {step(sd, units)}
        {SAY.itWasTakenToBe} {temp(was, units)} {tempUnit(units)}.{kept ? SAY.keptFor(name) : ""}
      </span>
      {kept ? (
        <Button onPress={() => put({ temp_c: was, source: "typed", sd_k: null })}>Forget it again</Button>
      ) : (
        <Button
          onPress={() =>
            put({ temp_c: Math.round(heat), source: "first_bread", sd_k: Math.min(Math.max(Math.round(sd), 2), 60) })
          }
        >
          Keep that for {name}
        </Button>
      )}
    </p>
  );
}
