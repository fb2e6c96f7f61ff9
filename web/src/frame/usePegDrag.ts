import { useEffect, useRef, useState } from "react";
import { nextPegTime, PEG_STEP_MS as STEP, pegTime, type RuleScale } from "../words/scale";

const START_PX = 6;
const SETTLE_MS = 900;

interface Given {
  at: number;
  low: number;
  high: number;
  scale: RuleScale;
  onMove: ((to: number) => void) | null;
}

/**
 * Something on the Rule that can be moved in time: by the finger, or by the arrow keys in five minutes (Enter settles at
 * once, Escape leaves it). Answers where it stands meanwhile, and what to hang on the element.
 */
export function usePegDrag({ at, low, high, scale, onMove }: Given) {
  const [to, setTo] = useState<number | null>(null);
  const grab = useRef<{ x: number; offset: number; moved: boolean } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const latest = useRef<number | null>(null);
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
    },
    [],
  );
  useEffect(() => {
    setTo(null);
    latest.current = null;
  }, [at]);
  const clamp = (t: number) => pegTime(t, low, high);
  const show = (t: number | null) => {
    latest.current = t;
    setTo(t);
  };
  const settle = () => {
    if (timer.current) clearTimeout(timer.current);
    const t = latest.current;
    if (t !== null && Math.abs(t - at) >= 60e3) onMove?.(t);
    else show(null);
  };
  const handlers =
    onMove === null
      ? {}
      : {
          draggable: false,
          onPointerDown: (e: React.PointerEvent) => {
            grab.current = { x: e.clientX, offset: e.clientX - scale.x(at), moved: false };
          },
          onPointerMove: (e: React.PointerEvent) => {
            const g = grab.current;
            if (!g || e.buttons === 0) return;
            if (!g.moved && Math.abs(e.clientX - g.x) < START_PX) return;
            if (!g.moved) {
              g.moved = true;
              e.currentTarget.setPointerCapture(e.pointerId);
            }
            show(clamp(scale.t(e.clientX - g.offset)));
          },
          onPointerUp: () => {
            if (grab.current?.moved) settle();
          },
          onPointerCancel: () => {
            grab.current = null;
            show(null);
          },
          onClickCapture: (e: React.MouseEvent) => {
            if (grab.current?.moved) {
              e.preventDefault();
              e.stopPropagation();
            }
            grab.current = null;
          },
          onKeyDown: (e: React.KeyboardEvent) => {
            const way = e.key === "ArrowRight" ? 1 : e.key === "ArrowLeft" ? -1 : 0;
            if (way !== 0) {
              e.preventDefault();
              show(clamp(nextPegTime(latest.current ?? at, way) + way * (e.shiftKey ? 5 * STEP : 0)));
              if (timer.current) clearTimeout(timer.current);
              timer.current = setTimeout(settle, SETTLE_MS);
            } else if (latest.current !== null && (e.key === "Enter" || e.key === "Escape")) {
              e.preventDefault();
              e.stopPropagation();
              if (e.key === "Escape") {
                if (timer.current) clearTimeout(timer.current);
                show(null);
              } else settle();
            }
          },
        };
  return { to, handlers };
}
