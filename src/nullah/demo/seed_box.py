"""A small sample: a dovetailed seed box, from five boards of the Lower Ford yard."""

from __future__ import annotations

from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.rough import Allowances
from nullah.core.fraction import Fraction
from nullah.core.lengths import Marks, Slope, mm
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, Flaw, FlawKind
from nullah.core.wood.movement import GrainCut


def _flaw(kind: FlawKind, start: int, end: int, low: int, high: int) -> Flaw:
    return Flaw(kind, mm(start), mm(end), mm(low), mm(high))


_BOARDS = (
    Board("1", "Ford 1", "black cherry", mm(1450), mm(165), mm(22), mm("1.5"), mm(2), mm(2),
          flaws=(_flaw(FlawKind.CHECK, 0, 45, 60, 100), _flaw(FlawKind.KNOT, 930, 975, 105, 150))),
    Board("2", "Ford 2", "black cherry", mm(980), mm(150), mm(22), mm(2), mm("3.5"), mm(4),
          flaws=(_flaw(FlawKind.SAP, 0, 980, 138, 150), _flaw(FlawKind.SPLIT, 940, 980, 20, 70))),
    Board("3", "Ford 3", "black cherry", mm(760), mm(180), mm(20), mm("0.5"), mm(1), mm(1), cut=GrainCut.RIFT,
          flaws=(_flaw(FlawKind.RUNOUT, 610, 760, 120, 180),)),
    Board("4", "Ford 4", "yellow-poplar", mm(900), mm(240), mm(13), mm("1.5"), mm("1.5"), mm(1),
          flaws=(_flaw(FlawKind.KNOT, 150, 180, 90, 125), _flaw(FlawKind.CHECK, 860, 900, 100, 140))),
    Board("5", "Ford 5", "yellow-poplar", mm(610), mm(160), mm(12), mm(1), mm(1), mm("0.5"),
          flaws=(_flaw(FlawKind.WANE, 0, 610, 0, 18),)),
)  # fmt: skip

_LAYOUT = (
    Placement("right", "2", 0.0, 0.0),
    Placement("front", "2", 250.5, 0.0),
    Placement("left", "2", 661.0, 0.0),
    Placement("back", "3", 0.0, 0.0),
    Placement("bottom", "4", 0.0, 0.0),
)


def seed_box() -> Project:
    """Return the sample piece: sized around seed packets, laid out, one board too twisted to flatten whole."""
    return Project(
        piece=Piece(
            form="box",
            name="Seed box",
            choices=(("sizing", "contents"), ("tails_on", "sides")),
            given=(
                ("contents.length", mm(340)),
                ("contents.width", mm(180)),
                ("contents.height", mm(110)),
                ("contents.clearance", mm(3)),
                ("sides.thickness", mm(16)),
                ("groove.height", mm(11)),
                ("bottom.clearance", mm("0.5")),
                ("tails.count", 3),
                ("tails.slope", Slope(Fraction(7))),
                ("tails.pin", mm(7)),
            ),
        ),
        boards=_BOARDS,
        allowances=Allowances(mm(30), mm(6), mm(3)),
        marks=Marks(),
        layout=_LAYOUT,
    )
