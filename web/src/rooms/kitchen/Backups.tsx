import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { type Backup, backupsQuery, fileOf, useBackups } from "../../api/backups";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { Sheet } from "../../controls/Sheet";
import { useWords } from "../../frame/units";
import { clock, dayName, numbered } from "../../words/format";
import { SAY } from "../../words/say/devices";
import { Rows } from "./rows";

const KINDS: Record<string, string> = {
  daily: "the day’s",
  weekly: "the week’s",
  before: "before a new version",
  saved: "saved",
  brought: "brought here",
};
const size = (mb: number): string => (mb < 1 ? `${(1000 * mb).toFixed(0)} kB` : `${mb.toFixed(1)} MB`);
const room = (mb: number): string => (mb > 10_000 ? `${(mb / 1000).toFixed(0)} GB` : `${mb} MB`);

/** What is kept of all the data: saved, checked, fetched, brought from another machine, put in place. */
export function Backups() {
  const units = useWords();
  const found = useQuery(backupsQuery());
  const { make, bring, restore, check } = useBackups();
  const [chosen, choose] = useState<Backup | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const fault = make.error ?? bring.error ?? check.error ?? found.error;
  const when = (b: Backup) => `${dayName(b.at, units.zone)}, ${clock(b.at, units.zone)}`;
  if (restore.isPending || restore.isSuccess)
    return (
      <p role="status" className="believed">
        {SAY.beingPutInPlace}
      </p>
    );
  return (
    <div className="sheet">
      <p className="quiet">
        {SAY.copiesOfAllYouHave} {found.data && SAY.freeThere(found.data.folder, room(found.data.free_mb))}
      </p>
      <div className="row">
        <Button data-kind="brass" onPress={() => make.mutate()} isDisabled={make.isPending}>
          {make.isPending ? "Saving…" : SAY.saveOneNow}
        </Button>
        <Button onPress={() => file.current?.click()} isDisabled={bring.isPending}>
          {bring.isPending ? "Reading…" : SAY.bringOneFromAnother}
        </Button>
        <input
          ref={file}
          type="file"
          accept=".sqlite3"
          className="unseen"
          tabIndex={-1}
          aria-label={SAY.bringOneFromAnother}
          onChange={(e) => {
            const given = e.target.files?.[0];
            if (given) bring.mutate(given);
            e.target.value = "";
          }}
        />
      </div>
      {fault && <Plate role="alert">{fault.message}</Plate>}
      {restore.error && <Plate role="alert">{restore.error.message}</Plate>}
      {!found.data && !found.error && <p className="quiet">{SAY.readingTheBackups}</p>}
      {found.data?.backups.length === 0 && <p>{SAY.noBackupYet}</p>}
      {found.data && !found.data.can_restore && <p className="quiet">{SAY.onTheCommandLine}</p>}
      <Rows>
        {(found.data?.backups ?? []).map((b) => {
          const told = check.variables === b.name ? check.data : undefined;
          return (
            <li key={b.name}>
              <span>
                <span className="name">{when(b)}</span>
                <span className="quiet">
                  {" "}
                  {KINDS[b.kind] ?? b.kind}, {size(b.mb)}
                </span>
              </span>
              <span className="acts">
                <Button
                  data-kind="bare"
                  aria-label={`${SAY.isItSound} ${when(b)}`}
                  onPress={() => check.mutate(b.name)}
                  isDisabled={check.isPending}
                >
                  {SAY.isItSound}
                </Button>
                <a href={fileOf(b.name)} download={b.name}>
                  {SAY.fetchTheFile}
                </a>
                {found.data?.can_restore && (
                  <Button aria-label={`${SAY.putInPlace}: ${when(b)}`} onPress={() => choose(b)}>
                    {SAY.putInPlace}
                  </Button>
                )}
              </span>
              {told && (
                <span className="below" role="status">
                  {told.words}{" "}
                  {told.sound &&
                    SAY.holds(
                      numbered(told.counts["kitchens"] ?? 0, "kitchen"),
                      numbered(told.counts["bakes"] ?? 0, "bake"),
                      numbered(told.counts["readings"] ?? 0, "reading"),
                    )}
                </span>
              )}
            </li>
          );
        })}
      </Rows>
      <Sheet title={chosen ? SAY.putInPlaceOf(when(chosen)) : ""} isOpen={chosen !== null} onClose={() => choose(null)}>
        <p>{SAY.whatIsHereIsKept}</p>
        <Button
          data-kind="brass"
          onPress={() => {
            if (chosen) restore.mutate(chosen.name);
            choose(null);
          }}
        >
          {SAY.yesPutItInPlace}
        </Button>
      </Sheet>
    </div>
  );
}
