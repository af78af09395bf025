"""What differs between two states of a piece, in words."""

from __future__ import annotations

from nullah.core.differences import Difference, Subject, differences
from nullah.core.forms import FORMS
from nullah.core.ledger import Ledger
from nullah.core.project import Project

_FIELDS = {
    "allowances": "allowances", "shop": "tools and ways of working", "cut_first": "what is sawn first",
    "first_cuts": "what is sawn first", "lows_left": "lows that are left", "asks": "what is asked of the wood",
    "staves": "parts made of staves", "resawn": "resawn parts", "wishes": "what the search weighs",
    "flawed_share": "the share of wood that is wasted", "room": "the room", "climate": "the climate",
    "finish": "the finish", "working": "hours and helpers", "woods": "woods", "holds": "how joints are held",
    "own_joints": "joints of one's own", "spacings": "how tails are spaced", "rows": "nails and screws",
}  # fmt: skip


def in_words(before: Project, after: Project, ledger: Ledger | None, most: int = 4) -> str:
    """Return what differs in a line, such as “height 300 mm → 320 mm; board Ford 2 added; and 3 more”."""
    told = list(dict.fromkeys(_words(each, ledger, after) for each in differences(before, after)))
    if not told:
        return "Nothing differs."
    more = len(told) - most
    return "; ".join(told[:most]) + (f"; and {more} more" if more > 0 else "")


def _words(each: Difference, ledger: Ledger | None, after: Project) -> str:
    title = each.name
    if ledger is not None and each.name in ledger.quantities:
        title = ledger.quantity(each.name).definition.title
    if each.subject is Subject.CHOICE:
        found = next((choice for choice in FORMS[after.piece.form].choices if choice.name == each.name), None)
        title = found.title.lower() if found is not None else each.name
    match each.subject:
        case Subject.NAME:
            return f"name {each.before} → {each.after}"
        case Subject.FORM:
            return f"form {_form(each.before)} → {_form(each.after)}"
        case Subject.CHOICE | Subject.GIVEN:
            return f"{title} {each.before or 'as usual'} → {each.after or 'as usual'}"
        case Subject.MEASURED:
            return f"{title} measured: {each.before or 'not yet'} → {each.after or 'no longer'}"
        case Subject.BOARD | Subject.OWN_BOARD:
            what = "added" if not each.before else "removed" if not each.after else "changed"
            return f"board {each.after or each.before} {what}"
        case Subject.BOOK:
            return f"Day Book {each.before} → {each.after} entries"
        case Subject.PLACES:
            return "parts laid elsewhere"
        case Subject.PIECE | Subject.REST:
            return _FIELDS.get(each.name, each.name)


def _form(form: str) -> str:
    return FORMS[form].title.lower() if form in FORMS else form
