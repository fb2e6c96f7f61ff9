import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";
import styled from "styled-components";
import { Sheet } from "../controls/Sheet";
import { Choice } from "../controls/Choice";
import { isTyping, keysOn, setKeys } from "../controls/keys";

const Table = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 20px;
  margin: 0;
  dt {
    font: 700 18px/1.4 var(--mono);
  }
  dd {
    margin: 0;
  }
`;
export const KEYS: readonly [string, string][] = [
  ["w m r f k", "the leaves: Weigh, Mix, Rise, Fire, Keep"],
  ["g b", "to the Bench"],
  ["g t", "to the Day, as a list"],
  ["g l", "to the Logbook"],
  ["g k", "to the Kitchen"],
  ["n", "new bake"],
  ["l i o e", "on the Rise leaf: look at it, what if, other ways, late or fast"],
  ["o h l i", "on the Fire leaf while it is planned: the bread, the heat, the line, what if"],
  ["Space", "on the live Fire leaf: the next due move; while weighing: the next line"],
  ["1 2 … 9 0 - =", "on the live Fire leaf: the move due on that spot"],
  ["u", "on the live Fire leaf and while weighing: undo"],
  ["?", "this list"],
];
const LEAVES: Record<string, string> = { w: "weigh", m: "mix", r: "rise", f: "fire", k: "keep" };
const ROOMS: Record<string, string> = { b: "bench", t: "day", l: "logbook", k: "kitchen" };

/** Single-character keys, which can be switched off. */
export function Keys({ kitchen, bake }: { kitchen: number; bake?: number }) {
  const go = useNavigate();
  const waitingFor = useRef<"g" | null>(null);
  const [open, setOpen] = useState(false);
  const [on, setOn] = useState(keysOn);
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
  return (
    <Sheet title="Keys" isOpen={open} onClose={() => setOpen(false)}>
      <Table>{KEYS.map(([key, what]) => [<dt key={key}>{key}</dt>, <dd key={what}>{what}</dd>])}</Table>
      <Choice
        label="Single-character keys"
        value={on ? "on" : "off"}
        options={[
          { id: "on", text: "Keys on" },
          { id: "off", text: "Keys off" },
        ]}
        onChange={(v) => {
          setKeys(v === "on");
          setOn(v === "on");
        }}
      />
    </Sheet>
  );
}
