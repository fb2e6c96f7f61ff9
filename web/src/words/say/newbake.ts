/** Sentences where a bake is begun. A part left open stands in its place. */
type Part = string | number;

export const SAY = {
  pasteARecipeJsonldASaved: "Paste a recipe (JSON-LD, a saved page), a bake file, Markdown, CSV or a list",
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
