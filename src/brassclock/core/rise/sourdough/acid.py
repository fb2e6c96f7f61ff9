"""Acid, pH and titratable acidity of a dough. Basis 1 g flour; mol/g. Never a safety measure."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from brassclock.core.rise.sourdough.params import (
    PARAMS,
    PKA_ACETIC,
    PKA_LACTIC,
    WHOLEMEAL_BUFFER,
    WHOLEMEAL_PH,
    WHOLEMEAL_T0,
)

Array = NDArray[np.float64]
TABLE_SIZE = 1025
TABLE_MAX_MOL = 6e-4
WORDS = ((5.0, "mild, milky"), (8.0, "clean tang"), (11.0, "tangy"), (14.0, "sharp"))  # judgement: upper edge of TTA


def buffer_of(whole_share: float = 0.0) -> tuple[float, float, float]:
    """(buffer mol/(g pH), pH without acid, own titratable acidity mol/g) of a flour with so much wholemeal."""
    return (
        PARAMS["beta"].value * (1 + (WHOLEMEAL_BUFFER - 1) * whole_share),
        PARAMS["ph0"].value + WHOLEMEAL_PH * whole_share,
        PARAMS["t0"].value * (1 + (WHOLEMEAL_T0 - 1) * whole_share),
    )


def _ph(acid_mol: Array, beta: float, ph0: float) -> Array:
    """Root of β(pH0 − pH) = A·[dissociated share], by bisection; below no acid the soda's straight line."""
    share = PARAMS["acetic"].value
    low, high = np.full_like(acid_mol, 1.0), np.full_like(acid_mol, ph0)
    for _ in range(60):
        mid = 0.5 * (low + high)
        gives = (1 - share) / (1 + 10 ** (PKA_LACTIC - mid)) + share / (1 + 10 ** (PKA_ACETIC - mid))
        too_low = beta * (ph0 - mid) > acid_mol * gives
        low, high = np.where(too_low, mid, low), np.where(too_low, high, mid)
    return np.where(acid_mol <= 0, np.minimum(8.3, ph0 - acid_mol / beta), 0.5 * (low + high))


def ph_of(acid_mol: float, whole_share: float = 0.0) -> float:
    """pH of a dough holding so much acid [mol/g flour].

    >>> round(ph_of(100e-6), 2)
    4.59
    """
    beta, ph0, _ = buffer_of(whole_share)
    return float(_ph(np.array([acid_mol]), beta, ph0)[0])


def tta_ml(acid_mol: float, mass: float, whole_share: float = 0.0) -> float:
    """Titratable acidity [mL of 0.1 N per 10 g of dough]; `mass` is dough over flour.

    >>> tta_ml(270e-6, 2.0)
    15.0
    """
    return round(1e5 * (acid_mol + buffer_of(whole_share)[2]) / mass, 9)


def sourness(tta: float) -> str:
    """The word for a dough's titratable acidity."""
    return next((word for edge, word in WORDS if tta < edge), "harsh")


@lru_cache(maxsize=32)
def ph_table(beta: float, ph0: float) -> tuple[float, ...]:
    """pH at evenly spaced acid from 0 to TABLE_MAX_MOL, for the stepper."""
    return tuple(_ph(np.linspace(0, TABLE_MAX_MOL, TABLE_SIZE), beta, ph0).tolist())
