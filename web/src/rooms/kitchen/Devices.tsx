import { useQuery } from "@tanstack/react-query";
import { useState, useSyncExternalStore } from "react";
import { useNow } from "../../api/clock";
import { cookName, setCookName } from "../../api/cook";
import { keptHere, onKept } from "../../api/kept";
import { type Device, devicesQuery, sessionQuery, useDevices } from "../../api/session";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { clockNear } from "../../words/format";
import { SAY } from "../../words/say/devices";
import { Rows } from "./rows";
import { Told } from "./Told";

const KINDS: Record<string, string> = { cook: "cook’s tablet", guest: "guests’ link", instrument: "instrument" };

/** Who may ask here: this tablet, others that were let in, links for guests; and whether the page is kept on this tablet. */
export function Devices({ kitchen }: { kitchen: number }) {
  const session = useQuery(sessionQuery());
  const devices = useQuery(devicesQuery());
  const { forget, invite, signOut } = useDevices();
  const [name, setName] = useState(cookName() ?? "");
  const kept = useSyncExternalStore(onKept, keptHere);
  const lan = session.data?.lan ?? false;
  const say = (said: string) => {
    setCookName(said);
    setName(said.trim());
  };
  const fault = forget.error ?? invite.error ?? signOut.error ?? devices.error;
  return (
    <div className="sheet">
      <section>
        <h3>This tablet</h3>
        <Field label={SAY.whoTapsHere} value={name} width="18em" placeholder={SAY.nobodyLeaveEmpty} onCommit={say} />
        <p className="quiet">{kept === "kept" ? SAY.keptHere : kept === "soon" ? SAY.canBeKept : SAY.keptNowhere}</p>
        {lan && session.data?.name && (
          <div className="row">
            <span>{SAY.signedInAs(session.data.name)}</span>
            <Button
              data-kind="bare"
              onPress={() => signOut.mutate(undefined, { onSuccess: () => location.assign("/sign-in") })}
            >
              {SAY.signThisTabletOut}
            </Button>
          </div>
        )}
      </section>
      <section>
        <h3>Guests</h3>
        <p className="quiet">{SAY.guestsSeeTheNextMove}</p>
        <div className="row">
          <Button onPress={() => invite.mutate(kitchen)} isDisabled={invite.isPending}>
            {SAY.makeALink}
          </Button>
        </div>
        {invite.data && <Told label={SAY.sendThisLink} text={location.origin + invite.data.path!} />}
      </section>
      <section>
        <h3>Others</h3>
        {session.data && !lan && (
          <>
            <p>{SAY.onlyThisMachine}</p>
            <Told label="In a terminal" text={SAY.passcodeCommand} />
          </>
        )}
        {lan && <p className="quiet">{SAY.mayAskHere}</p>}
        {devices.data?.length === 0 && <p className="quiet">{SAY.noDeviceYet}</p>}
        <Rows>
          {(devices.data ?? []).map((d) => (
            <One key={d.id} device={d} onForget={() => forget.mutate(d.id)} />
          ))}
        </Rows>
      </section>
      <p className="quiet">
        <a href="/notices.txt">{SAY.whatThisIsBuiltWith}</a>
      </p>
      {fault && <Plate role="alert">{fault.message}</Plate>}
    </div>
  );
}

function One({ device: d, onForget }: { device: Device; onForget: () => void }) {
  const units = useWords();
  const now = useNow(30_000);
  const at = (iso: string) => clockNear(iso, now, units.zone);
  return (
    <li>
      <span>
        <span className="name">{d.name}</span>
        {d.mine && ", this one"}
        <span className="quiet">
          {" "}
          {KINDS[d.kind] ?? d.kind}; {d.seen_at ? `asked last ${at(d.seen_at)}` : "not asked yet"}
          {d.until && `; until ${at(d.until)}`}
        </span>
      </span>
      <span className="acts">
        {!d.mine && (
          <Button data-kind="bare" aria-label={`Forget ${d.name}`} onPress={onForget}>
            forget
          </Button>
        )}
      </span>
    </li>
  );
}
