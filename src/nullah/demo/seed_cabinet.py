"""The sample: a small seed cabinet with four drawers, from boards of the Lower Ford yard."""

from __future__ import annotations

from fractions import Fraction

from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.rough import Allowances
from nullah.core.lengths import Marks, Slope, mm
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, Flaw, FlawKind
from nullah.core.wood.movement import Cut


def _flaw(kind: FlawKind, start: int, end: int, low: int, high: int) -> Flaw:
    return Flaw(kind, mm(start), mm(end), mm(low), mm(high))


_CHERRY, _POPLAR = "black cherry", "yellow-poplar"
_BOARDS = (
    Board("1", "Ford 1", _CHERRY, mm(1420), mm(252), mm(22), mm("1.5"), mm(1), mm(1),
          flaws=(_flaw(FlawKind.CHECK, 0, 40, 90, 150), _flaw(FlawKind.SAP, 0, 1420, 240, 252))),
    Board("2", "Ford 2", _CHERRY, mm(1180), mm(246), mm(22), mm(1), mm(2), mm("1.5"),
          flaws=(_flaw(FlawKind.SPLIT, 1120, 1180, 60, 120), _flaw(FlawKind.KNOT, 420, 455, 205, 240))),
    Board("3", "Ford 3", _CHERRY, mm(1240), mm(236), mm(16), mm(1), mm(1), mm("0.5"), cut=Cut.RIFT,
          flaws=(_flaw(FlawKind.CHECK, 0, 55, 100, 140),)),
    Board("4", "Ford 4", _CHERRY, mm(860), mm(232), mm(24), mm(2), mm(3), mm(6),
          flaws=(_flaw(FlawKind.KNOT, 790, 830, 30, 80),)),
    Board("5", "Ford 5", _POPLAR, mm(1500), mm(140), mm(14), mm(1), mm(1), mm("0.5"),
          flaws=(_flaw(FlawKind.KNOT, 200, 225, 40, 70), _flaw(FlawKind.CHECK, 1455, 1500, 0, 40))),
    Board("6", "Ford 6", _POPLAR, mm(1320), mm(205), mm(15), mm("0.5"), mm(1), mm("0.5"),
          flaws=(_flaw(FlawKind.WANE, 0, 1320, 0, 12),)),
    Board("7", "Ford 7", _POPLAR, mm(1450), mm(225), mm(12), mm(1), mm(1), mm("0.5"),
          flaws=(_flaw(FlawKind.CHECK, 0, 35, 120, 160), _flaw(FlawKind.KNOT, 600, 625, 80, 110))),
    Board("8", "Ford 8", _POPLAR, mm(1240), mm(120), mm(15), mm("0.5"), mm("0.5"), mm("0.5"),
          flaws=(_flaw(FlawKind.RUNOUT, 1150, 1240, 60, 120),)),
)  # fmt: skip

_LAYOUT = (
    Placement("left", "1", 40.0, 0.0),
    Placement("drawer21_front", "4", 0.0, 0.0),
    Placement("right", "1", 507.5, 0.0),
    Placement("bottom", "2", 0.0, 0.0),
    Placement("drawer41_front", "4", 0.0, 93.4),
    Placement("top", "1", 975.0, 0.0),
    Placement("divider11", "3", 55.0, 0.0),
    Placement("divider21", "3", 417.5, 0.0),
    Placement("divider31", "3", 780.0, 0.0),
    Placement("drawer31_front", "4", 350.9, 93.4),
    Placement("drawer11_front", "4", 350.9, 0.0),
    Placement("drawer11_bottom", "7", 35.0, 0.0),
    Placement("drawer31_bottom", "7", 371.9, 0.0),
    Placement("drawer41_bottom", "7", 708.8, 0.0),
    Placement("drawer21_bottom", "7", 1045.7, 0.0),
    Placement("back1", "8", 0.0, 0.0),
    Placement("back2", "8", 448.5, 0.0),
    Placement("back3", "5", 0.0, 0.0),
    Placement("drawer21_back", "5", 448.5, 0.0),
    Placement("drawer41_left", "8", 897.0, 0.0),
    Placement("drawer41_right", "5", 799.4, 0.0),
    Placement("drawer31_left", "5", 1035.9, 0.0),
    Placement("drawer31_right", "6", 0.0, 12.0),
    Placement("drawer21_left", "6", 0.0, 113.4),
    Placement("drawer21_right", "6", 236.5, 12.0),
    Placement("drawer41_back", "6", 236.5, 103.4),
    Placement("drawer11_right", "6", 473.0, 12.0),
    Placement("drawer31_back", "6", 587.4, 103.4),
    Placement("drawer11_left", "6", 709.5, 12.0),
    Placement("drawer11_back", "5", 448.5, 74.4),
)


def seed_cabinet() -> Project:
    """Give the sample piece: a dovetailed case, dadoed dividers, a rabbeted back, four drawers."""
    return Project(
        piece=Piece(
            form="case",
            name="Seed cabinet",
            choices=(("sizing", "outside"), ("corners", "dovetailed"), ("rows", "4"), ("heights", "stepped"),
                     ("dados", "stopped"), ("drawers", "all"), ("back", "3")),
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
    )  # fmt: skip
