import type { RefObject } from "react";
import type { Hearth, Schemas } from "../../api/client";
import { placeName, programOf, roundMark, roundName } from "../../api/rounds";
import { useWords } from "../../frame/units";
import { Glyph, GLYPH_OF_STEP } from "../../instruments/Glyph";
import { countdown, ms } from "../../words/format";
import { moveLower, moveVerb } from "../../words/surfaces";
import { besides, measured } from "./liveNotes";
import { Bar, Big, Undo } from "./liveStyles";
import { SAY } from "../../words/say/fire";

type Tap = Hearth["taps"][number];
interface Props {
  hearth: Hearth;
  now: number;
  bar: RefObject<HTMLButtonElement | null>;
  /** The last press, which undo takes back. */
  last: Tap | undefined;
  onAct: (due: Schemas["MoveRead"], at: number) => void;
  onUndo: (at: number) => void;
  /** Where the bar leads when nothing is due any more. */
  onDone: (at: number) => void;
}

/** One big bar for the next due move, and undo beside it. */
export function DueBar({ hearth, now, bar, last, onAct, onUndo, onDone }: Props) {
  const first = hearth.due[0];
  return (
    <Bar>
      {first ? (
        <NextMove hearth={hearth} first={first} now={now} bar={bar} onPress={(at) => onAct(first, at)} />
      ) : (
        <Big ref={bar} type="button" data-due="false" onClick={(e) => onDone(e.timeStamp)} data-testid="due-bar">
          <Glyph name="wrap" size={72} stroke={1.5} />
          <span>
            <span className="verb">All off</span>
            <br />
            <span className="what">{SAY.wrapThemThenJudgeEachOn}</span>
          </span>
        </Big>
      )}
      <Undo type="button" disabled={!last} onClick={(e) => onUndo(e.timeStamp)} data-testid="undo">
        Undo
        {last && (
          <small>
            {moveLower(last.kind, programOf(hearth, last.round_no))} {roundMark(hearth, last.round_no!)}
            {last.by && `, ${last.by}`}
          </small>
        )}
      </Undo>
    </Bar>
  );
}

function NextMove({
  hearth,
  first,
  now,
  bar,
  onPress,
}: Pick<Props, "hearth" | "now" | "bar"> & { first: Schemas["MoveRead"]; onPress: (at: number) => void }) {
  const units = useWords();
  const left = ms(first.at) - now;
  return (
    <Big ref={bar} type="button" data-due={left <= 0} onClick={(e) => onPress(e.timeStamp)} data-testid="due-bar">
      <Glyph name={GLYPH_OF_STEP[first.move] ?? "load"} size={72} stroke={1.5} />
      <span>
        <span className="verb">
          {moveVerb(first.move, programOf(hearth, first.round_no))} {roundName(hearth, first.round_no)}
        </span>
        <br />
        <span className="what">
          {placeName(hearth, first.spot)}
          {besides(hearth, first, now)}
          {measured(hearth.program, units)}
          {left < -5000 ? `, ${countdown(-left)} s late` : left <= 0 ? ", now" : ""}
        </span>
      </span>
      <span className="count">
        {left > 0 ? (
          <>
            {countdown(left)}
            <small> {left < 100e3 ? "s" : ""}</small>
          </>
        ) : (
          "now"
        )}
      </span>
    </Big>
  );
}
