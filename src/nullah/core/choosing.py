"""Another choice for a piece that has its sizes already: what was typed stays, and so does how large the piece is."""

from __future__ import annotations

from collections.abc import Collection, Iterator
from dataclasses import replace

from nullah.core import actions
from nullah.core.beginning import rounded
from nullah.core.forms.sizing import SIZING
from nullah.core.ledger import Ledger, Value
from nullah.core.lengths import Length, entered
from nullah.core.plan import work_out
from nullah.core.project import Project

_INSIDE, _OUTSIDE, _CONTENTS = ".inside_", ".outside_", "contents."


def choose(project: Project, choice: str, option: str) -> Project:
    """Return a project with another option of a choice of its form.

    Usual sizes that were only put on round steps follow the choice: an apron that takes a drawer is wider. Who sizes a
    piece by its inside and not by its outside any more wants it no other than it was: what is given now follows from
    what was given before.

    Parameters
    ----------
    project : Project
    choice : str
        Its name.
    option : str
        The name of the option.
    """
    begun = _sizes_as_begun(project)
    after = _without(actions.choose(project, choice, option), begun)
    after = rounded(after) if begun else after
    before = _ledger(project) if choice == SIZING.name else None
    return after if before is None else _as_large(after, before)


def take_form(project: Project, form: str) -> Project:
    """Return a project whose piece is of another form, at its usual sizes, round in the unit shown.

    Parameters
    ----------
    project : Project
    form : str
        The form's id.
    """
    return rounded(actions.take_form(project, form))


def _sizes_as_begun(project: Project) -> set[str]:
    """Return the names of given sizes that are the usual ones, as they are where a piece begins."""
    given = dict(project.piece.given)
    usual = dict(rounded(_without(project, given)).piece.given) if given else {}
    return {name for name, value in given.items() if usual.get(name) == value}


def _without(project: Project, names: Collection[str]) -> Project:
    """Return a project in which some figures are not given."""
    given = tuple(pair for pair in project.piece.given if pair[0] not in names)
    return replace(project, piece=replace(project.piece, given=given))


def _as_large(project: Project, before: Ledger) -> Project:
    """Give the sizes by which a piece is sized now so that it is as large as it was before."""
    usual = _without(project, {name for name, _ in project.piece.given if _is_size(name, before)})
    now = _ledger(usual)
    if now is None:
        return usual
    sizes: dict[str, Value] = {}
    for name, inside in _given_sizes(now):
        if inside in before.quantities:
            length = before[inside] - (now[inside] - now[name])
            if length > 0:
                sizes[name] = entered(Length(length), project.marks.unit)
    return actions.give_all(usual, sizes)


def _given_sizes(ledger: Ledger) -> Iterator[tuple[str, str]]:
    """Yield the sizes by which a piece is sized, each with the name of the inside size that follows from it."""
    for name, quantity in ledger.quantities.items():
        if not _is_size(name, ledger) or quantity.definition.rule:
            continue
        if name.startswith(_CONTENTS):
            yield from (
                (name, inside) for inside in ledger.quantities if _INSIDE in inside and name in ledger.uses[inside]
            )
        else:
            yield name, name.replace(_OUTSIDE, _INSIDE)


def _is_size(name: str, ledger: Ledger) -> bool:
    """Return whether a figure is one of those by which a piece may be sized: it has an outside, and contents."""
    if name.startswith(_CONTENTS):
        return not name.endswith("clearance")
    return _OUTSIDE in name or (_INSIDE in name and name.replace(_INSIDE, _OUTSIDE) in ledger.quantities)


def _ledger(project: Project) -> Ledger | None:
    return work_out(project, milling=False, proving=False).ledger
