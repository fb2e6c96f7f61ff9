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
    "white bread flour": "bread_flour",
    "strong white bread flour": "bread_flour",
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
    "evoo": "oil",
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
    "minced garlic": "garlic_minced",
    "bicarbonate soda": "baking_soda",
    "cream tartar": "cream_tartar",
    "cheddar": "cheese_hard",
    "salt flakes": "salt_flaky",
    "coarse sea salt": "salt_coarse",
    "pistachios": "pistachio",
    "white vinegar": "vinegar5",
    "instant dried yeast": "yeast_instant",
    "instant dry yeast": "yeast_instant",
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
    "cheese": "cheese_hard",
    "grated cheese": "cheese_hard",
    "mozzarella": "mozzarella",
    "paneer": "paneer",
    "mince": "minced_meat",
    "minced meat": "minced_meat",
    "mashed potato": "potato_mash",
    "mashed potatoes": "potato_mash",
    "potatoes": "potato_mash",
    "potato": "potato_mash",
    "onion": "onion_chopped",
    "garlic": "garlic_minced",
    "coriander": "herb_fresh",
    "cilantro": "herb_fresh",
    "parsley": "herb_fresh",
    "mint": "herb_fresh",
    "herbs": "herb_fresh",
    "suji": "semolina_fine",
    "sooji": "semolina_fine",
    "rava": "semolina_fine",
    "maida flour": "maida",
    "hung curd": "yoghurt_strained",
    "hung yoghurt": "yoghurt_strained",
    "hung yogurt": "yoghurt_strained",
    "strained curd": "yoghurt_strained",
    "greek style yoghurt": "yoghurt_strained",
    "greek style yogurt": "yoghurt_strained",
    "whole milk yoghurt": "yoghurt_whole",
    "whole milk yogurt": "yoghurt_whole",
    "full fat yoghurt": "yoghurt_whole",
    "full fat yogurt": "yoghurt_whole",
    "natural yoghurt": "yoghurt_whole",
    "natural yogurt": "yoghurt_whole",
    "low fat yoghurt": "yoghurt_low",
    "low fat yogurt": "yoghurt_low",
    "semi skimmed milk": "whole_milk",
    "evaporated milk": "evaporated_milk",
    "condensed milk": "condensed_milk",
    "sweetened condensed milk": "condensed_milk",
    "labneh": "labneh",
    "labne": "labneh",
    "tahini": "tahini",
    "tahina": "tahini",
    "za'atar": "herb_dry_mix",
    "zaatar": "herb_dry_mix",
    "za’atar": "herb_dry_mix",
    "garam masala": "spice_mix",
    "curry powder": "spice_mix",
    "spice mix": "spice_mix",
    "mixed spice": "spice_mix",
    "chopped tomato": "tomato_chopped",
    "tomato": "tomato_chopped",
    "tomatoes": "tomato_chopped",
    "fine sea salt": "salt_fine",
    "lamb mince": "minced_meat",
    "beef mince": "minced_meat",
    "minced lamb": "minced_meat",
    "minced beef": "minced_meat",
    "fast action yeast": "yeast_instant",
    "easy blend yeast": "yeast_instant",
    "easy blend dried yeast": "yeast_instant",
    "easy bake yeast": "yeast_instant",
    "garlic cloves": "garlic_minced",
    "cloves of garlic": "garlic_minced",
    "clove of garlic": "garlic_minced",
    "garlic clove": "garlic_minced",
    "clove garlic": "garlic_minced",
    "idy": "yeast_instant",
    "ady": "yeast_active",
    "fine grain salt": "salt_fine",
    "cloves garlic": "garlic_minced",
    "onion seeds": "nigella",
    "plain white flour": "plain_flour",
    "neutral oil": "oil",
    "clarified butter": "ghee",
    "coriander seeds": "spice_mix",
    "coriander seed": "spice_mix",
    "ground coriander": "spice_mix",
    "cumin": "spice_mix",
    "cumin seeds": "spice_mix",
    "ground cumin": "spice_mix",
    "chilli flakes": "spice_mix",
    "chili flakes": "spice_mix",
    "chilli powder": "spice_mix",
    "chili powder": "spice_mix",
    "paprika": "spice_mix",
    "turmeric": "spice_mix",
    "ground turmeric": "spice_mix",
    "fennel seeds": "spice_mix",
    "carom seeds": "spice_mix",
    "ajwain": "spice_mix",
    "black pepper": "spice_mix",
    "ground black pepper": "spice_mix",
    "bread machine yeast": "yeast_instant",
    "tipo 00 flour": "white_00",
    "type 00 flour": "white_00",
    "00": "white_00",
    "semolina flour": "semolina_fine",
    "black sesame": "sesame",
    "white sesame": "sesame",
    "black sesame seeds": "sesame",
    "skimmed milk powder": "milk_powder",
    "skim milk powder": "milk_powder",
    "dried milk powder": "milk_powder",
    "fast action dried yeast": "yeast_instant",
    "fast acting dried yeast": "yeast_instant",
    "quick dried yeast": "yeast_instant",
    "easy bake dried yeast": "yeast_instant",
    "rapid rise dried yeast": "yeast_instant",
    "instant yeast powder": "yeast_instant",
    "active dried yeast": "yeast_active",
    "traditional dried yeast": "yeast_active",
    "sparkling water": "water",
    "ice": "water",
    "ice cubes": "water",
    "crushed ice": "water",
}
CARELESS = re.compile(
    r"\b(of|the|a|an|some|hand[- ]hot|warm|lukewarm|tepid|cold|cool|hot|ice|iced|boiling|room[- "
    r"]temperature|sifted|chopped|softened|"
    r"melted|large|medium|small|beaten|heaped|level|dipped|spooned|rounded|scant|generous|good|more|extra|plus|approx|"
    r"about|organic|freshly|finely|roughly|grated|active mature|ripe|fed|bubbly|crumbled|mashed|cooked|raw|dissolved|"
    r"unsweetened|runny|clear|toasted|peeled|whisked|lightly|well|weighed|packed|of your "
    r"choice|tap|filtered|washed|dry|enough)\b"
)
# words that may stand beside a name without making it another thing
HARMLESS = frozenset(
    [
        "fresh",
        "full",
        "fat",
        "natural",
        "plain",
        "unsalted",
        "sachet",
        "sachets",
        "packet",
        "packets",
        "cube",
        "fast",
        "action",
        "quick",
        "rapid",
        "easy",
        "bake",
        "dried",
        "active",
        "sourdough",
        "wheat",
        "culture",
        "bulk",
        "vegetable",
        "olive",
        "virgin",
        "sunflower",
        "neutral",
        "seed",
        "seeds",
        "leaves",
        "leaf",
        "bunch",
        "free",
        "range",
        "hen",
        "whole",
        "tin",
        "can",
        "low",
        "moisture",
        "table",
        "kitchen",
        "cooking",
        "firm",
        "cow",
        "goat",
        "sheep",
        "your",
        "own",
        "favourite",
        "little",
        "strong",
    ]
)


SPACED = {word.replace("-", " "): key for word, key in WORDS.items()}


def plain(words: str) -> str:
    """Words lowered, without what stands after a comma or in brackets, without what does not change the ingredient."""
    clean = re.sub(r"\([^)]*\)", " ", words.lower()).replace("-", " ").replace("’", "'").replace("‘", "'")
    clean = re.sub(r"(?<!\w)['\"“]([^'\"”]+)['\"”](?!\w)", r"\1", clean)
    clean = re.split(r"[,;]| or | plus | for ", clean)[0]
    return re.sub(r"\s+", " ", CARELESS.sub(" ", clean)).strip(" .:-–*•")


def _other(left: str) -> list[str]:
    """The words beside a name that may make it another thing."""
    return [w for w in re.findall(r"[a-z’']+", left) if w not in HARMLESS and len(w) > 1]


def things(words: str, rows: Mapping[str, Ingredient]) -> list[str]:
    """The ingredients that a phrase names side by side, joined by `and`; empty for a single thing."""
    clean = plain(words)
    parts = [p for p in re.split(r"\s+(?:and|&|with)\s+", clean) if p]
    if len(parts) < 2 or clean in SPACED or clean in _named(rows):
        return []
    found = [ingredient_of(p, rows)[0] for p in parts]
    return [f for f in found if f is not None] if all(found) and len(set(found)) > 1 else []


_KIND_AFTER = re.compile(r"^([^,(]+?)\s*[,(]\s*([^,()]+)\)?$")


def _named(rows: Mapping[str, Ingredient]) -> dict[str, str]:
    """Ids by the names of the table."""
    return {row.name.lower().replace("-", " "): key for key, row in rows.items()}


def meant(words: str, rows: Mapping[str, Ingredient]) -> str:
    """Words as `plain` has them; a name with its kind behind it the other way round (`Yeast, active dry`, `dried yeast
    (instant)`), where that is a name."""
    said = _KIND_AFTER.match(words.strip())
    both = re.sub(r"\s+", " ", f"{said[2]} {said[1]}".lower().replace("-", " ")).strip(" .") if said else ""
    return both if SPACED.get(both) in rows or both in _named(rows) else plain(words)


def ingredient_of(words: str, rows: Mapping[str, Ingredient]) -> tuple[str | None, list[str]]:
    """(id that is meant, else None; near ids, nearest first)."""
    clean = meant(words, rows)
    if not clean:
        return None, []
    if clean.replace(" ", "_") in rows:
        return clean.replace(" ", "_"), []
    named = _named(rows)
    for known in (named, SPACED):
        if clean in known and known[clean] in rows:
            return known[clean], []
    inside = [w for w in {**SPACED, **named} if re.search(rf"\b{re.escape(w)}\b", clean)]
    if inside:
        best = max(inside, key=len)
        found = named.get(best) or SPACED[best]
        left = re.sub(rf"\b{re.escape(best)}\b", " ", clean, count=1)
        if not _other(left):
            return found, []
        return None, [found]  # another word stands beside it: it may be another thing
    close = difflib.get_close_matches(clean, [*SPACED, *named], n=4, cutoff=0.6)
    near = list(dict.fromkeys(named.get(w) or SPACED[w] for w in close))
    if close and difflib.SequenceMatcher(None, clean, close[0]).ratio() >= 0.86:
        return near[0], near[1:]
    return None, near
