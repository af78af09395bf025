"""What a rehearsal could not do as it was told."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.reader import Reader
from nullah.core.wording.task_titles import order_fault_words
from nullah.core.work.rehearsal import MadeAgain, NoOrder, NotFound, OutOfOrder, Refused


def refused_words(refused: Refused, reader: Reader) -> str:
    """Return what could not be done, as a sentence."""
    match refused:
        case MadeAgain(part):
            return reader.text(
                N_("{part} had to be made again: what was measured changed what was cut already."),
                part=reader.part(part),
            )
        case NotFound(quantity):
            return reader.text(
                N_("Nothing that stands then is as far apart as “{quantity}”."), quantity=reader.title(quantity)
            )
        case NoOrder():
            return reader.text(N_("There is no order in which all of it can be made."))
        case OutOfOrder(fault):
            return order_fault_words(fault, reader)
