import type { Bench } from "../../api/client";
import { Freezer } from "./Freezer";

/** The freezer of a kitchen. */
export const FreezerRoom = ({ bench }: { bench: Bench }) => <Freezer kitchen={bench.kitchen.id} />;
