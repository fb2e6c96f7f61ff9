"""Beliefs of a kitchen about each leaven: which one a dough has, its strength, and forgetting it."""

from __future__ import annotations

from brassclock.core.matter.dough import Dough
from brassclock.core.matter.ingredients import table
from brassclock.core.rise.belief import PRIOR_SD_LOG, Belief
from brassclock.core.rise.sourdough.params import PARAMS as SOUR
from brassclock.core.rise.yeast.params import KINDS
from brassclock.services.app import NotFound
from brassclock.services.schemas.kitchen import StrengthRead
from brassclock.store.tables import Kitchen

STARTER = "starter"


def leaven_of(dough: Dough) -> str:
    """The leaven that does most in a dough: a yeast's id, `starter`, or nothing."""
    power = {
        p.ingredient.id: p.mass_g * KINDS[p.ingredient.id].dry_matter_frac * KINDS[p.ingredient.id].activity
        for p in dough.portions
        if p.ingredient.id in KINDS
    }
    starter = sum(p.mass_g * p.ingredient.flour_frac for p in dough.portions if p.ingredient.is_starter)
    if starter:
        power[STARTER] = starter * SOUR["x_ripe"].value  # a ripe starter's gas, as baker's yeast
    return max(power, key=lambda k: power[k], default="")


def belief_of(kitchen: Kitchen, leaven: str) -> Belief:
    """The kitchen's belief of a leaven; of one it never used, what it thinks of yeasts in general."""
    known = kitchen.leavens.get(leaven)
    if known:
        return Belief(known["mean"], known["sd_log"])
    return Belief(kitchen.activity_mean, kitchen.activity_sd_log)


def set_belief(kitchen: Kitchen, leaven: str, belief: Belief, bakes: int) -> None:
    """Store it, with how many bakes stand behind it."""
    known = {"mean": belief.mean, "sd_log": belief.sd_log, "bakes": bakes}
    kitchen.leavens = {**kitchen.leavens, leaven: known}


def bakes_behind(kitchen: Kitchen, leaven: str) -> int:
    return int(kitchen.leavens.get(leaven, {}).get("bakes", 0))


def forget(kitchen: Kitchen, leaven: str) -> None:
    """Back to the table's strength; what was believed is kept, for the undo."""
    known = kitchen.leavens.get(leaven)
    if known is None:
        raise NotFound(f"Nothing was learned of “{leaven[:40]}” in this kitchen.")
    fresh = {"mean": 1.0, "sd_log": PRIOR_SD_LOG, "bakes": 0, "was": {k: v for k, v in known.items() if k != "was"}}
    kitchen.leavens = {**kitchen.leavens, leaven: fresh}


def recall(kitchen: Kitchen, leaven: str) -> None:
    """Undo of `forget`."""
    was = kitchen.leavens.get(leaven, {}).get("was")
    if was is None:
        raise NotFound(f"Nothing was forgotten of “{leaven[:40]}” that could come back.")
    kitchen.leavens = {**kitchen.leavens, leaven: was}


def leavens_out(kitchen: Kitchen) -> list[StrengthRead]:
    """View of the beliefs for the Kitchen room."""
    names = {k: row.name for k, row in table().items()} | {STARTER: "Starter in dough"}
    return [
        StrengthRead(
            leaven=key,
            name=names.get(key, key),
            mean=known["mean"],
            sd_log=known["sd_log"],
            bakes=int(known["bakes"]),
            forgotten="was" in known,
        )
        for key, known in kitchen.leavens.items()
    ]
