"""The dovetailed corner at true scale, with the settings to take to the bench."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Card, Remark, Setting, Weight
from nullah.core.drawing import Anchor, Dimension, Drawing, Element, Label, Role, drawing
from nullah.core.joints import views
from nullah.core.joints.corners import Corner
from nullah.core.lengths import Direction, Length, abs_length
from nullah.core.plan import Plan, corner_problem
from nullah.core.stations.corner_steps import corner_steps
from nullah.core.stations.piece import why
from nullah.core.stations.station import Hand

_SHARP = Remark("Sharp chisels, both hands behind the edge; the knife moves away from the hand.")


def draw_corner(plan: Plan, hand: Hand, corner: Corner | None) -> Drawing:
    """Draw a corner: tail board's face, pin board's end and inside face."""
    if corner is None or corner.layout.tail.mm <= 0:
        return Drawing()
    tail_id, pin_id = _boards_in_hand(corner, hand)
    tail, pin = plan.part(tail_id), plan.part(pin_id)
    if tail is None or pin is None:
        return Drawing()
    layout = corner.layout
    show = max(60.0, 3.2 * float(layout.gauge_tail_board))
    levels = corner.groove[:2] if corner.groove else ()
    face = drawing(views.tail_board_face(layout, show, levels, plan.species_of(tail), tail.id))
    marks = drawing(
        views.mark_dimensions(layout, plan.marks, corner.prefix, _states(plan, corner)),
        views.divider_pricks(layout, plan.marks),
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


def _words(plan: Plan, corner: Corner, tail: str, pin: str, show: float, gap: float, inside: float
           ) -> Iterator[Element]:  # fmt: skip
    layout = corner.layout
    height, thick = float(layout.spec.width), float(layout.spec.pin_thickness)
    base = float(layout.gauge_tail_board)
    yield Label((-show, height), f"{tail}: tails, outside face", 3.0, Anchor.START, Role.FAINT, nudge_mm=(-12, 5))
    yield Label((gap + thick / 2, height), f"{pin}: end", 3.0, role=Role.FAINT, nudge_mm=(0, 5))
    yield Label((inside + show / 2, height), f"{pin}: pins, inside face", 3.0, role=Role.FAINT, nudge_mm=(0, 5))
    write = plan.marks.write_setting
    yield Dimension((-base, 0), (0, 0), write(layout.gauge_tail_board), 5, of=f"{corner.prefix}.gauge_tail_board")
    gauge = float(layout.gauge_pin_board)
    yield Dimension(
        (inside, 0), (inside + gauge, 0), write(layout.gauge_pin_board), 5, of=f"{corner.prefix}.gauge_pin_board"
    )
    yield Dimension((-show, height), (-show, 0), plan.marks.write(layout.spec.width), 5)


def _boards_in_hand(corner: Corner, hand: Hand) -> tuple[str, str]:
    """Give the tail and pin board to show: the part in hand and its mate."""
    tail = hand.part if hand.part in corner.tail_boards else corner.tail_boards[0]
    pin = hand.part if hand.part in corner.pin_boards else corner.pin_boards[0]
    return tail, pin


def corner_card(plan: Plan, hand: Hand, corner: Corner | None) -> Card:
    """Give what to set and do at a corner."""
    marks = plan.marks
    if corner is None:
        dovetailed = any(joint.tails for joint in plan.assembly.joints) or not plan.parts
        return Card("The corner", mind=(Remark(corner_problem(plan), Weight.FAILS if dovetailed else Weight.NOTE),))
    return Card(
        "The corner", corner_settings(plan, corner), tuple(step.text for step in corner_steps(plan, corner)),
        (*corner.remarks, *_by_hand(plan, corner), _SHARP),
        why(plan, hand) or _why_step(plan, marks.write_fine(corner.layout.step)),
    )  # fmt: skip


def _by_hand(plan: Plan, corner: Corner) -> Iterator[Remark]:
    """Say what chances hands have at it; once the numerical libraries are there."""
    if plan.milling is None or corner.layout.tail_base.mm <= 0:
        return
    from nullah.core.joints.tolerance import dovetail

    found = dovetail(corner.layout.spec.tails, plan.project.shop.hands, 2000)
    if found.far_better:
        yield Remark(
            f"Trace the pins from the tails: of 100 corners about {found.traced.good * 100:.0f} then close at once, "
            f"laid out from the drawing about {found.drawing.good * 100:.0f} (hands as under Ways of working)."
        )


def _why_step(plan: Plan, step: str) -> tuple[str, ...]:
    return (
        f"Divider step {step} = (width − 2 half-pins + pin) ÷ tails: from one half-pin line, as many steps as "
        "there are tails overshoot the other by the pin.",
    )


def corner_settings(plan: Plan, corner: Corner) -> tuple[Setting, ...]:
    """Give what to set for a corner: dividers, gauges, bevel, chisels."""
    prefix = corner.prefix
    layout = corner.layout
    spec = layout.spec
    # Proud end grain is planed flush, so more is safe; shy boards are planed, so less is.
    way = Direction.UP if spec.proud.mm > 0 else Direction.DOWN if spec.proud.mm < 0 else Direction.NEAREST
    settings = [
        _dividers(plan, corner),
        Setting("Bevel", spec.slope.as_text(), f"{spec.slope.degrees:.1f}° from square", of=f"{prefix}.slope"),
        _set(
            plan, "Gauge, tails", layout.gauge_tail_board, _proud(plan, spec.proud), f"{prefix}.gauge_tail_board", way
        ),
        _set(plan, "Gauge, pins", layout.gauge_pin_board, _proud(plan, spec.proud), f"{prefix}.gauge_pin_board", way),
    ]
    if spec.tails > 1:
        settings.append(_chisel("Chisel, tails", spec.pin, plan, f"{prefix}.pin"))
    if layout.tail_base.mm > 0:
        settings.append(_chisel("Chisel, pins", layout.tail_base, plan, f"{prefix}.width"))
    settings.append(_saw(plan, corner))
    return tuple(settings)


def _dividers(plan: Plan, corner: Corner) -> Setting:
    """Set the dividers for a row of equal tails; give every mark of one that is not equal."""
    layout, marks, prefix = corner.layout, plan.marks, corner.prefix
    spec = layout.spec
    start = f"from a half-pin of {marks.write_setting(spec.half_pin)}"
    if spec.equal:
        steps = f"{spec.tails} step{'s' if spec.tails != 1 else ''} {start}"
        return _set(plan, "Dividers", layout.step, steps, f"{prefix}.step")
    at = ", ".join(marks.write_setting(mark) for mark in layout.marks)
    sizes = " ".join(marks.write_setting(high - low) for low, high in layout.tails)
    note = f"from below, pins of {marks.write_setting(spec.pin)} between; their edges at {at}"
    return Setting("Tails, each", sizes, note, f"{prefix}.count")


def _saw(plan: Plan, corner: Corner) -> Setting:
    """Say which saw, how deep it goes, and that its kerf goes between the lines of the finest pin."""
    shop, layout = plan.project.shop, corner.layout
    deep = max(layout.gauge_tail_board, layout.gauge_pin_board, key=lambda depth: depth.mm)
    kerf = plan.marks.write_fine(shop.fine_kerf)
    return Setting("Fine saw", f"kerf {kerf}", f"to the baseline, {plan.marks.write_setting(deep)} deep, in the waste")


def _set(plan: Plan, tool: str, length: Length, note: str, of: str, way: Direction = Direction.NEAREST) -> Setting:
    """Make a setting, rounded the safe way; where the mark is not quite true, say by how much."""
    off = plan.marks.off_true(length, way)
    return Setting(tool, plan.marks.write_setting(length, way), f"{note}; {off}" if off else note, of)


def _proud(plan: Plan, proud: Length) -> str:
    if proud.mm == 0:
        return "flush with the mate"
    figure = plan.marks.write_fine(abs_length(proud))
    return f"mate + {figure}, planed flush" if proud.mm > 0 else f"mate − {figure}"


def _chisel(tool: str, room: Length, plan: Plan, of: str) -> Setting:
    """Give the widest chisel that enters, and the next smaller one for the corners."""
    found = [chisel.as_text().replace(" in", "″") for chisel in plan.project.shop.chisels_for(room)]
    if not found:
        return Setting(tool, "none fits", f"socket {plan.marks.write_fine(room)}", of)
    note = f"enters {plan.marks.write_fine(room)}" + (f"; next {found[1]}" if len(found) > 1 else "")
    return Setting(tool, found[0], note, of)
