"""Butt joint: two parts that only touch, glued, nailed or screwed."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.catalogue import N_
from nullah.core.joints.base import JointBase
from nullah.core.joints.bench import AtBench, Told
from nullah.core.joints.mate_views import Hole
from nullah.core.piece.cuts import Removal
from nullah.core.piece.joint import Hold, Joint, Offered
from nullah.core.piece.overlap import contact
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box


class Butt(JointBase):
    """Two parts against each other."""

    id = N_("butt")
    offer = N_("Against each other, {hold}")
    touches = True
    in_boxes = False

    def name(self, joint: Joint, first: Part, second: Part) -> str:
        """Return it with what holds it."""
        return f"butt joint, {joint.hold.value}"

    def cut(self, joint: Joint, first: Part, second: Part, is_first: bool) -> Removal | None:
        """Return None: it takes nothing."""
        return None

    def offered(self, first: Part, second: Part, overlap: Box | None) -> Iterator[Offered]:
        """Yield what could hold two parts that touch."""
        if overlap is None and contact(first, second) is not None:
            for hold in (Hold.GLUE, Hold.NAILS, Hold.SCREWS, Hold.SLOTS):
                yield Offered(first, second, hold=hold)

    def told(self, at: AtBench) -> Told | None:
        """Return how it is held."""
        from nullah.core.joints.butt.bench import told

        return told(at)

    def holes(self, at: AtBench) -> tuple[str, tuple[Hole, ...]]:
        """Return where nails or screws go."""
        from nullah.core.joints.butt.bench import holes

        return holes(at)


BUTT = Butt()
