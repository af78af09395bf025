"""What differs between two states of a piece, in words."""

from __future__ import annotations

from nullah.core.catalogue import N_
from nullah.core.differences import Difference, Subject, differences
from nullah.core.forms import FORMS
from nullah.core.ledger import Ledger
from nullah.core.project import Project
from nullah.core.reader import Reader

_FIELDS = {
    "allowances": N_("allowances"),
    "shop": N_("tools and ways of working"),
    "cut_first": N_("what is sawn first"),
    "first_cuts": N_("what is sawn first"),
    "lows_left": N_("lows that are left"),
    "asks": N_("what is asked of the wood"),
    "staves": N_("parts made of staves"),
    "resawn": N_("resawn parts"),
    "wishes": N_("what the search weighs"),
    "flawed_share": N_("the share of wood that is wasted"),
    "room": N_("the room"),
    "climate": N_("the climate"),
    "finish": N_("the finish"),
    "working": N_("hours and helpers"),
    "woods": N_("woods"),
    "holds": N_("how joints are held"),
    "own_joints": N_("joints of one's own"),
    "spacings": N_("how tails are spaced"),
    "rows": N_("nails and screws"),
}


def difference_words(before: Project, after: Project, ledger: Ledger | None, reader: Reader, most: int = 4) -> str:
    """Return what differs in a line, such as “height 300 mm → 320 mm; board Ford 2 added; and 3 more”."""
    told = list(dict.fromkeys(_words(each, ledger, after, reader) for each in differences(before, after)))
    if not told:
        return reader.text("Nothing differs.")
    more = len(told) - most
    if more > 0:
        told[most:] = [reader.text("and {n} more", n=more)]
    return "; ".join(told)


def _words(each: Difference, ledger: Ledger | None, after: Project, reader: Reader) -> str:
    values = {"before": each.before, "after": each.after}
    match each.subject:
        case Subject.NAME:
            return reader.text("name {before} → {after}", **values)
        case Subject.FORM:
            forms = {when: _form(form, reader) for when, form in values.items()}
            return reader.text("form {before} → {after}", **forms)
        case Subject.CHOICE | Subject.GIVEN:
            usual = reader.text("as usual")
            return f"{_title(each, ledger, after, reader)} {each.before or usual} → {each.after or usual}"
        case Subject.MEASURED:
            return reader.text(
                "{title} measured: {before} → {after}",
                title=_title(each, ledger, after, reader),
                before=each.before or reader.text("not yet"),
                after=each.after or reader.text("no longer"),
            )
        case Subject.BOARD | Subject.OWN_BOARD:
            message = (
                N_("board {name} added")
                if not each.before
                else N_("board {name} removed")
                if not each.after
                else N_("board {name} changed")
            )
            return reader.text(message, name=each.after or each.before)
        case Subject.BOOK:
            return reader.text("Day Book {before} → {after} entries", **values)
        case Subject.PLACES:
            return reader.text("parts laid elsewhere")
        case Subject.PIECE | Subject.REST:
            return reader.text(_FIELDS.get(each.name, each.name))


def _title(each: Difference, ledger: Ledger | None, after: Project, reader: Reader) -> str:
    if each.subject is Subject.CHOICE:
        found = next((choice for choice in FORMS[after.piece.form].choices if choice.name == each.name), None)
        return reader.text(found.title).lower() if found is not None else each.name
    if ledger is not None and each.name in ledger.quantities:
        return reader.text(ledger.quantity(each.name).definition.title)
    return each.name


def _form(form: str, reader: Reader) -> str:
    return reader.text(FORMS[form].title).lower() if form in FORMS else form
