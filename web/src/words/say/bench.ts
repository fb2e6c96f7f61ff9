/** Sentences on the Bench. A part left open stands in its place. */
type Part = string | number;

export const SAY = {
  theBenchIsClearSayWhen: "The bench is clear. Say when people eat, and the day is planned back from there.",
  startANewBake: "Start a new bake",
  allOffTheHeat: "All off the heat.",
  ofJudgedAreFull: (a: Part, b: Part) => `${a} of ${b} judged are full.`,
  howDidTheyTurnOut: "How did they turn out?",
  leftAloneItGoesIntoThe: "Left alone it goes into the logbook by tomorrow.",
  nothingIsDue: "Nothing is due.",
  lastInTheLogbook: "Last in the logbook,",
  noLineWasLeftForNext: "No line was left for next time.",
  ofHadAFullPocket: (a: Part, b: Part) => `${a} of ${b} had a full pocket`,
} as const;
