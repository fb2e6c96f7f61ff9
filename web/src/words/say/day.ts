/** Sentences in the Day room. A part left open stands in its place. */
type Part = string | number;

export const SAY = {
  noHandMoveLiesAhead: "No hand move lies ahead.",
  startANewBake: "Start a new bake",
  sayWhenPeopleEatAndIts: ": say when people eat, and its day stands here.",
  noFreeHandsThen: "No free hands then:",
  heldHere: "Held here.",
  nothingYetEveryPlanStandsAs: "Nothing yet: every plan stands as it was made.",
  oneDayForAllOfThem:
    "One day for all of them: hands, surfaces and the cold shelf shared out, as little changed as can be.",
  lookForSuchADay: "Look for such a day",
  everyBakeHasItsPlaceNothing: "Every bake has its place: nothing to change.",
  stayAsTheyAre: "stay as they are",
  staysAsItIs: "stays as it is",
  leaveItAsItWas: "leave it as it was",
  otherHoursNothingElse: "Other hours, nothing else.",
  noPlaceAtThatHour: (a: Part) => `No place at that hour. ${a}`,
} as const;
