import { useCallback, useMemo, useState } from "react";
import styled from "styled-components";
import type { Kitchen, Schemas, Step } from "../api/client";
import { useNow } from "../api/clock";
import { useWidth } from "../controls/width";
import { clock, weekday } from "../words/format";
import { ruleScale } from "../words/scale";
import { useOpened } from "./opening";
import { Pegs } from "./Pegs";
import { lanesUsed, RuleEngraving } from "./RuleEngraving";
import { ruleLanes } from "./ruleLanes";
import { SAY } from "../words/say/frame";

/** From an hour to four days: how far ahead the Rule reaches, and how near to now it is stretched [ms]; the far ones are even. */
const ZOOMS = [
  [1, 60],
  [6, 30],
  [14, 20],
  [36, 60],
  [60, 0],
  [96, 0],
].map(([ahead, tau]) => ({ ahead: ahead! * 3600e3, tau: tau! * 60e3, even: tau === 0 }));
const USUAL = 3;

const Strip = styled.div`
  position: relative;
  background: var(--recess);
  border-bottom: 2px solid var(--ink);
  overflow: hidden;
  touch-action: pan-y;
  svg {
    display: block;
  }
  text {
    font-family: var(--mono);
    font-size: 17px;
    fill: var(--ink);
    letter-spacing: -0.03em;
    paint-order: stroke;
    stroke: var(--recess);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  text.day {
    font-family: var(--name);
    font-weight: 600;
    font-size: 18px;
    letter-spacing: 0;
  }
  text.air,
  text.lane {
    font: 500 15px/1 var(--text);
    letter-spacing: 0;
    stroke: none;
  }
  text.air {
    font-weight: 700;
  }
  text.bake {
    font: 500 15px/1 var(--text);
    letter-spacing: 0;
    stroke-width: 6px;
  }
`;
const NowPlate = styled.div`
  position: absolute;
  bottom: 0;
  transform: translateX(-50%);
  background: var(--brass-fill);
  color: var(--on-fill);
  border: 2px solid var(--brass);
  padding: 1px 7px;
  white-space: nowrap;
  font: 700 19px/1.1 var(--mono);
  letter-spacing: -0.03em;
  pointer-events: none;
  z-index: 2;
`;

interface Props {
  steps: readonly Step[];
  kitchen: Kitchen;
  away: readonly Schemas["SpanRead"][];
  /** Whether it stands over a room, where its lanes have names. */
  room?: boolean;
}

/** The engraved time rule: now, a peg for each hand move, hours away, the kitchen's air, the table's flag. */
export function Rule({ steps, kitchen, away, room = false }: Props) {
  const [box, width] = useWidth<HTMLDivElement>();
  const drawn = useOpened() && width > 0;
  const now = useNow(15_000);
  const [zoom, setZoom] = useState(USUAL);
  const [shift, setShift] = useState(0);
  const narrow = width < 700;
  const needle = narrow ? 112 : 250;
  const lanes = useMemo(() => ruleLanes(room, narrow, (most) => lanesUsed(steps, most)), [room, narrow, steps]);
  const { tau, ahead, even } = ZOOMS[zoom]!;
  const scale = useMemo(
    () => ruleScale(now + shift, width, needle, tau, ahead, even),
    [now, shift, width, needle, tau, ahead, even],
  );
  const nearer = () => setZoom((z) => Math.max(0, z - 1));
  const further = () => setZoom((z) => Math.min(ZOOMS.length - 1, z + 1));
  const onKeyDown = useCallback((e: React.KeyboardEvent) => {
    if (e.target !== e.currentTarget) return;
    if (e.key === "+" || e.key === "=") nearer();
    else if (e.key === "-") further();
    else if (e.key === "ArrowRight") setShift((s) => s + 30 * 60e3);
    else if (e.key === "ArrowLeft") setShift((s) => s - 30 * 60e3);
    else if (e.key === "Home") {
      setShift(0);
      setZoom(USUAL);
    } else return;
    e.preventDefault();
  }, []);
  const onWheel = (e: React.WheelEvent) => {
    if (Math.abs(e.deltaX) > Math.abs(e.deltaY)) setShift((s) => s + e.deltaX * 20e3);
    else if (e.deltaY > 0) further();
    else nearer();
  };
  return (
    <Strip
      ref={box}
      style={{ height: lanes.height }}
      data-print="no"
      tabIndex={0}
      role="group"
      aria-label={SAY.timeRuleNowPlusAndMinus(clock(now, kitchen.zone))}
      onKeyDown={onKeyDown}
      onWheel={onWheel}
    >
      {drawn && (
        <>
          <RuleEngraving
            scale={scale}
            now={now}
            width={width}
            kitchen={kitchen}
            steps={steps}
            away={away}
            lanes={lanes}
          />
          <Pegs steps={steps} scale={scale} width={width} now={now} kitchen={kitchen} lanes={lanes} />
        </>
      )}
      <NowPlate style={{ left: Math.min(Math.max(scale.x(now), lanes.gutter + 50), width - 58) }}>
        {narrow ? "" : `${weekday(now, kitchen.zone)} `}
        {clock(now, kitchen.zone)}
      </NowPlate>
    </Strip>
  );
}
