"""A new piece: a form at its usual sizes, round in the unit in which its maker thinks."""

from __future__ import annotations

from dataclasses import replace

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.fixes import MoveGroove
from nullah.core.ledger import Origin, QuantityKind, Value
from nullah.core.lengths import Length, entered, round_size, round_weight
from nullah.core.my_shop import MyShop, planned_with, same_shop, shop_of, usual_shop
from nullah.core.plan import Plan, work_out
from nullah.core.project import Piece, Project

#: What is smaller is a figure of a joint rather than of the piece, mm.
_SMALL = 25
#: How far one thing goes into another stays: it hangs on the thickness of both, and is gauged to the mark anyway.
_DEPTHS = ("depth", "tenon", "tongue")


def begun(project: Project, form: str) -> Project:
    """Return a project with a new piece of a form.

    Parameters
    ----------
    project : Project
        Its marks say in which unit; its piece is put away. A shop that nobody has told of has tools as they are sold
        in that unit.
    form : str
        The form's id.
    """
    fresh = replace(project, piece=Piece(form, name=project.marks.catalogue.text(Piece().name)), set_out=None)
    if same_shop(shop_of(fresh), MyShop()):
        fresh = planned_with(fresh, usual_shop(project.marks.unit))
    return rounded(fresh)


def rounded(project: Project) -> Project:
    """Return a project whose piece has its usual sizes on the steps on which such are said in the unit shown.

    What was given stays as it is; so does what cannot be rounded without harm, such as a groove that would no longer
    run out inside a tail.
    """
    ledger = _planned(project).ledger
    if ledger is None:
        return project
    unit, given = project.marks.unit, dict(project.piece.given)
    said: dict[str, Value] = {}
    for name, quantity in ledger.quantities.items():
        kind = quantity.definition.kind
        if quantity.origin is not Origin.GIVEN or name in given:
            continue
        if kind is QuantityKind.WEIGHT and (weight := round_weight(quantity.value, unit)):
            said[name] = weight
        if kind is not QuantityKind.LENGTH or (quantity.length.mm < _SMALL and name.endswith(_DEPTHS)):
            continue
        length = entered(round_size(quantity.length, unit), unit)
        if length.mm != quantity.length.mm:
            said[name] = length
    return _grooves_inside(_without_harm(project, said))


def _grooves_inside(project: Project) -> Project:
    """Move a usual groove that would show at a corner: put on round steps and marks, tails are where they are."""
    plan = _planned(project)
    for remark in plan.remarks:
        for fix in remark.fixes:
            if isinstance(fix, MoveGroove) and fix.quantity not in dict(project.piece.given):
                moved = actions.give(project, fix.quantity, entered(fix.height, project.marks.unit))
                if _faults(moved) < _faults(project):
                    return moved
    return project


def _without_harm(project: Project, said: dict[str, Value]) -> Project:
    """Give all figures, or, where that does harm, the large ones, and of the small ones those that do none."""
    bearable = _faults(project)
    whole = actions.give_all(project, said)
    if _faults(whole) <= bearable:
        return whole
    small = {name: value for name, value in said.items() if isinstance(value, Length) and value.mm < _SMALL}
    found = actions.give_all(project, {name: value for name, value in said.items() if name not in small})
    for name, value in small.items():
        further = actions.give_all(found, {name: value})
        found = further if _faults(further) <= bearable else found
    return found


def _faults(project: Project) -> int:
    return sum(remark.weight is not Severity.NOTE for remark in _planned(project).remarks)


def _planned(project: Project) -> Plan:
    return work_out(project, milling=False, proving=False)
