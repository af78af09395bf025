"""Two boards of each joint that is told as operations: the worked examples of the documentation."""

from __future__ import annotations

from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.lengths import Length, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Piece, Project


class _Board(NamedTuple):
    """A board: its name, sizes and low corner, mm, and how it lies."""

    name: str
    sizes: tuple[int, int, int]
    at: tuple[int, int, int]
    lie: str


_FRONT = _Board("front", (300, 90, 15), (0, 0, 0), "xy")
_SIDE = _Board("side", (200, 90, 15), (0, 0, 0), "yx")
_UPRIGHT = _Board("upright", (400, 200, 18), (0, 0, 0), "zx")
_BATTEN = _Board("batten", (180, 40, 15), (60, 10, 18), "yz")
_PANEL = _Board("panel", (300, 200, 18), (0, 0, 0), "xz")
_RAIL = _Board("rail", (300, 60, 20), (0, 0, 0), "xz")
_STILE = _Board("stile", (200, 60, 20), (0, 0, 0), "yz")

#: Each joint: its type, what holds it, and both boards; the first is the host, or has the tails.
_JOINTS: dict[str, tuple[str, str, _Board, _Board]] = {
    "through dovetail": ("dovetail", "glued", _FRONT, _SIDE),
    "rabbet": ("let in", "glued", _UPRIGHT, _Board("back", (400, 180, 9), (9, 191, 0), "zy")),
    "groove": ("let in", "left dry", _FRONT, _Board("bottom", (300, 150, 6), (0, 10, 12), "xz")),
    "stopped groove": ("let in", "left dry", _FRONT, _Board("bottom", (280, 150, 6), (10, 10, 12), "xz")),
    "groove in an edge": ("let in", "glued", _UPRIGHT, _Board("panel", (400, 150, 6), (6, 192, 0), "zx")),
    "dado": ("let in", "glued", _UPRIGHT, _Board("shelf", (300, 200, 16), (12, 0, 150), "xz")),
    "stopped dado": ("let in", "glued", _UPRIGHT, _Board("shelf", (300, 190, 16), (12, 10, 150), "xz")),
    "sliding dovetail": ("sliding dovetail", "glued", _UPRIGHT, _Board("divider", (300, 200, 18), (11, 0, 150), "xz")),
    "tapered sliding dovetail": (
        "sliding dovetail",
        "glued",
        _UPRIGHT,
        _Board("divider", (300, 200, 18), (11, 0, 150), "xz"),
    ),
    "stopped sliding dovetail": (
        "sliding dovetail",
        "glued",
        _UPRIGHT,
        _Board("divider", (300, 180, 18), (11, 20, 150), "xz"),
    ),
    "tongue and groove": (
        "tongue and groove",
        "glued",
        _Board("lower board", (400, 90, 18), (0, 0, 0), "xy"),
        _Board("upper board", (400, 90, 18), (0, 0, 82), "xy"),
    ),
    "notch": (
        "let in",
        "glued",
        _Board("rail", (300, 60, 20), (0, 150, 0), "xz"),
        _Board("stile", (180, 60, 20), (100, 10, 0), "yz"),
    ),
    "mortise and tenon": (
        "mortise and tenon",
        "glued",
        _Board("leg", (400, 45, 45), (0, 0, 0), "zx"),
        _Board("apron", (300, 80, 20), (20, 10, 250), "xy"),
    ),
    "haunched tenon": (
        "haunched tenon",
        "glued",
        _Board("leg", (400, 45, 45), (0, 0, 0), "zx"),
        _Board("rail", (300, 70, 20), (20, 10, 330), "xy"),
    ),
    "drawbored tenon": (
        "drawbored tenon",
        "glued",
        _Board("leg", (400, 45, 45), (0, 0, 0), "zx"),
        _Board("rail", (300, 70, 20), (11, 10, 250), "xy"),
    ),
    "tusk tenon": (
        "tusk tenon",
        "left dry",
        _Board("post", (400, 60, 60), (0, 0, 0), "zx"),
        _Board("bar", (400, 60, 24), (-80, 18, 200), "xy"),
    ),
    "bridle": ("bridle", "glued", _RAIL, _STILE),
    "lap": (
        "lap",
        "glued",
        _Board("rail", (300, 60, 20), (0, 60, 0), "xz"),
        _Board("stile", (200, 60, 20), (100, 0, 0), "yz"),
    ),
    "mitre with keys": ("mitre", "glued", _RAIL, _STILE),
    "finger joint": ("finger joint", "glued", _FRONT, _SIDE),
    "breadboard end": (
        "breadboard end",
        "glued",
        _Board("end", (300, 60, 21), (460, 0, 0), "yz"),
        _Board("panel", (500, 300, 21), (0, 0, 0), "xz"),
    ),
    "dowels": (
        "dowels",
        "glued",
        _Board("leg", (400, 45, 45), (0, 0, 0), "zx"),
        _Board("rail", (300, 60, 20), (45, 10, 300), "xy"),
    ),
    "nails": ("butt", "nailed", _PANEL, _BATTEN),
    "screws": ("butt", "screwed", _PANEL, _BATTEN),
    "screws in slots": ("butt", "screwed in slots", _PANEL, _BATTEN),
}
#: Figures of an example that are not the usual ones.
_GIVEN: dict[str, tuple[tuple[str, Length], ...]] = {"tapered sliding dovetail": (("ownjoint1_tail.taper", mm(2)),)}
#: What the examples are called. A half-blind dovetail is that of a drawer, whose lap is a figure of its own.
WORKED = ("half-blind dovetail", *_JOINTS)


def worked_joint(name: str) -> Project:
    """Return the project of an example, one of `WORKED`."""
    if name not in _JOINTS:
        return Project(Piece("drawer", name))
    type_id, hold, *boards = _JOINTS[name]
    own = tuple(
        OwnBoard(f"own{number}", each.name, _lengths(each.sizes), _lengths(each.at), each.lie)
        for number, each in enumerate(boards, start=1)
    )
    joints = (OwnJoint("ownjoint1", type_id, "own1", "own2", hold),)
    return Project(Piece("own", name, given=_GIVEN.get(name, ()), own=own, own_joints=joints))


def _lengths(figures: tuple[int, int, int]) -> tuple[Length, Length, Length]:
    return mm(figures[0]), mm(figures[1]), mm(figures[2])
