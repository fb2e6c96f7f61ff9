import { type ReactNode, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import type { Bake } from "../api/client";
import { useBakeChange, useDeleteBake, useStatus } from "../api/bake";
import { Button } from "../controls/Button";
import { Field } from "../controls/Field";
import { Sheet } from "../controls/Sheet";
import { Plate } from "../controls/Notice";
import { Seal } from "../instruments/Glyph";
import { clockNear, ms } from "../words/format";
import { useNow } from "../api/clock";
import { Carried } from "./Carried";
import { MethodWords } from "./MethodWords";
import { useWords } from "./units";
import { SAY } from "../words/say/frame";

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-bottom: 2px;
  min-height: 46px;
  h1 {
    display: flex;
    align-items: center;
    gap: 12px;
  }
  .about {
    color: var(--ink-2);
    font-size: 17px;
  }
  .menu {
    margin-left: auto;
    display: flex;
    align-items: baseline;
    gap: 18px;
  }
  @media (max-width: 600px) {
    h1 {
      font-size: 24px;
    }
    .about {
      font-size: 15px;
    }
    .menu {
      width: 100%;
      justify-content: space-between;
    }
  }
`;

/** The bake's name and table, with its own menu: rename, serve, abandon, delete. */
export function BakeHead({ bake, about, children }: { bake: Bake; about: string; children?: ReactNode }) {
  const { zone } = useWords();
  const now = useNow(60_000);
  const [open, setOpen] = useState(false);
  const change = useBakeChange(bake.id);
  return (
    <>
      <Head>
        <h1>
          <Seal seal={bake.seal} size={24} />
          {bake.name}
        </h1>
        <span className="about">{about}</span>
        {children}
        {bake.status !== "live" && <Plate>{bake.status}</Plate>}
        <span className="menu" data-print="no">
          <Field
            label="serve at"
            beside
            value={clockNear(bake.serve_at, now, zone)}
            width="9em"
            fault={change.error && "serve" in (change.variables ?? {}) ? change.error.message : null}
            onCommit={(serve) => change.mutate({ serve })}
          />
          <Button data-kind="bare" onPress={() => setOpen(true)}>
            {SAY.thisBake}
          </Button>
        </span>
        <BakeMenu bake={bake} open={open} onClose={() => setOpen(false)} />
      </Head>
      <Carried bake={bake} />
    </>
  );
}

function BakeMenu({ bake, open, onClose }: { bake: Bake; open: boolean; onClose: () => void }) {
  const go = useNavigate();
  const { zone } = useWords();
  const change = useBakeChange(bake.id);
  const status = useStatus(bake.id);
  const { remove, restore } = useDeleteBake(bake.id);
  const [gone, setGone] = useState(false);
  if (gone)
    return (
      <Sheet title={`${bake.name} is deleted`} isOpen onClose={() => void go(`/k/${bake.kitchen_id}/bench`)}>
        <Button
          data-kind="brass"
          onPress={() => {
            setGone(false);
            restore.mutate(undefined, { onError: () => setGone(true) });
          }}
        >
          Undo
        </Button>
      </Sheet>
    );
  return (
    <Sheet title={bake.name} isOpen={open} onClose={onClose}>
      <Field
        label="Name"
        value={bake.name}
        width="100%"
        fault={change.error && "name" in (change.variables ?? {}) ? change.error.message : null}
        onCommit={(name) => change.mutate({ name })}
      />
      <Field
        label={SAY.servedUntilBlankAllAtOnce}
        value={bake.serve_until ? clockNear(bake.serve_until, ms(bake.serve_at), zone) : ""}
        placeholder="02:15"
        width="100%"
        fault={change.error && "serve_until" in (change.variables ?? {}) ? change.error.message : null}
        onCommit={(text) => change.mutate({ serve_until: text || null })}
      />
      <MethodWords bake={bake} />
      {bake.status === "live" ? (
        <Button onPress={() => status.mutate("abandoned")}>Abandon this bake</Button>
      ) : (
        <Button onPress={() => status.mutate("live")}>{SAY.bringItBackToLife}</Button>
      )}
      <Button onPress={() => remove.mutate(undefined, { onSuccess: () => setGone(true) })}>Delete this bake</Button>
      {remove.error && (
        <Plate>
          {remove.error.message} {SAY.lookAtItThenPressAgain}
        </Plate>
      )}
      {status.error && <Plate>{status.error.message}</Plate>}
    </Sheet>
  );
}
