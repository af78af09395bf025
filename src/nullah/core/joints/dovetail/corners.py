"""The dovetailed corners of a piece: each kind laid out once, with all that is to be minded."""

from __future__ import annotations

from nullah.core.bits import Bits, at_once
from nullah.core.card import Remark
from nullah.core.identity import kept_by_identity
from nullah.core.joints.dovetail import layout as dovetail
from nullah.core.joints.dovetail import runout
from nullah.core.joints.dovetail.tails import tails_of
from nullah.core.ledger import Ledger
from nullah.core.lengths import Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.shop import Shop


class Corner(NamedTuple):
    """One kind of dovetailed corner: its layout, which boards are which, and all that is to be minded.

    `prefix` is that of its figures in the ledger; `groove` where a groove comes out at it, from
    its lower edge to its upper and how deep, and `groove_name` the prefix of those; None without.
    `proud` is the quantity of what the ends are left long; empty where they are cut to length.
    """

    prefix: str
    proud: str
    layout: dovetail.DovetailLayout
    tail_boards: tuple[str, ...]
    pin_boards: tuple[str, ...]
    groove: tuple[Length, Length, Length] | None
    groove_name: str
    remarks: tuple[Remark, ...]
    run_out: runout.RunOut | None


@kept_by_identity(8)
def lay_out_corners(ledger: Ledger, assembly: Assembly, shop: Shop, marks: Marks) -> tuple[Corner, ...]:
    """Lay out every kind of dovetailed corner once; those that cannot even be drawn are left out."""
    return at_once(corners_in_bits(ledger, assembly, shop, marks))


def corners_in_bits(ledger: Ledger, assembly: Assembly, shop: Shop, marks: Marks) -> Bits[tuple[Corner, ...]]:
    """Lay them out corner by corner."""
    kinds: dict[str, list[Joint]] = {}
    for joint in assembly.joints:
        if prefix := joint.type.corner_prefix(joint):
            kinds.setdefault(prefix, []).append(joint)
    found = []
    for joints in kinds.values():
        found.append(_corner(ledger, assembly, shop, marks, joints))
        yield
    return tuple(corner for corner in found if corner is not None)


def _stopped(assembly: Assembly, board: Part, groove: str) -> bool:
    """Return whether a groove stops short of both ends of a board."""
    axis = board.grain.value
    boxes = [
        box
        for joint in assembly.joints
        if joint.first == board.id and joint.names.depth == f"{groove}depth"
        for box in joint.channels
    ]
    return bool(boxes) and all(
        board.box.low[axis] < box.low[axis] and box.high[axis] < board.box.high[axis] for box in boxes
    )


def _corner(ledger: Ledger, assembly: Assembly, shop: Shop, marks: Marks, joints: list[Joint]) -> Corner | None:
    tail, pin, tails = assembly.part(joints[0].first), assembly.part(joints[0].second), tails_of(joints[0])
    if tail is None or pin is None or tails is None:
        return None
    overlap = tail.box.overlap(pin.box)
    across = next(axis for axis in type(tail.grain) if axis not in (tail.grain, tail.face))
    lap = Length(tails.lap)
    spec = dovetail.DovetailFigures(
        width=Length(overlap.size(across)) if overlap else tail.width,
        tail_thickness=tail.thickness,
        pin_thickness=pin.thickness - lap,
        tails=int(ledger[f"{tails.prefix}.count"]),
        half_pin=Length(tails.half_pin),
        pin=Length(tails.pin),
        slope=tails.slope,
        proud=Length(tail.spare / 2),
        widths=tails.widths,
        mitres=(Length(tails.mitres[0]), Length(tails.mitres[1])),
    )
    try:
        layout = dovetail.lay_out(spec)
    except dovetail.DovetailError:
        return None
    found = dovetail.remarks(layout, shop, tails.prefix)
    groove = run_out = None
    if tails.groove:
        low = ledger.length(f"{tails.groove}height")
        high = low + ledger.length(f"{tails.groove}width")
        groove = (low, high, ledger.length(f"{tails.groove}depth"))
        if layout.tail_base.mm > 0:
            lapped = lap.mm > 0
            covered = (lapped or _stopped(assembly, tail, tails.groove), _stopped(assembly, pin, tails.groove))
            found += runout.remarks(layout, *groove, marks, covered, f"{tails.groove}height", lapped)
        run_out = runout.run_out(layout, low, high)
    return Corner(
        tails.prefix,
        proud if (proud := f"{tails.prefix}.proud") in ledger.quantities else "",
        layout,
        tuple(dict.fromkeys(joint.first for joint in joints)),
        tuple(dict.fromkeys(joint.second for joint in joints)),
        groove,
        tails.groove,
        found,
        run_out,
    )
