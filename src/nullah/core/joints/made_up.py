"""Joints by themselves: two or three boards made up from a few figures, joined, and what it takes to make that.

For practice, and for joints a piece has not got. Every one is parts and joints like those of a piece, so
its solids can be cut and put together.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from fractions import Fraction
from typing import NamedTuple

from nullah.core.card import Remark, Setting, Weight
from nullah.core.joints.families.told import CHISEL_CARE, KNIFE_CARE, Told
from nullah.core.lengths import Slope
from nullah.core.piece.form import Assembly
from nullah.core.piece.overlap import Hold, Joint, Sharing, Tails
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.shaping import Shaping, Slant
from nullah.core.piece.space import Axis, Box

#: The prefix by which the desk tells a joint by itself from one of the piece; its family follows.
MADE = "made/"
#: How long a piece of each mate is shown, mm.
_LONG = 140.0


class JointError(ValueError):
    """A joint that cannot be made so; the message says why, and what could."""


class MadeUp(NamedTuple):
    """A joint by itself: its parts and joints, and how it is made; None where its family tells that as for a piece."""

    assembly: Assembly
    told: Told | None


class Family(NamedTuple):
    """A family: its title, what its figures are called with a usual value (mm, or a plain number), its maker."""

    title: str
    figures: tuple[tuple[str, float], ...]
    make: Callable[..., MadeUp]


def _exact(value: float) -> Fraction:
    return Fraction(round(value * 1_000_000), 1_000_000)


def _part(
    name: str,
    number: int,
    low: tuple[float, float, float],
    high: tuple[float, float, float],
    lie: str,
    *shapings: Shaping,
) -> Part:
    """Make a part between two corners, mm; `lie` are the axes of its length and of its thickness."""
    if any(b - a <= 0 for a, b in zip(low, high, strict=True)):
        raise JointError(f"Nothing is left of the {name}: give it more than nothing.")
    axes = {"x": Axis.X, "y": Axis.Y, "z": Axis.Z}
    box = Box((_exact(low[0]), _exact(low[1]), _exact(low[2])), (_exact(high[0]), _exact(high[1]), _exact(high[2])))
    quantities = (f"{name}.length", f"{name}.width", f"{name}.thickness")
    return Part(name, number, name, box, axes[lie[0]], axes[lie[1]], Needs.CLEAR, quantities, name, shapings=shapings)


def _box(low: tuple[float, float, float], high: tuple[float, float, float]) -> Box:
    return Box((_exact(low[0]), _exact(low[1]), _exact(low[2])), (_exact(high[0]), _exact(high[1]), _exact(high[2])))


def _need(good: bool, sentence: str) -> None:
    if not good:
        raise JointError(sentence)


def _mm(value: float) -> str:
    return f"{round(value, 1):g} mm"


# --- let in ---------------------------------------------------------------------------------------


def sliding_dovetail(wide: float, thick: float, guest: float, deep: float, slope: float) -> MadeUp:
    """Slide a board's end into a dovetailed housing: narrow at the face, wide at its floor.

    The tongue is as wide as its board at the floor; its neck is 2·deep ÷ slope less.
    """
    _need(0 < deep < thick, f"The housing must be less deep than the {_mm(thick)} board; a third is usual.")
    _need(slope >= 3, "A slope under 1:3 breaks out; 1:6 to 1:8 is usual.")
    lean = deep / slope
    neck = guest - 2 * lean
    _need(neck > 3, f"Only {_mm(neck)} of neck are left: less deep, or a slope nearer to square.")
    x = (_LONG - guest) / 2
    floor = thick - deep
    # Slants along y have their points in (z, x), from the low corner of their part.
    left = ((thick, x + lean), (floor, x + lean), (floor, x))
    right = ((thick, x + guest - lean), (floor, x + guest - lean), (floor, x + guest))
    host = _part("housed board", 1, (0, 0, 0), (_LONG, wide, thick), "xz", Slant(Axis.Y, left), Slant(Axis.Y, right))
    off_left = ((0.0, 0.0), (deep, 0.0), (deep, lean))
    off_right = ((0.0, guest), (deep, guest), (deep, guest - lean))
    slid = _part(
        "slid board",
        2,
        (x, 0, floor),
        (x + guest, wide, thick + 90),
        "zx",
        Slant(Axis.Y, off_left),
        Slant(Axis.Y, off_right),
    )
    narrow = _box((x + lean, 0, floor), (x + guest - lean, wide, thick))
    joint = Joint("slide", Sharing.LET_IN, host.id, slid.id, channels=(narrow,))
    remarks = [CHISEL_CARE]
    if wide > 150:
        remarks.insert(
            0, Remark("A long one binds: taper it a hair along its length, glue only its front.", Weight.LOOK)
        )
    if deep * 3 > thick * 1.1:
        remarks.insert(0, Remark(f"{_mm(deep)} deep is more than a third of {_mm(thick)}.", Weight.LOOK))
    told = Told(
        (
            Setting("Neck", _mm(neck), "at the face of the housed board"),
            Setting("Floor", _mm(guest), "traced from the mate"),
            Setting("Depth", _mm(deep), "gauge, and router plane"),
            Setting("Bevel", f"1:{slope:g}", f"{math.degrees(math.atan(1 / slope)):.1f}° from square"),
        ),
        (
            "Cut the housing first: knife both walls at the neck, saw them at the bevel against a sloping guide block.",
            "Chisel the waste out, clean under the slopes, level the floor with the router plane.",
            "Plane the tongue to fit with a sloped fence: a shaving at a time, tried from the end.",
            "It slides home by hand to the last third, then with light taps; a hair of taper lets it close at the end.",
        ),
        tuple(remarks),
        ("Neck = board − 2 · depth ÷ slope.",),
    )
    return MadeUp(Assembly((host, slid), (joint,)), told)


def lapped_dovetail(rail: float, thick: float, leg: float, half_pin: float, lap: float, slope: float) -> MadeUp:
    """Let one tail on a rail's end down into the top of a leg, a lap of the leg left outside."""
    _need(0 < lap < leg, f"The lap must be less than the {_mm(leg)} leg.")
    tail = rail - 2 * half_pin
    deep = leg - lap
    base = tail - 2 * deep / slope
    _need(half_pin > 0 and tail > 0, "Nothing is left of the tail: smaller half-pins.")
    _need(base > 3, f"The tail runs to {_mm(base)} at its root: a slope nearer to square, or a wider rail.")
    y = (leg - rail) / 2
    _need(y >= 0, "The rail is wider than the leg.")
    post = _part("leg", 1, (0, 0, 0), (leg, leg, 120), "zy")
    bar = _part("rail", 2, (lap, y, 120 - thick), (lap + _LONG, y + rail, 120), "xz")
    spec = Tails("made", 1, _exact(half_pin), Fraction(0), Slope(_exact(slope)), lap=_exact(lap))
    joint = Joint("lapped", Sharing.DOVETAIL, bar.id, post.id, tails=spec)
    told = Told(
        (
            Setting("Gauge", _mm(deep), "how far the tail goes in"),
            Setting("Half-pins", _mm(half_pin), "at both edges of the rail"),
            Setting("Lap", _mm(lap), "left of the leg outside"),
            Setting("Bevel", f"1:{slope:g}", "from square"),
        ),
        (
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
    return MadeUp(Assembly((post, bar), (joint,)), told)


def dado(wide: float, thick: float, guest: float, deep: float, stop: float) -> MadeUp:
    """House a board across the grain, right through or stopped before the reference edge."""
    _need(0 < deep < thick, f"The dado must be less deep than the {_mm(thick)} board; a third is the limit.")
    _need(0 <= stop < wide, "The stop leaves nothing of the dado.")
    x = (_LONG - guest) / 2
    host = _part("housed board", 1, (0, 0, 0), (_LONG, wide, thick), "xz")
    shelf = _part("shelf", 2, (x, 0, thick - deep), (x + guest, wide, thick + 90), "zx")
    channel = _box((x, stop, thick - deep), (x + guest, wide, thick))
    return MadeUp(Assembly((host, shelf), (_let_in(host, shelf, channel, Hold.GLUE),)), None)


def rabbet(wide: float, thick: float, guest: float, deep: float) -> MadeUp:
    """Sink a board's edge into a step along another's."""
    _need(0 < deep < thick, f"The rabbet must be less deep than the {_mm(thick)} board; half is the limit.")
    _need(0 < guest < wide, "The board that sits in it is thicker than the other is wide.")
    host = _part("rabbeted board", 1, (0, 0, 0), (_LONG, wide, thick), "xz")
    back = _part("back", 2, (0, wide - guest, thick - deep), (_LONG, wide, thick + 80), "xy")
    channel = _box((0, wide - guest, thick - deep), (_LONG, wide, thick))
    return MadeUp(Assembly((host, back), (_let_in(host, back, channel, Hold.NAILS),)), None)


def groove(wide: float, thick: float, panel: float, deep: float, up: float) -> MadeUp:
    """Plough a groove along a board, and let a panel lie in it."""
    _need(0 < deep < thick, f"The groove must be less deep than the {_mm(thick)} board; a third is the limit.")
    _need(up + panel < wide, "The groove runs out of the board.")
    host = _part("grooved board", 1, (0, 0, 0), (_LONG, wide, thick), "xz")
    inside = _part("panel", 2, (0, up, thick - deep), (_LONG, up + panel, thick + 80), "zy")
    channel = _box((0, up, thick - deep), (_LONG, up + panel, thick))
    return MadeUp(Assembly((host, inside), (_let_in(host, inside, channel, Hold.DRY),)), None)


def _let_in(host: Part, guest: Part, channel: Box, hold: Hold) -> Joint:
    return Joint("let-in", Sharing.LET_IN, host.id, guest.id, hold, (channel,), (channel,))


def dovetail(
    wide: float,
    tail_board: float,
    pin_board: float,
    tails: float,
    half_pin: float,
    pin: float,
    slope: float,
    lap: float,
) -> MadeUp:
    """Dovetail a corner; with a lap the tails do not show from the pin board's outside."""
    number = round(tails)
    _need(1 <= number <= 60, "From one to sixty tails.")
    _need(0 <= lap < pin_board, f"The lap must be less than the {_mm(pin_board)} board.")
    _need(slope >= 3, "A slope under 1:3 breaks off; 1:6 to 1:8 is usual.")
    step = (wide - 2 * half_pin + pin) / number
    base = step - pin - 2 * (pin_board - lap) / slope
    _need(base > 2, f"The tails run to {_mm(max(base, 0))} at the baseline: fewer tails, or a slope nearer to square.")
    tail = _part("tail board", 1, (lap, 0, 0), (_LONG, wide, tail_board), "xz")
    mate = _part("pin board", 2, (0, 0, 0), (pin_board, wide, 90), "zx")
    spec = Tails("made", number, _exact(half_pin), _exact(pin), Slope(_exact(slope)), lap=_exact(lap))
    joint = Joint("corner", Sharing.DOVETAIL, tail.id, mate.id, tails=spec)
    told = Told(
        (
            Setting("Dividers", _mm(step), f"{number} steps from a half-pin of {_mm(half_pin)}, over by {_mm(pin)}"),
            Setting("Gauge, tails", _mm(pin_board - lap), "and a hair, to be planed flush"),
            Setting("Gauge, pins", _mm(tail_board), "and a hair"),
            Setting("Bevel", f"1:{slope:g}", f"{math.degrees(math.atan(1 / slope)):.1f}° from square"),
        ),
        (
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
                (Remark(f"Pins of {_mm(pin)} are finer than knife and chisel can enter.", Weight.LOOK),)
                if pin < 3
                else ()
            ),
            CHISEL_CARE,
        ),
    )
    return MadeUp(Assembly((tail, mate), (joint,)), told)


def through_dovetail(
    wide: float, tail_board: float, pin_board: float, tails: float, half_pin: float, pin: float, slope: float
) -> MadeUp:
    """Dovetail a corner right through: the practice joint."""
    return dovetail(wide, tail_board, pin_board, tails, half_pin, pin, slope, 0.0)


# --- tenons ---------------------------------------------------------------------------------------


def haunched_tenon(leg: float, rail: float, thick: float, tenon: float, long: float, haunch: float) -> MadeUp:
    """Tenon a rail into the top of a leg, with a haunch where the top would break out."""
    _need(0 < tenon < thick, "The tenon must be thinner than its rail; a third is usual.")
    _need(0 < long < leg, f"A tenon of {_mm(long)} would come out of a leg of {_mm(leg)}: a stub, or through it.")
    _need(0 <= haunch < rail, "The haunch takes the whole rail: less.")
    y = (leg - tenon) / 2
    z0, z1 = 120 - rail, 120.0
    post = _part("leg", 1, (0, 0, 0), (leg, leg, 120), "zy")
    bar = _part("rail", 2, (leg - long, (leg - thick) / 2, z0), (leg + _LONG, (leg + thick) / 2, z1), "xy")
    main = _box((leg - long, y, z0), (leg, y + tenon, z1 - haunch))
    shares = [main]
    if haunch > 0:
        shares.append(_box((leg - tenon, y, z1 - haunch), (leg, y + tenon, z1)))
    joint = Joint("tenon", Sharing.TENON, post.id, bar.id, channels=tuple(shares), shares=tuple(shares))
    remarks = [CHISEL_CARE]
    if haunch == 0:
        remarks.insert(
            0, Remark("Without a haunch the mortise is open at the top: the leg's end breaks out.", Weight.LOOK)
        )
    if not thick / 5 <= tenon <= thick / 2:
        remarks.insert(0, Remark(f"A tenon of {_mm(tenon)} in {_mm(thick)}: about a third is usual.", Weight.LOOK))
    told = Told(
        (
            Setting("Mortise gauge", _mm(tenon), "its pins, to the chisel"),
            Setting("Tenon long", _mm(long), "shoulder to end"),
            Setting("Mortise deep", _mm(long + 2), "a little more"),
            Setting("Haunch", _mm(haunch), "as long as the tenon is thick"),
        ),
        (
            "Gauge both parts from the face side; knife the shoulders round.",
            "Chop the mortise from the middle, then the haunch's shallow part, leaving a horn on the leg.",
            "Saw cheeks and shoulders; saw the haunch down to its step.",
            "Shave the tenon to the mortise; no light at the shoulder. Trim the horn when it is glued.",
        ),
        tuple(remarks),
    )
    return MadeUp(Assembly((post, bar), (joint,)), told)


def drawbored(leg: float, rail: float, thick: float, tenon: float, long: float, peg: float, offset: float) -> MadeUp:
    """Pull a tenon home by a peg: the hole in the tenon stands nearer to the shoulder by the offset."""
    made = haunched_tenon(leg, rail, thick, tenon, long, 0.0)
    _need(0 < peg < rail / 3, f"A peg of {_mm(peg)} is too thick for a rail of {_mm(rail)}.")
    _need(
        0 < offset <= peg / 2, "The offset must be under half the peg, or it will not find its way; 1 to 2 mm is usual."
    )
    post, bar = made.assembly.parts
    # From the shoulder, and from the rail's middle.
    back, up = max(long / 2, 1.5 * peg), 120 - rail / 2
    _need(back + peg / 2 < long, f"Too little tenon is left behind the peg: {_mm(long)} long is short for it.")
    hole = _round(leg - back, up, peg)
    near = _round(leg - back + offset - (leg - long), rail / 2, peg)
    parts = (post._replace(shapings=(Slant(Axis.Y, hole),)), bar._replace(shapings=(Slant(Axis.Y, near),)))
    told = Told(
        (
            *(made.told.settings[:3] if made.told is not None else ()),
            Setting("Peg", _mm(peg), "riven, straight, a little tapered"),
            Setting("Hole in the leg", _mm(back), "from its face to the middle"),
            Setting("Hole in the tenon", _mm(back - offset), f"from the shoulder: {_mm(offset)} nearer to it"),
        ),
        (
            "Bore the leg before the tenon is fitted, through one cheek and into the other.",
            "Push the tenon home; mark the hole's middle on it with the bit's point.",
            f"Take it out, shift the mark {_mm(offset)} towards the shoulder, bore the tenon there.",
            "Assemble, drive the tapered peg: it bends through and pulls the shoulder tight. No clamps.",
        ),
        (
            Remark("Towards the shoulder, not away from it: the wrong way it pushes the joint open.", Weight.LOOK),
            CHISEL_CARE,
        ),
    )
    return MadeUp(Assembly(parts, made.assembly.joints), told)


def _round(x: float, z: float, across: float) -> tuple[tuple[float, float], ...]:
    """Give a round hole along y as a polygon of 24 sides, in (z, x)."""
    turns = (2 * math.pi * step / 24 for step in range(24))
    return tuple((z + across / 2 * math.sin(turn), x + across / 2 * math.cos(turn)) for turn in turns)


def tusk_tenon(post: float, bar: float, thick: float, tenon: float, beyond: float, wedge: float, run: float) -> MadeUp:
    """Tenon a bar right through a post and hold it there with a wedge, to be knocked apart again.

    `run` is the wedge's slope, 1 in so much: from 8 to 12 it holds and still comes out.
    """
    _need(0 < tenon < thick, "The tenon must be thinner than its bar.")
    _need(
        beyond > 2 * wedge, f"{_mm(beyond)} beyond the post leaves too little wood behind a wedge {_mm(wedge)} thick."
    )
    _need(run >= 4, "So steep a wedge jumps out: 1 in 8 to 1 in 12.")
    y = (post - tenon) / 2
    stand = _part("post", 1, (0, 0, 0), (post, post, 160), "zy")
    low, high = 60.0, 60.0 + bar
    _need(high < 150, "The bar is wider than the piece of post that is shown: under 90 mm.")
    rail = _part("bar", 2, (-beyond, (post - thick) / 2, low), (post + _LONG, (post + thick) / 2, high), "xy")
    share = _box((0, y, low), (post, y + tenon, high))
    joint = Joint("tusk", Sharing.TENON, stand.id, rail.id, channels=(share,), shares=(share,))
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
    _need(thin > 2, "The wedge runs to nothing at its foot: thicker, or less steep.")
    widest = wedge + lean + 15 / run
    tall = top - foot
    y = (post - across) / 2
    slope = Slant(Axis.Y, ((0.0, 0.0), (tall, 0.0), (0.0, widest - thin)))
    key = _part("wedge", 3, (-widest, y, foot), (0, y + across, top), "zy", slope)
    told = Told(
        (
            Setting("Mortise", f"{_mm(tenon)} × {_mm(bar)}", "through, laid out from both faces"),
            Setting("Beyond the post", _mm(beyond), "wood behind the wedge keeps it from shearing"),
            Setting("Wedge", _mm(wedge), f"at the bar's lower edge, 1 in {run:g}"),
            Setting("Wedge thick", _mm(across), "a third of the tenon, so that wood stays on both sides"),
        ),
        (
            "Chop the mortise half from each face; fit the tenon to slide by hand.",
            "Mark where the post's face comes on the tenon; the slot for the wedge begins a hair inside that line.",
            "Chop the slot, its outer wall at the wedge's slope; the inner wall may be clear of the wedge.",
            "Plane the wedge to fit; a tap tightens it, a tap from below frees it.",
        ),
        (
            *(
                (Remark(f"1 in {run:g} is steep for a wedge: 1 in 8 to 1 in 12 holds.", Weight.LOOK),)
                if run < 8
                else ()
            ),
            *((Remark(f"1 in {run:g} never comes out again: 1 in 8 to 1 in 12.", Weight.LOOK),) if run > 12 else ()),
            CHISEL_CARE,
        ),
    )
    return MadeUp(Assembly((stand, rail, key), (joint,)), told)


def breadboard(
    wide: float, thick: float, end: float, tongue: float, tenons: float, long: float, moves: float
) -> MadeUp:
    """Put an end across a panel: a tongue all along and tenons, the middle one glued, the others free to move.

    `moves` is how much the panel may move over its whole width with the season, mm: outer mortises are longer by it.
    """
    number = round(tenons)
    _need(1 <= number <= 9, "From one to nine tenons.")
    _need(0 < tongue < long < end, "The tongue is shorter than the tenons, and those than the end is wide.")
    t3 = thick / 3
    _need(t3 >= 3, "The tongue is a third of the thickness: that is under 3 mm here.")
    z0, z1 = t3, 2 * t3
    panel = _part("panel", 1, (-_LONG, 0, 0), (long, wide, thick), "xz")
    board = _part("end", 2, (0, 0, 0), (end, wide, thick), "yz")
    each = wide / (2 * number + 1)
    shares = [_box((0, 0, z0), (tongue, wide, z1))]
    channels = [_box((0, 0, z0), (tongue, wide, z1))]
    for index in range(number):
        y0, y1 = each * (2 * index + 1), each * (2 * index + 2)
        shares.append(_box((tongue, y0, z0), (long, y1, z1)))
        middle = number % 2 == 1 and index == number // 2
        slack = 0.0 if middle else moves / 2
        channels.append(_box((tongue, max(y0 - slack, 0.5), z0), (long, min(y1 + slack, wide - 0.5), z1)))
    joint = Joint(
        "breadboard",
        Sharing.TENON,
        board.id,
        panel.id,
        Hold.DRY,
        tuple(channels),
        tuple(shares),
        (Fraction(0), _exact(moves / 2), Fraction(0)),
    )
    told = Told(
        (
            Setting("Tongue", _mm(tongue), "all along, a third of the thickness"),
            Setting("Tenons", str(number), f"{_mm(each)} wide, {_mm(long)} long"),
            Setting("Outer mortises", _mm(each + moves), f"longer by {_mm(moves)} for the season"),
            Setting("Peg slots", _mm(moves), "long in the outer tenons, round in the middle one"),
        ),
        (
            "Plane the panel's end from both faces: tongue and tenons in one, then saw between the tenons.",
            "Plough the end for the tongue; chop the mortises in the groove's floor, the outer ones longer.",
            "Bore for the pegs; draw them a little towards the shoulder; slot the outer holes along the panel's end.",
            "Glue the middle only. The end is a hair hollow along its length, so that its ends press tight.",
        ),
        (
            Remark("Its ends stand proud or shy of the panel with the season: that is as it should be."),
            *(
                (Remark("An even number has no middle tenon to glue: an odd one is better.", Weight.LOOK),)
                if number % 2 == 0
                else ()
            ),
            CHISEL_CARE,
        ),
    )
    return MadeUp(Assembly((panel, board), (joint,)), told)


# --- laps, bridles, mitres --------------------------------------------------------------------------


def cross_lap(one: float, other: float, thick: float) -> MadeUp:
    """Halve two boards that cross."""
    at, y = (_LONG * 2 - other) / 2, (_LONG * 2 - one) / 2
    first = _part("lower board", 1, (0, y, 0), (_LONG * 2, y + one, thick), "xz")
    second = _part("upper board", 2, (at, 0, 0), (at + other, _LONG * 2, thick), "yz")
    half = _box((at, y, thick / 2), (at + other, y + one, thick))
    joint = Joint("lap", Sharing.LAP, first.id, second.id, channels=(half,), shares=(half,))
    told = Told(
        (
            Setting("Gauge", _mm(thick / 2), "from the same face of both"),
            Setting("Shoulders", _mm(other), "traced from the mate"),
        ),
        (
            "Lay the one across the other and knife both its edges; square down, gauge half the thickness.",
            "Saw inside the lines to the gauge, a few cuts between; chisel from both edges to the middle.",
            "Press together by hand: flush above and below. Shave floors, never walls.",
        ),
        (Remark("Halved, each keeps half its strength upwards: put the uncut half where the load is."), KNIFE_CARE),
    )
    return MadeUp(Assembly((first, second), (joint,)), told)


def corner_bridle(wide: float, thick: float) -> MadeUp:
    """Join a corner by a slot and a tongue, each a third."""
    third = thick / 3
    _need(third >= 2, "A third of the thickness is under 2 mm: a lap does better.")
    first = _part("slotted", 1, (0, 0, 0), (_LONG, wide, thick), "xz")
    second = _part("tongued", 2, (_LONG - wide, 0, 0), (_LONG, _LONG, thick), "yz")
    middle = _box((_LONG - wide, 0, third), (_LONG, wide, 2 * third))
    joint = Joint("bridle", Sharing.BRIDLE, first.id, second.id, channels=(middle,), shares=(middle,))
    told = Told(
        (
            Setting("Mortise gauge", _mm(third), "both lines, from the same face"),
            Setting("Deep", _mm(wide), "as the mate is wide"),
        ),
        (
            "Gauge both parts with one setting, from the face side.",
            "Saw the slot's walls inside, the tongue's cheeks outside; chop the slot's end from both edges.",
            "Saw the tongue's shoulders. Slide together; clamp the cheeks as it is glued.",
        ),
        (KNIFE_CARE,),
    )
    return MadeUp(Assembly((first, second), (joint,)), told)


def keyed_mitre(wide: float, thick: float, key: float, deep: float) -> MadeUp:
    """Mitre two boards and put a key across the corner."""
    _need(0 < key < thick and 0 < deep < wide, "The key must be thinner than the boards and shorter than the mitre.")
    z = (thick - key) / 2
    first = _part("one side", 1, (0, 0, 0), (_LONG, wide, thick), "xz")
    second = _part("other side", 2, (0, 0, 0), (wide, _LONG, thick), "yz")
    # A key is a triangle in the corner: its long side runs at 45° across it.
    tri = Slant(Axis.Z, ((0.0, deep), (deep, 0.0), (deep, deep)))
    put = _part("key", 3, (0, 0, z), (deep, deep, z + key), "xz", tri)
    take = Slant(Axis.Z, ((0.0, 0.0), (deep, 0.0), (0.0, deep)), (z, z + key))
    parts = (first._replace(shapings=(take,)), second._replace(shapings=(take,)), put)
    told = Told(
        (
            Setting("Mitre", "45°", "shot on a board"),
            Setting("Key", _mm(key), "to the saw's kerf"),
            Setting("In the corner", _mm(deep), "along both sides"),
        ),
        (
            "Shoot the mitres to one length; size them with thin glue, then glue and cramp with a strap.",
            "When it is dry saw the slot across the corner, both sides at once.",
            "Glue a key of the same thickness in, its grain across the corner; plane it flush from the corner inwards.",
        ),
        (Remark("Plane the key off towards the sides, or it tears out.", Weight.LOOK), KNIFE_CARE),
    )
    joint = Joint("mitre", Sharing.MITRE, first.id, second.id)
    return MadeUp(Assembly(parts, (joint,)), told)


FAMILIES: dict[str, Family] = {
    "through": Family(
        "Through dovetail",
        (
            ("wide", 50),
            ("tail board", 15),
            ("pin board", 15),
            ("tails", 2),
            ("half-pin", 6),
            ("pin", 5),
            ("slope 1:", 7),
        ),
        through_dovetail,
    ),
    "halfblind": Family(
        "Half-blind dovetail",
        (
            ("wide", 90),
            ("tail board", 12),
            ("pin board", 18),
            ("tails", 3),
            ("half-pin", 6),
            ("pin", 5),
            ("slope 1:", 7),
            ("lap", 5),
        ),
        dovetail,
    ),
    "rabbet": Family("Rabbet", (("wide", 90), ("thick", 18), ("back", 9), ("deep", 8)), rabbet),
    "dado": Family("Dado", (("wide", 150), ("thick", 18), ("shelf", 12), ("deep", 6), ("stop", 10)), dado),
    "groove": Family("Groove", (("wide", 90), ("thick", 14), ("panel", 6), ("deep", 4.5), ("up", 9)), groove),
    "sliding": Family(
        "Sliding dovetail",
        (("board wide", 150), ("thick", 20), ("slid board", 18), ("deep", 7), ("slope 1:", 7)),
        sliding_dovetail,
    ),
    "lapped": Family(
        "Lapped single dovetail",
        (("rail wide", 38), ("rail thick", 18), ("leg", 44), ("half-pin", 6), ("lap", 10), ("slope 1:", 7)),
        lapped_dovetail,
    ),
    "haunched": Family(
        "Haunched tenon",
        (("leg", 44), ("rail wide", 70), ("rail thick", 20), ("tenon", 7), ("long", 28), ("haunch", 16)),
        haunched_tenon,
    ),
    "drawbore": Family(
        "Drawbored tenon",
        (("leg", 44), ("rail wide", 70), ("rail thick", 20), ("tenon", 7), ("long", 34), ("peg", 8), ("offset", 1.5)),
        drawbored,
    ),
    "tusk": Family(
        "Tusk tenon",
        (
            ("post", 60),
            ("bar wide", 60),
            ("bar thick", 24),
            ("tenon", 18),
            ("beyond", 60),
            ("wedge", 14),
            ("slope 1 in", 10),
        ),
        tusk_tenon,
    ),
    "breadboard": Family(
        "Breadboard end",
        (
            ("panel wide", 300),
            ("thick", 20),
            ("end wide", 60),
            ("tongue", 19),
            ("tenons", 3),
            ("tenons long", 40),
            ("moves", 3),
        ),
        breadboard,
    ),
    "cross": Family("Cross lap", (("one wide", 40), ("other wide", 40), ("thick", 20)), cross_lap),
    "bridle": Family("Corner bridle", (("wide", 40), ("thick", 21)), corner_bridle),
    "keyed": Family("Keyed mitre", (("wide", 40), ("thick", 18), ("key", 2), ("in the corner", 20)), keyed_mitre),
}


def make_up(family: str, figures: tuple[float, ...]) -> MadeUp:
    """Make a joint of a family up.

    Raises
    ------
    JointError
        Where it cannot be made so.

    Examples
    --------
    >>> made = make_up("cross", (40, 40, 20))
    >>> [part.name for part in made.assembly.parts]
    ['lower board', 'upper board']
    """
    if any(not math.isfinite(figure) or figure < 0 for figure in figures):
        raise JointError("Every figure must be nothing or more.")
    return FAMILIES[family].make(*figures)
