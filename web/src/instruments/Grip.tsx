import { useRef, type PointerEvent } from "react";

const STEP = 5 * 60e3;

interface Props {
  label: string;
  at: number;
  y: number;
  x: (t: number) => number;
  /** Where its instant stands on the axis, when the handle itself stands elsewhere. */
  grab?: number;
  t: (px: number) => number;
  say: (t: number) => string;
  onMove: (t: number) => void;
  onHold: (holding: boolean) => void;
}

/** A handle on a time axis: dragged by a finger, moved by the arrow keys five minutes at a time. */
export function Grip({ label, at, y, x, grab, t, say, onMove, onHold }: Props) {
  const off = useRef(0);
  const place = (e: PointerEvent<SVGGElement>) =>
    e.clientX - e.currentTarget.ownerSVGElement!.getBoundingClientRect().left;
  const move = (to: number) => onMove(Math.round(to / STEP) * STEP);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={label}
      aria-valuenow={Math.round(at / 60e3)}
      aria-valuetext={say(at)}
      className="grip"
      transform={`translate(${x(at)},${y})`}
      style={{ cursor: "ew-resize", touchAction: "none" }}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        off.current = place(e) - (grab ?? x(at));
        onHold(true);
      }}
      onPointerMove={(e) => e.currentTarget.hasPointerCapture(e.pointerId) && move(t(place(e) - off.current))}
      onPointerUp={() => onHold(false)}
      onPointerCancel={() => onHold(false)}
      onKeyDown={(e) => {
        const steps = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1, PageDown: -12, PageUp: 12 }[e.key];
        if (steps === undefined) return;
        e.preventDefault();
        move(at + steps * STEP);
      }}
    >
      <rect x={-24} y={-24} width={48} height={48} fill="transparent" />
      <path d="M-8 -13h16v26h-16z" fill="var(--brass-fill)" stroke="var(--fill-edge)" strokeWidth={2} />
      <path d="M-3 -7v14M3 -7v14" stroke="var(--on-fill)" strokeWidth={2} />
    </g>
  );
}
