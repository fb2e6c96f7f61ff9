"""Cautions and relations of a bread's program."""

from __future__ import annotations

from brassclock.core.cautions import Caution, caution
from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.fire.colour import Wish
from brassclock.core.fire.puff.model import Bread
from brassclock.core.fire.surfaces import Surface

FLOUR_SMOKES_C = Param(215.0, "C", 200, 235, Kind.PRACTICE, "loose flour on a plate")
FAT_SMOKES_C = Param(230.0, "C", 200, 250, Kind.PRACTICE, "refined seed oils, as a cook's handbook has them")
NONSTICK_MOST_C = Param(250.0, "C", 230, 260, Kind.JUDGEMENT, "makers name 230 to 260 C")
CHILLED_C = Param(15.0, "C", 12, 18, Kind.PRACTICE, "a rolled bread colder than this is called cold")
STEP_CAUTIONS = {
    "wall": ("clay_hands",),
    "inverted": ("inverted_plate",),
    "oil": ("hot_oil",),
    "floor": ("live_flame",),
    "lidded": ("lid_steam",),
    "grill": ("hot_handle",),
}
TURNING = {"oven": "it puffed and has its colour below, + 10 s", "inverted": "bubbles and first brown below, + 5 s"}


def _cautions(bread: Bread, surface: Surface, wish: Wish) -> list[Caution]:
    found = [caution("wide_band")]
    if bread.pocket:
        found.append(caution("steam"))
    if surface.temp_c < surface.spec.need_c - 20:
        found.append(caution("cool_start"))
    if surface.temp_c > surface.spec.most_c + 20:
        found.append(caution("hot_start"))
    if bread.temp_c < CHILLED_C:
        found.append(caution("cold_on_wall" if surface.spec.way == "wall" else "cold_bread"))
    mm = bread.thickness_m * 1000
    if not 2 <= mm <= 15 or not 140 <= surface.temp_c <= 500:
        found.append(caution("outside_tested_range"))
    found += [caution(code) for code in STEP_CAUTIONS.get(surface.spec.way, ())]
    greasy = surface.greased != "dry" and surface.spec.way != "oil"
    if greasy and surface.temp_c > FAT_SMOKES_C:
        found.append(caution("fat_smokes"))
    elif not greasy and surface.spec.on_hob and surface.spec.way != "oil" and surface.temp_c > FLOUR_SMOKES_C:
        found.append(caution("smoke"))
    if "charred" in wish:
        found.append(caution("char"))
    if surface.heat_kind == "charcoal":
        found.append(caution("charcoal_fumes"))
    if surface.heat_kind == "gas" and surface.spec.way in ("wall", "floor"):
        found.append(caution("gas_fumes"))
    if surface.spec.way == "inverted" and surface.heat == "ceramic":
        found.append(caution("ceramic_hob"))
    if surface.nonstick and surface.temp_c > NONSTICK_MOST_C:
        found.append(caution("nonstick_hot"))
    found.append(caution("hot_surface"))  # last: known to all who cook
    return found


def _whys(bread: Bread, surface: Surface, held_s: float) -> dict[str, Why]:
    inputs = (
        Input("thickness", round(bread.thickness_m * 1000, 1), "mm"),
        Input("diameter", round(bread.diameter_m * 100, 1), "cm"),
        Input("dough temperature", round(bread.temp_c, 1), "°C"),
        Input("water over dry", round(bread.water_per_dry, 2), "kg/kg"),
        Input(surface.spec.name, round(surface.temp_c), "°C"),
    )
    sources = ("contact and steam constants fitted to timed breads", "steam: IAPWS-IF97, published")
    spread = "the bands of 32 bakes, each a little off in contact, thickness, heat, water, browning and swelling"
    first = "the colour below" if bread.thick else "the colour below, and the top dull"
    rule = TURNING.get(surface.spec.way, f"{first}, + {held_s:.0f} s" if held_s else first)
    held = " It lies longer than its colour takes: turned then it would be through later." if held_s else ""
    return {
        "puff": Why(
            "When it puffs",
            "∂(C·T)/∂t = ∂/∂z(k·∂T/∂z) + steam; both skins ≥ 70 °C and R(T) ≥ 6.5",
            "Heat and steam move through the sheet; it parts when both skins have set and the gas between "
            "wants six and a half times its room.",
            inputs,
            Kind.FITTED,
            spread,
            ("surface temperature", "thickness", "how well it lies on the surface"),
            sources,
        ),
        "flip": Why(
            "When to turn",
            f"t = {rule}",
            f"The turning cue on this surface, timed by the same model.{held}",
            inputs,
            Kind.FITTED,
            spread,
            ("surface temperature", "thickness"),
            sources,
        ),
    }
