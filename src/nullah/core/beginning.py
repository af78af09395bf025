"""A new piece: a form at its usual sizes, round in the unit in which its maker thinks."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction

from nullah.core import actions
from nullah.core.ledger import Origin, QuantityKind
from nullah.core.lengths import Length, Unit, inch
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project

#: From how many inches on a usual size is put on which step of the rule, both in inches; what is less stays.
#: Common practice has no published source for it: it is how such sizes are said aloud.
_STEPS = (
    (Fraction(4), Fraction(1, 2)),
    (Fraction(1), Fraction(1, 4)),
    (Fraction(3, 8), Fraction(1, 8)),
    (Fraction(1, 8), Fraction(1, 16)),
)
#: From what size on a figure is one of the piece rather than of a joint, mm.
_LEAST = 25


def begun(project: Project, form: str) -> Project:
    """Return a project with a new piece of a form.

    Parameters
    ----------
    project : Project
        Its marks say in which unit; its piece is put away.
    form : str
        The form's id.
    """
    fresh = replace(project, piece=Piece(form), set_out=None)
    if project.marks.unit is not Unit.INCH:
        # The forms' own sizes are round in millimetres.
        return fresh
    ledger = work_out(fresh).ledger
    if ledger is None:
        return fresh
    usual = {
        name: quantity.length
        for name, quantity in ledger.quantities.items()
        if quantity.origin is Origin.GIVEN and quantity.definition.kind is QuantityKind.LENGTH
    }
    # Small figures of joints keep to their rules: only what a board is bought and planed to is said round.
    said = {name: each for name, each in usual.items() if each.mm >= _LEAST or name.endswith(".thickness")}
    rounded = {name: round_inches(length) for name, length in said.items()}
    return actions.give_all(fresh, {name: to for name, to in rounded.items() if to is not usual[name]})


def round_inches(length: Length) -> Length:
    """Return a length on the step of the rule on which one of about that size is said.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> round_inches(mm(360)).as_text(), round_inches(mm(15)).as_text()
    ('14 in', '5/8 in')
    """
    size = length.mm / Fraction(254, 10)
    step = next((step for least, step in _STEPS if size >= least), None)
    return length if step is None else inch(round(size / step) * step)
