"""Wood through a year against a general solver of differential equations, and against the Handbook's own example."""

import numpy as np
import pytest
from scipy.integrate import solve_ivp

from nullah.core.lengths import inch
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.space import Axis, Box
from nullah.core.season.swelling import WoodMoisture, growth
from nullah.core.wood.climate import PRESETS, USUAL, year_of
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import find_species

MONTH = 365.2425 / 12


@pytest.mark.parametrize("days", [3.0, 20.0, 90.0])
@pytest.mark.parametrize("climate", PRESETS, ids=lambda climate: climate.name)
def test_moisture_by_month_is_what_a_general_solver_gives_after_some_years(climate, days):
    """SciPy's Runge-Kutta of dm/dt = (EMC(t) − m)/τ, five years on (general reference library)."""
    settled = climate.moisture
    now = sum(settled) / 12
    found = []
    for month in range(12 * 6):
        emc = settled[month % 12]
        half = solve_ivp(
            lambda _, m, emc=emc: (emc - m) / days, (0, MONTH), [now], rtol=1e-9, atol=1e-9, t_eval=[MONTH / 2, MONTH]
        )
        found.append(half.y[0][0])
        now = half.y[0][1]
    assert np.allclose(found[-12:], year_of(climate, days), atol=1e-4)


@pytest.mark.parametrize(("cut", "inches"), [(GrainCut.QUARTER, 0.0205), (GrainCut.FLAT, 0.0448)])
def test_the_handbooks_worked_example_of_white_fir(cut, inches):
    """Wood Handbook (USDA FPL-GTR-282), ch. 13: white fir 9.15 in wide, from 9 to 11 % (value from memory)."""
    wide = inch("9.15").mm
    part = Part("p", 1, "p", Box((0, 0, 0), (1000, wide, 20)), Axis.X, Axis.Z, Needs.ANY, ("a", "b", "c"), "p")
    grown = growth(part, WoodMoisture(find_species("white fir"), cut, 9.0, (11.0,) * 12), Axis.Y)
    assert grown[0] / 25.4 == pytest.approx(inches, abs=0.00006)


def test_a_sixteen_inch_side_moves_up_to_an_eighth_between_dry_and_damp():
    """Common practice, no published source: about 1/8 in for flat-sawn walnut over a heated home's year."""
    wide = inch(16).mm
    part = Part("p", 1, "p", Box((0, 0, 0), (1000, wide, 20)), Axis.X, Axis.Z, Needs.ANY, ("a", "b", "c"), "p")
    grown = growth(part, WoodMoisture(find_species("black walnut"), GrainCut.FLAT, 8.0, USUAL.moisture), Axis.Y)
    assert 0.1 < (max(grown) - min(grown)) / 25.4 < 0.15
