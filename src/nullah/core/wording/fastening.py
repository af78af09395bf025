"""What is said of operations of nails, screws and pegs."""

from __future__ import annotations

from collections.abc import Sequence

from nullah.core.card import Setting
from nullah.core.catalogue import N_
from nullah.core.joints.fasteners import SoldSize
from nullah.core.joints.rows import Row
from nullah.core.lengths import write_bought
from nullah.core.operations.fastening import Bore, BoreSlots, SetOutRow, TracePlaces
from nullah.core.operations.operation import Operation
from nullah.core.reader import Reader
from nullah.core.wording.tools import ends_words, figure_words, mates_words, origin_words, parts_words

#: What is said of slots, by whether one place stays put, and by whether they lie along the part.
_SLOTS = {
    (True, True): N_(
        "At place {place} make slots along {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
    (True, False): N_(
        "At place {place} make slots across {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
    (False, True): N_(
        "At each place make a slot along {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
    (False, False): N_(
        "At each place make a slot across {parts}: two holes of {bit}, {slot} apart, the wood between chopped out."
    ),
}


def fastened_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return how a row is set out, traced or bored."""
    parts = parts_words(alike, reader)
    made = alike[0]
    match made:
        case SetOutRow():
            rows = {each.row.origin for each in alike if isinstance(each, SetOutRow)}
            values = {
                "parts": parts,
                "row": figure_words(made.row, reader),
                "beside": ends_words(rows, reader),
                "first": figure_words(made.first, reader),
                "last": figure_words(made.last, reader) if made.last is not None else "",
                "low": origin_words(made.first, reader),
                "high": origin_words(made.last, reader) if made.last is not None else "",
            }
            if made.count == 2:
                return reader.text(
                    "On {parts} draw a row {row} from the {beside}; mark two places on it, {first} from the {low} and "
                    "{last} from the {high}.",
                    **values,
                )
            return reader.count(
                made.count,
                "On {parts} draw a row {row} from the {beside}; mark one place on it, {first} from the {low}.",
                "On {parts} draw a row {row} from the {beside}; mark {n} places on it: the first {first} from the "
                "{low}, the last {last} from the {high}, the others evenly between.",
                **values,
            )
        case TracePlaces(points=True):
            return reader.text(
                "Put dowel points into the holes of {mate}, hold it where it will be and press: they mark the places "
                "on {parts}.",
                mate=mates_words(alike, reader),
                parts=parts,
            )
        case TracePlaces():
            mates = {each.mate for each in alike if isinstance(each, TracePlaces)}
            return reader.count(
                len(mates),
                "Hold {mate} where it will be and mark through its holes on {parts}.",
                "Hold {mate} where they will be and mark through their holes on {parts}.",
                mate=mates_words(alike, reader),
                parts=parts,
            )
        case Bore():
            said = {each.name: figure_words(each, reader) for each in made.settings}
            message = (
                N_("Bore {bit} at each place, {depth} deep, in {parts}.")
                if made.depth is not None
                else N_("Bore {bit} through {parts} at each place, and countersink to {head}.")
                if made.head is not None
                else N_("Bore {bit} through {parts} at place {place} of the row, where it stays put.")
                if made.stays
                else N_("Bore {bit} through {parts} at each place.")
            )
            return reader.text(
                message,
                bit=said["bit"],
                depth=said.get("depth", ""),
                head=said.get("countersink", ""),
                parts=parts,
                place=reader.listed(str(place.number) for place in made.places),
            )
        case BoreSlots():
            message = _SLOTS[made.stays, made.along == 0]
            bit, slot = (figure_words(each, reader) for each in made.settings)
            place = reader.listed(str(place.number) for place in made.places)
            return reader.text(message, bit=bit, slot=slot, parts=parts, place=place)
    raise TypeError(f"nothing is said of {type(made).__name__}")


def fastening_settings(row: Row, reader: Reader) -> tuple[Setting, ...]:
    """Return which nails or screws a row wants, as the card shows it: length, thickness, how many."""
    size = row.fastening.size
    note = reader.count(
        len(row.places), "{thick} thick, one in the row", "{thick} thick, {n} in the row", thick=thickness_words(size)
    )
    name = reader.text(N_("Screws") if row.fastening.screws else N_("Nails"))
    return (Setting(name, write_bought(size.long), note),)


def thickness_words(size: SoldSize) -> str:
    """Return how thick a nail or screw is, by its number where it is sold so."""
    return f"{size.gauge}, {write_bought(size.thick)}" if size.gauge else write_bought(size.thick)


def size_words(size: SoldSize, reader: Reader) -> str:
    """Return a nail or screw as one is asked for where it is sold."""
    thick = size.gauge or write_bought(size.thick)
    return reader.text(N_("{long} × {thick}"), long=write_bought(size.long), thick=thick)
