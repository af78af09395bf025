"""A top, lid or slab: one board, staves edge to edge, or strips on edge; breadboard ends, battens, or neither.

A breadboard end holds the boards flat and lets them move: a tongue all along, a longer tenon in
each stave, only the middle one glued, the outer mortises wider by the season's room.
"""

from __future__ import annotations

from fractions import Fraction

from nullah.core.card import Severity
from nullah.core.catalogue import N_
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.piece.facts import Clamps, GlueInHalves, Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.space import Axis

_Y, _Z = Axis.Y, Axis.Z
_OF = Choice("of", "Made of", (("staves", N_("staves edge to edge")), ("slab", N_("strips on edge, a slab"))))
_STAVES = Choice("staves", "How many", tuple((str(n), str(n)) for n in (5, 1, 2, 3, 4, 7, 9, 12, 16)))
_ENDS = Choice(
    "ends", "Ends", (("breadboard", N_("breadboard")), ("battens", N_("battens below")), ("none", N_("none")))
)
# Clamps across a lamination stand this far apart, mm: about 4 in (common practice).
_CLAMPS = 100


def _define(chosen: Choices) -> tuple[Definition, ...]:
    count, breadboard = int(chosen["staves"]), chosen["ends"] == "breadboard"
    length = "top.length - 2 * end.board_width + 2 * tenon.length" if breadboard else "top.length"
    found = [
        given("top.length", "length of the top", 700),
        given("top.width", "width of the top", 420),
        given("top.thickness", "thickness of the top", 45 if chosen["of"] == "slab" else 21),
    ]
    if chosen["of"] == "slab":
        found += board_sizes("stave", "the strips", length, "top.thickness", f"top.width / {count}")
    else:
        found += board_sizes("stave", "the staves", length, f"top.width / {count}", "top.thickness")
    if breadboard:
        found += [
            given("end.board_width", "width of the breadboard ends", 60),
            *board_sizes("end", "the breadboard ends", "top.width", "end.board_width", "top.thickness"),
            given("tongue.length", "length of the tongue", 19),
            ruled("tongue.thickness", "thickness of tongue and tenons", "top.thickness / 3", snap=Snap.CHISEL),
            ruled("tenon.length", "length of the tenons", "end.board_width * 2 / 3", snap=Snap.MARK),
            ruled("tenon.width", "width of the tenons", f"top.width / {count} / 2", snap=Snap.MARK),
            given("slot.room", "room beside the outer tenons", 3, snap=Snap.NOTHING),
        ]
    elif chosen["ends"] == "battens":
        found += [
            ruled("batten.inset", "end of the top to the battens", "top.length / 8", snap=Snap.MARK),
            ruled(
                "batten.short",
                "battens short of the edge, each",
                f"min(top.width / 12, top.width / {2 * count})",
                snap=Snap.MARK,
            ),
            *board_sizes("batten", "the battens", "top.width - 2 * batten.short", "50", 22),
        ]
    return tuple(found)


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    breadboard, count = chosen["ends"] == "breadboard", int(chosen["staves"])
    must = ["top.length", "top.width", "top.thickness", "stave.length"]
    must += ["tongue.length", "tenon.length", "tenon.width", "tongue.thickness"] if breadboard else []
    if not m.need_positive(*must):
        return m.finish()
    q = m.q
    slab = chosen["of"] == "slab"
    x = q("end.board_width") - q("tenon.length") if breadboard else Fraction(0)
    wide = q("top.width") / count
    ids = [f"stave{number}" for number in range(1, count + 1)]
    for index, part in enumerate(ids):
        word = "strip" if slab else "stave"
        name = f"{word} {index + 1}" if count > 1 else "board"
        shows = "t" + ("f" if index == 0 else "") + ("b" if index == count - 1 else "") + ("" if breadboard else "lr")
        m.board(part, name, "stave", (x, index * wide, 0), "xy" if slab else "xz", shows=shows)
        if index:
            m.butt(ids[index - 1], part, Hold.GLUE)
    if breadboard:
        _breadboard(m, ids, wide)
    elif chosen["ends"] == "battens":
        _battens(m, ids)
    elif count > 1 or not slab:
        m.freedom(ids, Fraction(10**6))
    _glueing(m, slab, count)
    _measures(m, breadboard)
    return m.finish()


def _breadboard(m: Maker, ids: list[str], wide: Fraction) -> None:
    q = m.q
    length, end, thick = q("top.length"), q("end.board_width"), q("top.thickness")
    tongue, tenon, broad, third = q("tongue.length"), q("tenon.length"), q("tenon.width"), q("tongue.thickness")
    low = (thick - third) / 2
    middle = (len(ids) - 1) // 2
    for side, start in (("left", Fraction(0)), ("right", length - end)):
        m.board(f"{side}_end", f"{side} breadboard end", "end", (start, 0, 0), "yz", shows="tlrfb")
        inner = end if side == "left" else length - end
        for index, part in enumerate(ids):
            overlap = m.part(f"{side}_end").box.overlap(m.part(part).box)
            if overlap is None:
                continue
            level = overlap.set(_Z, low, low + third)
            stands = index * wide + (wide - broad) / 2
            glued = index == middle
            room = Fraction(0) if glued else q("slot.room")
            tongue_x = (inner - tongue, inner) if side == "left" else (inner, inner + tongue)
            tenon_x = (inner - tenon, inner) if side == "left" else (inner, inner + tenon)
            shares = (level.set(Axis.X, *tongue_x), level.set(Axis.X, *tenon_x).set(_Y, stands, stands + broad))
            mortise = shares[1].set(_Y, max(Fraction(0), stands - room), min(q("top.width"), stands + broad + room))
            m.let_in(
                f"{side}_end",
                part,
                shares=shares,
                channels=(shares[0], mortise),
                room=(0, room, 0),
                hold=Hold.GLUE if glued else Hold.SLOTS,
                glued=min(broad, Fraction(75)),
                names=JointQuantities("", "tenon.length", guest="tongue.thickness", reach="tenon.length"),
            )
    m.freedom(ids, 2 * q("slot.room"), "slot.room")
    m.remark(Note.GLUE_MIDDLE_TENON, Severity.NOTE)


def _battens(m: Maker, ids: list[str]) -> None:
    q = m.q
    inset, wide = q("batten.inset"), q("batten.width")
    for number, x in ((1, inset), (2, q("top.length") - inset - wide)):
        batten = f"batten{number}"
        m.board(
            batten, f"batten {number}", "batten", (x, q("batten.short"), -q("batten.thickness")), "yz", needs=Needs.ANY
        )
        for part in ids:
            m.butt(part, batten, Hold.SLOTS)


def _glueing(m: Maker, slab: bool, count: int) -> None:
    if count < 2:
        return
    clamps = int(m.q("stave.length") / _CLAMPS) + 1
    apart = Length(Fraction(_CLAMPS))
    if slab and count > 4:
        m.remark(GlueInHalves(count, clamps, apart), Severity.NOTE)
    elif slab:
        m.remark(Clamps(clamps, apart), Severity.NOTE)
    else:
        m.remark(Note.STRAIGHT_SEAMS, Severity.NOTE)


def _measures(m: Maker, breadboard: bool) -> None:
    q = m.q
    length, width, thick = q("top.length"), q("top.width"), q("top.thickness")
    above, front = View.ABOVE, View.FRONT
    m.measure("top.length", above, (0, width, 0), (length, width, 0), 6)
    m.measure("top.width", above, (0, 0, 0), (0, width, 0), 6)
    m.measure("top.thickness", front, (0, 0, 0), (0, 0, thick), 6)
    first = m.part("stave1").box
    m.measure(
        "stave.thickness" if m.part("stave1").face is _Y else "stave.width",
        above,
        (length, first.high[1], 0),
        (length, 0, 0),
        6,
    )
    if breadboard:
        end = q("end.board_width")
        m.measure("end.board_width", above, (0, 0, 0), (end, 0, 0), -6)
        m.measure("tongue.length", front, (end - q("tongue.length"), 0, 0), (end, 0, 0), -6)


TOP = Form(
    "top", "Top, lid or slab", (_OF, _STAVES, _ENDS), _define, _assemble, ("top.length", "top.width", "top.thickness")
)
