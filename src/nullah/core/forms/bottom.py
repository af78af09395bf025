"""A bottom that lies loose in grooves of four walls: what a box and a tray have in common."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.forms.maker import Maker
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, Snap, given, ruled
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.space import Side


def bottom_sizes(piece: str, height: int, depth: int, clearance: str) -> tuple[Definition, ...]:
    """Declare bottom and grooves of a piece (the prefix of its inside sizes); usual figures in mm.

    Parameters
    ----------
    piece : str
        Prefix of the inside sizes.
    height : int
        Of the groove above the lower edge, mm.
    depth : int
        Of the groove, mm.
    clearance : str
        The usual one, mm.
    """
    return (
        given("bottom.thickness", N_("thickness of the bottom"), 6),
        given("groove.height", N_("lower edge to groove"), height),
        given("groove.depth", N_("depth of the groove"), depth),
        ruled("groove.width", N_("width of the groove"), "bottom.thickness"),
        ruled("opening.length", N_("groove to groove, along"), f"{piece}.inside_length + 2 * groove.depth"),
        ruled("opening.width", N_("groove to groove, across"), f"{piece}.inside_width + 2 * groove.depth"),
        given("bottom.clearance", N_("clearance of the bottom, each edge"), clearance, snap=Snap.NOTHING),
        ruled(
            "bottom.length", N_("length of the bottom"), "opening.length - 2 * bottom.clearance", ("opening.length",)
        ),
        ruled("bottom.width", N_("width of the bottom"), "opening.width - 2 * bottom.clearance", ("opening.width",)),
    )


def put_bottom(
    m: Maker, size: tuple[Fraction, Fraction], inner: tuple[Fraction, Fraction], through: bool = False, choice: str = ""
) -> None:
    """Put the bottom between ``front``, ``back``, ``left`` and ``right``.

    Parameters
    ----------
    size : (along, across)
        Outside size of the walls, mm.
    inner : (along, across)
        Outside of the piece to the inner face of the ends, and of front and back, mm.
    through : bool
        Whether the grooves run through to the ends of the walls.
    choice : str
        The way of making it that would not show, as in `JointQuantities`.
    """
    q = m.q
    (length, width), (end, side) = size, inner
    # The bottom is centred in the opening, short of each groove's floor by the clearance.
    x, y = (length - q("bottom.length")) / 2, (width - q("bottom.width")) / 2
    floor, deep, clear = q("groove.height"), q("groove.depth"), q("bottom.clearance")
    m.board("bottom", "bottom", "bottom", (x, y, floor), "xz", needs=Needs.ANY, role="bottom")
    z = (floor, floor + q("groove.width"))
    along, across = {"x": (end - deep, length - end + deep)}, {"y": (side - deep, width - side + deep)}
    names = JointQuantities("groove.width", "groove.depth", guest="bottom.thickness", choice=choice)
    for host, inside, run in (
        ("front", Side.BACK, along),
        ("back", Side.FRONT, along),
        ("left", Side.RIGHT, across),
        ("right", Side.LEFT, across),
    ):
        channel = m.channel(host, inside, deep, z=z, **({} if through else run))
        m.let_in(host, "bottom", channels=(channel,), room=(clear, clear, 0), runs=True, hold=Hold.DRY, names=names)
    m.freedom(("bottom",), 2 * clear, "bottom.clearance")
