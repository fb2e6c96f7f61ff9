/** Sentences of the freezer. A part left open stands in its place. */
export const SAY = {
  nothingIsFrozenFreezeWhatIs: "Nothing is frozen. Freeze what is left of a bake on its Keep leaf.",
  itIsOffTheList: "It is off the list.",
  thatServingIsOffTheRule: "That serving is no longer planned.",
  putItOnTheRule: "Plan this serving",
  whatToTakeOut: "What to take out",
} as const;
