import { useEffect, useRef } from "react";
import { commandKey } from "../../controls/keys";

/** Single keys of a drill, each to what it does; a key on a control that has focus is the control's own. */
export function useCommand(keys: Readonly<Record<string, (() => void) | undefined>>): void {
  const known = useRef(keys);
  useEffect(() => {
    known.current = keys;
  });
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const key = commandKey(e);
      const act = key === null ? undefined : known.current[key];
      const own = e.target instanceof HTMLElement && e.target.closest("button, a, [role=dialog]");
      if (!act || e.repeat || (own && (key === " " || key === "Enter"))) return;
      e.preventDefault();
      act();
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, []);
}
