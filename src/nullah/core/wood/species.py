"""Species: how much they move, how hard they are, the tone they are drawn in.

Movement coefficients are dimensional change coefficients per 1 % moisture content,
valid from 6 to 14 %: *Wood Handbook* (USDA FPL-GTR-282), ch. 13. Values from memory;
white fir stands in the Handbook's own worked example.
"""

from __future__ import annotations

import csv
from functools import cache
from pathlib import Path
from typing import NamedTuple

SOURCE = "Wood Handbook (USDA FPL-GTR-282), ch. 13; value from memory"


class SpeciesError(ValueError):
    """A species that the table does not hold."""


class Species(NamedTuple):
    """One kind of wood. `tangential` and `radial` are change per 1 % MC; `tone` is #rrggbb."""

    name: str
    also: tuple[str, ...]
    tangential: float
    radial: float
    hard: bool
    tone: str


@cache
def all_species() -> dict[str, Species]:
    """Give the table, by name, in its own order."""
    text = Path(__file__).with_name("species.csv").read_text(encoding="utf-8")
    rows = csv.DictReader(text.splitlines())
    return {
        row["name"]: Species(
            row["name"],
            tuple(word for word in row["aka"].split(";") if word),
            float(row["tangential"]),
            float(row["radial"]),
            row["texture"] == "hard",
            row["tone"],
        )
        for row in rows
    }


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
    known = ", ".join(all_species())
    raise SpeciesError(f"“{name.strip()}” is not in the table of species. It holds: {known}.")
