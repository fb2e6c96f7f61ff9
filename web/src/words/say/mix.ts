/** Sentences on the Mix leaf. A part left open stands in its place. */
type Part = string | number;

export const SAY = {
  mixingThisWayWarmsAsMuch: (a: Part, b: Part, c: Part) =>
    `Mixing this way warms ${a} × as much as usual, after ${b} ${c}.`,
  nothingIsLearnedOfThisWay: "Nothing is learned of this way of mixing yet.",
  theRiseStartsFromThere: "; the rise starts from there.",
  onceItIsMixedOneThermometer: "Once it is mixed, one thermometer reading here says more than any reckoning.",
  noteItAsATest: "Note it as a test",
  startTheClockOnIt: "Start the clock on it",
  commonPractice: "Common practice.",
  thereIsNoLiquidToWarm: "There is no liquid to warm in this formula.",
  ofItAsIceDoesThe: "of it as ice does the same from the tap.",
  atItsLimit: "at its limit.",
  landsTheDoughAt: "lands the dough at",
  flourIfNotAtRoom: "flour, if not at room",
  howItIsMixed: "How it is mixed",
  onTheYeast: "on the yeast.",
  theSumRuleOfTheTrade: (a: Part, b: Part) =>
    `The sum rule of the trade says ${a}; it would need a factor of ${b} here.`,
} as const;
