"""A drawer: half-blind at the front, through at the back; fitted to an opening.

Two kinds of bottom: in grooves, its grain side to side, sliding out under a lower back; or
nailed up into the sides from below and covered by slips the drawer runs on. A case puts the
same drawer into each of its openings.
"""

from __future__ import annotations

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.facts import DrawerTooLarge, FrontGap, SidesAboveFront
from nullah.core.piece.form import Assembly, Choice, Choices, Form, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.shaping import Taper
from nullah.core.piece.space import Side, sides_of

BOTTOM = Choice(
    "bottom", "Bottom", (("grooved", N_("in grooves")), ("slips", N_("nailed, with slips"))), parts=("drawer_*",)
)


class Opening(NamedTuple):
    """Where a drawer goes: its low corner, mm, and the quantities of its width, height and depth."""

    at: tuple[Fraction, Fraction, Fraction]
    width: str
    height: str
    depth: str


def drawer_stock(bottom: str, what: str = N_("of the drawer")) -> tuple[Definition, ...]:
    """Declare what all drawers of a piece share: thicknesses, reveals, grooves, tails."""
    return (
        given("drawer.front_thickness", Phrase("thickness of the front {what}", what=what), 18),
        given("drawer.side_thickness", Phrase("thickness of the sides {what}", what=what), 10),
        ruled("drawer.back_thickness", Phrase("thickness of the back {what}", what=what), "drawer.side_thickness"),
        given("drawer.bottom_thickness", Phrase("thickness of the bottom {what}", what=what), 6),
        given("drawer.reveal", Phrase("gap round the front {what}", what=what), "0.8", snap=Snap.NOTHING),
        given("drawer.end_gap", Phrase("room behind {what}", what=what), 6),
        given("drawer.lap", Phrase("lap of the front {what} over its tails", what=what), 5),
        given("drawer.side_drop", Phrase("how much lower the sides {what} are than the front", what=what), 2),
        given("drawer.clearance", Phrase("clearance of the bottom {what}", what=what), "0.5", snap=Snap.NOTHING),
        *(
            (
                given("drawer.groove_height", Phrase("lower edge to groove {what}", what=what), 9),
                given("drawer.groove_depth", Phrase("depth of the groove {what}", what=what), "3.5"),
                ruled(
                    "drawer.groove_width", Phrase("width of the groove {what}", what=what), "drawer.bottom_thickness"
                ),
            )
            if bottom == "grooved"
            else (
                ruled(
                    "drawer.rabbet_depth",
                    Phrase("depth of the front's rabbet {what}", what=what),
                    "drawer.side_thickness",
                ),
                ruled(
                    "drawer.rabbet_height",
                    Phrase("height of the front's rabbet {what}", what=what),
                    "drawer.bottom_thickness + slip.thickness",
                ),
                given("slip.thickness", N_("thickness of the slips at their thick end"), 6),
                given("slip.taper", N_("how much the slips taper to the back"), 1),
                given("slip.board_width", N_("width of the slips"), 18),
            )
        ),
    )


def drawer_tails(prefix: str, first: str, what: str) -> tuple[Definition, ...]:
    """Declare the corners of drawers that are equally high, after the first of them: half-blind, and at the back."""
    return (
        *tail_sizes(
            f"{prefix}_tails",
            "drawer.side_thickness",
            "drawer.front_thickness",
            f"{first}_sides.width",
            2,
            Phrase("of {what}", what=what),
            "4",
            lap="drawer.lap",
        ),
        *tail_sizes(
            f"{prefix}_back_tails",
            "drawer.side_thickness",
            "drawer.back_thickness",
            f"{first}_back.width",
            2,
            Phrase("at the back of {what}", what=what),
            "4",
        ),
    )


def drawer_sizes(prefix: str, title: str, opening: Opening, bottom: str) -> tuple[Definition, ...]:
    """Declare the boards of one drawer; all of them fit an opening that must be measured first."""
    w, h, d = opening.width, opening.height, opening.depth
    fits = (w, h)
    lift = "" if bottom == "grooved" else " - drawer.bottom_thickness - slip.thickness"
    # The back stands on the bottom where that lies in grooves, so that the bottom slides out behind.
    up = " - drawer.groove_height - drawer.groove_width" if bottom == "grooved" else ""
    found = [
        *board_sizes(
            f"{prefix}_front",
            Phrase("the front of {what}", what=title),
            f"{w} - 2 * drawer.reveal",
            f"{h} - 2 * drawer.reveal",
            "drawer.front_thickness",
            fits,
        ),
        *board_sizes(
            f"{prefix}_sides",
            Phrase("the sides of {what}", what=title),
            f"{d} - drawer.end_gap - drawer.lap",
            f"{prefix}_front.width - drawer.side_drop{lift}",
            "drawer.side_thickness",
            (d,),
        ),
        *board_sizes(
            f"{prefix}_back",
            Phrase("the back of {what}", what=title),
            f"{prefix}_front.length",
            f"{prefix}_sides.width{up} - drawer.side_drop",
            "drawer.back_thickness",
            fits,
        ),
        *_bottom_sizes(prefix, Phrase("the bottom of {what}", what=title), opening, bottom),
    ]
    if bottom == "slips":
        found += board_sizes(
            f"{prefix}_slip",
            Phrase("the slips of {what}", what=title),
            f"{prefix}_bottom.width",
            "slip.board_width",
            "slip.thickness",
        )
    return tuple(found)


def _bottom_sizes(prefix: str, title: Phrase, opening: Opening, bottom: str) -> tuple[Definition, ...]:
    """Declare a bottom, which is cut when the drawer stands that it goes into."""
    board, deep = f"{prefix}_bottom", f"{opening.depth} - drawer.end_gap - drawer.front_thickness"
    between = f"{board}.opening"
    if bottom == "grooved":
        across = Phrase("groove to groove, for {what}", what=title)
        found = f"{prefix}_front.length - 2 * drawer.side_thickness + 2 * drawer.groove_depth"
        long, wide = f"{between} - 2 * drawer.clearance", f"{deep} + drawer.groove_depth - drawer.clearance"
    else:
        across = Phrase("over both sides, for {what}", what=title)
        found, long, wide = f"{prefix}_front.length", between, f"{deep} + drawer.rabbet_depth"
    return (
        ruled(between, across, found),
        ruled(f"{board}.length", Phrase("length of {what}", what=title), long, (between,)),
        ruled(f"{board}.width", Phrase("width of {what}", what=title), wide, (between,)),
        ruled(f"{board}.thickness", Phrase("thickness of {what}", what=title), "drawer.bottom_thickness"),
    )


def put_drawer(m: Maker, prefix: str, title: str, opening: Opening, bottom: str, tails: str) -> None:
    """Put one drawer into its opening, its front flush with the opening's; `tails` as in `drawer_tails`."""
    q = m.q
    reveal, lap = q("drawer.reveal"), q("drawer.lap")
    front, side = q(f"{prefix}_front.thickness"), q(f"{prefix}_sides.thickness")
    x, y, z = opening.at[0] + reveal, opening.at[1], opening.at[2] + reveal
    wide = q(f"{prefix}_front.length")
    rise = Fraction(0) if bottom == "grooved" else q("drawer.bottom_thickness") + q("slip.thickness")
    deep = y + lap + q(f"{prefix}_sides.length")
    floor = q("drawer.groove_height") + q("drawer.groove_width") if bottom == "grooved" else Fraction(0)
    f, lft, rgt, back = (f"{prefix}_{name}" for name in ("front", "left", "right", "back"))
    m.board(
        f,
        Phrase("{whole} front", whole=title),
        f"{prefix}_front",
        (x, y, z),
        "xy",
        shows="f",
        role="front",
        group=prefix,
    )
    for part_id, name, at in ((lft, N_("{whole} left side"), x), (rgt, N_("{whole} right side"), x + wide - side)):
        m.board(
            part_id,
            Phrase(name, whole=title),
            f"{prefix}_sides",
            (at, y + lap, z + rise),
            "yx",
            group=prefix,
            role="drawer",
        )
    m.board(
        back,
        Phrase("{whole} back", whole=title),
        f"{prefix}_back",
        (x, deep - q(f"{prefix}_back.thickness"), z + rise + floor),
        "xy",
        group=prefix,
        role="drawer",
    )
    groove = "drawer.groove_" if bottom == "grooved" else ""
    for part_id in (lft, rgt):
        m.dovetail(part_id, f, f"{tails}_tails", groove, lap)
        m.dovetail(part_id, back, f"{tails}_back_tails")
    if bottom == "grooved":
        _grooved_bottom(m, prefix, title, (x, y, z), wide, front, deep)
    else:
        _nailed_bottom(m, prefix, title, (x, y, z), wide, front, deep)
    _reveals(m, prefix, title, opening)
    above = rise + q(f"{prefix}_sides.width") - q(f"{prefix}_front.width")
    if above > 0:
        fixes = (m.give(f"{prefix}_sides.width", q(f"{prefix}_front.width") - rise),)
        m.remark(SidesAboveFront(title, Length(above)), Severity.FAILURE, fixes, f"{prefix}_sides.width")
    of = (f"{prefix}_front.length", f"{prefix}_front.width")
    m.mover(title, prefix, Side.FRONT, q(opening.depth), of, "drawer.reveal")


def _fits_opening(m: Maker, prefix: str, title: str, opening: Opening) -> None:
    """Say where a front is larger than an opening of which nothing stands here that it could meet."""
    for room, size in ((opening.width, f"{prefix}_front.length"), (opening.height, f"{prefix}_front.width")):
        over = m.q(size) - m.q(room)
        if over > 0:
            fixes = (m.give(size, m.q(room) - 2 * m.q("drawer.reveal")),)
            m.remark(DrawerTooLarge(title, Length(over), room), Severity.FAILURE, fixes, size)


def _reveals(m: Maker, prefix: str, title: str, opening: Opening) -> None:
    """Say where the gap round a front is another than was planned."""
    for room, size in ((opening.width, f"{prefix}_front.length"), (opening.height, f"{prefix}_front.width")):
        gap = (m.q(room) - m.q(size)) / 2
        if gap > m.q("drawer.reveal") + Fraction(1, 2):
            m.remark(FrontGap(title, Length(gap), room), Severity.WARNING, quantity=size)


def _grooved_bottom(
    m: Maker,
    prefix: str,
    title: str,
    at: tuple[Fraction, Fraction, Fraction],
    wide: Fraction,
    front: Fraction,
    deep: Fraction,
) -> None:
    q = m.q
    x, y, z = at
    side, sunk, clear = q("drawer.side_thickness"), q("drawer.groove_depth"), q("drawer.clearance")
    low = z + q("drawer.groove_height")
    level = (low, low + q("drawer.groove_width"))
    bottom = f"{prefix}_bottom"
    start = x + (wide - q(f"{prefix}_bottom.length")) / 2
    m.board(
        bottom,
        Phrase("{whole} bottom", whole=title),
        bottom,
        (start, y + front - sunk + clear, low),
        "xz",
        needs=Needs.ANY,
        role="bottom",
        group=prefix,
    )
    names = JointQuantities("drawer.groove_width", "drawer.groove_depth", guest="drawer.bottom_thickness")
    inside = (x + side - sunk, x + wide - side + sunk)
    channel = m.channel(f"{prefix}_front", Side.BACK, sunk, z=level, x=inside)
    m.let_in(
        f"{prefix}_front", bottom, channels=(channel,), room=(clear, clear, 0), runs=True, hold=Hold.DRY, names=names
    )
    for host, inner in ((f"{prefix}_left", Side.RIGHT), (f"{prefix}_right", Side.LEFT)):
        channel = m.channel(host, inner, sunk, z=level, y=(y + front - sunk, deep))
        m.let_in(host, bottom, channels=(channel,), room=(clear, clear, 0), runs=True, hold=Hold.DRY, names=names)
    m.butt(f"{prefix}_back", bottom, Hold.SLOTS)


def _nailed_bottom(
    m: Maker,
    prefix: str,
    title: str,
    at: tuple[Fraction, Fraction, Fraction],
    wide: Fraction,
    front: Fraction,
    deep: Fraction,
) -> None:
    q = m.q
    x, y, z = at
    bottom = f"{prefix}_bottom"
    sunk, low = q("drawer.rabbet_depth"), z + q("slip.thickness")
    m.board(
        bottom,
        Phrase("{whole} bottom", whole=title),
        bottom,
        (x, y + front - sunk, low),
        "xz",
        needs=Needs.ANY,
        role="bottom",
        group=prefix,
    )
    channel = m.channel(f"{prefix}_front", Side.BACK, sunk, z=(z, z + q("drawer.rabbet_height")))
    names = JointQuantities("drawer.rabbet_height", "drawer.rabbet_depth")
    m.let_in(
        f"{prefix}_front",
        bottom,
        channels=(channel,),
        room=(0, 0, q("slip.thickness")),
        runs=True,
        hold=Hold.GLUE,
        names=names,
    )
    for host in (f"{prefix}_left", f"{prefix}_right", f"{prefix}_back"):
        m.butt(host, bottom, Hold.NAILS)
    slip = q("slip.board_width")
    taper = Taper(sides_of("u"), Side.BACK, 0.0, float(q("slip.taper")))
    for number, start in ((1, x), (2, x + wide - slip)):
        m.board(
            f"{prefix}_slip{number}",
            Phrase("{whole} slip {number}", whole=title, number=str(number)),
            f"{prefix}_slip",
            (start, y + front - sunk, z),
            "yz",
            needs=Needs.CLEAR,
            shapings=(taper,),
            group=prefix,
            role="drawer",
        )
        m.butt(bottom, f"{prefix}_slip{number}", Hold.NAILS)
        m.let_in(
            f"{prefix}_front",
            f"{prefix}_slip{number}",
            channels=(channel,),
            runs=True,
            hold=Hold.DRY,
            room=(0, 0, q("drawer.rabbet_height")),
            names=names,
        )


def _define(chosen: Choices) -> tuple[Definition, ...]:
    opening = Opening((Fraction(0), Fraction(0), Fraction(0)), "opening.width", "opening.height", "opening.depth")
    return (
        given("opening.width", N_("width of the opening"), 280),
        given("opening.height", N_("height of the opening"), 110),
        given("opening.depth", N_("depth of the opening"), 260),
        *drawer_stock(chosen["bottom"]),
        *drawer_sizes("drawer", N_("the drawer"), opening, chosen["bottom"]),
        *drawer_tails("drawer", "drawer", N_("the drawer")),
    )


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    if not m.need_positive("opening.width", "opening.height", "opening.depth"):
        return m.finish()
    opening = Opening((Fraction(0), Fraction(0), Fraction(0)), "opening.width", "opening.height", "opening.depth")
    put_drawer(m, "drawer", N_("drawer"), opening, chosen["bottom"], "drawer")
    _fits_opening(m, "drawer", N_("drawer"), opening)
    box = m.part("drawer_front").box
    left = m.part("drawer_left").box
    m.measure("drawer_front.length", View.FRONT, (box.low[0], 0, box.low[2]), (box.high[0], 0, box.low[2]), -6)
    m.measure("drawer_front.width", View.FRONT, (box.low[0], 0, box.low[2]), (box.low[0], 0, box.high[2]), 6)
    m.measure("drawer_sides.length", View.ABOVE, (0, left.low[1], 0), (0, left.high[1], 0), 6)
    m.measure("drawer_sides.thickness", View.ABOVE, (left.low[0], left.high[1], 0), (left.high[0], left.high[1], 0), 6)
    m.measure("drawer.front_thickness", View.SECTION, (0, 0, box.high[2]), (0, box.high[1], box.high[2]), 6)
    m.measure("drawer_sides.width", View.SECTION, (0, left.high[1], left.high[2]), (0, left.high[1], left.low[2]), 6)
    return m.finish()


DRAWER = Form(
    "drawer",
    "Drawer for an opening",
    (BOTTOM,),
    _define,
    _assemble,
    ("opening.width", "opening.depth", "opening.height"),
)
