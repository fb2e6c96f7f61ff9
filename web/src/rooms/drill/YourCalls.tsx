import { useState } from "react";
import type { Schemas } from "../../api/client";
import type { HowKind } from "../../api/drill";
import { Choice } from "../../controls/Choice";
import { useWidth } from "../../controls/width";
import { CallsLine } from "../../instruments/CallsLine";
import { missesWords } from "../../words/drill";
import { SAY } from "../../words/say/drill";
import { Row, Stack } from "./parts";

const WHICH = [
  { id: "turn_s", text: SAY.turnsShown },
  { id: "off_s", text: SAY.endsShown },
] as const;
const MOST = 12;

/** Misses of the calls: the first twelve over the last twelve, and those at one's real heat. */
export function YourCalls({ how, hearth }: { how: HowKind; hearth: readonly Schemas["RealCall"][] }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const [which, setWhich] = useState<"turn_s" | "off_s">("turn_s");
  const of = (rows: readonly { turn_s?: number | null; off_s?: number | null }[]) =>
    rows.flatMap((r) => (r[which] == null ? [] : [r[which]]));
  const rows = [
    ...(how.answered > MOST ? [{ name: SAY.firstTwelve, misses: of(how.first) }] : []),
    { name: SAY.lastTwelve, misses: of(how.last), marked: true },
    { name: SAY.theRealHearth, misses: of(hearth).slice(-MOST) },
  ].map((r) => ({ ...r, told: missesWords(r.misses) }));
  return (
    <Stack ref={box}>
      <Row>
        <h2>{SAY.yourCalls}</h2>
        <Choice label={SAY.whichCalls} value={which} options={WHICH} onChange={setWhich} />
      </Row>
      {width > 0 && (
        <CallsLine
          rows={rows}
          width={Math.max(width - 26, 200)}
          about={`${SAY.aMarkIsABread}. ${rows.map((r) => SAY.missesTold(r.name, r.told)).join("; ")}`}
        />
      )}
    </Stack>
  );
}

/** How one does where an answer is right or not. */
export function YourShare({ how }: { how: HowKind }) {
  const right = (rows: HowKind["last"]) => rows.filter((r) => r.right).length;
  const sure = how.last.filter((r) => r.sure === "sure");
  return (
    <Stack>
      <h2>{SAY.yourCalls}</h2>
      {how.answered === 0 ? (
        <p className="quiet">{SAY.noCallsYet}</p>
      ) : (
        <>
          {how.answered > MOST && (
            <p>
              {SAY.firstTwelve}: <b>{SAY.rightOf(right(how.first), how.first.length)}</b>
            </p>
          )}
          <p>
            {SAY.lastTwelve}: <b>{SAY.rightOf(right(how.last), how.last.length)}</b>
          </p>
          {sure.length > 0 && <p>{SAY.whenSure(right(sure), sure.length)}</p>}
          <Beads rows={how.last} />
        </>
      )}
    </Stack>
  );
}

/** A bead for each answer: filled where it was right. */
function Beads({ rows }: { rows: HowKind["last"] }) {
  return (
    <svg width={MOST * 24} height={26} aria-hidden="true">
      {rows.map((r, i) => (
        <g key={i} transform={`translate(${12 + i * 24} 13)`}>
          <circle r={8} fill={r.right ? "var(--ink)" : "none"} stroke="var(--ink)" strokeWidth={2} />
          {!r.right && <path d="M-5 -5L5 5" stroke="var(--ink)" strokeWidth={2} />}
        </g>
      ))}
    </svg>
  );
}
