import { useSyncExternalStore } from "react";
import styled from "styled-components";
import { clash, onClash } from "../api/edits";
import { Button } from "../controls/Button";
import { Sheet } from "../controls/Sheet";
import { fieldWords, valueWords } from "../words/changes";
import { SAY } from "../words/say/frame";

const Both = styled.dl`
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 6px 18px;
  margin: 0;
  dt {
    color: var(--ink-2);
  }
  dd {
    margin: 0;
    font-weight: 650;
    overflow-wrap: anywhere;
    white-space: pre-line;
  }
`;

/** Somebody changed the same thing meanwhile: both are shown, and the cook says which one stands. */
export function ClashSheet() {
  const open = useSyncExternalStore(onClash, clash);
  if (!open) return null;
  return (
    <Sheet title={`${open.bake.name} was changed elsewhere`} isOpen onClose={() => open.answer(false)}>
      {open.fields.map((field) => (
        <div key={field}>
          <h3>{fieldWords(field)}</h3>
          <Both>
            <dt>There now</dt>
            <dd>{valueWords(open.theirs[field])}</dd>
            <dt>Yours</dt>
            <dd>{valueWords(open.mine[field])}</dd>
          </Both>
        </div>
      ))}
      <Button data-kind="brass" onPress={() => open.answer(true)}>
        {SAY.putMineInItsPlace}
      </Button>
      <Button onPress={() => open.answer(false)}>{SAY.leaveWhatIsThere}</Button>
    </Sheet>
  );
}
