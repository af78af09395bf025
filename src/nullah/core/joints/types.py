"""All types of joint, the likeliest offered first. A new type is one more package and one line here."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench
from nullah.core.joints.breadboard import BREADBOARD
from nullah.core.joints.bridle import BRIDLE
from nullah.core.joints.butt import BUTT
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.joints.dowels import DOWELS
from nullah.core.joints.drawbored import DRAWBORED
from nullah.core.joints.finger import FINGER
from nullah.core.joints.haunched import HAUNCHED
from nullah.core.joints.lap import LAP
from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.mate_views import Hole
from nullah.core.joints.mitre import MITRE
from nullah.core.joints.sliding import SLIDING
from nullah.core.joints.tenon import TENON
from nullah.core.joints.tongue import TONGUE
from nullah.core.joints.tusk import TUSK

_EVERY: tuple[JointBase, ...] = (
    DOVETAIL,
    LET_IN,
    TONGUE,
    SLIDING,
    BRIDLE,
    TENON,
    HAUNCHED,
    DRAWBORED,
    TUSK,
    BREADBOARD,
    LAP,
    MITRE,
    FINGER,
    BUTT,
    DOWELS,
)
TYPES: dict[str, JointBase] = {each.id: each for each in _EVERY}


def cautions_of(at: AtBench) -> Iterator[Remark]:
    """Return what is to be minded at the bench of a kind of joint."""
    return TYPES[at.kind.joint.type.id].cautions(at)


def holes_of(at: AtBench) -> tuple[str, tuple[Hole, ...]]:
    """Return through which part of a joint nails or screws go, and where in its own measures."""
    return TYPES[at.kind.joint.type.id].holes(at)
