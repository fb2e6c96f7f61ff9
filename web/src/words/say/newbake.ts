/** Sentences where a bake is begun. A part left open stands in its place. */
type Part = string | number;

export const SAY = {
  pasteARecipeJsonldASaved: "Paste a recipe as it is written, steps and all; or a saved page, a bake file, CSV",
  orPasteARecipe: "or paste a recipe…",
  whatItsStepsSay: "What its steps say",
  theRestOfItsStepsIsInTheNote: "All its steps are in the note; times on the heat are told for your own surface.",
  whatABakeFileIsFor: "What a bake file is for",
  fromAFile: "From a file…",
  toCorrectOnTheSheet: (a: Part) => `, ${a} to correct on the sheet`,
  byTheLeavenAlone: "by the leaven alone",
  twoMethodsSideBySide: "Two methods side by side",
  whenDoWeEat: "When do we eat?",
  writeItAsYouSayIt: "Write it as you say it",
  noMethodFitsAllOfThat: "No method fits all of that. Take one wish back.",
  putAway: "Put away.",
} as const;
