import { useCallback, useEffect, useRef, useState } from "react";
import type { Schemas } from "../../api/client";
import { askWhatIf } from "../../api/rise";

export type Tried = Schemas["WhatIfRequest"];
type Answer = Schemas["WhatIfRead"];
export const AS_IT_IS: Tried = { room_k: 0, dose_factor: 1, no_cold: false };

/**
 * A change under the finger. One question is on its way at a time; while it is, only the newest change is kept for the
 * next. The answer to an older bake is dropped.
 */
export function useWhatIf(bake: number, revision: number) {
  const [tried, setTried] = useState<Tried | null>(null);
  const [answer, setAnswer] = useState<Answer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const state = useRef({ busy: false, next: null as Tried | null, turn: 0 });

  const ask = useCallback(
    (body: Tried) => {
      const s = state.current;
      if (s.busy) {
        s.next = body;
        return;
      }
      s.busy = true;
      const turn = s.turn;
      askWhatIf(bake, body)
        .then((found) => {
          if (turn === s.turn) {
            setAnswer(found);
            setFault(null);
          }
        })
        .catch((error: Error) => {
          if (turn === s.turn) setFault(error.message);
        })
        .finally(() => {
          s.busy = false;
          const next = s.next;
          s.next = null;
          if (next && turn === s.turn) ask(next);
        });
    },
    [bake],
  );
  const clear = useCallback(() => {
    state.current.turn += 1;
    state.current.next = null;
    setTried(null);
    setAnswer(null);
    setFault(null);
  }, []);
  useEffect(clear, [clear, bake, revision]);
  const change = (part: Partial<Tried>) => {
    const body = { ...(tried ?? AS_IT_IS), ...part };
    setTried(body);
    ask(body);
  };
  return { tried, answer, fault, change, clear };
}
