"""Dovetails by themselves: through, half-blind, sliding, and a single one lapped into a leg."""

from __future__ import annotations

import math
from fractions import Fraction

from nullah.core.card import Remark, Setting, Severity
from nullah.core.joints.bench import CHISEL_CARE, Told, in_order
from nullah.core.joints.dovetail import DOVETAIL
from nullah.core.joints.dovetail.tails import Tails
from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.made_up.boards import LONG, StandaloneJoint, board, box, exact, in_mm, need
from nullah.core.lengths import Slope
from nullah.core.piece.form import Assembly
from nullah.core.piece.joint import Joint
from nullah.core.piece.shaping import Slant
from nullah.core.piece.space import Axis


def sliding_dovetail(wide: float, thick: float, guest: float, deep: float, slope: float) -> StandaloneJoint:
    """Slide a board's end into a dovetailed housing: narrow at the face, wide at its floor.

    The tongue is as wide as its board at the floor; its neck is 2·deep ÷ slope less.
    """
    need(0 < deep < thick, f"The housing must be less deep than the {in_mm(thick)} board; a third is usual.")
    need(slope >= 3, "A slope under 1:3 breaks out; 1:6 to 1:8 is usual.")
    lean = deep / slope
    neck = guest - 2 * lean
    need(neck > 3, f"Only {in_mm(neck)} of neck are left: less deep, or a slope nearer to square.")
    x = (LONG - guest) / 2
    floor = thick - deep
    # Slants along y have their points in (z, x), from the low corner of their part.
    left = ((thick, x + lean), (floor, x + lean), (floor, x))
    right = ((thick, x + guest - lean), (floor, x + guest - lean), (floor, x + guest))
    host = board("housed board", 1, (0, 0, 0), (LONG, wide, thick), "xz", Slant(Axis.Y, left), Slant(Axis.Y, right))
    off_left = ((0.0, 0.0), (deep, 0.0), (deep, lean))
    off_right = ((0.0, guest), (deep, guest), (deep, guest - lean))
    slid = board(
        "slid board",
        2,
        (x, 0, floor),
        (x + guest, wide, thick + 90),
        "zx",
        Slant(Axis.Y, off_left),
        Slant(Axis.Y, off_right),
    )
    narrow = box((x + lean, 0, floor), (x + guest - lean, wide, thick))
    joint = Joint("slide", LET_IN, host.id, slid.id, channels=(narrow,))
    remarks = [CHISEL_CARE]
    if wide > 150:
        remarks.insert(
            0, Remark("A long one binds: taper it a hair along its length, glue only its front.", Severity.WARNING)
        )
    if deep * 3 > thick * 1.1:
        remarks.insert(0, Remark(f"{in_mm(deep)} deep is more than a third of {in_mm(thick)}.", Severity.WARNING))
    told = Told(
        (
            Setting("Neck", in_mm(neck), "at the face of the housed board"),
            Setting("Floor", in_mm(guest), "traced from the mate"),
            Setting("Depth", in_mm(deep), "gauge, and router plane"),
            Setting("Bevel", f"1:{slope:g}", f"{math.degrees(math.atan(1 / slope)):.1f}° from square"),
        ),
        in_order(
            "Cut the housing first: knife both walls at the neck, saw them at the bevel against a sloping guide block.",
            "Chisel the waste out, clean under the slopes, level the floor with the router plane.",
            "Plane the tongue to fit with a sloped fence: a shaving at a time, tried from the end.",
            "It slides home by hand to the last third, then with light taps; a hair of taper lets it close at the end.",
        ),
        tuple(remarks),
        ("Neck = board − 2 · depth ÷ slope.",),
    )
    return StandaloneJoint(Assembly((host, slid), (joint,)), told)


def lapped_dovetail(
    rail: float, thick: float, leg: float, half_pin: float, lap: float, slope: float
) -> StandaloneJoint:
    """Let one tail on a rail's end down into the top of a leg, a lap of the leg left outside."""
    need(0 < lap < leg, f"The lap must be less than the {in_mm(leg)} leg.")
    tail = rail - 2 * half_pin
    deep = leg - lap
    base = tail - 2 * deep / slope
    need(half_pin > 0 and tail > 0, "Nothing is left of the tail: smaller half-pins.")
    need(base > 3, f"The tail runs to {in_mm(base)} at its root: a slope nearer to square, or a wider rail.")
    y = (leg - rail) / 2
    need(y >= 0, "The rail is wider than the leg.")
    post = board("leg", 1, (0, 0, 0), (leg, leg, 120), "zy")
    bar = board("rail", 2, (lap, y, 120 - thick), (lap + LONG, y + rail, 120), "xz")
    spec = Tails("made", 1, exact(half_pin), Fraction(0), Slope(exact(slope)), lap=exact(lap))
    joint = Joint("lapped", DOVETAIL, bar.id, post.id, figures=spec)
    told = Told(
        (
            Setting("Gauge", in_mm(deep), "how far the tail goes in"),
            Setting("Half-pins", in_mm(half_pin), "at both edges of the rail"),
            Setting("Lap", in_mm(lap), "left of the leg outside"),
            Setting("Bevel", f"1:{slope:g}", "from square"),
        ),
        in_order(
            "Gauge the length of the tail; saw its slopes and shoulders.",
            "Lay it on the leg's end, flush at the inside; trace it with a knife.",
            "Saw the socket as far as the lap allows, chop to the depth of the rail, pare to the lines.",
            "Try it once; it ties both legs together, so the length between the shoulders is what counts.",
        ),
        (
            Remark("The end grain of the leg splits if the socket is levered: chop from above, a little at a time."),
            CHISEL_CARE,
        ),
    )
    return StandaloneJoint(Assembly((post, bar), (joint,)), told)


def dovetail(
    wide: float,
    tail_board: float,
    pin_board: float,
    tails: float,
    half_pin: float,
    pin: float,
    slope: float,
    lap: float,
) -> StandaloneJoint:
    """Dovetail a corner; with a lap the tails do not show from the pin board's outside."""
    number = round(tails)
    need(1 <= number <= 60, "From one to sixty tails.")
    need(0 <= lap < pin_board, f"The lap must be less than the {in_mm(pin_board)} board.")
    need(slope >= 3, "A slope under 1:3 breaks off; 1:6 to 1:8 is usual.")
    step = (wide - 2 * half_pin + pin) / number
    base = step - pin - 2 * (pin_board - lap) / slope
    need(base > 2, f"The tails run to {in_mm(max(base, 0))} at the baseline: fewer tails, or a slope nearer to square.")
    tail = board("tail board", 1, (lap, 0, 0), (LONG, wide, tail_board), "xz")
    mate = board("pin board", 2, (0, 0, 0), (pin_board, wide, 90), "zx")
    spec = Tails("made", number, exact(half_pin), exact(pin), Slope(exact(slope)), lap=exact(lap))
    joint = Joint("corner", DOVETAIL, tail.id, mate.id, figures=spec)
    told = Told(
        (
            Setting("Dividers", in_mm(step), f"{number} steps from the half-pin, over by {in_mm(pin)}"),
            Setting("Gauge, tails", in_mm(pin_board - lap), "and a hair, to be planed flush"),
            Setting("Gauge, pins", in_mm(tail_board), "and a hair"),
            Setting("Bevel", f"1:{slope:g}", f"{math.degrees(math.atan(1 / slope)):.1f}° from square"),
        ),
        in_order(
            "Gauge the baselines; step the tails off from both half-pin lines; hatch the waste.",
            "Saw the tails, all one slope, then the other. Saw or chop the waste, half from each face.",
            "Stand the tails on the other board, flush at the inside; trace them with a thin knife.",
            "Saw the pins plumb, as far as the lap allows; chop down to the gauge line, back to the lap."
            if lap
            else "Saw the pins plumb in the waste; chop half from each face.",
            "Try by hand, pare what is burnished, drive it together once.",
        ),
        (
            *(
                (Remark(f"Pins of {in_mm(pin)} are finer than knife and chisel can enter.", Severity.WARNING),)
                if pin < 3
                else ()
            ),
            CHISEL_CARE,
        ),
    )
    return StandaloneJoint(Assembly((tail, mate), (joint,)), told)


def through_dovetail(
    wide: float, tail_board: float, pin_board: float, tails: float, half_pin: float, pin: float, slope: float
) -> StandaloneJoint:
    """Dovetail a corner right through: the practice joint."""
    return dovetail(wide, tail_board, pin_board, tails, half_pin, pin, slope, 0.0)
