"""The kinds of joint of a piece: equal ones together, each with both its mates."""

from __future__ import annotations

from nullah.core.bits import Bits, at_once
from nullah.core.identity import kept_by_identity
from nullah.core.joints.cutouts import Cutout, Sizes, SlopedWaste, mitred, sizes_of, spans_of, taken
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis


class Mate(NamedTuple):
    """One of the two parts of a joint: itself, its sizes, and what is taken out of it.

    `slope` is the waste of a mitre, `touch` where the other part lies against it.
    """

    part: Part
    sizes: Sizes
    cutouts: tuple[Cutout, ...]
    slope: SlopedWaste | None = None
    touch: Cutout | None = None


class JointGroup(NamedTuple):
    """Equal joints: what they are called, one of them with its mates, and all of them."""

    id: str
    name: str
    joint: Joint
    first: Mate
    second: Mate
    all: tuple[Joint, ...]

    @property
    def corner_prefix(self) -> str:
        """The ledger's prefix of the figures of a corner that is laid out with dividers; empty for others."""
        return self.joint.type.corner_prefix(self.joint)

    def has(self, part_id: str) -> bool:
        """Whether a part has a joint of this kind."""
        return any(part_id in (joint.first, joint.second) for joint in self.all)


@kept_by_identity(8)
def kinds_of(assembly: Assembly) -> tuple[JointGroup, ...]:
    """Return every kind of joint once, in the order of the piece."""
    return at_once(kinds_in_bits(assembly))


def kinds_in_bits(assembly: Assembly) -> Bits[tuple[JointGroup, ...]]:
    """Find every kind of joint, joint by joint."""
    parts = {part.id: part for part in assembly.parts}
    groups: dict[tuple[object, ...], list[Joint]] = {}
    for joint in assembly.joints:
        first, second = parts.get(joint.first), parts.get(joint.second)
        if first is not None and second is not None:
            groups.setdefault(_likeness(joint, first, second), []).append(joint)
            yield
    kinds = []
    for joints in groups.values():
        kinds.append(kind_of(assembly, tuple(joints)))
        yield
    return tuple(kind for kind in kinds if kind is not None)


@kept_by_identity(4096)
def _likeness(joint: Joint, first: Part, second: Part) -> tuple[object, ...]:
    """Return what equal joints have in common: gauges stay set from one to the next."""
    cuts = taken(joint, first, second)
    # What is cut into the one decides the settings; the other is traced or fitted, and a hair more or less of it since
    # something was measured makes no other joint of it.
    shape = tuple((cut.size(0), cut.size(1), cut.size(2)) for cut in cuts[0]), len(cuts[1])
    # What is cut along the grain of what enters is planed in one go, what is cut across it gauged and sawn.
    lies_along = all(cuts) and _runs(first, cuts[0]) is second.grain
    # What is made by itself, such as a drawer, is made at another time than what it goes into.
    apart = bool(first.group), bool(second.group)
    name, prefix = joint.type.name(joint, first, second), joint.type.corner_prefix(joint)
    return name, joint.hold, joint.names, prefix, shape, lies_along, apart


def _runs(part: Part, cuts: tuple[Cutout, ...]) -> Axis:
    """Return the axis along which what is cut into a part is longest."""
    along = max(range(3), key=cuts[0].size)
    return (part.grain, part.across, part.face)[along]


def kind_of(assembly: Assembly, joints: tuple[Joint, ...], part: str = "") -> JointGroup | None:
    """Make the kind of some equal joints; shown is that of `part`, or the first."""
    shown = next((joint for joint in joints if part in (joint.first, joint.second)), joints[0])
    first, second = assembly.part(shown.first), assembly.part(shown.second)
    if first is None or second is None:
        return None
    return _kind(shown, first, second, *joints)


@kept_by_identity(512)
def _kind(shown: Joint, first: Part, second: Part, *joints: Joint) -> JointGroup:
    own, other = taken(shown, first, second)
    name = shown.type.name(shown, first, second)
    slopes = (mitred(first, second), mitred(second, first)) if shown.type.slanted else (None, None)
    against = contact(first, second)
    # Where something is cut, that says where the other lies.
    plain = [shown.type.touches or (shown.type.captures and not cuts) for cuts in (own, other)]
    touches = [
        spans_of(part, against) if against and it else None for part, it in zip((first, second), plain, strict=True)
    ]
    mates = (
        Mate(first, sizes_of(first), own, slopes[0], touches[0]),
        Mate(second, sizes_of(second), other, slopes[1], touches[1]),
    )
    return JointGroup(joints[0].id, name, shown, *mates, joints)
