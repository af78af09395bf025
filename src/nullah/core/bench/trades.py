"""Sorts of work."""

from __future__ import annotations

from enum import Enum

from nullah.core.catalogue import N_


class Trade(Enum):
    """What sort of work a task is, in the order in which a piece is made."""

    DRY = N_("let it dry")
    SAW = N_("saw out")
    MILL = N_("mill")
    JOINT = N_("joint")
    MEASURE = N_("measure")
    FIT = N_("cut to fit")
    SHAPE = N_("shape")
    SMOOTH = N_("smooth")
    GLUE = N_("glue up")
    PUT_IN = N_("put in")
    CLEAN = N_("clean up")
    HARDWARE = N_("fit hardware")
    FINISH = N_("finish")


#: Work that is done to parts already glued.
AFTER_GLUE = frozenset({Trade.CLEAN, Trade.FINISH, Trade.PUT_IN, Trade.MEASURE, Trade.GLUE, Trade.HARDWARE})
