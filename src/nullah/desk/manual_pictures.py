"""Pictures of the manual: made by the program when a page is shown, so that none is of an earlier window."""

from __future__ import annotations

from collections.abc import Callable
from functools import cache, lru_cache

from PySide6.QtGui import QImage

from nullah.core.beginning import begun
from nullah.core.drawing import Drawing, Fill, Path, Role, drawing, line, rectangle
from nullah.core.plan import Plan, work_out
from nullah.core.project import Project
from nullah.core.rack.board import Flaw, FlawKind
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.desk.thumbnails import thumbnail, with_choice
from nullah.paper.palette import Palette
from nullah.paper.pictures import fitted_picture

#: Pixels of a picture of a station and of a word.
STATION_SIZE, WORD_SIZE = (560, 330), (200, 120)
#: What is in hand on the picture of a station.
_IN_HAND = {
    "rack": Selection(board="4"),
    "breakdown": Selection(part="drawer21_front"),
    "milling": Selection(part="left"),
    "joints": Selection(part="left"),
    "season": Selection(part="drawer41_front"),
}
#: Words that a joint by itself shows.
_JOINTS = {
    "dado": "dado",
    "rabbet": "rabbet",
    "groove": "groove",
    "half-pin": "through dovetail",
    "tenon": "tenon",
    "breadboard": "breadboard end",
    "bridle": "bridle",
    "sliding": "sliding dovetail",
}


def picture_of(name: str, palette: Palette) -> QImage | None:
    """Return a picture of the manual by its name; None for one there is not."""
    if name in {station.id for station in STATIONS}:
        return _station(name, palette)
    if name in _JOINTS:
        return thumbnail(with_choice(begun(Project(), "joint"), "joint", _JOINTS[name]), WORD_SIZE, palette)
    if name in _SHAPES:
        return fitted_picture(_SHAPES[name](), WORD_SIZE, palette)
    return None


@cache
def _sample() -> Plan:
    from nullah.demo.seed_cabinet import seed_cabinet

    return work_out(seed_cabinet())


@lru_cache(maxsize=16)
def _station(name: str, palette: Palette) -> QImage:
    station = next(each for each in STATIONS if each.id == name)
    return fitted_picture(station.draw(_sample(), _IN_HAND.get(name, Selection())), STATION_SIZE, palette)


# --- shapes of boards -------------------------------------------------------------------------------


def _bent(wide: float, thick: float, rise: float) -> Path:
    """Return a board seen from its end or its edge, hollow above by `rise`."""
    steps = [number / 12 for number in range(13)]
    upper = [(wide * at, rise * 4 * at * (1 - at)) for at in steps]
    lower = [(x, y + thick) for x, y in reversed(upper)]
    return Path((*upper, *lower), Role.OUTLINE, closed=True, fill=Fill.END_GRAIN, species="black cherry")


def _cup() -> Drawing:
    return drawing([_bent(90, 12, 9), line((0, 0), (90, 0), Role.HIDDEN)])


def _bow() -> Drawing:
    return drawing([_bent(160, 8, 12), line((0, 0), (160, 0), Role.HIDDEN)])


def _sticks() -> Drawing:
    from nullah.core.milling.sighting import Eye, Wound, sight

    return sight(Wound(750.0, 180.0, 9.0, 0.0), 0.0, 750.0, 440.0, Eye(behind=900.0, above=260.0))


def _board(*flaws: Flaw) -> Drawing:
    from nullah.core.lengths import Marks, mm
    from nullah.core.rack.board import Board
    from nullah.core.stations.rack import draw_board, draw_flaws

    board = Board("shown", "", "black cherry", mm(400), mm(160), mm(22), flaws=flaws)
    return drawing(draw_board(board), draw_flaws(board, Marks().catalogue))


def _flawed(kind: FlawKind) -> Callable[[], Drawing]:
    from nullah.core.lengths import mm

    return lambda: _board(Flaw(kind, mm(60), mm(250), mm(115), mm(160)))


def _kerf() -> Drawing:
    board = rectangle(0, 0, 160, 60, fill=Fill.WOOD, species="black cherry")
    cut = rectangle(92, 0, 4, 60, Role.KNIFE, Fill.WASTE)
    return drawing([board, cut, line((92, -6), (92, 66), Role.CHALK)])


def _proud() -> Drawing:
    tail = rectangle(0, 20, 120, 24, fill=Fill.WOOD, species="black cherry")
    pin = rectangle(120, 14, 24, 50, fill=Fill.END_GRAIN, species="black cherry")
    return drawing([tail, pin, line((100, 20), (160, 20), Role.HIDDEN)])


_SHAPES: dict[str, Callable[[], Drawing]] = {
    "cup": _cup,
    "bow": _bow,
    "sticks": _sticks,
    "wane": _flawed(FlawKind.WANE),
    "run-out": _flawed(FlawKind.RUNOUT),
    "kerf": _kerf,
    "proud": _proud,
}
