/** The measures of a piece, each with what its field is typed in. */
export const MEASURED = {
  count: "count",
  piece_g: "g",
  diameter_cm: "cm",
  length_cm: "cm",
  width_cm: "cm",
  thickness_mm: "mm",
} as const;
