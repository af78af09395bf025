"""A new piece: a form at its usual sizes, round in the unit in which its maker thinks."""

from __future__ import annotations

from dataclasses import replace

from nullah.core import actions
from nullah.core.ledger import Origin, QuantityKind
from nullah.core.lengths import entered, round_size
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project

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
    unit = project.marks.unit
    rounded = {name: entered(round_size(length, unit), unit) for name, length in said.items()}
    return actions.give_all(fresh, {name: to for name, to in rounded.items() if to.mm != usual[name].mm})
