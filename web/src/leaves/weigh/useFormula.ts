import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { type Bake, Problem, type Schemas } from "../../api/client";
import { useBakeChange, weighQuery } from "../../api/queries";

export type Line = Schemas["LineIn"];
const SAVE_AFTER_MS = 600;
const plain = (l: Line): Line => ({ ingredient: l.ingredient, amount: l.amount, basis: l.basis ?? null });

/**
 * The formula being typed. It is computed as it changes and stored once it can be read; a line that
 * cannot stays on the sheet with its fault and holds the storing back, so nothing half-read is kept.
 */
export function useFormula(bake: Bake) {
  const [draft, setDraft] = useState<Line[] | null>(null);
  const lines = draft ?? bake.settings.lines;
  const s = bake.settings;
  const whole = lines.filter((l) => l.ingredient && l.amount.trim());
  const asked = {
    lines: whole.map(plain),
    pieces: { count: s.count, mass_g: s.piece_g },
    shape: { kind: s.shape as "round", diameter_cm: s.diameter_cm, length_cm: s.length_cm, width_cm: s.width_cm, thickness_mm: s.thickness_mm },
  };
  const computed = useQuery({ ...weighQuery(asked), placeholderData: keepPreviousData });
  const change = useBakeChange(bake.id);
  const save = useRef(change.mutate);
  useEffect(() => {
    save.current = change.mutate;
  });
  const good = !computed.error && !computed.isPlaceholderData;
  const key = JSON.stringify(asked.lines);
  useEffect(() => {
    if (draft === null || !good) return;
    const timer = setTimeout(() => save.current({ lines: JSON.parse(key) as Line[] }), SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [draft, good, key]);
  const faults = computed.error instanceof Problem ? computed.error.fields : [];
  const faultOf = (line: Line): string | null => {
    const at = whole.indexOf(line);
    return at < 0 ? null : (faults.find((f) => f.pointer.startsWith(`/lines/${at}/`))?.detail ?? null);
  };
  return {
    lines,
    sheet: computed.error ? null : (computed.data ?? bake.weigh),
    lineOf: (line: Line) => (computed.error ? null : (computed.data?.lines[whole.indexOf(line)] ?? null)),
    faultOf,
    otherFaults: faults.filter((f) => !f.pointer.startsWith("/lines/")).map((f) => f.detail),
    saved: draft === null || (good && JSON.stringify(bake.settings.lines.map(plain)) === key),
    set: (i: number, part: Partial<Line>) => setDraft(lines.map((l, k) => (k === i ? { ...l, ...part } : l))),
    add: () => setDraft([...lines, { ingredient: "", amount: "", basis: null }]),
    remove: (i: number) => setDraft(lines.filter((_, k) => k !== i)),
    change,
  };
}
