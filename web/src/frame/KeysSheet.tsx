import { useState } from "react";
import styled from "styled-components";
import { Choice } from "../controls/Choice";
import { keysOn, setKeys } from "../controls/keys";
import { Sheet } from "../controls/Sheet";
import { SAY } from "../words/say/frame";

const Table = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 20px;
  margin: 0;
  dt {
    font: 700 18px/1.4 var(--mono);
  }
  dd {
    margin: 0;
  }
`;
export const KEYS: readonly [string, string][] = [
  ["w m r f k", SAY.theLeavesWeighMixRiseFire],
  ["g b", "to the Bench"],
  ["g t", SAY.toTheDayAsAList],
  ["g l", "to the Logbook"],
  ["g d", "to the Drill"],
  ["g k", "to the Kitchen"],
  ["n", "new bake"],
  ["l i o e", SAY.onTheRiseLeafLookAt],
  ["o h l i", SAY.onTheFireLeafWhileIt],
  ["Space", SAY.onTheLiveFireLeafTheNext],
  ["1 2 … 9 0 - =", SAY.onTheLiveFireLeafThe],
  ["u", SAY.onTheLiveFireLeafAnd],
  ["Space a 1 2 3 4", SAY.inTheDrillTheBigPress],
  ["z", SAY.largeLettersReadAcross],
  ["?", "this list"],
];
/** The list of single-character keys, and the choice to have none. */
export function KeysSheet({ onClose }: { onClose: () => void }) {
  const [on, setOn] = useState(keysOn);
  return (
    <Sheet title="Keys" isOpen onClose={onClose}>
      <Table>{KEYS.map(([key, what]) => [<dt key={key}>{key}</dt>, <dd key={what}>{what}</dd>])}</Table>
      <Choice
        label="Single-character keys"
        value={on ? "on" : "off"}
        options={[
          { id: "on", text: "Keys on" },
          { id: "off", text: "Keys off" },
        ]}
        onChange={(v) => {
          setKeys(v === "on");
          setOn(v === "on");
        }}
      />
    </Sheet>
  );
}
