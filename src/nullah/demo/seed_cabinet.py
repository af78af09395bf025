"""The sample: a small seed cabinet with four drawers, from boards of the Lower Ford yard."""

from __future__ import annotations

from fractions import Fraction

from nullah.core.breakdown.rough import Allowances
from nullah.core.lengths import Marks, Slope, mm
from nullah.core.project import Piece, Project


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
        allowances=Allowances(mm(25), mm(6), mm(3)),
        marks=Marks(),
    )  # fmt: skip
