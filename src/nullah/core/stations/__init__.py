"""The stations of the rod in the order in which people work, one module each."""

from __future__ import annotations

from nullah.core.stations import breakdown, daybook, joints, milling, piece, rack, season
from nullah.core.stations.selection import Selection
from nullah.core.stations.station import Station

STATIONS: tuple[Station, ...] = (
    piece.STATION,
    rack.STATION,
    breakdown.STATION,
    milling.STATION,
    joints.STATION,
    season.STATION,
    daybook.STATION,
)

__all__ = ["STATIONS", "Selection", "Station"]
