"""A joint by itself: two boards joined, for practice or to try a joint before a piece has it.

It is a piece like any other: its figures are in the ledger, it is proved, told step by step, printed and kept.
"""

from __future__ import annotations

from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.maker import Maker
from nullah.core.fraction import Fraction
from nullah.core.joints.breadboard import BREADBOARD
from nullah.core.joints.bridle import BRIDLE
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.joints.dowels import DOWELS
from nullah.core.joints.drawbored import DRAWBORED
from nullah.core.joints.finger import FINGER
from nullah.core.joints.haunched import HAUNCHED
from nullah.core.joints.lap import LAP
from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.mitre import MITRE
from nullah.core.joints.sliding import SLIDING
from nullah.core.joints.tenon import TENON
from nullah.core.joints.tongue import TONGUE
from nullah.core.joints.tusk import TUSK
from nullah.core.joints.types import TYPES
from nullah.core.ledger import Definition, Ledger, given, ruled
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import Hold, Joint, JointType
from nullah.core.piece.space import Axis, around
from nullah.core.rules import evaluate

#: The prefix of the joint's own figures.
_PREFIX = "joint"
_DEPTH = "joint.depth"
#: The two boards: the one that is cut into, or has the tails, and the other.
_ONE, _OTHER = "one", "other"


class _Board(NamedTuple):
    """A board: its name, its length, width and thickness (mm, or a rule), how it lies, and its low corner as rules."""

    name: str
    sizes: tuple[int | str, int | str, int | str]
    lie: str
    at: tuple[str, str, str] = ("0", "0", "0")


class _Kind(NamedTuple):
    """A joint to be tried: its type, both boards, how deep one goes into the other, and what else is to be given."""

    title: str
    type: JointType
    one: _Board
    other: _Board
    depth: int = 0
    more: tuple[Definition, ...] = ()
    hold: Hold = Hold.GLUE
    tails: int = 0


_LEG = _Board(N_("leg"), (200, 44, 44), "zx")
_IN_THE_LEG = ("one.thickness - joint.depth", "(one.width - other.thickness) / 2", "80")
_RAIL = _Board(N_("rail"), ("140 + joint.depth", 70, 20), "xy", _IN_THE_LEG)
_ACROSS = ("(one.length - other.thickness) / 2", "0", "one.thickness - joint.depth")
_TAIL_BOARD = _Board(N_("tail board"), (140, 60, 15), "xz")
_PIN_BOARD = _Board(N_("pin board"), (90, "one.width", 15), "zx")
_LAPPED = given("lap.thickness", N_("thickness of the lap"), 5)

KINDS: dict[str, _Kind] = {
    "through dovetail": _Kind(N_("through dovetail"), DOVETAIL, _TAIL_BOARD, _PIN_BOARD, tails=2),
    "half-blind dovetail": _Kind(
        N_("half-blind dovetail"),
        DOVETAIL,
        _TAIL_BOARD._replace(sizes=(140, 90, 12), at=("lap.thickness", "0", "0")),
        _PIN_BOARD._replace(sizes=(90, "one.width", 18)),
        more=(_LAPPED,),
        tails=3,
    ),
    "lapped dovetail": _Kind(
        N_("single lapped dovetail, a rail in the top of a leg"),
        DOVETAIL,
        _Board(
            N_("rail"),
            (140, 38, 18),
            "xz",
            ("lap.thickness", "(other.width - one.width) / 2", "other.length - one.thickness"),
        ),
        _Board(N_("leg"), (120, 44, 44), "zx"),
        more=(given("lap.thickness", N_("thickness of the lap"), 10),),
        tails=1,
    ),
    "finger joint": _Kind(
        N_("finger joint"), FINGER, _TAIL_BOARD._replace(name=N_("front")), _PIN_BOARD._replace(name=N_("side"))
    ),
    "rabbet": _Kind(
        N_("rabbet"),
        LET_IN,
        _Board(N_("rabbeted board"), (140, 90, 18), "xz"),
        _Board(
            N_("back"),
            ("one.length", "80 + joint.depth", 9),
            "xy",
            ("0", "one.width - other.thickness", "one.thickness - joint.depth"),
        ),
        8,
        hold=Hold.NAILS,
    ),
    "dado": _Kind(
        N_("dado"),
        LET_IN,
        _Board(N_("housed board"), (140, 150, 18), "xz"),
        _Board(N_("shelf"), ("90 + joint.depth", "one.width", 12), "zx", _ACROSS),
        6,
    ),
    "stopped dado": _Kind(
        N_("stopped dado"),
        LET_IN,
        _Board(N_("housed board"), (140, 150, 18), "xz"),
        _Board(
            N_("shelf"),
            ("90 + joint.depth", "one.width - stop.length", 12),
            "zx",
            (_ACROSS[0], "stop.length", _ACROSS[2]),
        ),
        6,
        (given("stop.length", N_("front edge to the stop"), 10),),
    ),
    "groove": _Kind(
        N_("groove"),
        LET_IN,
        _Board(N_("grooved board"), (140, 90, 14), "xz"),
        _Board(
            N_("panel"), ("one.length", "80 + joint.depth", 6), "xy", ("0", "groove.up", "one.thickness - joint.depth")
        ),
        4,
        (given("groove.up", N_("edge to the groove"), 9),),
        Hold.DRY,
    ),
    "sliding dovetail": _Kind(
        N_("sliding dovetail"),
        SLIDING,
        _Board(N_("housed board"), (140, 150, 20), "xz"),
        _Board(N_("divider"), ("90 + joint.depth", "one.width", 18), "zx", _ACROSS),
        7,
    ),
    "tongue": _Kind(
        N_("tongue and groove"),
        TONGUE,
        _Board(N_("grooved board"), (200, 70, 18), "xz"),
        _Board(
            N_("tongued board"),
            ("one.length", "70 + joint.depth", "one.thickness"),
            "xz",
            ("0", "one.width - joint.depth", "0"),
        ),
        8,
    ),
    "tenon": _Kind(N_("mortise and tenon"), TENON, _LEG, _RAIL, 30),
    "haunched tenon": _Kind(
        N_("haunched tenon"), HAUNCHED, _LEG, _RAIL._replace(at=(*_IN_THE_LEG[:2], "one.length - other.width")), 28
    ),
    "drawbored tenon": _Kind(N_("drawbored tenon"), DRAWBORED, _LEG, _RAIL, 34),
    "tusk tenon": _Kind(
        N_("tusk tenon"),
        TUSK,
        _Board(N_("post"), (200, 60, 60), "zx"),
        _Board(
            N_("bar"),
            ("140 + one.thickness + tenon.beyond", 60, 24),
            "xy",
            ("-tenon.beyond", "(one.width - other.thickness) / 2", "70"),
        ),
        more=(given("tenon.beyond", N_("length of the tenon beyond the post"), 60),),
        hold=Hold.DRY,
    ),
    "breadboard end": _Kind(
        N_("breadboard end"),
        BREADBOARD,
        _Board(N_("end"), ("other.width", 60, "other.thickness"), "yz"),
        _Board(N_("panel"), ("140 + joint.depth", 300, 20), "xz", ("-140", "0", "0")),
        40,
    ),
    "bridle": _Kind(
        N_("corner bridle"),
        BRIDLE,
        _Board(N_("slotted board"), (140, 40, 21), "xz"),
        _Board(N_("tongued board"), (140, 40, "one.thickness"), "yz", ("one.length - other.width", "0", "0")),
    ),
    "cross lap": _Kind(
        N_("cross lap"),
        LAP,
        _Board(N_("lower board"), (280, 40, 20), "xz", ("0", "(other.length - one.width) / 2", "0")),
        _Board(N_("upper board"), (280, 40, "one.thickness"), "yz", ("(one.length - other.width) / 2", "0", "0")),
    ),
    "mitre": _Kind(
        N_("miter with keys"),
        MITRE,
        _Board(N_("one side"), (140, 40, 18), "xz"),
        _Board(N_("other side"), (140, "one.width", "one.thickness"), "yz"),
    ),
    "dowels": _Kind(
        N_("dowels"), DOWELS, _LEG, _RAIL._replace(sizes=(140, 70, 20), at=("one.thickness", *_IN_THE_LEG[1:]))
    ),
}

_KIND = Choice(
    "joint", N_("Joint"), tuple((name, kind.title) for name, kind in KINDS.items()), shape=True, parts=("one", "other")
)


def _define(chosen: Choices) -> tuple[Definition, ...]:
    kind = KINDS[chosen["joint"]]
    found = [*_sizes(_ONE, kind.one), *_sizes(_OTHER, kind.other)]
    if kind.depth:
        found.append(given(_DEPTH, N_("how deep the one goes into the other"), kind.depth))
    found += kind.more
    if kind.tails:
        lap = "lap.thickness" if kind.more else ""
        prefix = f"{_PREFIX}_tails"
        found += tail_sizes(prefix, "one.thickness", "other.thickness", "one.width", kind.tails, lap=lap)
    else:
        sizes = {part: (f"{part}.width", f"{part}.thickness") for part in (_ONE, _OTHER)}
        found += TYPES[kind.type.id].quantities(_PREFIX, sizes[_ONE], sizes[_OTHER])
    return tuple(found)


def _sizes(number: str, board: _Board) -> list[Definition]:
    words = (N_("length of {what}"), N_("width of {what}"), N_("thickness of {what}"))
    found = []
    for way, title, size in zip(("length", "width", "thickness"), words, board.sizes, strict=True):
        name, phrase = f"{number}.{way}", Phrase(title, what=board.name)
        found.append(ruled(name, phrase, size) if isinstance(size, str) else given(name, phrase, size))
    return found


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    kind = KINDS[chosen["joint"]]
    m = Maker(ledger)
    if kind.depth and not m.need_positive(_DEPTH):
        return m.finish()
    for number, board in ((_ONE, kind.one), (_OTHER, kind.other)):
        m.board(number, board.name, number, [evaluate(rule, m.q) for rule in board.at], board.lie, shows="lrfbut")
    made = m.finish()
    if not made.parts:
        return made
    joint = _joined(m, kind)
    if joint is not None:
        names = joint.names
        if kind.depth:
            # What goes in is as long as the channel is deep.
            names = names._replace(depth=names.depth or _DEPTH, reach=names.reach or _DEPTH)
        m.add(joint._replace(id=f"{_ONE}-{_OTHER}", names=names))
    _measures(m, kind)
    return m.finish()


def _joined(m: Maker, kind: _Kind) -> Joint | None:
    one, other = m.part(_ONE), m.part(_OTHER)
    if not kind.tails:
        return TYPES[kind.type.id].between(_PREFIX, one, other, kind.hold, m.ledger)
    lap = m.q("lap.thickness") if "lap.thickness" in m.ledger.quantities else Fraction(0)
    tails = DOVETAIL.tails(m.ledger, f"{_PREFIX}_tails", lap=lap)
    return DOVETAIL.corner(_PREFIX, one, other, tails)


def _measures(m: Maker, kind: _Kind) -> None:
    """Show the sizes of both boards that can be typed, each in the view that shows it, and how deep the joint is."""
    shown: dict[Axis, View] = {Axis.X: View.FRONT, Axis.Z: View.FRONT, Axis.Y: View.SECTION}
    one, other = m.part(_ONE), m.part(_OTHER)
    shared = one.box.overlap(other.box)
    if kind.depth and shared is not None:
        axis = other.across if kind.type is TONGUE else other.grain if kind.type is not LET_IN else one.face
        high = tuple(shared.high[a.value] if a is axis else shared.low[a.value] for a in Axis)
        m.measure(_DEPTH, shown[axis], shared.low, high, 6.0)
    corner, offsets = around((one.box, other.box)).low, {_ONE: 6.0, _OTHER: 14.0}
    for number, board in ((_ONE, kind.one), (_OTHER, kind.other)):
        part = m.part(number)
        axes = (part.grain, part.across, part.face)
        for way, axis, size in zip(("length", "width", "thickness"), axes, board.sizes, strict=True):
            if isinstance(size, str):
                continue
            # Beside both boards, so that no figure stands over the other one.
            low = tuple(part.box.low[a.value] if a is axis else corner[a.value] for a in Axis)
            high = tuple(part.box.high[a.value] if a is axis else corner[a.value] for a in Axis)
            m.measure(f"{number}.{way}", shown[axis], low, high, offsets[number])


JOINT = Form(
    "joint", N_("A joint by itself"), (_KIND,), _define, _assemble, ("one.length", "one.width", "one.thickness")
)
