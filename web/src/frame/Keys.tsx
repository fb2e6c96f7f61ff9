import { lazy, Suspense, useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import { isTyping, keysOn } from "../controls/keys";

const KeysSheet = lazy(() => import("./KeysSheet").then((m) => ({ default: m.KeysSheet })));
const LEAVES: Record<string, string> = { w: "weigh", m: "mix", r: "rise", f: "fire", k: "keep" };
const ROOMS: Record<string, string> = { b: "bench", t: "day", l: "logbook", d: "drill", k: "kitchen" };

/** Single-character keys, which can be switched off. */
export function Keys({ kitchen, bake }: { kitchen: number; bake?: number }) {
  const go = useNavigate();
  const waitingFor = useRef<"g" | null>(null);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey) return;
      if (e.key === "?") return setOpen(true);
      if (!keysOn()) return;
      if (waitingFor.current === "g") {
        waitingFor.current = null;
        const room = ROOMS[e.key];
        if (room) void go(`/k/${kitchen}/${room}`);
        return;
      }
      if (e.key === "g") waitingFor.current = "g";
      else if (e.key === "n") void go(`/k/${kitchen}/new`);
      else if (bake !== undefined && LEAVES[e.key]) void go(`/b/${bake}/${LEAVES[e.key]}`);
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, [bake, go, kitchen]);
  return <Suspense>{open && <KeysSheet onClose={() => setOpen(false)} />}</Suspense>;
}
