"""A sample of a piece of one's own: a stair of three treads for potted seedlings, which no form covers."""

from __future__ import annotations

from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.lengths import Length, mm
from nullah.core.piece.shaping import Arch, Notch, RoundOver, Shaping
from nullah.core.piece.space import Axis, Side
from nullah.core.project import Piece, Project

_DEPTH, _RISE, _TREAD, _WIDE, _THICK = 360, 130, 120, 520, 20
_DADO = 6


def _at(x: int, y: int, z: int) -> tuple[Length, Length, Length]:
    return mm(x), mm(y), mm(z)


def _sides() -> tuple[Shaping, ...]:
    """Cut the steps into a side, an arch between its feet, and the upper back corner round."""
    high = 3.0 * _RISE
    steps = tuple(
        Notch((0.0, 0.0, float(step * _RISE)), (float(_THICK), float(step * _TREAD), high)) for step in (1, 2)
    )
    return (*steps, Arch(Side.UNDER, Axis.X, 220.0, 40.0), RoundOver((Side.TOP, Side.BACK), 25.0))


def plant_stair() -> Project:
    """Return the stair: two stepped sides, three treads in dados, a rail tenoned into both sides."""
    high, inner = 3 * _RISE, _WIDE - 2 * _THICK
    sides = [
        OwnBoard(f"own{number}", name, (mm(high), mm(_DEPTH), mm(_THICK)), _at(x, 0, 0), "zx", shows, False, _sides())
        for number, name, x, shows in ((1, "left side", 0, "lft"), (2, "right side", _WIDE - _THICK, "rft"))
    ]
    treads = [
        OwnBoard(
            f"own{3 + step}",
            f"tread {step + 1}",
            (mm(inner + 2 * _DADO), mm(_TREAD), mm(18)),
            _at(_THICK - _DADO, step * _TREAD, (step + 1) * _RISE - 40),
            "xz",
            "ft",
        )
        for step in range(3)
    ]
    rail = OwnBoard("own6", "rail", (mm(inner + 24), mm(60), mm(20)), _at(_THICK - 12, _DEPTH - 70, 150), "xy", "")
    boards = (*sides, *treads, rail)
    joints = [("let in", side, tread.id) for tread in treads for side in ("own1", "own2")]
    joints += [("mortise and tenon", side, "own6") for side in ("own1", "own2")]
    return Project(
        piece=Piece(
            form="own",
            name="Plant stair",
            woods=(("shown", "white oak"),),
            own=boards,
            own_joints=tuple(OwnJoint(f"ownjoint{n}", *joint) for n, joint in enumerate(joints, start=1)),
        )
    )
