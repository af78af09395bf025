"""How much wood moves across the grain when its moisture changes."""

from __future__ import annotations

from enum import Enum

from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.wood.species import SOURCE, Species


class GrainCut(Enum):
    """How a board was cut out of the log: which way its rings run to the face."""

    FLAT = "flat"
    RIFT = "rift"
    QUARTER = "quarter"


class MoistureOutside(FrozenRecord):
    """A moisture content outside what wood swells by, %."""

    percent: float


class MoistureError(FactError):
    """A moisture content wood cannot have."""


class Movement(NamedTuple):
    """A change in width (positive = wider), the coefficient per 1 % MC, and its source."""

    change: Length
    coefficient: float
    source: str


def coefficient(species: Species, cut: GrainCut) -> float:
    """Return the coefficient of change in width per 1 % MC.

    Flat-sawn boards move by the tangential coefficient, quarter-sawn by the radial; rift
    lies between, taken as the mean of the two (common practice, no published source).

    Parameters
    ----------
    species : Species
        The wood.
    cut : GrainCut
        How it was sawn out of the log.

    Returns
    -------
    float
        Per per cent of moisture content.
    """
    if cut is GrainCut.FLAT:
        return species.tangential
    if cut is GrainCut.QUARTER:
        return species.radial
    return (species.tangential + species.radial) / 2


def movement(species: Species, cut: GrainCut, width: Length, moisture_from: float, moisture_to: float) -> Movement:
    """Work out the change in width between two moisture contents (%).

    ΔW = W · C · (M₂ − M₁), *Wood Handbook*, ch. 13, eq. 13-2.

    Parameters
    ----------
    species : Species
        The wood.
    cut : GrainCut
        How it was sawn out of the log.
    width : Length
        Across the grain.
    moisture_from : float
        Moisture content now, %.
    moisture_to : float
        Moisture content then, %.

    Raises
    ------
    MoistureError
        For a moisture content below 0 or above 30 % (fibre saturation: no movement above).

    Examples
    --------
    >>> from nullah.core.lengths import inch
    >>> from nullah.core.wood.species import find_species
    >>> moved = movement(find_species("white fir"), GrainCut.FLAT, inch("9.15"), 9, 11)
    >>> round(float(moved.change.mm) / 25.4, 4)
    0.0448
    """
    for moisture in (moisture_from, moisture_to):
        if not 0 <= moisture <= 30:
            raise MoistureError(MoistureOutside(moisture))
    factor = coefficient(species, cut)
    change = width.mm * Fraction(factor) * (Fraction(moisture_to) - Fraction(moisture_from))
    source = SOURCE
    if cut is GrainCut.RIFT:
        source = f"mean of tangential and radial (common practice), after {SOURCE}"
    return Movement(Length(change), factor, source)
