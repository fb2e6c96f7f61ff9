import type { Schemas } from "../../api/client";

type Method = Schemas["MethodRead"];
export interface Wish {
  want: string;
  hours: string;
  surface: string;
  without: string;
}

/** 1 to 2 h, 30 min, 14 to 21 h */
export function hoursText(m: Method): string {
  if (m.high_h < 0.4) return "at once";
  const h = (x: number) =>
    x < 1 ? `${Math.round((x * 60) / 5) * 5} min` : `${x >= 10 ? x.toFixed(0) : Number(x.toFixed(1))} h`;
  const [low, high] = [h(m.low_h), h(m.high_h)];
  return low === high
    ? low
    : low.endsWith(" h") && high.endsWith(" h")
      ? `${low.slice(0, -2)} to ${high}`
      : `${low} to ${high}`;
}

/** Whether a method fits what is wanted, the hours there are, the surface, and a cupboard that lacks some things. */
export function suits(m: Method, wish: Wish, known: readonly { id: string; name: string }[]): boolean {
  if (m.id === "blank") return true;
  if (wish.want !== "any" && !m.wants.includes(wish.want)) return false;
  if (wish.hours !== "any" && m.low_h + m.hands_min / 60 / 2 > Number(wish.hours)) return false;
  if (wish.surface !== "any" && !m.surfaces.includes(wish.surface)) return false;
  const lacking = wish.without
    .toLowerCase()
    .split(/[,;]/)
    .map((w) => w.trim())
    .filter((w) => w.length > 2);
  const names = m.ingredients.map(
    (id) => `${id.replace(/_/g, " ")} ${(known.find((k) => k.id === id)?.name ?? "").toLowerCase()}`,
  );
  return !lacking.some((w) => names.some((n) => n.includes(w.replace(/s$/, ""))));
}
