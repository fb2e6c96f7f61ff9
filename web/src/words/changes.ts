const FIELDS: Record<string, string> = {
  lines: "What goes in the bowl",
  name: "The name",
  serve: "When people eat",
  serve_until: "Until when it is served",
  count: "How many",
  piece_g: "The weight of one",
  surface_id: "The surface",
  surface_c: "The surface’s heat",
  doneness: "The colour",
  colour_top: "The colour of the upper side",
  heat_steps: "Its way through the heat",
  dressing: "What goes on it",
  surface_source: "What says how hot it is",
  surface_sd_k: "How sure that is",
  docked: "Docked or not",
  note: "The note",
  cold: "Its time in the cold",
  diameter_cm: "Across",
  length_cm: "The length",
  width_cm: "The width",
  dough_c: "The dough’s temperature",
  filling: "The filling",
  weighed: "What is in the bowl already",
};

/** A setting of a bake in a cook's words. */
export const fieldWords = (field: string): string => FIELDS[field] ?? `Its ${field.replace(/_/g, " ")}`;

/** A value of a setting, as it can be read. */
export function valueWords(value: unknown): string {
  if (value === null || value === undefined || value === "") return "nothing";
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return String(Math.round(value * 100) / 100);
  if (typeof value === "string")
    return /^\d{4}-\d\d-\d\dT/.test(value)
      ? new Date(value).toLocaleString("en-GB", { weekday: "short", hour: "2-digit", minute: "2-digit" })
      : value;
  if (Array.isArray(value)) return value.map(lineWords).join("\n") || "nothing";
  return Object.entries(value)
    .map(([k, v]) => `${k.replace(/_/g, " ")} ${valueWords(v)}`)
    .join(", ");
}

function lineWords(line: unknown): string {
  const l = line as { ingredient?: string; amount?: string };
  return l && typeof l === "object" && l.ingredient
    ? `${l.amount ?? ""} ${l.ingredient.replace(/_/g, " ")}`.trim()
    : valueWords(line);
}
