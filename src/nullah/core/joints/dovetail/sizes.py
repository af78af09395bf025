"""The figures of a dovetailed corner, as the ledger keeps them."""

from __future__ import annotations

from nullah.core.catalogue import N_, Phrase
from nullah.core.fraction import Fraction
from nullah.core.ledger import Definition, QuantityKind, Snap, given, ruled
from nullah.core.lengths import Slope


def tail_sizes(
    prefix: str,
    tail: str,
    pin: str,
    width: str,
    count: int,
    what: str = "",
    pin_width: str = "6",
    lap: str = "",
    proud: str = "",
) -> tuple[Definition, ...]:
    """Declare the figures of a dovetailed corner.

    Parameters
    ----------
    prefix : str
        Of the quantities' names.
    tail, pin, width : str
        Rules for the thickness of the tail and of the pin boards, and the width they share.
    count : int
        Number of tails, unless another is given.
    what : str
        Where they are, in words, such as ``of the drawers``.
    lap : str
        Rule for what is left of the pin board outside the tails (half-blind); none: through.
    proud : str
        The quantity of what the ends of these boards are left long, declared here where it has this
        prefix; none: their ends are cut to length.
    """

    def title(message: str) -> str:
        return Phrase("{title} {where}", title=message, where=what) if what else message

    long = f"{pin} - {lap}" if lap else pin
    narrow = (
        Phrase("pin between tails {where}, at its narrow side", where=what)
        if what
        else N_("pin between tails, at its narrow side")
    )
    own_proud = proud == f"{prefix}.proud"
    more = f" + {proud}" if proud else ""
    return (
        given(f"{prefix}.count", title(N_("number of tails")), count, QuantityKind.COUNT),
        given(f"{prefix}.slope", title(N_("slope of the tails")), Slope(Fraction(7)), QuantityKind.SLOPE),
        ruled(f"{prefix}.half_pin", title(N_("half-pin at each edge")), f"{tail} / 2", snap=Snap.MARK),
        given(f"{prefix}.pin", narrow, pin_width),
        *([given(proud, title(N_("end grain left proud")), "0.5", snap=Snap.NOTHING)] if own_proud else []),
        ruled(
            f"{prefix}.step",
            title(N_("divider step")),
            f"({width} - 2 * {prefix}.half_pin + {prefix}.pin) / {prefix}.count",
        ),
        ruled(f"{prefix}.width", title(N_("tail at the end of its board")), f"{prefix}.step - {prefix}.pin"),
        ruled(f"{prefix}.gauge_tail_board", title(N_("gauge for the tail boards")), f"{long}{more}"),
        ruled(f"{prefix}.gauge_pin_board", title(N_("gauge for the pin boards")), f"{tail}{more}"),
    )
