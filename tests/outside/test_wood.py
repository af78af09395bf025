"""Movement and moisture against the Wood Handbook (USDA FPL-GTR-282), yard sizes against PS 20.

All values from memory of those publications; where a second computation is possible it is made.
"""

import math

import pytest

from nullah.core.lengths import inch
from nullah.core.rack.sizes import SizeNameError, resolve_size
from nullah.core.wood.moisture import ClimateError, equilibrium_moisture
from nullah.core.wood.movement import GrainCut, MoistureError, movement
from nullah.core.wood.species import SpeciesError, all_species, find_species


@pytest.mark.parametrize(("cut", "inches"), [(GrainCut.QUARTER, 0.0205), (GrainCut.FLAT, 0.0448)])
def test_the_handbooks_worked_example(cut, inches):
    # Wood Handbook, ch. 13: white fir, 9.15 in wide, from 9 to 11 %.
    moved = movement(find_species("white fir"), cut, inch("9.15"), 9, 11)
    assert float(moved.change) / 25.4 == pytest.approx(inches, abs=0.00006)


@pytest.mark.parametrize(
    ("name", "tangential", "radial"),
    [
        # Wood Handbook, ch. 13, table of dimensional change coefficients.
        ("black cherry", 0.00248, 0.00126), ("black walnut", 0.00274, 0.00190),
        ("northern red oak", 0.00369, 0.00158), ("white oak", 0.00365, 0.00180),
        ("sugar maple", 0.00353, 0.00165), ("yellow-poplar", 0.00289, 0.00158),
        ("eastern white pine", 0.00212, 0.00071), ("American beech", 0.00431, 0.00190),
    ],
)  # fmt: skip
def test_coefficients(name, tangential, radial):
    species = find_species(name)
    assert (species.tangential, species.radial) == (tangential, radial)


def test_every_species_moves_more_with_the_rings_than_across_them():
    # A fact of anatomy: tangential shrinkage exceeds radial in every species of the Handbook.
    assert all(0 < s.radial < s.tangential < 0.006 for s in all_species().values())


def test_the_rule_of_thumb_of_an_eighth_in_sixteen_inches():
    # Common practice, no published source: flat-sawn walnut, 16 in, a swing of 3 points.
    moved = movement(find_species("walnut"), GrainCut.FLAT, inch(16), 7, 10)
    assert float(moved.change) / 25.4 == pytest.approx(1 / 8, rel=0.06)


def test_rift_lies_between_and_drying_shrinks():
    species = find_species("cherry")
    widths = [
        float(movement(species, cut, inch(10), 12, 7).change)
        for cut in (GrainCut.FLAT, GrainCut.RIFT, GrainCut.QUARTER)
    ]
    assert widths == sorted(widths) and widths[-1] < 0


@pytest.mark.parametrize(("humidity", "emc"), [(30, 6.2), (50, 9.2), (65, 12.0), (80, 16.0)])
def test_the_handbooks_table_of_equilibrium_moisture(humidity, emc):
    # Wood Handbook, ch. 4, table at 21.1 °C (70 °F).
    assert equilibrium_moisture(21.1, humidity) == pytest.approx(emc, abs=0.1)


@pytest.mark.parametrize("humidity", range(5, 96, 10))
@pytest.mark.parametrize("celsius", [0, 10, 21, 35, 50])
def test_the_same_formula_in_fahrenheit(celsius, humidity):
    # The Handbook gives the same equation with constants for °F: a second computation.
    t, h = celsius * 9 / 5 + 32, humidity / 100
    w = 330 + 0.452 * t + 0.00415 * t**2
    k = 0.791 + 0.000463 * t - 0.000000844 * t**2
    k1 = 6.34 + 0.000775 * t - 0.0000935 * t**2
    k2 = 1.09 + 0.0284 * t - 0.0000904 * t**2
    kh = k * h
    emc = 1800 / w * (kh / (1 - kh) + (k1 * kh + 2 * k1 * k2 * kh**2) / (1 + k1 * kh + k1 * k2 * kh**2))
    assert equilibrium_moisture(celsius, humidity) == pytest.approx(emc, abs=0.06)


def test_dry_air_dries_wood_and_damp_air_wets_it():
    values = [equilibrium_moisture(21, h) for h in range(0, 101, 5)]
    assert values[0] == 0 and values == sorted(values) and 25 < values[-1] < 32


@pytest.mark.parametrize(("t", "h"), [(21, 101), (21, -1), (400, 50), (math.nan, 50)])
def test_air_that_cannot_be(t, h):
    with pytest.raises(ClimateError):
        equilibrium_moisture(t, h)


def test_wood_that_cannot_be():
    with pytest.raises(SpeciesError) as refused:
        find_species("moonwood")
    assert refused.value.fact.name == "moonwood" and "black cherry" in refused.value.fact.known
    with pytest.raises(MoistureError):
        movement(find_species("cherry"), GrainCut.FLAT, inch(1), 8, 40)


@pytest.mark.parametrize(
    ("name", "thickness", "width"),
    [
        # American Softwood Lumber Standard, PS 20: dry, surfaced.
        ("1x12", "3/4", "45/4"), ("2x6", "3/2", "11/2"), ("1x4", "3/4", "7/2"), ("2x4", "3/2", "7/2"),
        ("1x8", "3/4", "29/4"), ("2x10", "3/2", "37/4"), ("4x4", "7/2", "7/2"),
    ],
)  # fmt: skip
def test_dressed_sizes_of_softwood(name, thickness, width):
    size = resolve_size(name)
    assert (size.thickness.mm, size.width.mm) == (inch(thickness).mm, inch(width).mm)


def test_hardwood_is_named_in_quarters():
    # NHLA rules: 4/4 is 1 in rough, commonly 13/16 in planed two sides.
    assert resolve_size("4/4").rough_thickness.mm == inch(1).mm
    assert resolve_size("4/4").thickness.mm == inch("13/16").mm
    with pytest.raises(SizeNameError):
        resolve_size("7x7x7")


def test_the_table_of_species_is_whole():
    # At least thirty, hard and soft, each with every figure; plausible against the Handbook's ranges (ch. 5).
    table = all_species().values()
    assert len(table) >= 30
    assert len({species.name for species in table}) == len(table)
    for species in table:
        assert 300 < species.density < 900 and 5 < species.stiffness < 16 and 1000 < species.hardness < 9000
        assert len(species.tone) == 7
    classes = {species.hardness_class for species in table}
    assert classes == {"soft", "medium", "hard"}
    names = [also for species in table for also in (species.name.casefold(), *species.also)]
    assert len(set(names)) == len(names), "no name means two woods"


@pytest.mark.parametrize(("heavier", "lighter"), [
    # Order of specific gravity at 12 %: Wood Handbook, ch. 5 (from memory).
    ("shagbark hickory", "black cherry"), ("white oak", "black walnut"), ("sugar maple", "yellow-poplar"),
    ("Douglas-fir", "eastern white pine"),
])  # fmt: skip
def test_woods_stand_in_the_order_of_their_weight_and_hardness(heavier, lighter):
    one, two = find_species(heavier), find_species(lighter)
    assert one.density > two.density and one.hardness > two.hardness
