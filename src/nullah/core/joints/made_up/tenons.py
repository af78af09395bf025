"""Tenons by themselves: haunched, drawbored, with a tusk, and the breadboard end."""

from __future__ import annotations

import math
from fractions import Fraction

from nullah.core.card import Remark, Setting, Severity
from nullah.core.joints.bench import CHISEL_CARE, Told, in_order
from nullah.core.joints.made_up.boards import LONG, StandaloneJoint, board, box, exact, in_mm, need
from nullah.core.joints.tenon import TENON
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.shaping import Slant
from nullah.core.piece.space import Axis


def haunched_tenon(leg: float, rail: float, thick: float, tenon: float, long: float, haunch: float) -> StandaloneJoint:
    """Tenon a rail into the top of a leg, with a haunch where the top would break out."""
    need(0 < tenon < thick, "The tenon must be thinner than its rail; a third is usual.")
    need(0 < long < leg, f"A tenon of {in_mm(long)} would come out of a leg of {in_mm(leg)}: a stub, or through it.")
    need(0 <= haunch < rail, "The haunch takes the whole rail: less.")
    y = (leg - tenon) / 2
    z0, z1 = 120 - rail, 120.0
    post = board("leg", 1, (0, 0, 0), (leg, leg, 120), "zy")
    bar = board("rail", 2, (leg - long, (leg - thick) / 2, z0), (leg + LONG, (leg + thick) / 2, z1), "xy")
    main = box((leg - long, y, z0), (leg, y + tenon, z1 - haunch))
    shares = [main]
    if haunch > 0:
        shares.append(box((leg - tenon, y, z1 - haunch), (leg, y + tenon, z1)))
    joint = Joint("tenon", TENON, post.id, bar.id, channels=tuple(shares), shares=tuple(shares))
    remarks = [CHISEL_CARE]
    if haunch == 0:
        remarks.insert(
            0, Remark("Without a haunch the mortise is open at the top: the leg's end breaks out.", Severity.WARNING)
        )
    if not thick / 5 <= tenon <= thick / 2:
        remarks.insert(
            0, Remark(f"A tenon of {in_mm(tenon)} in {in_mm(thick)}: about a third is usual.", Severity.WARNING)
        )
    told = Told(
        (
            Setting("Mortise gauge", in_mm(tenon), "its pins, to the chisel"),
            Setting("Tenon long", in_mm(long), "shoulder to end"),
            Setting("Mortise deep", in_mm(long + 2), "a little more"),
            Setting("Haunch", in_mm(haunch), "as long as the tenon is thick"),
        ),
        in_order(
            "Gauge both parts from the face side; knife the shoulders round.",
            "Chop the mortise from the middle, then the haunch's shallow part, leaving a horn on the leg.",
            "Saw cheeks and shoulders; saw the haunch down to its step.",
            "Shave the tenon to the mortise; no light at the shoulder. Trim the horn when it is glued.",
        ),
        tuple(remarks),
    )
    return StandaloneJoint(Assembly((post, bar), (joint,)), told)


def drawbored(
    leg: float, rail: float, thick: float, tenon: float, long: float, peg: float, offset: float
) -> StandaloneJoint:
    """Pull a tenon home by a peg: the hole in the tenon stands nearer to the shoulder by the offset."""
    made = haunched_tenon(leg, rail, thick, tenon, long, 0.0)
    need(0 < peg < rail / 3, f"A peg of {in_mm(peg)} is too thick for a rail of {in_mm(rail)}.")
    need(
        0 < offset <= peg / 2, "The offset must be under half the peg, or it will not find its way; 1 to 2 mm is usual."
    )
    post, bar = made.assembly.parts
    # From the shoulder, and from the rail's middle.
    back, up = max(long / 2, 1.5 * peg), 120 - rail / 2
    need(back + peg / 2 < long, f"Too little tenon is left behind the peg: {in_mm(long)} long is short for it.")
    hole = _round(leg - back, up, peg)
    near = _round(leg - back + offset - (leg - long), rail / 2, peg)
    parts = (post._replace(shapings=(Slant(Axis.Y, hole),)), bar._replace(shapings=(Slant(Axis.Y, near),)))
    told = Told(
        (
            *(made.told.settings[:3] if made.told is not None else ()),
            Setting("Peg", in_mm(peg), "riven, straight, a little tapered"),
            Setting("Hole in the leg", in_mm(back), "from its face to the middle"),
            Setting("Hole in the tenon", in_mm(back - offset), f"from the shoulder: {in_mm(offset)} nearer to it"),
        ),
        in_order(
            "Bore the leg before the tenon is fitted, through one cheek and into the other.",
            "Push the tenon home; mark the hole's middle on it with the bit's point.",
            f"Take it out, shift the mark {in_mm(offset)} towards the shoulder, bore the tenon there.",
            "Assemble, drive the tapered peg: it bends through and pulls the shoulder tight. No clamps.",
        ),
        (
            Remark("Towards the shoulder, not away from it: the wrong way it pushes the joint open.", Severity.WARNING),
            CHISEL_CARE,
        ),
    )
    return StandaloneJoint(Assembly(parts, made.assembly.joints), told)


def _round(x: float, z: float, across: float) -> tuple[tuple[float, float], ...]:
    """Return a round hole along y as a polygon of 24 sides, in (z, x)."""
    turns = (2 * math.pi * step / 24 for step in range(24))
    return tuple((z + across / 2 * math.sin(turn), x + across / 2 * math.cos(turn)) for turn in turns)


def tusk_tenon(
    post: float, bar: float, thick: float, tenon: float, beyond: float, wedge: float, run: float
) -> StandaloneJoint:
    """Tenon a bar right through a post and hold it there with a wedge, to be knocked apart again.

    `run` is the wedge's slope, 1 in so much: from 8 to 12 it holds and still comes out.
    """
    need(0 < tenon < thick, "The tenon must be thinner than its bar.")
    need(
        beyond > 2 * wedge, f"{in_mm(beyond)} beyond the post leaves too little wood behind a wedge of {in_mm(wedge)}."
    )
    need(run >= 4, "So steep a wedge jumps out: 1 in 8 to 1 in 12.")
    y = (post - tenon) / 2
    stand = board("post", 1, (0, 0, 0), (post, post, 160), "zy")
    low, high = 60.0, 60.0 + bar
    need(high < 150, "The bar is wider than the piece of post that is shown: under 90 mm.")
    rail = board("bar", 2, (-beyond, (post - thick) / 2, low), (post + LONG, (post + thick) / 2, high), "xy")
    share = box((0, y, low), (post, y + tenon, high))
    joint = Joint("tusk", TENON, stand.id, rail.id, channels=(share,), shares=(share,))
    # The part beyond the post is as thin as the tenon: its cheeks are taken off as shapings.
    cheek = (thick - tenon) / 2
    ends = (0.0, beyond)
    cheeks = (
        [
            Slant(Axis.X, ((0.0, 0.0), (cheek, 0.0), (cheek, bar), (0.0, bar)), ends),
            Slant(Axis.X, ((thick - cheek, 0.0), (thick, 0.0), (thick, bar), (thick - cheek, bar)), ends),
        ]
        if cheek > 0
        else []
    )
    # The wedge bears on the post, upright; its far side slopes. Its slot begins a little inside the post's face.
    lean = bar / run
    across = tenon / 3
    middle = ((thick - across) / 2, (thick + across) / 2)
    slot = Slant(Axis.Y, ((0.0, beyond), (bar, beyond), (bar, beyond - wedge - lean), (0.0, beyond - wedge)), middle)
    rail = rail._replace(shapings=(*cheeks, slot))
    top, foot = high + 15, low - 15
    thin = wedge - 15 / run
    need(thin > 2, "The wedge runs to nothing at its foot: thicker, or less steep.")
    widest = wedge + lean + 15 / run
    tall = top - foot
    y = (post - across) / 2
    slope = Slant(Axis.Y, ((0.0, 0.0), (tall, 0.0), (0.0, widest - thin)))
    key = board("wedge", 3, (-widest, y, foot), (0, y + across, top), "zy", slope)
    told = Told(
        (
            Setting("Mortise", f"{in_mm(tenon)} × {in_mm(bar)}", "through, laid out from both faces"),
            Setting("Beyond the post", in_mm(beyond), "wood behind the wedge keeps it from shearing"),
            Setting("Wedge", in_mm(wedge), f"at the bar's lower edge, 1 in {run:g}"),
            Setting("Wedge thick", in_mm(across), "a third of the tenon, so that wood stays on both sides"),
        ),
        in_order(
            "Chop the mortise half from each face; fit the tenon to slide by hand.",
            "Mark where the post's face comes on the tenon; the slot for the wedge begins a hair inside that line.",
            "Chop the slot, its outer wall at the wedge's slope; the inner wall may be clear of the wedge.",
            "Plane the wedge to fit; a tap tightens it, a tap from below frees it.",
        ),
        (
            *(
                (Remark(f"1 in {run:g} is steep for a wedge: 1 in 8 to 1 in 12 holds.", Severity.WARNING),)
                if run < 8
                else ()
            ),
            *(
                (Remark(f"1 in {run:g} never comes out again: 1 in 8 to 1 in 12.", Severity.WARNING),)
                if run > 12
                else ()
            ),
            CHISEL_CARE,
        ),
    )
    return StandaloneJoint(Assembly((stand, rail, key), (joint,)), told)


def breadboard(
    wide: float, thick: float, end: float, tongue: float, tenons: float, long: float, moves: float
) -> StandaloneJoint:
    """Put an end across a panel: a tongue all along and tenons, the middle one glued, the others free to move.

    `moves` is how much the panel may move over its whole width with the season, mm: outer mortises are longer by it.
    """
    number = round(tenons)
    need(1 <= number <= 9, "From one to nine tenons.")
    need(0 < tongue < long < end, "The tongue is shorter than the tenons, and those than the end is wide.")
    t3 = thick / 3
    need(t3 >= 3, "The tongue is a third of the thickness: that is under 3 mm here.")
    z0, z1 = t3, 2 * t3
    panel = board("panel", 1, (-LONG, 0, 0), (long, wide, thick), "xz")
    end_board = board("end", 2, (0, 0, 0), (end, wide, thick), "yz")
    each = wide / (2 * number + 1)
    shares = [box((0, 0, z0), (tongue, wide, z1))]
    channels = [box((0, 0, z0), (tongue, wide, z1))]
    for index in range(number):
        y0, y1 = each * (2 * index + 1), each * (2 * index + 2)
        shares.append(box((tongue, y0, z0), (long, y1, z1)))
        middle = number % 2 == 1 and index == number // 2
        slack = 0.0 if middle else moves / 2
        channels.append(box((tongue, max(y0 - slack, 0.5), z0), (long, min(y1 + slack, wide - 0.5), z1)))
    joint = Joint(
        "breadboard",
        TENON,
        end_board.id,
        panel.id,
        Hold.DRY,
        tuple(channels),
        tuple(shares),
        (Fraction(0), exact(moves / 2), Fraction(0)),
    )
    told = Told(
        (
            Setting("Tongue", in_mm(tongue), "all along, a third of the thickness"),
            Setting("Tenons", str(number), f"{in_mm(each)} wide, {in_mm(long)} long"),
            Setting("Outer mortises", in_mm(each + moves), f"longer by {in_mm(moves)} for the season"),
            Setting("Peg slots", in_mm(moves), "long in the outer tenons, round in the middle one"),
        ),
        in_order(
            "Plane the panel's end from both faces: tongue and tenons in one, then saw between the tenons.",
            "Plough the end for the tongue; chop the mortises in the groove's floor, the outer ones longer.",
            "Bore for the pegs; draw them a little towards the shoulder; slot the outer holes along the panel's end.",
            "Glue the middle only. The end is a hair hollow along its length, so that its ends press tight.",
        ),
        (
            Remark("Its ends stand proud or shy of the panel with the season: that is as it should be."),
            *(
                (Remark("An even number has no middle tenon to glue: an odd one is better.", Severity.WARNING),)
                if number % 2 == 0
                else ()
            ),
            CHISEL_CARE,
        ),
    )
    return StandaloneJoint(Assembly((panel, end_board), (joint,)), told)
