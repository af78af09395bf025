"""What takes long of a plan, worked out before stations are asked for it."""

from __future__ import annotations

from nullah.core.bits import Bits
from nullah.core.joints.kinds import kinds_in_bits
from nullah.core.plan import Plan
from nullah.core.work.seasons import season_in_bits


def work_out_in_bits(plan: Plan) -> Bits[None]:
    """Work out bit by bit what cards and states of stations ask of a plan: they find it there."""
    yield from plan.bit_by_bit()
    yield from kinds_in_bits(plan.assembly)
    yield from season_in_bits(plan)
