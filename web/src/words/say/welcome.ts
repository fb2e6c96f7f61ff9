/** Sentences on the first screen. A part left open stands in its place. */
export const SAY = {
  howWarmIsIt: "How warm is it?",
  yourKitchensTemperatureC: "Your kitchen’s temperature, °C",
  yourKitchenIsUsuallyAt: "Your kitchen is usually at",
  whatDoYouBakeOn: "What do you bake on?",
  howDoYouMeasure: "How do you measure?",
  cupsAndSpoonsAreReadToo:
    "Cups and spoons are read too, beside either: type “2 cups flour”. A scale is surer, and to 0.1 g for yeast.",
  whenDoYouEat: "When do you eat?",
  everythingCanBeChangedLaterNothing: "Everything can be changed later. Nothing leaves this machine.",
  fromWhenDoWeEatTo: "Say when you eat. It plans the dough, and times every bread on the heat.",
  orLookRoundFirst: "Or look round first:",
  thatIsTooSoonForA: ": that is too soon for a yeasted dough. Eat later, or take a soda bread.",
} as const;
