"""The stations of the rod in the order in which people work, one module each, which is loaded when it is gone to."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.stations.selection import Selection
from nullah.core.stations.station import Station

STATIONS: tuple[Station, ...] = (
    Station(
        "piece",
        "Piece",
        N_("Nothing is drawn yet. Choose a form above, or add a board of your own; the card says what is missing."),
    ),
    Station(
        "rack",
        "Rack",
        N_("The rack is empty. Add the first board: its rough length, width and thickness, then mark its flaws on it."),
    ),
    Station("breakdown", "Breakdown", N_("There are no boards to lay the parts on. Add some on the rack first.")),
    Station(
        "milling",
        "Milling",
        N_(
            "Nothing lies on a board yet. Lay the parts out in Breakdown; here you will see what flattening leaves of "
            "each."
        ),
        to_scale=False,
    ),
    Station("joints", "Joints", N_("There is no joint to lay out yet. The card says why.")),
    Station(
        "season",
        "Season",
        N_(
            "Here the piece stands through a year in its room: what swells, what binds, in which month, and the "
            "clearance to leave. Say first at Piece what it is made of, or lay it on boards."
        ),
        to_scale=False,
    ),
    Station(
        "daybook",
        "Day Book",
        N_(
            "Here the next step stands in large figures, with its settings, its picture and what to measure after, and "
            "the story of the piece as it is made. Begin a piece first."
        ),
        to_scale=False,
    ),
)

__all__ = ["STATIONS", "Selection", "Station"]
