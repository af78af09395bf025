"""The dovetailed corner at true scale, with the settings to take to the bench."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Card, Remark, Severity
from nullah.core.drawing import Anchor, Dimension, Drawing, Element, Label, Role, drawing
from nullah.core.joints import views
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.plan import NoneDovetailed, Plan, corner_problem
from nullah.core.refs import QuantityRef
from nullah.core.stations.piece import why
from nullah.core.stations.selection import Selection
from nullah.core.wording.corners import corner_title, sharp_remark, traced_remark, view_titles, why_step
from nullah.core.wording.joint_steps import overshoot_words
from nullah.core.wording.operations import operation_settings, step_words
from nullah.core.work.joint_work import steps_of_corner, told_wrongly


def draw_corner(plan: Plan, selection: Selection, corner: Corner | None) -> Drawing:
    """Draw a corner: tail board's face, pin board's end and inside face."""
    if corner is None or corner.layout.tail.mm <= 0:
        return Drawing()
    tail_id, pin_id = _selected_boards(corner, selection)
    tail, pin = plan.part(tail_id), plan.part(pin_id)
    if tail is None or pin is None:
        return Drawing()
    layout = corner.layout
    show = max(60.0, 3.2 * float(layout.gauge_tail_board))
    levels = corner.groove[:2] if corner.groove else ()
    face = drawing(views.tail_board_face(layout, show, levels, plan.species_of(tail), tail.id))
    marks = drawing(
        views.mark_dimensions(layout, plan.marks, corner.prefix, _states(plan, corner)),
        views.divider_pricks(layout, overshoot_words(layout.spec, plan.reader)),
    )
    height = float(layout.spec.width)
    gap = 0.42 * height + 30
    end = drawing(views.pin_board_end(layout, plan.species_of(pin), pin.id)).moved(gap, 0)
    inside_at = gap + float(layout.spec.pin_thickness) + 0.2 * height + 14
    inside = drawing(views.pin_board_face(layout, show, levels, plan.species_of(pin), pin.id)).moved(inside_at, 0)
    words = drawing(_words(plan, corner, tail.name, pin.name, show, gap, inside_at))
    return face + end + inside + marks + words


def _states(plan: Plan, corner: Corner) -> tuple[tuple[str, str], ...]:
    if plan.ledger is None:
        return ()
    names = [f"{corner.prefix}.{figure}" for figure in ("half_pin", "width", "pin", "step")]
    known = plan.ledger.quantities
    return tuple((name, known[name].origin.value) for name in names if name in known)


def _words(
    plan: Plan, corner: Corner, tail: str, pin: str, show: float, gap: float, inside: float
) -> Iterator[Element]:
    layout = corner.layout
    height, thick = float(layout.spec.width), float(layout.spec.pin_thickness)
    base = float(layout.gauge_tail_board)
    outside, end, inner = view_titles(tail, pin, plan.reader)
    yield Label((-show, height), outside, 3.0, Anchor.START, Role.FAINT, nudge_mm=(-12, 5))
    yield Label((gap + thick / 2, height), end, 3.0, role=Role.FAINT, nudge_mm=(0, 5))
    yield Label((inside + show / 2, height), inner, 3.0, role=Role.FAINT, nudge_mm=(0, 5))
    write = plan.marks.write_setting
    yield Dimension(
        (-base, 0), (0, 0), write(layout.gauge_tail_board), 5, ref=QuantityRef(f"{corner.prefix}.gauge_tail_board")
    )
    gauge = float(layout.gauge_pin_board)
    yield Dimension(
        (inside, 0),
        (inside + gauge, 0),
        write(layout.gauge_pin_board),
        5,
        ref=QuantityRef(f"{corner.prefix}.gauge_pin_board"),
    )
    yield Dimension((-show, height), (-show, 0), plan.marks.write(layout.spec.width), 5)


def _selected_boards(corner: Corner, selection: Selection) -> tuple[str, str]:
    """Return the tail and pin board to show: the part in hand and its mate."""
    tail = selection.part if selection.part in corner.tail_boards else corner.tail_boards[0]
    pin = selection.part if selection.part in corner.pin_boards else corner.pin_boards[0]
    return tail, pin


def corner_card(plan: Plan, selection: Selection, corner: Corner | None) -> Card:
    """Return what to set and do at a corner."""
    if corner is None:
        problem = corner_problem(plan)
        weight = Severity.NOTE if plan.parts and isinstance(problem, NoneDovetailed) else Severity.FAILURE
        return Card(corner_title(plan.reader), mind=(Remark(problem, weight),))
    steps = steps_of_corner(plan, corner)
    operations = [each for step in steps for each in step.operations]
    return Card(
        corner_title(plan.reader),
        operation_settings(operations, plan.reader),
        tuple(step_words(step, plan.reader) for step in steps),
        (*told_wrongly(plan, operations), *corner.remarks, *_by_hand(plan, corner), sharp_remark(plan.reader)),
        why(plan, selection) or (why_step(corner.layout.step, plan.reader),),
    )


def _by_hand(plan: Plan, corner: Corner) -> Iterator[Remark]:
    """Say what chances hands have at it; once the numerical libraries are there."""
    if plan.milling is None or corner.layout.tail_base.mm <= 0:
        return
    from nullah.core.joints.tolerance import dovetail

    found = dovetail(corner.layout.spec.tails, plan.project.shop.hands, 2000)
    if found.far_better:
        yield traced_remark(found.traced.good, found.drawing.good, plan.reader)
