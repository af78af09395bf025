"""Rabbet, dado and groove by themselves: told as for a piece, in the shop there is."""

from __future__ import annotations

from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.made_up.boards import LONG, StandaloneJoint, board, box, in_mm, need
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import Part
from nullah.core.piece.space import Box


def dado(wide: float, thick: float, guest: float, deep: float, stop: float) -> StandaloneJoint:
    """House a board across the grain, right through or stopped before the reference edge."""
    need(0 < deep < thick, f"The dado must be less deep than the {in_mm(thick)} board; a third is the limit.")
    need(0 <= stop < wide, "The stop leaves nothing of the dado.")
    x = (LONG - guest) / 2
    host = board("housed board", 1, (0, 0, 0), (LONG, wide, thick), "xz")
    shelf = board("shelf", 2, (x, 0, thick - deep), (x + guest, wide, thick + 90), "zx")
    channel = box((x, stop, thick - deep), (x + guest, wide, thick))
    return StandaloneJoint(Assembly((host, shelf), (_let_in(host, shelf, channel, Hold.GLUE),)), None)


def rabbet(wide: float, thick: float, guest: float, deep: float) -> StandaloneJoint:
    """Sink a board's edge into a step along another's."""
    need(0 < deep < thick, f"The rabbet must be less deep than the {in_mm(thick)} board; half is the limit.")
    need(0 < guest < wide, "The board that sits in it is thicker than the other is wide.")
    host = board("rabbeted board", 1, (0, 0, 0), (LONG, wide, thick), "xz")
    back = board("back", 2, (0, wide - guest, thick - deep), (LONG, wide, thick + 80), "xy")
    channel = box((0, wide - guest, thick - deep), (LONG, wide, thick))
    return StandaloneJoint(Assembly((host, back), (_let_in(host, back, channel, Hold.NAILS),)), None)


def groove(wide: float, thick: float, panel: float, deep: float, up: float) -> StandaloneJoint:
    """Plough a groove along a board, and let a panel lie in it."""
    need(0 < deep < thick, f"The groove must be less deep than the {in_mm(thick)} board; a third is the limit.")
    need(up + panel < wide, "The groove runs out of the board.")
    host = board("grooved board", 1, (0, 0, 0), (LONG, wide, thick), "xz")
    inside = board("panel", 2, (0, up, thick - deep), (LONG, up + panel, thick + 80), "zy")
    channel = box((0, up, thick - deep), (LONG, up + panel, thick))
    return StandaloneJoint(Assembly((host, inside), (_let_in(host, inside, channel, Hold.DRY),)), None)


def _let_in(host: Part, guest: Part, channel: Box, hold: Hold) -> Joint:
    return Joint("let-in", LET_IN, host.id, guest.id, hold, (channel,), (channel,))
