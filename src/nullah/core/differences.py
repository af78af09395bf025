"""What differs between two states of a project, as facts: for earlier versions, kept work, others at the same file."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import fields
from enum import Enum
from typing import Any

from nullah.core.catalogue import N_
from nullah.core.ledger import Measured
from nullah.core.lengths import Length, Slope, Weight
from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Piece, Project


class Subject(Enum):
    """What a difference is about; the value is how it is said where nothing more is known of it."""

    NAME = N_("name")
    FORM = N_("form")
    CHOICE = N_("choice")
    GIVEN = N_("figure")
    MEASURED = N_("measurement")
    BOARD = N_("board")
    OWN_BOARD = N_("board of one's own")
    BOOK = N_("entries of the Day Book")
    PLACES = N_("places of parts on boards")
    PIECE = N_("the piece")
    REST = N_("the rest")


class Difference(NamedTuple):
    """One thing that is another, new, or gone.

    Parameters
    ----------
    subject : Subject
    name : str
        Which: of a quantity, a choice, a board; of the field where the subject is the rest.
    before, after : str
        As written; empty where it was not, or is no longer, there.
    """

    subject: Subject
    name: str
    before: str
    after: str


def differences(before: Project, after: Project) -> tuple[Difference, ...]:
    """Return what differs between two projects; what is only shown otherwise (the unit) is none.

    Examples
    --------
    >>> from nullah.core.actions import rename
    >>> differences(Project(), rename(Project(), "Seed box"))
    (Difference(subject=<Subject.NAME: 'name'>, name='', before='New piece', after='Seed box'),)
    """
    return tuple((*_of_piece(before.piece, after.piece), *_of_project(before, after)))


def _of_piece(before: Piece, after: Piece) -> Iterator[Difference]:
    if before.name != after.name:
        yield Difference(Subject.NAME, "", before.name, after.name)
    if before.form != after.form:
        yield Difference(Subject.FORM, "", before.form, after.form)
    yield from _of_pairs(Subject.CHOICE, dict(before.choices), dict(after.choices))
    yield from _of_pairs(Subject.GIVEN, dict(before.given), dict(after.given))
    yield from _of_pairs(Subject.MEASURED, dict(before.measured), dict(after.measured))
    yield from _of_pairs(Subject.OWN_BOARD, {b.id: b for b in before.own}, {b.id: b for b in after.own})
    told = {"name", "form", "choices", "given", "measured", "own"}
    for each in fields(Piece):
        if each.name not in told and getattr(before, each.name) != getattr(after, each.name):
            yield Difference(Subject.PIECE, each.name, "", "")


def _of_project(before: Project, after: Project) -> Iterator[Difference]:
    yield from _of_pairs(Subject.BOARD, {b.id: b for b in before.boards}, {b.id: b for b in after.boards})
    if before.layout != after.layout:
        moved = len(set(before.layout) ^ set(after.layout))
        yield Difference(Subject.PLACES, "", "", str(moved))
    if before.book != after.book:
        yield Difference(Subject.BOOK, "", str(len(before.book)), str(len(after.book)))
    told = {"piece", "boards", "layout", "book", "marks", "timer"}
    for each in fields(Project):
        if each.name not in told and getattr(before, each.name) != getattr(after, each.name):
            yield Difference(Subject.REST, each.name, "", "")


def _of_pairs(subject: Subject, before: Mapping[str, Any], after: Mapping[str, Any]) -> Iterator[Difference]:
    for name in dict.fromkeys((*before, *after)):
        old, new = before.get(name), after.get(name)
        if old != new:
            yield Difference(subject, name, _written(old), _written(new))


def _written(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, Measured):
        value = value.value
    if isinstance(value, str | int):
        return str(value)
    return value.as_text() if isinstance(value, Length | Slope | Weight) else str(getattr(value, "name", "")) or "it"
