import styled from "styled-components";
import { takeNewer } from "../api/kept";
import { Button } from "../controls/Button";
import { SAY } from "../words/say/devices";

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 18px;
  align-items: center;
  padding: 8px 24px;
  border-top: 2px solid var(--ink);
  background: var(--brass-wash);
`;

/** A newer page waits: used when the cook says so. */
export function Newer() {
  return (
    <Bar role="status" data-print="no">
      <span>{SAY.aNewerOneIsHere}</span>
      <Button onPress={takeNewer}>{SAY.useItNow}</Button>
    </Bar>
  );
}
