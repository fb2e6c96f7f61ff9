import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { base64Of } from "../../api/base64";
import { type Brought, lastPackageQuery, progressQuery, stopPackage, usePackages } from "../../api/logbook";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { Sheet } from "../../controls/Sheet";
import { useWords } from "../../frame/units";
import { SAY } from "../../words/say/logbook";

const Box = styled.div`
  display: grid;
  gap: 12px;
  justify-items: start;
  a {
    color: var(--brass);
    font-weight: 650;
  }
`;

const Bar = styled.div`
  width: 100%;
  height: 14px;
  border: 2px solid var(--ink);
  div {
    height: 100%;
    background: var(--ink);
  }
`;
const counted = (rows: Record<string, number>): string =>
  Object.entries(rows)
    .map(([table, n]) => `${n} ${table.replace("_", " ")}`)
    .join(", ");

/** The kitchen out as a package, and a package in; the last one can be taken back. */
export function PackageSheet({ kitchen, onClose }: { kitchen: number; onClose: () => void }) {
  const { bring, readings, takeBack } = usePackages(kitchen);
  const units = useWords();
  const given = [bring, readings].find((x) => x.submittedAt === Math.max(bring.submittedAt, readings.submittedAt))!;
  const last = useQuery(lastPackageQuery(kitchen));
  const [fault, setFault] = useState<string | null>(null);
  const read = (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setFault(null);
    const failed = () => setFault(SAY.itCannotBeOpened);
    if (/\.(csv|txt)$/i.test(file.name)) file.text().then((text) => readings.mutate(text), failed);
    else base64Of(file).then((data) => bring.mutate(data), failed);
  };
  return (
    <Sheet title={SAY.outAndIn} isOpen onClose={onClose}>
      <Box>
        <p>{SAY.packageOut}</p>
        <a href={`/api/kitchens/${kitchen}/package`} download>
          {SAY.takeTheKitchenAway}
        </a>
        <a href={`/api/kitchens/${kitchen}/report`} download>
          {SAY.everyBakeAsAPage}
        </a>
        <a href={`/api/kitchens/${kitchen}/readings?unit=${units.temp}`} download>
          {SAY.everyReadingOfTheAir}
        </a>
        <p>{SAY.packageIn}</p>
        <FileTrigger acceptedFileTypes={[".zip", ".csv", ".txt"]} onSelect={read}>
          <Button isDisabled={given.isPending}>Bring a file in</Button>
        </FileTrigger>
        {given.isPending && <Coming kitchen={kitchen} />}
        {(fault ?? given.error?.message) && <Plate>{fault ?? given.error?.message}</Plate>}
        {given.data && <Told brought={given.data} />}
        {last.data?.id != null && (
          <Button data-kind="bare" isDisabled={takeBack.isPending} onPress={() => takeBack.mutate(last.data!.id!)}>
            {SAY.takeTheLastOneBack(counted(last.data.added))}
          </Button>
        )}
        {takeBack.error && <Plate>{takeBack.error.message}</Plate>}
      </Box>
    </Sheet>
  );
}

/** How far a package is on its way in, and a press that stops it. */
function Coming({ kitchen }: { kitchen: number }) {
  const far = useQuery(progressQuery(kitchen, true)).data;
  const stop = useMutation({ mutationFn: () => stopPackage(kitchen) });
  const known = far?.under_way && far.of > 0;
  return (
    <>
      <p role="status">{known ? SAY.rowsDone(far.done, far.of) : SAY.itIsBeingRead}</p>
      <Bar
        role="progressbar"
        aria-label={SAY.itIsBeingRead}
        aria-valuemin={0}
        aria-valuemax={far?.of ?? 0}
        aria-valuenow={known ? far.done : 0}
      >
        <div style={{ width: `${known ? (100 * far.done) / far.of : 0}%` }} />
      </Bar>
      <Button isDisabled={stop.isPending || stop.isSuccess} onPress={() => stop.mutate()}>
        {SAY.stopBringing}
      </Button>
    </>
  );
}

function Told({ brought }: { brought: Brought }) {
  const added = counted(brought.added);
  return (
    <div role="status">
      <p>{added ? SAY.itBrought(added) : SAY.itBroughtNothing}</p>
      {brought.refused_count > 0 && (
        <>
          <p>{SAY.linesRefused(brought.refused_count)}</p>
          <ul>
            {brought.refused.slice(0, 20).map((r) => (
              <li key={`${r.table} ${r.line}`}>{SAY.lineOf(r.table, r.line, r.detail)}</li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}
