/** Sentences by the controls. A part left open stands in its place. */
export const SAY = {
  whatItRestsOn: "What it rests on",
} as const;
