"""How much a shelf sags, and over what span it does so without showing."""

from __future__ import annotations

from nullah.core.wood.species import Species

#: Standard gravity, m/s² (exact by definition).
GRAVITY = 9.80665
#: Sag that starts to show: about 0.02 in per foot of span, a 600th (common practice).
SHOWS = 1 / 600


def sag(span: float, load: float, width: float, thickness: float, species: Species) -> float:
    """Return the sag of a shelf evenly loaded and simply supported, at its middle.

    Parameters
    ----------
    span, width, thickness : float
        Clear span, depth of the shelf and its thickness, mm.
    load : float
        What stands on it, kg, spread over the span.
    species : Species
        For its stiffness and its own weight.

    Returns
    -------
    float
        mm: 5wL⁴ / 384EI (exact, beam theory), I = b·t³/12.

    Examples
    --------
    >>> from nullah.core.wood.species import find_species
    >>> round(sag(900, 20, 250, 19, find_species("black cherry")), 1)
    1.4
    """
    return _sag(span, _per_mm(load / span, width, thickness, species), width, thickness, species)


def passing_span(load_per_mm: float, width: float, thickness: float, species: Species) -> float:
    """Return the longest span, mm, at which the same load per mm (kg) sags no more than a 600th.

    From 5wL⁴/384EI = L/600: L = ∛(384EI / (5·600·w)) (exact).

    Parameters
    ----------
    load_per_mm : float
        Spread evenly, kg for each mm of the span.
    width : float
        Of the board, mm.
    thickness : float
        Of the board, mm.
    species : Species
        The wood.

    Returns
    -------
    float
        mm.
    """
    w = _per_mm(load_per_mm, width, thickness, species)
    stiff = species.stiffness * 1000 * width * thickness**3 / 12
    return float((384 * stiff * SHOWS / (5 * w)) ** (1 / 3))


def _per_mm(load_per_mm: float, width: float, thickness: float, species: Species) -> float:
    """Return load and own weight in N per mm."""
    own = species.density * 1e-9 * width * thickness
    return (load_per_mm + own) * GRAVITY


def _sag(span: float, w: float, width: float, thickness: float, species: Species) -> float:
    stiff = species.stiffness * 1000 * width * thickness**3 / 12
    return 5 * w * span**4 / (384 * stiff)
