"""The sample: a small seed cabinet with four drawers, from boards of the Lower Ford yard."""

from __future__ import annotations

from nullah.core.actions import make_of_staves, remove_board
from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.rough import Allowances, Staves, WoodRequirement
from nullah.core.fraction import Fraction
from nullah.core.lengths import Marks, Slope, mm
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, EdgePoint, Faces, Flaw, FlawKind, GrainFigure, Reading, Rise
from nullah.core.rack.drying import Room
from nullah.core.wood.movement import GrainCut
from nullah.demo.ford_1 import READINGS

_CHERRY, _POPLAR = "black cherry", "yellow-poplar"
_UP, _DOWN = Faces.UP, Faces.DOWN
_FORD, _SHED = "Lower Ford yard", "the shed loft"


def _flaw(
    kind: FlawKind, start: int, end: int, low: int, high: int, faces: Faces = Faces.THROUGH, depth: int = 0
) -> Flaw:
    return Flaw(kind, mm(start), mm(end), mm(low), mm(high), faces, mm(depth) if depth else None)


def _readings(*percents: str) -> tuple[Reading, ...]:
    """Return readings taken a week apart, the first on the day the boards came."""
    days = ("2026-10-05", "2026-10-12", "2026-10-19", "2026-10-26")
    return tuple(Reading(day, Fraction(percent)) for day, percent in zip(days, percents, strict=False))


def _edge(*points: tuple[int, int]) -> tuple[EdgePoint, ...]:
    return tuple((mm(along), mm(across)) for along, across in points)


_BOARDS = (
    Board("1", "Ford 1", _CHERRY, mm(1420), mm(252), mm(22), mm("1.5"), mm(1), mm(1),
          flaws=(_flaw(FlawKind.CHECK, 0, 40, 90, 150), _flaw(FlawKind.SAP, 0, 1420, 240, 252)),
          price=Fraction(38), colour="even red", source=_FORD, heart=(130.0, -60.0),
          readings=_readings("11.5", "10.5", "10", "9.5"), shape=READINGS, rises=Rise.RIGHT),
    Board("2", "Ford 2", _CHERRY, mm(1180), mm(246), mm(22), mm(1), mm(2), mm("1.5"),
          flaws=(_flaw(FlawKind.SPLIT, 1120, 1180, 60, 120), _flaw(FlawKind.KNOT, 420, 455, 205, 240, _DOWN, 6)),
          price=Fraction(31), colour="even red", source=_FORD, heart=(120.0, -90.0),
          readings=_readings("11", "10.5", "9.5", "9.5")),
    Board("3", "Ford 3", _CHERRY, mm(1240), mm(236), mm(16), mm(1), mm(1), mm("0.5"), cut=GrainCut.RIFT,
          flaws=(_flaw(FlawKind.CHECK, 0, 55, 100, 140),), price=Fraction(24), source=_FORD,
          figure=GrainFigure.STRAIGHT, heart=(-80.0, -170.0), readings=_readings("10.5", "10", "9.5", "9.5")),
    Board("4", "Ford 4", _CHERRY, mm(1520), mm(136), mm(24), mm(2), mm(5), mm(6),
          flaws=(_flaw(FlawKind.KNOT, 1455, 1490, 20, 60),), price=Fraction(27), colour="ripple along it",
          source=_FORD, figure=GrainFigure.FIGURED, heart=(70.0, -70.0), readings=_readings("14", "13", "12.5", "12")),
    Board("5", "Ford 5", _POPLAR, mm(1500), mm(140), mm(14), mm(1), mm(1), mm("0.5"), source=_SHED,
          flaws=(_flaw(FlawKind.KNOT, 200, 225, 40, 70), _flaw(FlawKind.CHECK, 1455, 1500, 0, 40))),
    Board("6", "Ford 6", _POPLAR, mm(1320), mm(205), mm(15), mm("0.5"), mm(1), mm("0.5"), source=_SHED,
          low_edge=_edge((0, 4), (420, 12), (900, 8), (1320, 0)), readings=_readings("9.5")),
    Board("7", "Ford 7", _POPLAR, mm(1450), mm(225), mm(12), mm(1), mm(1), mm("0.5"), source=_SHED,
          flaws=(_flaw(FlawKind.CHECK, 0, 35, 120, 160), _flaw(FlawKind.KNOT, 600, 625, 80, 110, _UP, 3)),
          readings=_readings("9.5")),
    Board("8", "Ford 8", _POPLAR, mm(1240), mm(120), mm(15), mm("0.5"), mm("0.5"), mm("0.5"), source=_SHED,
          flaws=(_flaw(FlawKind.RUNOUT, 1150, 1240, 60, 120),)),
)  # fmt: skip

#: The fronts come out of one board in order, so that its ripple runs down the cabinet.
_FRONTS = WoodRequirement(together="drawer fronts", in_order=True)

_LAYOUT = (
    Placement("left", "1", 40.0, 0.0),
    Placement("right", "1", 507.5, 0.0),
    Placement("top", "1", 975.0, 0.0),
    Placement("bottom", "2", 0.0, 0.0),
    Placement("divider21", "3", 55.0, 0.0),
    Placement("divider11", "3", 417.5, 0.0),
    Placement("divider31", "3", 780.0, 0.0),
    Placement("drawer11_front", "4", 0.0, 0.0),
    Placement("drawer21_front", "4", 350.9, 0.0),
    Placement("drawer31_front", "4", 701.8, 0.0),
    Placement("drawer41_front", "4", 1052.7, 0.0),
    Placement("back1", "5", 0.0, 0.0),
    Placement("drawer11_back", "5", 448.5, 0.0),
    Placement("drawer21_back", "5", 448.5, 64.4),
    Placement("drawer31_back", "6", 0.0, 27.7),
    Placement("drawer41_back", "6", 0.0, 112.1),
    Placement("drawer11_left", "6", 350.9, 13.7),
    Placement("drawer41_right", "6", 350.9, 95.1),
    Placement("drawer11_right", "6", 587.4, 13.7),
    Placement("drawer41_left", "6", 587.4, 95.1),
    Placement("drawer21_left", "6", 823.9, 13.7),
    Placement("drawer31_right", "6", 823.9, 105.1),
    Placement("drawer31_left", "6", 1060.4, 13.7),
    Placement("drawer21_right", "6", 1060.4, 115.1),
    Placement("drawer41_bottom", "7", 35.0, 0.0),
    Placement("drawer11_bottom", "7", 371.9, 0.0),
    Placement("drawer31_bottom", "7", 708.8, 0.0),
    Placement("drawer21_bottom", "7", 1045.7, 0.0),
    Placement("back2", "8", 0.0, 0.0),
    Placement("back3", "8", 448.5, 0.0),
)


def seed_cabinet() -> Project:
    """Return the sample piece: a dovetailed case, dadoed dividers, a rabbeted back, four drawers."""
    return Project(
        piece=Piece(
            form="case",
            name="Seed cabinet",
            choices=(
                ("sizing", "outside"),
                ("corners", "dovetailed"),
                ("rows", "4"),
                ("heights", "stepped"),
                ("dados", "stopped"),
                ("drawers", "all"),
                ("back", "3"),
            ),
            given=(
                ("case.outside_width", mm(360)),
                ("case.outside_depth", mm(230)),
                ("case.outside_height", mm(440)),
                ("sides.thickness", mm(17)),
                ("tails.count", 4),
                ("tails.slope", Slope(Fraction(7))),
                ("rows.step", mm(10)),
                ("back.gap", mm(2)),
            ),
            woods=(("shown", "black cherry"), ("inside", "yellow-poplar")),
        ),
        boards=_BOARDS,
        allowances=Allowances(mm(25), mm(6), mm(3)),
        marks=Marks(),
        layout=_LAYOUT,
        cut_first=frozenset({"4"}),
        asks=tuple((f"drawer{row}1_front", _FRONTS) for row in range(1, 5)),
        room=Room(reference=(Reading("2026-10-05", Fraction(9)), Reading("2026-10-26", Fraction(9)))),
    )


def short_of_wood() -> Project:
    """Return the sample piece without its widest board, its top to be glued up from two staves of what is left."""
    project = remove_board(seed_cabinet(), "1")
    return make_of_staves(project, Staves("top", (mm(115), mm(115))))
