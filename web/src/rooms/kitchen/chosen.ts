import { useSearchParams } from "react-router";

/** What of a kitchen can be opened: a surface, a place or a starter by its key, or a named sheet. */
export type Chosen =
  { kind: "surface"; id: number } | { kind: "place"; key: string } | { kind: "starter"; id: number } | { kind: Named };
export const NAMED = [
  "house",
  "hours",
  "measures",
  "ingredients",
  "starters",
  "alarms",
  "learned",
  "instruments",
  "devices",
  "backups",
  "kitchens",
] as const;
export type Named = (typeof NAMED)[number];

/** A thing as it stands in the address: `surface-3`, `place-fridge`, `hours`. */
export const addressOf = (c: Chosen): string =>
  c.kind === "surface" || c.kind === "starter" ? `${c.kind}-${c.id}` : c.kind === "place" ? `place-${c.key}` : c.kind;

/** The thing of an address; null where it names none. */
export function readChosen(text: string | null): Chosen | null {
  const [kind, rest] = (text ?? "").split("-");
  if (kind === "surface" || kind === "starter") return Number(rest) > 0 ? { kind, id: Number(rest) } : null;
  if (kind === "place") return rest ? { kind, key: rest } : null;
  return NAMED.find((n) => n === kind) ? { kind: kind as Named } : null;
}

/** What is open, kept in the address: a link leads to it, and back closes it. */
export function useChosen(): [Chosen | null, (next: Chosen | null) => void] {
  const [params, set] = useSearchParams();
  return [readChosen(params.get("at")), (next) => set(next ? { at: addressOf(next) } : {})];
}
