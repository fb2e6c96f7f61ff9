import { useState } from "react";
import styled from "styled-components";
import type { Schemas } from "../api/client";
import { useDeleteBake, useStatus } from "../api/bake";
import { Button } from "../controls/Button";
import { SAY } from "../words/say/frame";

const Note = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: center;
  border: 2px solid var(--ink);
  padding: 10px 14px;
  margin: 0 0 12px;
  p {
    flex: 1 1 20em;
  }
  b {
    font: 600 20px/1.2 var(--name);
  }
`;

/** Bakes that cannot be computed, each with what can be done; the others are shown as ever. */
export function BrokenBakes({ broken }: { broken: readonly Schemas["BrokenRead"][] }) {
  return broken.map((b) => <BrokenBake key={b.bake_id} bake={b} />);
}

export function BrokenBake({ bake }: { bake: Schemas["BrokenRead"] }) {
  const status = useStatus(bake.bake_id);
  const { remove, restore } = useDeleteBake(bake.bake_id);
  const [gone, setGone] = useState(false);
  if (gone)
    return (
      <Note role="status">
        <p>
          {bake.name} {SAY.isDeleted}
        </p>
        <Button onPress={() => restore.mutate(undefined, { onSuccess: () => setGone(false) })}>Undo</Button>
      </Note>
    );
  return (
    <Note role="alert">
      <p>
        <b>{bake.name}</b>
        <br />
        {status.error?.message ?? remove.error?.message ?? bake.text}
      </p>
      <Button onPress={() => status.mutate("abandoned")}>Put it away</Button>
      <Button onPress={() => remove.mutate(undefined, { onSuccess: () => setGone(true) })}>Delete it</Button>
    </Note>
  );
}
