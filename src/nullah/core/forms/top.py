"""A top, lid or slab: a panel of staves edge to edge, or of strips on edge; breadboard ends, battens, or neither.

A breadboard end holds the panel flat and lets it move: a tongue all along, longer tenons, only the middle one glued,
the mortises and the holes of the pegs longer by the season's room, in proportion to how far out they are.
"""

from __future__ import annotations

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.fraction import Fraction
from nullah.core.joints.breadboard import BREADBOARD, sizes_in
from nullah.core.ledger import Definition, Ledger, QuantityKind, Snap, given, ruled
from nullah.core.piece.facts import Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs

_OF = Choice(
    "of",
    "Made of",
    (("staves", N_("staves edge to edge")), ("slab", N_("strips on edge, a slab"))),
    shape=True,
    parts=("panel",),
)
_STAVES = Choice(
    "staves",
    "How many",
    tuple((str(n), str(n)) for n in (5, 1, 2, 3, 4, 7, 9, 12, 16)),
    when=("of", ("staves",)),
    parts=("panel",),
)
_ENDS = Choice(
    "ends",
    "Ends",
    (("breadboard", N_("breadboard")), ("battens", N_("battens below")), ("none", N_("none"))),
    shape=True,
    parts=("panel", "*_end", "batten?"),
)
_UNDERSIDE = Choice(
    "underside",
    "Underside",
    (("planed", N_("planed")), ("rough", N_("left rough"))),
    when=("ends", ("none",)),
    parts=("panel",),
)
#: Into so many a slab with breadboard ends is tenoned, of however many strips it is.
_IN_SLAB = 5
#: A breadboard end has a tenon for each stave, three at least, and no more than seven; an odd number, so that one
#: stands in the middle, where it is glued (practice).
_TENONS = range(3, 8)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    slab, breadboard = chosen["of"] == "slab", chosen["ends"] == "breadboard"
    length = "top.length - 2 * end.board_width + 2 * tenon.length" if breadboard else "top.length"
    found = [
        given("top.length", N_("length of the top"), 700),
        given("top.width", N_("width of the top"), 420),
        given("top.thickness", N_("thickness of the top"), 45 if slab else 21),
        *board_sizes("panel", N_("the panel"), length, "top.width", "top.thickness"),
    ]
    if slab:
        found += [
            given("strips.thickest", N_("thickness of the strips, at most"), 42),
            ruled(
                "strips.count",
                N_("number of strips"),
                "top.width / strips.thickest",
                kind=QuantityKind.COUNT,
                snap=Snap.WHOLE,
            ),
            ruled("strips.thickness", N_("thickness of a strip, finished"), "top.width / strips.count"),
        ]
    if breadboard:
        count = _IN_SLAB if slab else int(chosen["staves"])
        tenons = min(max(count, _TENONS[0]), _TENONS[-1]) | 1
        found += [
            given("end.board_width", N_("width of the breadboard ends"), 60),
            given("end.proud", N_("ends left long for planing flush, each"), 2, snap=Snap.NOTHING),
            *board_sizes(
                "end", N_("the breadboard ends"), "top.width", "end.board_width", "top.thickness", spare="2 * end.proud"
            ),
            given("tongue.length", N_("length of the tongue"), 16),
            ruled("tongue.thickness", N_("thickness of tongue and tenons"), "top.thickness / 3", snap=Snap.CHISEL),
            given("tenons.count", N_("number of tenons"), tenons, QuantityKind.COUNT),
            ruled("tenon.length", N_("length of the tenons"), "end.board_width * 2 / 3", snap=Snap.MARK),
            ruled("tenon.width", N_("width of the tenons"), "top.width / tenons.count / 2", snap=Snap.MARK),
            given("slot.room", N_("room beside the outer tenons"), 3, snap=Snap.NOTHING),
            # Thicker pegs than 10 mm weaken a tenon (common practice, no published source).
            ruled("peg.diameter", N_("diameter of the pegs"), "min(10, top.thickness / 3)", snap=Snap.BIT),
            ruled("peg.inset", N_("shoulder to the pegs"), "tenon.length / 3", snap=Snap.MARK),
            given("peg.draw", N_("holes in the tenons nearer to the shoulder"), "1.5", snap=Snap.MARK),
        ]
    elif chosen["ends"] == "battens":
        found += [
            ruled("batten.inset", N_("end of the top to the battens"), "top.length / 8", snap=Snap.MARK),
            ruled("batten.short", N_("battens short of the edge, each"), "top.width / 12", snap=Snap.MARK),
            *board_sizes("batten", N_("the battens"), "top.width - 2 * batten.short", "50", 22),
        ]
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    slab, breadboard = chosen["of"] == "slab", chosen["ends"] == "breadboard"
    must = ["top.length", "top.width", "top.thickness", "panel.length"]
    if slab:
        must += ["strips.thickest", "strips.count"]
    if breadboard:
        must += ["tongue.length", "tenon.length", "tenon.width", "tongue.thickness", "peg.diameter", "peg.inset"]
    if not m.need_positive(*must):
        return m.finish()
    q = m.q
    count = int(q("strips.count")) if slab else int(chosen["staves"])
    rough = chosen["ends"] == "none" and chosen["underside"] == "rough"
    x = q("end.board_width") - q("tenon.length") if breadboard else Fraction(0)
    shows = "tfb" + ("" if breadboard else "lr")
    m.board(
        "panel",
        N_("panel") if count > 1 else N_("board"),
        "panel",
        (x, 0, 0),
        "xz",
        shows=shows,
        staves=count,
        laminated=slab,
        needs=Needs.ONE_FACE if rough else Needs.CLEAR,
        one_face=rough,
    )
    if breadboard:
        _breadboard(m)
    elif chosen["ends"] == "battens":
        _battens(m)
    else:
        m.freedom(["panel"], Fraction(10**6))
    _glueing(m, slab, count)
    _measures(m, breadboard)
    return m.finish()


def _breadboard(m: Maker) -> None:
    q = m.q
    sizes = sizes_in(m.ledger, "", q("tenon.length"))
    names = JointQuantities("tongue.thickness", "tongue.length", guest="tongue.thickness", reach="tenon.length")
    for side, start in (("left", Fraction(0)), ("right", q("top.length") - q("end.board_width"))):
        end = m.board(
            f"{side}_end",
            N_("left breadboard end") if side == "left" else N_("right breadboard end"),
            "end",
            (start, 0, 0),
            "yz",
            shows="tlrfb",
            spare=2 * q("end.proud"),
        )
        m.add(BREADBOARD.end_of(end, m.part("panel"), sizes, names))
    m.freedom(["panel"], 2 * q("slot.room"), "slot.room")
    m.remark(Note.GLUE_MIDDLE_TENON, Severity.NOTE)


def _battens(m: Maker) -> None:
    q = m.q
    inset, wide = q("batten.inset"), q("batten.width")
    for number, x in ((1, inset), (2, q("top.length") - inset - wide)):
        batten = f"batten{number}"
        m.board(
            batten,
            Phrase("batten {number}", number=str(number)),
            "batten",
            (x, q("batten.short"), -q("batten.thickness")),
            "yz",
            needs=Needs.ANY,
        )
        m.butt("panel", batten, Hold.SLOTS)


def _glueing(m: Maker, slab: bool, count: int) -> None:
    if count < 2:
        return
    if not slab:
        m.remark(Note.STRAIGHT_SEAMS, Severity.NOTE)


def _measures(m: Maker, breadboard: bool) -> None:
    q = m.q
    length, width, thick = q("top.length"), q("top.width"), q("top.thickness")
    above, front = View.ABOVE, View.FRONT
    m.measure("top.length", above, (0, width, 0), (length, width, 0), 6)
    m.measure("top.width", above, (0, 0, 0), (0, width, 0), 6)
    m.measure("top.thickness", front, (0, 0, 0), (0, 0, thick), 6)
    if breadboard:
        end = q("end.board_width")
        m.measure("end.board_width", above, (0, 0, 0), (end, 0, 0), -6)
        m.measure("tongue.length", front, (end - q("tongue.length"), 0, 0), (end, 0, 0), -6)


TOP = Form(
    "top",
    "Top, lid or slab",
    (_OF, _STAVES, _ENDS, _UNDERSIDE),
    _define,
    _assemble,
    ("top.length", "top.width", "top.thickness"),
)
