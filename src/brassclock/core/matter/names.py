"""Names that cooks use: words to ingredient ids, for reading a list as it is spoken or pasted."""

from __future__ import annotations

import difflib
import re
from collections.abc import Mapping

from brassclock.core.matter.ingredients import Ingredient

WORDS: dict[str, str] = {
    "flour": "plain_flour",
    "plain flour": "plain_flour",
    "all-purpose flour": "plain_flour",
    "all purpose flour": "plain_flour",
    "ap flour": "plain_flour",
    "white flour": "plain_flour",
    "bread flour": "bread_flour",
    "strong flour": "bread_flour",
    "strong white flour": "bread_flour",
    "strong bread flour": "bread_flour",
    "maida": "maida",
    "00 flour": "white_00",
    "wholemeal": "wholemeal",
    "wholemeal flour": "wholemeal",
    "whole wheat": "wholemeal",
    "whole wheat flour": "wholemeal",
    "wholewheat flour": "wholemeal",
    "atta": "atta",
    "chapati flour": "atta",
    "semolina": "semolina_fine",
    "fine semolina": "semolina_fine",
    "self-raising flour": "self_raising",
    "self raising flour": "self_raising",
    "self-rising flour": "self_rising_us",
    "self rising flour": "self_rising_us",
    "spelt": "spelt_white",
    "spelt flour": "spelt_white",
    "rye": "rye_light",
    "rye flour": "rye_light",
    "cornstarch": "cornstarch",
    "cornflour": "cornstarch",
    "corn starch": "cornstarch",
    "water": "water",
    "milk": "whole_milk",
    "whole milk": "whole_milk",
    "skimmed milk": "skim_milk",
    "skim milk": "skim_milk",
    "milk powder": "milk_powder",
    "dry milk": "milk_powder",
    "buttermilk": "buttermilk",
    "yoghurt": "yoghurt_whole",
    "yogurt": "yoghurt_whole",
    "plain yoghurt": "yoghurt_whole",
    "plain yogurt": "yoghurt_whole",
    "curd": "yoghurt_whole",
    "dahi": "yoghurt_whole",
    "low-fat yoghurt": "yoghurt_low",
    "low-fat yogurt": "yoghurt_low",
    "greek yoghurt": "yoghurt_strained",
    "greek yogurt": "yoghurt_strained",
    "greek-style yogurt": "yoghurt_strained",
    "strained yoghurt": "yoghurt_strained",
    "strained yogurt": "yoghurt_strained",
    "kefir": "kefir",
    "sour cream": "soured_cream",
    "soured cream": "soured_cream",
    "soured milk": "soured_milk",
    "coconut milk": "coconut_milk",
    "egg": "egg_whole",
    "eggs": "egg_whole",
    "large egg": "egg_whole",
    "egg yolk": "egg_yolk",
    "egg yolks": "egg_yolk",
    "yolk": "egg_yolk",
    "lemon juice": "lemon_juice",
    "vinegar": "vinegar5",
    "oil": "oil",
    "olive oil": "oil",
    "vegetable oil": "oil",
    "sunflower oil": "oil",
    "rapeseed oil": "oil",
    "canola oil": "oil",
    "ghee": "ghee",
    "butter": "butter",
    "unsalted butter": "butter",
    "salted butter": "butter_salted",
    "shortening": "shortening",
    "sugar": "sugar",
    "white sugar": "sugar",
    "granulated sugar": "sugar",
    "caster sugar": "caster",
    "superfine sugar": "caster",
    "brown sugar": "brown_sugar",
    "honey": "honey",
    "salt": "salt_fine",
    "table salt": "salt_fine",
    "fine salt": "salt_fine",
    "sea salt": "salt_flaky",
    "flaky salt": "salt_flaky",
    "coarse salt": "salt_coarse",
    "kosher salt": "salt_coarse",
    "yeast": "yeast_instant",
    "instant yeast": "yeast_instant",
    "fast-action yeast": "yeast_instant",
    "rapid-rise yeast": "yeast_instant",
    "quick yeast": "yeast_instant",
    "easy-bake yeast": "yeast_instant",
    "active dry yeast": "yeast_active",
    "active yeast": "yeast_active",
    "dried yeast": "yeast_active",
    "dry yeast": "yeast_active",
    "fresh yeast": "yeast_fresh",
    "cake yeast": "yeast_fresh",
    "compressed yeast": "yeast_fresh",
    "osmotolerant yeast": "yeast_osmotolerant",
    "starter": "starter_100",
    "sourdough starter": "starter_100",
    "sourdough": "starter_100",
    "levain": "starter_100",
    "stiff starter": "starter_60",
    "baking powder": "baking_powder",
    "baking soda": "baking_soda",
    "soda": "baking_soda",
    "bicarbonate of soda": "baking_soda",
    "bicarb": "baking_soda",
    "bicarbonate": "baking_soda",
    "cream of tartar": "cream_tartar",
    "nigella": "nigella",
    "nigella seeds": "nigella",
    "kalonji": "nigella",
    "sesame": "sesame",
    "sesame seeds": "sesame",
    "poppy seeds": "poppy",
    "raisins": "raisins",
    "sultanas": "raisins",
    "dried apricots": "dried_apricot",
    "apricots": "dried_apricot",
    "desiccated coconut": "coconut_dry",
    "coconut": "coconut_dry",
    "ground almonds": "ground_almond",
    "almonds": "ground_almond",
    "pistachios": "pistachio",
    "cheddar": "cheese_hard",
    "cheese": "cheese_hard",
    "grated cheese": "cheese_hard",
    "mozzarella": "mozzarella",
    "paneer": "paneer",
    "mince": "minced_meat",
    "minced meat": "minced_meat",
    "mashed potato": "potato_mash",
    "potato": "potato_mash",
    "onion": "onion_chopped",
    "garlic": "garlic_minced",
    "coriander": "herb_fresh",
    "cilantro": "herb_fresh",
    "parsley": "herb_fresh",
    "mint": "herb_fresh",
    "herbs": "herb_fresh",
}
CARELESS = re.compile(
    r"\b(of|the|warm|lukewarm|tepid|cold|hot|iced|room[- ]temperature|sifted|chopped|softened|melted|large|medium|"
    r"small|beaten|heaped|level|dipped|spooned|good|more|extra|plus|approx|about|organic|freshly|finely|roughly|grated|"
    r"active mature|ripe|fed)\b"
)


def plain(words: str) -> str:
    """Words lowered, without what stands after a comma or in brackets, without what does not change the ingredient."""
    clean = re.sub(r"\([^)]*\)", " ", words.lower())
    clean = re.split(r"[,;]| or | plus | for ", clean)[0]
    return re.sub(r"\s+", " ", CARELESS.sub(" ", clean)).strip(" .:-–*•")


def ingredient_of(words: str, rows: Mapping[str, Ingredient]) -> tuple[str | None, list[str]]:
    """(id that is meant, else None; near ids, nearest first)."""
    clean = plain(words)
    if not clean:
        return None, []
    if clean.replace(" ", "_") in rows:
        return clean.replace(" ", "_"), []
    named = {row.name.lower(): key for key, row in rows.items()}
    for known in (named, WORDS):
        if clean in known and known[clean] in rows:
            return known[clean], []
    inside = [w for w in {**WORDS, **named} if re.search(rf"\b{re.escape(w)}\b", clean)]
    if inside:
        best = max(inside, key=len)
        return named.get(best) or WORDS[best], []
    close = difflib.get_close_matches(clean, [*WORDS, *named], n=4, cutoff=0.6)
    near = list(dict.fromkeys(named.get(w) or WORDS[w] for w in close))
    if close and difflib.SequenceMatcher(None, clean, close[0]).ratio() >= 0.86:
        return near[0], near[1:]
    return None, near
