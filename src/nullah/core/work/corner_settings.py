"""What to set for a dovetailed corner: dividers, gauges, bevel, chisels, saw."""

from __future__ import annotations

from nullah.core.card import Setting
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.lengths import Direction, Length, abs_length, write_bought
from nullah.core.plan import Plan
from nullah.core.refs import QuantityRef


def corner_settings(plan: Plan, corner: Corner) -> tuple[Setting, ...]:
    """Return what to set for a corner: dividers, gauges, bevel, chisels."""
    prefix = corner.prefix
    layout = corner.layout
    spec = layout.spec
    # Proud end grain is planed flush, so more is safe; shy boards are planed, so less is.
    way = Direction.UP if spec.proud.mm > 0 else Direction.DOWN if spec.proud.mm < 0 else Direction.NEAREST
    settings = [
        _dividers(plan, corner),
        Setting(
            "Bevel", spec.slope.as_text(), f"{spec.slope.degrees:.1f}° from square", ref=QuantityRef(f"{prefix}.slope")
        ),
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
    return Setting("Tails, each", sizes, note, QuantityRef(f"{prefix}.count"))


def _saw(plan: Plan, corner: Corner) -> Setting:
    """Say which saw, how deep it goes, and that its kerf goes between the lines of the finest pin."""
    shop, layout = plan.project.shop, corner.layout
    deep = max(layout.gauge_tail_board, layout.gauge_pin_board, key=lambda depth: depth.mm)
    kerf = plan.marks.write_fine(shop.fine_kerf)
    return Setting("Fine saw", f"kerf {kerf}", f"to the baseline, {plan.marks.write_setting(deep)} deep, in the waste")


def _set(
    plan: Plan, tool: str, length: Length, note: str, quantity: str, way: Direction = Direction.NEAREST
) -> Setting:
    """Make a setting, rounded the safe way; where the mark is not quite true, say by how much."""
    off = plan.marks.off_true(length, way)
    return Setting(
        tool, plan.marks.write_setting(length, way), f"{note}; {off}" if off else note, QuantityRef(quantity)
    )


def _proud(plan: Plan, proud: Length) -> str:
    if proud.mm == 0:
        return "flush with the mate"
    figure = plan.marks.write_fine(abs_length(proud))
    return f"mate + {figure}, planed flush" if proud.mm > 0 else f"mate − {figure}"


def _chisel(tool: str, room: Length, plan: Plan, quantity: str) -> Setting:
    """Return the widest chisel that enters, and the next smaller one for the corners."""
    found = [write_bought(chisel) for chisel in plan.project.shop.chisels_for(room)]
    if not found:
        return Setting(tool, "none fits", f"socket {plan.marks.write_fine(room)}", QuantityRef(quantity))
    note = f"enters {plan.marks.write_fine(room)}" + (f"; next {found[1]}" if len(found) > 1 else "")
    return Setting(tool, found[0], note, QuantityRef(quantity))
