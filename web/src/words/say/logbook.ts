/** Sentences in the Logbook. A part left open stands in its place. */
export const SAY = {
  nothingIsKeptYetABake: "Nothing is kept yet. A bake comes here when you keep it on its last leaf.",
} as const;
