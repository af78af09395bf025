"""What every type is asked at the bench: a kind of joint, the rule's marks, and the shop it is made in."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.joints.kinds import JointGroup
from nullah.core.lengths import Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import Shop

#: Less wood than this beside a channel breaks, mm (common practice).
THINNEST = 3.0


class AtBench(NamedTuple):
    """A kind of joint, and the shop it is made in."""

    kind: JointGroup
    marks: Marks
    shop: Shop


CHISEL_BITES = N_("Both hands behind the edge; pare towards the bench, never towards the hand that holds.")
KNIFE_BITES = N_("The knife moves away from the hand.")
SAW_BITES = N_("A saw starts with the thumb high and a light pull; hold what falls.")
