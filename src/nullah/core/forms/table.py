"""A small table or stool: four legs, aprons tenoned into them, a top on buttons, with or without a drawer.

With a drawer the front apron gives way to two rails: the lower on a double tenon, the upper
lapped into the tops of the legs by a single dovetail that the top hides. Runners, kickers and
spacers guide the drawer. Places are counted from the outer corner of the front left leg.
"""

from __future__ import annotations

from itertools import combinations

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.forms.drawer import BOTTOM, Opening, drawer_sizes, drawer_stock, drawer_tails, put_drawer
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.fraction import Fraction
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.ledger import Definition, Ledger, Snap, given, ruled
from nullah.core.lengths import mm
from nullah.core.piece.facts import Note
from nullah.core.piece.form import Assembly, Choice, Choices, Form, Hardware, View
from nullah.core.piece.joint import Hold, JointQuantities, LaidOutBy, Over
from nullah.core.piece.part import Needs
from nullah.core.piece.shaping import Taper
from nullah.core.piece.space import Axis, Box, Side

_X, _Y, _Z = Axis.X, Axis.Y, Axis.Z
_LEGS = Choice(
    "legs",
    "Legs",
    (("inner", N_("tapered on two faces")), ("four", N_("on four faces")), ("straight", N_("straight"))),
    shape=True,
    parts=("leg?",),
)
_DRAWER = Choice(
    "drawer",
    "Drawer",
    (("none", N_("none")), ("one", N_("one"))),
    shape=True,
    parts=("drawer_*", "front_apron", "*_rail", "*_kicker", "*_runner", "*_spacer"),
)
_REAR = Choice(
    "rear",
    "Tenons meeting in a leg",
    (("short", N_("short of each other")), ("mitred", N_("mitered"))),
    parts=("leg?", "*_apron"),
)
_DRAWER_BOTTOM = BOTTOM._replace(
    name="drawer_bottom", title=N_("Drawer bottom"), when=("drawer", ("one",)), parts=("drawer_*",)
)
# Least distance from apron to taper, about 1/4 in (common practice).
_TAPER_BELOW = mm(6)

_CORNERS = {
    "leg1": (N_("front left leg"), False, False),
    "leg2": (N_("front right leg"), True, False),
    "leg3": (N_("back left leg"), False, True),
    "leg4": (N_("back right leg"), True, True),
}


# --- quantities -----------------------------------------------------------------------------------


def _define(chosen: Choices) -> tuple[Definition, ...]:
    drawer, mitred = chosen["drawer"] == "one", chosen["rear"] == "mitred"
    tenon = "apron.thickness / 3" if mitred else "2 * apron.thickness / 3"
    found = [
        given("table.length", N_("length of the top"), 480),
        given("table.width", N_("width of the top"), 380),
        given("table.height", N_("height"), 560),
        given("top.over", N_("top beyond the legs"), 30),
        *board_sizes("top", N_("the top"), "table.length", "table.width", 19),
        ruled("frame.length", N_("legs outside, along"), "table.length - 2 * top.over"),
        ruled("frame.width", N_("legs outside, across"), "table.width - 2 * top.over"),
        given("leg.section", N_("thickness of the legs"), 38),
        *board_sizes("leg", N_("the legs"), "table.height - top.thickness", "leg.section", "leg.section"),
        given("apron.width", N_("width of the aprons"), 110 if drawer else 80),
        given("apron.thickness", N_("thickness of the aprons"), 20),
        given("apron.setback", N_("aprons back from the legs"), "1.6"),
        ruled("tenon.thickness", N_("thickness of the tenons"), "apron.thickness / 3", snap=Snap.CHISEL),
        ruled("tenon.length", N_("length of the tenons"), f"leg.section - apron.setback - {tenon} - 1", snap=Snap.MARK),
        given("tenon.below", N_("lower edge of the aprons to the tenon"), 8),
        given("tenon.above", N_("top of the aprons to the tenon"), 14),
        *board_sizes(
            "long_apron",
            N_("the long aprons"),
            "frame.length - 2 * leg.section + 2 * tenon.length",
            "apron.width",
            "apron.thickness",
        ),
        *board_sizes(
            "side_apron",
            N_("the side aprons"),
            "frame.width - 2 * leg.section + 2 * tenon.length",
            "apron.width",
            "apron.thickness",
        ),
        given("button.tongue", N_("tongue of the buttons"), 8),
        given("button.room", N_("room for the buttons to move"), 3),
        ruled("button.long_place", N_("end of a long apron to its buttons"), "long_apron.length / 4", snap=Snap.MARK),
        ruled("button.side_place", N_("end of a side apron to its buttons"), "side_apron.length / 4", snap=Snap.MARK),
        *board_sizes("button", N_("the buttons"), "35 + button.tongue", "25", 15),
    ]
    if chosen["legs"] != "straight":
        found += [
            given("leg.foot", N_("thickness of the legs at the foot"), 22),
            given("taper.below", N_("apron to where the taper starts"), 10),
            ruled(
                "taper.off",
                N_("taper off each face"),
                "(leg.section - leg.foot) / 2" if chosen["legs"] == "four" else "leg.section - leg.foot",
            ),
        ]
    if drawer:
        found += _drawer_quantities(chosen["drawer_bottom"])
    return tuple(found)


def _drawer_quantities(bottom: str) -> list[Definition]:
    opening = _opening((Fraction(0),) * 3)
    return [
        ruled("rail.width", N_("width of the rails"), "leg.section - apron.setback"),
        given("rail.thickness", N_("thickness of the rails"), 18),
        ruled(
            "rail.tenon",
            N_("length of the lower rail's tenons"),
            "leg.section - apron.setback - 2 * apron.thickness / 3 - 1",
            snap=Snap.MARK,
        ),
        *board_sizes(
            "lower_rail",
            N_("the lower rail"),
            "frame.length - 2 * leg.section + 2 * rail.tenon",
            "rail.width",
            "rail.thickness",
        ),
        given("lap.length", N_("length of the upper rail's dovetails"), 16),
        ruled("rail.opening", N_("from leg to leg"), "frame.length - 2 * leg.section"),
        *board_sizes(
            "upper_rail",
            N_("the upper rail"),
            "rail.opening + 2 * lap.length",
            "rail.width",
            "rail.thickness",
            ("rail.opening",),
        ),
        ruled("double.width", N_("width of each of the double tenons"), "rail.width / 5", snap=Snap.CHISEL),
        *tail_sizes(
            "rail_tails",
            "rail.thickness",
            "leg.section",
            "rail.width",
            1,
            N_("of the upper rail"),
            lap="(leg.section - lap.length)",
        ),
        ruled("opening.width", N_("width of the drawer's opening"), "frame.length - 2 * leg.section"),
        ruled("opening.height", N_("height of the drawer's opening"), "apron.width - 2 * rail.thickness"),
        ruled(
            "opening.depth", N_("depth of the drawer's opening"), "frame.width - 2 * apron.setback - apron.thickness"
        ),
        given("guide.inside", N_("runners and kickers inside the legs"), 14),
        ruled("guide.opening", N_("from front leg to back leg"), "frame.width - 2 * leg.section"),
        *board_sizes(
            "runner",
            N_("runners and kickers"),
            "guide.opening",
            "leg.section - apron.setback - apron.thickness + guide.inside",
            "rail.thickness",
            ("guide.opening",),
        ),
        *board_sizes(
            "spacer",
            N_("the spacers"),
            "guide.opening",
            "opening.height / 3",
            "leg.section - apron.setback - apron.thickness",
            ("guide.opening",),
        ),
        *drawer_stock(bottom),
        *drawer_sizes("drawer", N_("the drawer"), opening, bottom),
        *drawer_tails("drawer", "drawer", N_("the drawer")),
    ]


def _opening(at: tuple[Fraction, Fraction, Fraction]) -> Opening:
    return Opening(at, "opening.width", "opening.height", "opening.depth")


# --- parts and joints -----------------------------------------------------------------------------


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m = Maker(ledger)
    must = [
        "table.length",
        "table.width",
        "table.height",
        "frame.length",
        "frame.width",
        "leg.section",
        "apron.width",
        "tenon.length",
        "tenon.thickness",
    ]
    if chosen["drawer"] == "one":
        must += ["opening.width", "opening.height", "opening.depth", "lap.length", "spacer.thickness"]
    if not m.need_positive(*must):
        return m.finish()
    _legs(m, chosen["legs"])
    _aprons(m, chosen)
    # Each side is glued flat by itself; what joins the two goes in between.
    m.unit("left frame", ("leg1", "leg3", "left_apron"))
    m.unit("right frame", ("leg2", "leg4", "right_apron"))
    over = m.q("top.over")
    m.board("top", "top", "top", (-over, -over, m.q("leg.length")), "xz", shows="tflrb")
    if chosen["drawer"] == "one":
        _rails(m)
        _guides(m)
        at = (m.q("leg.section"), m.q("apron.setback"), _under(m) + m.q("rail.thickness"))
        put_drawer(m, "drawer", "drawer", _opening(at), chosen["drawer_bottom"], "drawer")
        m.fit(Hardware.STOPS, "drawer_front")
    _buttons(m, chosen["drawer"] == "one")
    _measures(m, chosen)
    m.remark(Note.NO_LOAD_SAID, Severity.NOTE)
    return m.finish()


def _under(m: Maker) -> Fraction:
    """Return the height of the aprons' lower edge."""
    return m.q("leg.length") - m.q("apron.width")


def _legs(m: Maker, legs: str) -> None:
    q = m.q
    length, width, thick = q("frame.length"), q("frame.width"), q("leg.section")
    for part, (name, right, back) in _CORNERS.items():
        at = (length - thick if right else 0, width - thick if back else 0, 0)
        # From outside and from the top: the inside is tapered, and the foot is only cut to length.
        outside = ("r" if right else "l") + ("b" if back else "f")
        m.board(part, name, "leg", at, "zx", shows="lrfb", references=outside + "t")
        if legs == "straight" or q("taper.off") <= 0:
            continue
        inner = {Side.LEFT if right else Side.RIGHT, Side.FRONT if back else Side.BACK}
        faces = frozenset(inner) if legs == "inner" else frozenset((Side.LEFT, Side.RIGHT, Side.FRONT, Side.BACK))
        start = q("apron.width") + q("taper.below")
        m.shape(part, Taper(faces, Side.UNDER, float(start), float(q("taper.off"))))
    if legs != "straight" and q("taper.below") < _TAPER_BELOW.mm:
        m.remark(Note.TAPER_AT_APRON, Severity.WARNING, (m.give("taper.below", Fraction(10)),), "taper.below")


def _aprons(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width, leg = q("frame.length"), q("frame.width"), q("leg.section")
    thick, back, reach, low = q("apron.thickness"), q("apron.setback"), q("tenon.length"), _under(m)
    m.board(
        "back_apron",
        "back apron",
        "long_apron",
        (leg - reach, width - back - thick, low),
        "xy",
        shows="b",
        references="bt",
    )
    m.board("left_apron", "left apron", "side_apron", (back, leg - reach, low), "yx", shows="l", references="lt")
    m.board(
        "right_apron",
        "right apron",
        "side_apron",
        (length - back - thick, leg - reach, low),
        "yx",
        shows="r",
        references="rt",
    )
    joints = [
        ("leg3", "back_apron"),
        ("leg4", "back_apron"),
        ("leg1", "left_apron"),
        ("leg3", "left_apron"),
        ("leg2", "right_apron"),
        ("leg4", "right_apron"),
    ]
    if chosen["drawer"] == "none":
        m.board("front_apron", "front apron", "long_apron", (leg - reach, back, low), "xy", shows="f", references="ft")
        joints += [("leg1", "front_apron"), ("leg2", "front_apron")]
    third = q("tenon.thickness")
    ends: dict[str, list[tuple[str, Box]]] = {}
    for host, guest in joints:
        overlap = m.part(host).box.overlap(m.part(guest).box)
        face = m.part(guest).face
        tenon = overlap
        if overlap is not None:
            at = m.part(guest).box.low[face.value] + (thick - third) / 2
            tenon = overlap.set(face, at, at + third).set(
                _Z, low + q("tenon.below"), low + q("apron.width") - q("tenon.above")
            )
        if tenon is not None:
            ends.setdefault(host, []).append((guest, tenon))
            m.tenon(
                host,
                guest,
                (tenon,),
                mortises=(_as_deep(m, host, guest, tenon, reach),),
                names=JointQuantities(guest="tenon.thickness", reach="tenon.length"),
            )
    # Of two tenons in one leg only those that really meet are mitred, and nothing is glued there.
    for in_leg in ends.values():
        for (one, first), (two, second) in combinations(in_leg, 2):
            if first.overlap(second) is not None:
                m.mitre(two, one, Hold.DRY)


def _as_deep(m: Maker, host: str, guest: str, tenon: Box, depth: Fraction) -> Box:
    """Return the mortise for a tenon: of its section, and as deep as tenons are to be."""
    leg, axis = m.part(host).box, m.part(guest).grain
    a = axis.value
    inwards = m.part(guest).box.low[a] + m.part(guest).box.high[a] > leg.low[a] + leg.high[a]
    ends = (leg.high[a] - depth, leg.high[a]) if inwards else (leg.low[a], leg.low[a] + depth)
    return tenon.set(axis, *ends)


def _rails(m: Maker) -> None:
    q = m.q
    leg, back, thick = q("leg.section"), q("apron.setback"), q("rail.thickness")
    low, reach, lap = _under(m), q("rail.tenon"), q("lap.length")
    m.board("lower_rail", "lower rail", "lower_rail", (leg - reach, back, low), "xz", shows="f")
    m.board("upper_rail", "upper rail", "upper_rail", (leg - lap, back, q("leg.length") - thick), "xz", shows="f")
    wide = q("double.width")
    edge = wide * 3 / 4
    # What is between the shoulders counts, and not how long the tails came out.
    between = Over("rail.opening", q("rail.opening")), Over(), Over()
    laid_out_by: LaidOutBy | None = None
    for host in ("leg1", "leg2"):
        overlap = m.part(host).box.overlap(m.part("lower_rail").box)
        if overlap is not None:
            start, end = overlap.low[1], overlap.high[1]
            level = overlap.set(_Z, low + thick / 6, low + thick * 5 / 6)
            bands = ((start + edge, start + edge + wide), (end - edge - wide, end - edge))
            m.tenon(
                host,
                "lower_rail",
                tuple(level.set(_Y, *band) for band in bands),
                names=JointQuantities(reach="rail.tenon"),
            )
        joint = m.dovetail("upper_rail", host, "rail_tails", lap=leg - lap, laid_out_by=laid_out_by)
        laid_out_by = LaidOutBy((joint,), between)


_GUIDES = {
    "left_runner": N_("left runner"),
    "right_runner": N_("right runner"),
    "left_kicker": N_("left kicker"),
    "right_kicker": N_("right kicker"),
    "left_spacer": N_("left spacer"),
    "right_spacer": N_("right spacer"),
}


def _guides(m: Maker) -> None:
    """Put runners under the drawer's sides, kickers over them, spacers beside them flush with the legs."""
    q = m.q
    leg, inside, thick = q("leg.section"), q("apron.setback") + q("apron.thickness"), q("rail.thickness")
    low, high, wide = _under(m), q("leg.length"), q("runner.width")
    far = q("frame.length")
    for side, apron, start in (("left", "left_apron", inside), ("right", "right_apron", far - inside - wide)):
        for kind, level in (("runner", low), ("kicker", high - thick)):
            part = f"{side}_{kind}"
            m.board(part, _GUIDES[part], "runner", (start, leg, level), "yz", needs=Needs.ANY, role="back")
            m.butt(apron, part, Hold.GLUE)
        spacer = f"{side}_spacer"
        x = inside if side == "left" else far - inside - q("spacer.thickness")
        m.board(spacer, _GUIDES[spacer], "spacer", (x, leg, low + thick), "yx", needs=Needs.ANY, role="back")
        m.butt(apron, spacer, Hold.GLUE)
        m.butt("top", f"{side}_kicker", Hold.SLOTS, held_only=(Hold.SLOTS, Hold.DRY))


def _buttons(m: Maker, drawer: bool) -> None:
    """Hold the top by buttons whose tongues lie in mortises of the aprons, with room for the season."""
    q = m.q
    high, tongue, room = q("leg.length"), q("button.tongue"), q("button.room")
    thick, wide, long = q("button.thickness"), q("button.width"), q("button.length")
    sides = [
        ("back_apron", Side.FRONT),
        *(() if drawer else (("front_apron", Side.BACK), ("left_apron", Side.RIGHT), ("right_apron", Side.LEFT))),
    ]
    number = 0
    for apron, inner in sides:
        box, along = m.part(apron).box, m.part(apron).grain
        face = box.at(inner)
        out = (face - tongue, face - tongue + long) if inner.high else (face + tongue - long, face + tongue)
        place = q("button.side_place" if along is _Y else "button.long_place")
        for middle in (box.low[along.value] + place, box.high[along.value] - place):
            number += 1
            at = [Fraction(0), Fraction(0), high - thick]
            at[along.value], at[inner.axis.value] = middle - wide / 2, out[0]
            part = f"button{number}"
            lie = ("y" if inner.axis is _Y else "x") + "z"
            m.board(
                part, Phrase("button {number}", number=str(number)), "button", at, lie, needs=Needs.ANY, role="back"
            )
            _button_joint(m, apron, part, inner, along, tongue, room)
            m.butt("top", part, Hold.SCREWS, held_only=(Hold.SCREWS,))
    # With buttons on both sides the top moves half each way; with a drawer all of it at the back.
    m.freedom(("top",), room if drawer else 2 * room, "button.room")


def _button_joint(m: Maker, apron: str, part: str, inner: Side, along: Axis, tongue: Fraction, room: Fraction) -> None:
    overlap = m.part(apron).box.overlap(m.part(part).box)
    if overlap is None:
        return
    low = overlap.low[2]
    held = overlap.set(_Z, low, low + overlap.size(_Z) / 2)
    a, b = held.low[along.value], held.high[along.value]
    mortise: Box = held.set(along, a - room, b + room)
    # The top moves across its own grain: along the side aprons, in and out of the long ones.
    deeper = mortise.at(inner.opposite) - (1 if inner.high else -1) * (room if inner.axis is _Y else Fraction(1, 2))
    face = mortise.at(inner)
    # The tongue is drawn up against the upper wall; below it is room.
    mortise = mortise.set(inner.axis, *sorted((deeper, face))).set(_Z, low - 1, held.high[2])
    clear = [Fraction(1, 2), Fraction(1, 2), Fraction(1)]
    clear[along.value] = room
    clear[inner.axis.value] = room if inner.axis is _Y else Fraction(1, 2)
    m.let_in(
        apron,
        part,
        channels=(mortise,),
        shares=(held,),
        room=(clear[0], clear[1], clear[2]),
        hold=Hold.DRY,
        held_only=(Hold.DRY,),
        names=JointQuantities("", "button.tongue"),
    )
    if m.q("button.tongue") + room > m.part(apron).thickness.mm:
        m.remark(Note.BUTTON_MORTISES_THROUGH, Severity.FAILURE, quantity="button.tongue")


def _measures(m: Maker, chosen: Choices) -> None:
    q = m.q
    length, width, high, over = q("frame.length"), q("frame.width"), q("table.height"), q("top.over")
    leg, low = q("leg.length"), _under(m)
    front, section, above = View.FRONT, View.SECTION, View.ABOVE
    m.measure("table.length", front, (-over, 0, high), (length + over, 0, high), 6)
    m.measure("table.height", front, (-over, 0, 0), (-over, 0, high), 8)
    m.measure("apron.width", front, (length + over, 0, leg), (length + over, 0, low), 6)
    m.measure("leg.section", front, (0, 0, low - 20), (q("leg.section"), 0, low - 20), 0)
    m.measure("table.width", section, (0, -over, high), (0, width + over, high), 6)
    m.measure("top.thickness", section, (0, width + over, leg), (0, width + over, high), -6)
    m.measure("frame.length", above, (0, width / 2, 0), (length, width / 2, 0), 0)
    if chosen["legs"] != "straight":
        start, foot = low - q("taper.below"), q("leg.foot")
        m.measure("taper.below", front, (length + over, 0, low), (length + over, 0, start), 6)
        inset = q("taper.off") if chosen["legs"] == "four" else Fraction(0)
        m.measure("leg.foot", front, (inset, 0, 0), (inset + foot, 0, 0), -6)


TABLE = Form(
    "table",
    "Small table or stool",
    (_LEGS, _DRAWER, _REAR, _DRAWER_BOTTOM),
    _define,
    _assemble,
    ("table.length", "table.width", "table.height"),
)
