"""Cautions about what can hurt or mislead, each in one short sentence, keyed by code. Shown at the step it belongs
to."""

from __future__ import annotations

from dataclasses import dataclass

TEXTS: dict[str, str] = {
    "steam": "A puffed bread is full of live steam. Tear it facing away from you.",
    "hot_oil": "Hot oil: dry hands, no water near it, lid at hand. Never leave it; above 220 C it smokes and may "
    "catch fire.",
    "clay_hands": "Reach into a clay oven with a pad and a covered arm; a wet hand scalds. Mind the flame when it is "
    "opened.",
    "inverted_plate": "A plate turned over drips and its handle is hot: gloves, and only a plate with a handle that "
    "is fixed.",
    "ceramic_hob": "Keep an upturned plate clear of a ceramic hob: it may crack, and cuts out when it gets too hot.",
    "live_flame": "Long tools and bare forearms clear of the flame; keep the opening free.",
    "lid_steam": "Lift the lid away from you: the steam beneath it scalds.",
    "hot_handle": "The handle is as hot as the grill: a dry cloth, doubled.",
    "smoke": "A dry plate this hot smokes flour and fat: open a window, wipe it between breads.",
    "fat_smokes": "This hot, the fat on the surface smokes and may catch fire: less heat, or a fat that bears more.",
    "char": "Very dark crusts hold more acrylamide; usual advice is golden.",
    "charcoal_fumes": "Charcoal gives off carbon monoxide: only in the open or under a working flue, as your local "
    "rules have it.",
    "gas_fumes": "A gas fire this big gives off carbon monoxide too: in the open or under a working flue, as your "
    "local rules have it.",
    "nonstick_hot": "Non-stick coatings give off harmful fumes when overheated: stay below the maker's limit, often "
    "near 250 C.",
    "hot_surface": "Stone and iron stay hot long after the fire is out.",
    "raw_dough": "Do not taste raw dough: raw flour and egg can make you ill.",
    "raw_filling": "Meat and egg fillings stay chilled until they are rolled in, and are cooked to 75 C inside.",
    "cold_filling": "Cooked potato and cheese stay chilled until they are rolled in: usual guidance is about 2 h in "
    "total above 5 C. Local food rules decide.",
    "oil_smoke": "Stop at the first wisp of smoke; water in hot oil spits.",
    "wall_hot": "Keep wet hands and loose cloth away from a very hot oven; charcoal and gas need a working flue or "
    "open air.",
    "dairy_warm": (
        "Dough with dairy, egg, meat or potato kept warm: usual guidance is about 2 h in total above 5 C, "
        "1 h above 32 C. Local food rules decide."
    ),
    "yeast_limit": "Hotter than this harms the yeast.",
    "outside_tested_range": "Outside the range this model was tested in; read it as a rough guide.",
    "hot_start": "This surface is hotter than the bread likes: it will char before it dries.",
    "cool_start": "This surface is cooler than a pocket wants: it may dry before it puffs.",
    "wide_band": "Times on the heat are good to about 30 %. Watch the bread first, the clock second.",
    "cold_bread": "The bread is cold when it meets the heat: it takes longer, as these times have it. Out of the cold "
    "earlier, it puffs more surely.",
    "cold_on_wall": "A cold bread takes longer and falls off a hot wall: out of the cold early enough to lose its "
    "chill.",
    "no_leaven": "Nothing in this formula makes gas: it will not rise.",
    "dough_freezes": "Dough freezes there: the rise stops, and bubbles and gluten suffer. Warmer by two degrees is "
    "safe.",
    "yeast_harmed": "Above 40 C yeast weakens, above 50 C it dies within minutes.",
    "path_gap": "No reading of the air for that long: the forecast drew a straight line through it.",
    "probe_flat": "Real air is never that still: look whether the probe is plugged in and lies where the dough does.",
    "reading_twice": "The same look was given twice; it counts once.",
    "reading_far_off": "That look is far from anything this dough should do. Check the hour and where the start was "
    "marked.",
    "raw_starter": "Do not taste raw starter or dough; throw away a starter with colour or mould on it. pH here is "
    "no safety measure.",
    "fridge_warm": "A fridge above 6 C lets dough rise far faster than most plans allow for.",
    "too_small_to_weigh": "Less than a kitchen scale can show. Use a spoon or a dilution.",
}


@dataclass(frozen=True)
class Caution:
    """A code and the sentence shown for it."""

    code: str
    text: str

    def as_dict(self) -> dict[str, str]:
        """Code and text, as answers carry them."""
        return {"code": self.code, "text": self.text}


def caution(code: str, detail: str = "") -> Caution:
    """The caution of that code, with a detail of this case before the standing text."""
    return Caution(code, f"{detail} {TEXTS[code]}".strip())
