/** Sentences by the instruments. A part left open stands in its place. */
type Part = string | number;

export const SAY = {
  howHeatGoesThroughTheBread: "How heat goes through the bread over time. The table below holds the events.",
  secondsSpecksAreTheColourOf: "seconds; specks are the colour of each side, the black edge lies on the surface",
  sideASideB: (a: Part, b: Part) => `Side A ${a}. Side B ${b}.`,
  theBowlLandsAtTheTable: (a: Part) => `The bowl lands at ${a}. The table holds what each part brings.`,
  tooHotForTheBowlFrom: "too hot from",
  heightOfTheStarterSinceIts: "Height of the starter since its feed, with its band.",
  jarStartAtMm: (a: Part, b: Part) => `Jar: start at ${a} mm, ${b}`,
  liftWhenCookedAtOnceHalf: (a: Part, b: Part, c: Part) =>
    `Lift when cooked: ${a} at once, half of that after ${b} to ${c} hours.`,
  roundsOnLastOffAfterMin: (a: Part, b: Part, c: Part) => `${a} on ${b}, last off after ${c} min`,
  cmAcrossMmThickDrawnTo: (a: Part, b: Part) => `${a} cm across, ${b} mm thick, drawn to scale`,
  riseCurveWithItsBandWindows:
    "Rise curve with its band, windows and dough temperature. The table below holds the same.",
  doesNotGetThere: "does not get there",
  outOfTheFridge: "Out of the fridge",
  saidAndWasInSeconds: (a: Part) => `Said and was, in seconds: ${a}`,
  softnessOverThreeDaysInThe: (a: Part, b: Part) => `Softness over three days, ${a}: ${b} in the end`,
  sodaAgainstAcidMillimoleGOf: (a: Part, b: Part, c: Part, d: Part) =>
    `Soda ${a} against acid ${b} millimole; ${c} g of ${d} left per 100 g flour`,
} as const;
