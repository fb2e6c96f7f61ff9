import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { type Bake, Problem, type Schemas } from "../../api/client";
import { useBakeChange } from "../../api/bake";
import { weighQuery } from "../../api/weigh";

export type Line = Schemas["FormulaLineCreate"];
const SAVE_AFTER_MS = 600;
const MOST_UNDO = 30;
const plain = (l: Line): Line => ({
  ingredient: l.ingredient,
  amount: l.amount,
  basis: l.basis ?? null,
  part: l.part ?? "",
});

/** 13.7 g, 284 g: an amount a cook can weigh. */
export const gramsText = (grams: number): string =>
  `${Number(grams >= 20 ? grams.toFixed(0) : grams.toFixed(grams < 2 ? 2 : 1))} g`;

/**
 * The formula being typed. It is computed as it changes and stored once it can be read; a line that
 * cannot stays on the sheet with its fault and holds the storing back, so nothing half-read is kept.
 */
export function useFormula(bake: Bake) {
  const [draft, setDraft] = useState<Line[] | null>(null);
  const [past, setPast] = useState<Line[][]>([]);
  // the bake as it was when this draft was begun, or stored last: another's change since then is merged, not written over
  const base = useRef(bake);
  const lines = draft ?? bake.settings.lines;
  const s = bake.settings;
  const whole = lines.filter((l) => l.ingredient && l.amount.trim());
  const added = s.additions.map((a) => ({ ingredient: a.ingredient, amount: a.amount, basis: null, part: "added" }));
  const asked: Schemas["WeighRequest"] = {
    lines: [...whole.map(plain), ...added],
    pieces: {
      count: s.count,
      mass_g: s.piece_g,
      beside_g: s.parts.reduce((sum, p) => sum + p.count * p.piece_g, 0),
      filled_beside: s.parts.reduce((sum, p) => sum + (p.filled ? p.count : 0), 0),
    },
    shape: {
      kind: s.shape,
      diameter_cm: s.diameter_cm,
      length_cm: s.length_cm,
      width_cm: s.width_cm,
      thickness_mm: s.thickness_mm,
    },
    filling: s.filling ? { lines: s.filling.lines, per_piece_g: s.filling.per_piece_g ?? null } : null,
    held: Object.entries(s.held).map(([ingredient, mass_g]) => ({ ingredient, mass_g })),
  };
  const computed = useQuery({ ...weighQuery(bake.kitchen_id, asked), placeholderData: keepPreviousData });
  const change = useBakeChange(bake.id);
  const save = useRef(change.mutateAsync);
  useEffect(() => {
    save.current = change.mutateAsync;
  });
  const stored = useRef("");
  useEffect(() => {
    // with the same lines as at the start of the draft, or with those that were stored from here, it is no other's change
    const there = JSON.stringify(bake.settings.lines.map(plain));
    if (draft === null || there === stored.current || there === JSON.stringify(base.current.settings.lines.map(plain)))
      base.current = bake;
  }, [bake, draft]);
  // what was typed and not yet stored; it is stored as the leaf is left
  const waiting = useRef<string | null>(null);
  useEffect(
    () => () => {
      if (waiting.current === null) return;
      const lines = JSON.parse(waiting.current) as Line[];
      waiting.current = null;
      save.current({ lines, base: base.current }).catch(() => undefined); // refused, nothing of it is kept
    },
    [],
  );
  const good = !computed.error && !computed.isPlaceholderData;
  const key = JSON.stringify(whole.map(plain));
  useEffect(() => {
    if (draft === null) return;
    waiting.current = key === JSON.stringify(base.current.settings.lines.map(plain)) ? null : key;
    if (!good) return;
    const timer = setTimeout(() => {
      stored.current = key;
      waiting.current = null;
      save.current({ lines: JSON.parse(key) as Line[], base: base.current }).then(
        (found) => {
          base.current = found;
          const merged = found.settings.lines.map(plain);
          if (JSON.stringify(merged) !== key)
            setDraft((now) => (now && JSON.stringify(now.map(plain)) === key ? merged : now));
        },
        () => undefined,
      ); // the mutation tells its fault
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [draft, good, key]);
  const faults = computed.error instanceof Problem ? computed.error.fields : [];
  const faultOf = (line: Line): string | null => {
    const at = whole.indexOf(line);
    return at < 0 ? null : (faults.find((f) => f.pointer.startsWith(`/lines/${at}/`))?.detail ?? null);
  };
  const shown = useRef(lines);
  useLayoutEffect(() => {
    shown.current = lines;
  });
  const put = useCallback((next: Line[]) => {
    setPast((had) => [...had.slice(-MOST_UNDO + 1), [...shown.current]]);
    setDraft(next);
  }, []);
  const set = useCallback(
    (i: number, part: Partial<Line>) => setDraft(shown.current.map((l, k) => (k === i ? { ...l, ...part } : l))),
    [],
  );
  const remove = useCallback((i: number) => put(shown.current.filter((_, k) => k !== i)), [put]);
  return {
    lines,
    sheet: computed.error ? null : (computed.data ?? bake.weigh),
    lineOf: (line: Line) => (computed.error ? null : (computed.data?.lines[whole.indexOf(line)] ?? null)),
    /** What was put in beside the formula, in grams. */
    added: computed.data?.lines.slice(whole.length) ?? [],
    faultOf,
    otherFaults: faults.filter((f) => !f.pointer.startsWith("/lines/")).map((f) => f.detail),
    saved: draft === null || (good && JSON.stringify(bake.settings.lines.map(plain)) === key),
    set,
    add: () => setDraft([...lines, { ingredient: "", amount: "", basis: null, part: "" }]),
    put,
    remove,
    /** Make an ingredient weigh so many grams more (or less): the first line of it, a new one, or none at zero. */
    changeBy: (ingredient: string, grams: number, instead?: string) => {
      const at = lines.findIndex((l) => l.ingredient === ingredient);
      const known = computed.data ?? (draft === null ? bake.weigh : null); // the sheet on the screen
      const now = at < 0 ? 0 : known?.lines[whole.indexOf(lines[at]!)]?.grams;
      if (now == null) return; // how much there is has not been told yet
      const next = lines.filter((l) => l.ingredient !== instead);
      const text = gramsText(now + grams);
      if (at < 0) return put([...next, { ingredient, amount: text, basis: null, part: "" }]);
      return put(
        now + grams < 0.05
          ? next.filter((l) => l.ingredient !== ingredient)
          : next.map((l) => (l === lines[at] ? { ...l, amount: text, basis: null } : l)),
      );
    },
    /** Take one ingredient's place with another, in grams. */
    swap: (from: string, to: string, grams: number) =>
      put(
        lines.map((l) => (l.ingredient === from ? { ...l, ingredient: to, amount: gramsText(grams), basis: null } : l)),
      ),
    /** Make several ingredients weigh so much in all: none at zero, a new line where there is none. */
    weighTo: (grams: Record<string, number>) => {
      const kept = lines.filter(
        (l, i) =>
          !(l.ingredient in grams) ||
          (grams[l.ingredient]! > 0 && lines.findIndex((x) => x.ingredient === l.ingredient) === i),
      );
      const there = new Set(kept.map((l) => l.ingredient));
      put([
        ...kept.map((l) =>
          l.ingredient in grams ? { ...l, amount: gramsText(grams[l.ingredient]!), basis: null } : l,
        ),
        ...Object.entries(grams)
          .filter(([ingredient, g]) => g > 0 && !there.has(ingredient))
          .map(([ingredient, g]) => ({ ingredient, amount: gramsText(g), basis: null, part: "" })),
      ]);
    },
    /** The server wrote the lines anew (scaled): show those. */
    renewed: () => {
      setPast([...past.slice(-MOST_UNDO + 1), [...lines]]);
      setDraft(null);
    },
    canUndo: past.length > 0,
    undo: () => {
      const last = past.at(-1);
      if (!last) return;
      setDraft(last);
      setPast(past.slice(0, -1));
    },
    change,
  };
}
export type Formula = ReturnType<typeof useFormula>;
