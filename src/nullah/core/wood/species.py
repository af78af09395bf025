"""Species: how much they move, how heavy, stiff and hard they are, the tone they are drawn in.

Movement coefficients are dimensional change coefficients per 1 % moisture content, valid from
6 to 14 %: *Wood Handbook* (USDA FPL-GTR-282), ch. 13. Density, stiffness and hardness at 12 %
moisture: ch. 5 (density from its specific gravity). Values from memory; white fir stands in
the Handbook's own worked example.
"""

from __future__ import annotations

import csv
from functools import cache
from pathlib import Path

from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord
from nullah.core.named_tuple import NamedTuple

#: Where the figures of each column come from; all are from memory.
SOURCE = "Wood Handbook (USDA FPL-GTR-282), ch. 13; value from memory"
STRENGTH_SOURCE = "Wood Handbook (USDA FPL-GTR-282), ch. 5; value from memory"

#: What a piece is made of until boards or a choice say otherwise.
USUAL_WOOD = "black cherry"

# Side hardness, N, from which wood is called medium and hard (common practice).
_MEDIUM, _HARD = 2500, 4500


class NoSpecies(FrozenRecord):
    """A name of no species in the table, and the names there are."""

    name: str
    known: tuple[str, ...]


class SpeciesError(FactError):
    """A species that the table does not hold."""


class Species(NamedTuple):
    """One kind of wood.

    `tangential` and `radial` are change per 1 % MC; `density` in kg/m³, `stiffness` (modulus
    of elasticity) in GPa and `hardness` (side, Janka) in N, all at 12 % MC; `tone` is #rrggbb.
    """

    name: str
    also: tuple[str, ...]
    tangential: float
    radial: float
    density: float
    stiffness: float
    hardness: float
    tone: str

    @property
    def hardness_class(self) -> str:
        """Return the class: soft, medium or hard."""
        return "soft" if self.hardness < _MEDIUM else "medium" if self.hardness < _HARD else "hard"


@cache
def all_species() -> dict[str, Species]:
    """Return the table, by name, in its own order."""
    text = Path(__file__).with_name("species.csv").read_text(encoding="utf-8")
    return {
        row["name"]: Species(
            row["name"],
            tuple(word for word in row["aka"].split(";") if word),
            float(row["tangential"]),
            float(row["radial"]),
            float(row["density"]),
            float(row["stiffness"]),
            float(row["hardness"]),
            row["tone"],
        )
        for row in csv.DictReader(text.splitlines())
    }


def same_wood(one: str, two: str) -> bool:
    """Return whether two names are of one wood; a name left empty is of any.

    Examples
    --------
    >>> same_wood("Walnut", "black walnut"), same_wood("", "pine"), same_wood("pine", "walnut")
    (True, True, False)
    """
    if not one or not two or one.casefold() == two.casefold():
        return True
    try:
        return find_species(one) is find_species(two)
    except SpeciesError:
        return False


@cache
def find_species(name: str) -> Species:
    """Find a species by its name or another name of it, whatever the case.

    Raises
    ------
    SpeciesError
        With the names there are.

    Examples
    --------
    >>> find_species("Walnut").name
    'black walnut'
    """
    wanted = name.strip().casefold()
    for species in all_species().values():
        if wanted in (species.name.casefold(), *(word.casefold() for word in species.also)):
            return species
    raise SpeciesError(NoSpecies(name.strip(), tuple(all_species())))
