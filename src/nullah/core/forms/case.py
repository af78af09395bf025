"""A case: sides, top and bottom, shelves and dividers in dados, a rabbeted back, drawers.

Rows are counted from the top, columns from the left. Dividers between rows are solid, or
frames round a thin dust panel. Drawers go into every opening, or into the lowest row.
"""

from __future__ import annotations

from collections.abc import Callable

from nullah.core.card import Severity
from nullah.core.catalogue import N_, Phrase
from nullah.core.fixes import FollowRule
from nullah.core.forms.drawer import BOTTOM, Opening, drawer_sizes, drawer_stock, drawer_tails, put_drawer
from nullah.core.forms.maker import Maker, board_sizes
from nullah.core.forms.sizing import SIZING, SizeRule, sizes
from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_value
from nullah.core.joints.dovetail.sizes import tail_sizes
from nullah.core.ledger import Definition, Ledger, Origin, QuantityKind, Snap, given, ruled
from nullah.core.lengths import Length
from nullah.core.piece.facts import Note, RowsOff
from nullah.core.piece.form import Assembly, Choice, Choices, Form, Hardware, View
from nullah.core.piece.joint import Hold, JointQuantities
from nullah.core.piece.part import Needs
from nullah.core.piece.space import Axis, Box, Side

_Y, _Z = Axis.Y, Axis.Z

_CORNERS = Choice(
    "corners",
    "Corners",
    (("dovetailed", N_("dovetailed")), ("rabbeted", N_("rabbeted"))),
    shape=True,
    parts=("left", "right", "top", "bottom"),
)
_ROWS = Choice(
    "rows",
    "Rows",
    tuple((str(n), str(n)) for n in (3, 1, 2, 4, 5, 6, 8, 10)),
    parts=("divider*", "left", "right", "upright*"),
)
_COLUMNS = Choice(
    "columns", "Columns", tuple((str(n), str(n)) for n in (1, 2, 3, 4)), parts=("upright*", "top", "bottom", "divider*")
)
_HEIGHTS = Choice("heights", "Heights", (("even", N_("even")), ("stepped", N_("stepped"))), parts=("divider*",))
_DADOS = Choice(
    "dados",
    "Dados",
    (("stopped", N_("stopped")), ("through", N_("through")), ("shouldered", N_("shouldered"))),
    parts=("divider*", "left", "right", "upright*"),
)
_DIVIDERS = Choice("dividers", "Dividers", (("solid", N_("solid")), ("frame", N_("framed"))), parts=("divider*",))
_BACK = Choice(
    "back",
    "Back",
    tuple((str(n), Phrase("{n} boards", n=str(n)) if n > 1 else N_("one panel")) for n in (4, 1, 2, 3, 5, 6, 8)),
    parts=("back*",),
)
_DRAWERS = Choice(
    "drawers",
    "Drawers",
    (("none", N_("none")), ("all", N_("in all")), ("lowest", N_("lowest row"))),
    shape=True,
    parts=("drawer*", "divider*"),
)
_DRAWER_BOTTOM = BOTTOM._replace(
    name="drawer_bottom", title=N_("Drawer bottoms"), when=("drawers", ("all", "lowest")), parts=("drawer*",)
)


class _Shape:
    """The choices as numbers."""

    def __init__(self, chosen: Choices) -> None:
        self.rows, self.columns, self.boards = int(chosen["rows"]), int(chosen["columns"]), int(chosen["back"])
        self.dovetailed = chosen["corners"] == "dovetailed"
        self.dados, self.framed = chosen["dados"], chosen["dividers"] == "frame"
        self.heights, self.drawer_bottom = chosen["heights"], chosen["drawer_bottom"]
        wanted = {"none": (), "all": range(1, self.rows + 1), "lowest": (self.rows,)}[chosen["drawers"]]
        #: Row and column (from 1) of every drawer.
        self.drawers = [(row, column) for row in wanted for column in range(1, self.columns + 1)]

    @property
    def divided(self) -> bool:
        return self.rows > 1 or self.columns > 1

    def tails_of(self, row: int) -> str:
        """Return the prefix of a drawer's corners: drawers equally high share theirs."""
        return "drawer" if self.heights == "even" else f"row{row}"

    def drawer_tails(self) -> dict[str, tuple[int, int]]:
        """Return each kind of drawer corner, and the first drawer that has it."""
        return {self.tails_of(row): (row, column) for row, column in reversed(self.drawers)}

    def drawer_title(self, row: int, column: int) -> str:
        return Phrase("drawer {number}", number=str(self.drawers.index((row, column)) + 1))


# --- quantities -----------------------------------------------------------------------------------


def _define(chosen: Choices) -> tuple[Definition, ...]:
    shape = _Shape(chosen)
    spare = "2 * tails.proud" if shape.dovetailed else ""
    top_length = (
        "case.outside_width" if shape.dovetailed else "case.outside_width - 2 * (sides.thickness - corner.depth)"
    )
    found = [
        *sizes(
            "case",
            chosen["sizing"],
            {
                "width": SizeRule("2 * sides.thickness", 420),
                "depth": SizeRule("back.thickness", 240),
                "height": SizeRule("2 * top.thickness", 480),
            },
        ),
        *board_sizes("sides", N_("the sides"), "case.outside_height", "case.outside_depth", 18, spare=spare),
        *board_sizes("top", N_("top and bottom"), top_length, "case.outside_depth", "sides.thickness", spare=spare),
    ]
    if shape.dovetailed:
        found += tail_sizes("tails", "sides.thickness", "top.thickness", "case.outside_depth", 5, proud="tails.proud")
    else:
        found += [
            ruled("corner.depth", N_("depth of the corner rabbet"), "sides.thickness / 2", snap=Snap.MARK),
            ruled("corner.width", N_("width of the corner rabbet"), "top.thickness"),
        ]
    found += _back_quantities(shape.boards)
    if shape.divided:
        found += _dado_quantities(shape)
    found += _opening_quantities(shape)
    if shape.rows > 1:
        found += _divider_quantities(shape)
    if shape.drawers:
        found += drawer_stock(shape.drawer_bottom, N_("of the drawers"))
    for row, column in shape.drawers:
        opening = _opening_names(row)
        found += drawer_sizes(f"drawer{row}{column}", shape.drawer_title(row, column), opening, shape.drawer_bottom)
    for prefix, (row, column) in shape.drawer_tails().items():
        what = N_("the drawers") if prefix == "drawer" else Phrase("the drawers in row {row}", row=str(row))
        found += drawer_tails(prefix, f"drawer{row}{column}", what)
    return tuple(found)


def _back_quantities(boards: int) -> list[Definition]:
    one = boards == 1
    return [
        given("back.thickness", N_("thickness of the back"), 9),
        given("back.rabbet", N_("depth of the back's rabbet"), 8),
        ruled("back.rabbet_width", N_("width of the back's rabbet"), "back.thickness"),
        ruled("back.opening_width", N_("rabbet to rabbet, across"), "case.inside_width + 2 * back.rabbet"),
        ruled("back.opening_height", N_("rabbet to rabbet, up"), "case.inside_height + 2 * back.rabbet"),
        given(
            "back.gap",
            N_("gap at each edge of the back") if one else N_("gap at each edge of the back's boards"),
            3 if one else "1.5",
            snap=Snap.NOTHING,
        ),
        ruled(
            "back.length",
            N_("length of the back") if one else N_("length of the back's boards"),
            "back.opening_height",
            ("back.opening_height",),
        ),
        ruled(
            "back.width",
            N_("width of the back") if one else N_("width of the back's boards"),
            f"(back.opening_width - {boards + 1} * back.gap) / {boards}",
            ("back.opening_width",),
        ),
    ]


def _dado_quantities(shape: _Shape) -> list[Definition]:
    # Dados from both faces meet in an upright: a third of it each leaves a third.
    both = shape.columns > 1 and shape.rows > 1
    shouldered = shape.dados == "shouldered"
    found = [
        given("divider.thickness", N_("thickness of the dividers"), 15 if both else 12),
        given("divider.setback", N_("dividers back from the front"), 0),
        ruled("dado.depth", N_("depth of the dados"), "divider.thickness / 3", snap=Snap.MARK_BELOW)
        if both
        else given("dado.depth", N_("depth of the dados"), 5),
        ruled(
            "dado.width",
            N_("width of the dados"),
            "divider.thickness / 2" if shouldered else "divider.thickness",
            snap=Snap.MARK if shouldered else Snap.NOTHING,
        ),
    ]
    if shouldered:
        found.append(ruled("divider.tongue", N_("tongue of the dividers"), "dado.width"))
    if shape.dados == "stopped":
        found += [
            given("dado.stop", N_("front edge to where the dados stop"), 10),
            ruled("divider.notch", N_("notch in the dividers' front corners"), "dado.stop - divider.setback"),
        ]
    if shape.columns > 1:
        found += [
            ruled("upright.opening", N_("dado to dado, up"), "case.inside_height + 2 * dado.depth"),
            ruled("upright.length", N_("length of the uprights"), "upright.opening", ("upright.opening",)),
            ruled("upright.width", N_("width of the uprights"), f"{_DEEP} - divider.setback"),
            ruled("upright.thickness", N_("thickness of the uprights"), "divider.thickness"),
        ]
    return found


#: What is cut before the openings are measured for drawers hangs on this, and not on what is measured.
_DEEP = "case.outside_depth - back.thickness"


def _opening_names(row: int) -> Opening:
    nowhere = (Fraction(0), Fraction(0), Fraction(0))
    return Opening(nowhere, "column.width", f"row{row}.height", "opening.depth")


def _opening_quantities(shape: _Shape) -> list[Definition]:
    uprights, dividers = shape.columns - 1, shape.rows - 1
    width = (
        f"(case.inside_width - {uprights} * upright.thickness) / {shape.columns}" if uprights else "case.inside_width"
    )
    found = [
        ruled("opening.depth", N_("depth of the openings"), _DEEP),
        ruled("column.width", N_("width of the openings"), width),
    ]
    if not dividers:
        return [*found, ruled("row1.height", N_("height of the opening"), "case.inside_height")]
    clear = f"case.inside_height - {dividers} * divider.thickness"
    if shape.heights == "stepped":
        steps = shape.rows * dividers // 2
        found.append(given("rows.step", N_("each row taller than the one above by"), 12 if shape.rows <= 4 else 4))
        rules = [f"({clear} - {steps} * rows.step) / {shape.rows} + {n} * rows.step" for n in range(shape.rows)]
    else:
        rules = [f"({clear}) / {shape.rows}"] * shape.rows
    return found + [
        ruled(f"row{n}.height", Phrase("height of row {n}", n=str(n)), rule) for n, rule in enumerate(rules, start=1)
    ]


def _of_column(name: str, column: int) -> str:
    """Return what parts of a column are called by in the ledger: each opening comes out as it does."""
    return name if column == 1 else f"{name}{column}"


def _divider_quantities(shape: _Shape) -> list[Definition]:
    found = [] if shape.drawers else [given("shelf.load", N_("load on each shelf"), 12, QuantityKind.WEIGHT)]
    if shape.framed:
        found += [
            given("frame.board_width", N_("width of the frames' members"), 45),
            given("frame.tongue", N_("length of the frames' tongues"), 8),
            given("frame.gap", N_("gap behind the frames, for the sides to shrink"), 2, snap=Snap.NOTHING),
            ruled("frame.groove", N_("width of the frames' grooves"), "divider.thickness / 3", snap=Snap.IRON_BELOW),
            given("panel.clearance", N_("clearance of the dust panels, each edge"), 2, snap=Snap.NOTHING),
            *board_sizes("runner", N_("the frames' runners"), _INNER, "frame.board_width", "divider.thickness"),
        ]
    for column in range(1, shape.columns + 1):
        found += _column_quantities(shape, column)
    return found


#: Between the rails of a frame, and as far into them as the tongues go.
_INNER = f"{_DEEP} - divider.setback - frame.gap - 2 * (frame.board_width - frame.tongue)"


def _column_quantities(shape: _Shape, column: int) -> list[Definition]:
    """Return what the dividers of a column are cut to: the opening as it came out there."""

    def there(what: str) -> str:
        return what if shape.columns == 1 else Phrase("{what} in column {n}", what=what, n=str(column))

    divider, rail, panel = (_of_column(name, column) for name in ("divider", "rail", "panel"))
    opening = f"{divider}.opening"
    found = [ruled(opening, there(N_("dado to dado")), "column.width + 2 * dado.depth")]
    if not shape.framed:
        found += [
            ruled(f"{divider}.length", there(N_("length of the dividers")), opening, (opening,)),
            ruled(f"{divider}.width", there(N_("width of the dividers")), f"{_DEEP} - divider.setback"),
        ]
        thick = there(N_("thickness of the dividers"))
        return found if column == 1 else [*found, ruled(f"{divider}.thickness", thick, "divider.thickness")]
    across = f"{rail}.length - 2 * (frame.board_width - frame.tongue) - 2 * panel.clearance"
    rails, panels = there(N_("the frames' rails")), there(N_("the dust panels"))
    return [
        *found,
        *board_sizes(rail, rails, opening, "frame.board_width", "divider.thickness", (opening,)),
        *board_sizes(panel, panels, f"{_INNER} - 2 * panel.clearance", across, "frame.groove"),
    ]


# --- parts and joints -----------------------------------------------------------------------------


@kept_by_value(16)
def _shape(chosen: tuple[tuple[str, str], ...]) -> _Shape:
    """Return the choices as numbers: the very same for the same choices, so that steps know them again."""
    return _Shape(dict(chosen))


def _assemble(ledger: Ledger, chosen: Choices) -> Assembly:
    m, shape = Maker(ledger), _shape(tuple(chosen.items()))
    must = [
        "case.outside_width",
        "case.outside_depth",
        "case.outside_height",
        "case.inside_width",
        "case.inside_height",
        "opening.depth",
        "column.width",
        "back.rabbet_width",
    ]
    if not m.need_positive(*must, *(f"row{n}.height" for n in range(1, shape.rows + 1))):
        return m.finish()
    m.step(_carcase, shape)
    m.step(_back, shape)
    for column in range(1, shape.columns):
        m.step(_upright, shape, column)
    for row in range(1, shape.rows):
        for column in range(1, shape.columns + 1):
            m.step(_divider, shape, row, column)
    _room_behind(m, shape)
    for row, column in shape.drawers:
        m.step(_drawer, shape, row, column)
    m.step(_measures, shape)
    _rows_add_up(m, shape)
    m.remark(Note.ANCHOR_TO_WALL, Severity.NOTE)
    if shape.drawers:
        m.fit(Hardware.STOPS, *(f"drawer{row}{column}_front" for row, column in shape.drawers))
    m.fit(Hardware.WALL, *(f"back{number}" for number in range(1, shape.boards + 1)))
    return m.finish()


def _drawer(m: Maker, shape: _Shape, row: int, column: int) -> None:
    low, _ = _row(m, shape, row)
    opening = _opening_names(row)._replace(at=(_column(m, column)[0], Fraction(0), low))
    title, tails = shape.drawer_title(row, column), shape.tails_of(row)
    put_drawer(m, f"drawer{row}{column}", title, opening, shape.drawer_bottom, tails)


def _rows_add_up(m: Maker, shape: _Shape) -> None:
    """Say where rows that were overruled or measured do not fill the inside any more."""
    names = [f"row{row}.height" for row in range(1, shape.rows + 1)]
    filled = sum(map(m.q, names)) + (shape.rows - 1) * (m.q("divider.thickness") if shape.rows > 1 else 0)
    over = filled - m.q("case.inside_height")
    if abs(over) < Fraction(1, 2):
        return
    origins = [m.ledger.quantity(name).origin for name in names]
    fixes = tuple(FollowRule(name) for name, origin in zip(names, origins, strict=True) if origin is Origin.OVERRULED)
    m.remark(
        RowsOff(Length(abs(over)), more=over > 0),
        Severity.WARNING if Origin.MEASURED in origins else Severity.FAILURE,
        fixes,
        names[0],
    )


def _column(m: Maker, column: int) -> tuple[Fraction, Fraction]:
    """Return where a column begins and ends along X."""
    wide, side = m.designed("column.width"), m.q("sides.thickness")
    upright = m.q("upright.thickness") if "upright.thickness" in m.ledger.quantities else Fraction(0)
    low = side + (column - 1) * (wide + upright)
    return low, low + wide


def _row(m: Maker, shape: _Shape, row: int) -> tuple[Fraction, Fraction]:
    """Return where a row begins and ends, up."""
    top = m.q("case.outside_height") - m.q("top.thickness")
    for above in range(1, row):
        top -= m.designed(f"row{above}.height") + m.q("divider.thickness")
    return top - m.designed(f"row{row}.height"), top


def _carcase(m: Maker, shape: _Shape) -> None:
    q = m.q
    width, height = q("case.outside_width"), q("case.outside_height")
    side, top = q("sides.thickness"), q("top.thickness")
    spare = 2 * q("tails.proud") if shape.dovetailed else Fraction(0)
    inset = Fraction(0) if shape.dovetailed else side - q("corner.depth")
    m.board("left", "left side", "sides", (0, 0, 0), "zx", shows="lft", spare=spare)
    m.board("right", "right side", "sides", (width - side, 0, 0), "zx", shows="rft", spare=spare)
    m.board("top", "top", "top", (inset, 0, height - top), "xz", shows="tflr", spare=spare)
    m.board("bottom", "bottom", "top", (inset, 0, 0), "xz", shows="flr", spare=spare)
    for s, inner in (("left", Side.RIGHT), ("right", Side.LEFT)):
        for e in ("top", "bottom"):
            if shape.dovetailed:
                m.dovetail(s, e, "tails")
                continue
            wide = q("corner.width")
            z = (height - wide, height) if e == "top" else (Fraction(0), wide)
            m.let_in(
                s,
                e,
                channels=(m.channel(s, inner, q("corner.depth"), z=z),),
                names=JointQuantities("corner.width", "corner.depth", guest="top.thickness"),
            )


def _back(m: Maker, shape: _Shape) -> None:
    q = m.q
    width, depth, height = (q(f"case.outside_{way}") for way in ("width", "depth", "height"))
    rabbet, wide, gap = q("back.rabbet"), q("back.rabbet_width"), q("back.gap")
    low_x, low_z = q("sides.thickness") - rabbet, q("top.thickness") - rabbet
    x, y, z = (low_x, width - low_x), (depth - wide, depth), (low_z, height - low_z)
    names = JointQuantities("back.rabbet_width", "back.rabbet", guest="back.thickness", reach="back.length")
    ids = []
    for number in range(1, shape.boards + 1):
        part_id = f"back{number}"
        ids.append(part_id)
        at = low_x + gap + (number - 1) * (q("back.width") + gap)
        m.board(
            part_id,
            Phrase("back board {number}", number=str(number)) if shape.boards > 1 else N_("back"),
            "back",
            (at, depth - wide, low_z),
            "zy",
            needs=Needs.ANY,
            role="back",
        )
        hosts = [("top", Side.UNDER, {"x": x, "y": y}), ("bottom", Side.TOP, {"x": x, "y": y})]
        if number == 1:
            hosts.append(("left", Side.RIGHT, {"y": y, "z": z}))
        if number == shape.boards:
            hosts.append(("right", Side.LEFT, {"y": y, "z": z}))
        for host, inner, along in hosts:
            room = (gap, 0, 0)
            channel = m.channel(host, inner, rabbet, **along)
            m.let_in(host, part_id, channels=(channel,), room=room, runs=True, hold=Hold.NAILS, names=names)
    m.freedom(ids, (shape.boards + 1) * gap, "back.gap")


def _upright(m: Maker, shape: _Shape, column: int) -> None:
    q = m.q
    part_id, setback = f"upright{column}", q("divider.setback")
    name = Phrase("upright {number}", number=str(column)) if shape.columns > 2 else N_("upright")
    m.board(
        part_id,
        name,
        "upright",
        (_column(m, column)[1], setback, q("top.thickness") - q("dado.depth")),
        "zx",
        shows="f",
    )
    x = m.part(part_id).box
    wide = q("dado.width") if shape.dados != "shouldered" else q("divider.thickness")
    for host, inner in (("top", Side.UNDER), ("bottom", Side.TOP)):
        along = {"x": (x.low[0], x.low[0] + wide), "y": _dado_run(m, shape)}
        _house(m, shape, host, part_id, m.channel(host, inner, q("dado.depth"), **along))


def _dado_run(m: Maker, shape: _Shape) -> tuple[Fraction, Fraction]:
    start = m.q("dado.stop") if shape.dados == "stopped" else Fraction(0)
    return start, m.designed("opening.depth")


def _house(
    m: Maker, shape: _Shape, host: str, guest: str, channel: Box, hold: Hold = Hold.GLUE, sets_width: str = ""
) -> None:
    """Let a divider into its dado: notched in front where the dado is stopped, or by a shouldered tongue."""
    q = m.q
    overlap = m.part(host).box.overlap(m.part(guest).box)
    shares: tuple[Box, ...] = ()
    names = JointQuantities(
        "dado.width", "dado.depth", "dado.stop" if shape.dados == "stopped" else "", "divider.thickness"
    )
    if overlap is not None and shape.dados == "stopped":
        at_front = m.part(guest).box.low[1] == q("divider.setback")
        front = m.part(guest).box.low[1] + (q("divider.notch") if at_front else 0)
        if front > overlap.low[1]:
            shares = (overlap.set(_Y, min(front, overlap.high[1]), overlap.high[1]),)
        names = names._replace(notch="divider.notch")
    if overlap is not None and shape.dados == "shouldered" and m.part(guest).face is _Z:
        shares = (overlap.set(_Z, overlap.low[2], overlap.low[2] + q("divider.tongue")),)
        names = names._replace(guest="divider.tongue")
    if shape.dados == "through":
        names = names._replace(choice="dados=stopped")
    runs = shape.dados != "stopped" or bool(sets_width)
    m.let_in(host, guest, channels=(channel,), shares=shares, runs=runs, hold=hold, names=names, sets_width=sets_width)


def _divider(m: Maker, shape: _Shape, row: int, column: int) -> None:
    q = m.q
    (left, right), (low, _) = _column(m, column), _row(m, shape, row)
    z = low - q("divider.thickness")
    deep, setback = q("dado.depth"), q("divider.setback")
    hosts = (
        "left" if column == 1 else f"upright{column - 1}",
        "right" if column == shape.columns else f"upright{column}",
    )
    number = (row - 1) * shape.columns + column
    several = shape.rows * shape.columns > 2
    title = Phrase("divider {number}", number=str(number)) if several else N_("divider")
    part_id = f"divider{row}{column}"
    level = (z, z + q("dado.width"))

    def house(guest: str, hold: Hold, where: str) -> None:
        for host, inner, at in zip(hosts, (Side.RIGHT, Side.LEFT), ("left", "right"), strict=True):
            if where not in ("both", at):
                continue
            # All members of a frame enter one dado, whose width is taken from the front rail.
            start, end = _dado_run(m, shape)
            run = (max(start, m.part(host).box.low[1]), end)
            channel = m.channel(host, inner, deep, z=level, y=run)
            _house(m, shape, host, guest, channel, hold, sets_width=f"{part_id}_front" if shape.framed else "")

    load = m.ledger["shelf.load"] if "shelf.load" in m.ledger.quantities else Fraction(0)
    if not shape.framed:
        m.board(part_id, title, _of_column("divider", column), (left - deep, setback, z), "xz", shows="f")
        house(part_id, Hold.GLUE, "both")
        m.bearing(part_id, right - left, load, "column.width")
        return
    _frame(m, part_id, title, (left - deep, setback, z), house, column)


def _frame(
    m: Maker,
    part_id: str,
    title: str,
    at: tuple[Fraction, Fraction, Fraction],
    house: Callable[[str, Hold, str], None],
    column: int,
) -> None:
    """Put a frame with a dust panel: the front rail glued into the sides, the rest free to slide."""
    q = m.q
    x, y, z = at
    wide, tongue, groove, clear = q("frame.board_width"), q("frame.tongue"), q("frame.groove"), q("panel.clearance")
    alike = _of_column("rail", column)
    length, depth = q(f"{alike}.length"), q("runner.length") + 2 * (wide - tongue)
    front, back, left, right, panel = (f"{part_id}_{n}" for n in ("front", "back", "left", "right", "panel"))
    m.board(front, Phrase("{whole} front rail", whole=title), alike, (x, y, z), "xz", shows="f")
    m.board(back, Phrase("{whole} back rail", whole=title), alike, (x, y + depth - wide, z), "xz", needs=Needs.ANY)
    start = y + wide - tongue
    m.board(left, Phrase("{whole} left runner", whole=title), "runner", (x, start, z), "yz", needs=Needs.ANY)
    m.board(
        right,
        Phrase("{whole} right runner", whole=title),
        "runner",
        (x + length - wide, start, z),
        "yz",
        needs=Needs.ANY,
    )
    middle = z + (q("divider.thickness") - groove) / 2
    level = (middle, middle + groove)
    m.board(
        panel,
        Phrase("{whole} dust panel", whole=title),
        _of_column("panel", column),
        (x + wide - tongue + clear, start + clear, middle),
        "yz",
        needs=Needs.ANY,
        role="back",
    )
    for rail, hold, inner in ((front, Hold.GLUE, Side.BACK), (back, Hold.DRY, Side.FRONT)):
        house(rail, hold, "both")
        channel = m.channel(rail, inner, tongue, z=level)
        names = JointQuantities("frame.groove", "frame.tongue")
        for runner in (left, right):
            overlap = m.part(rail).box.overlap(m.part(runner).box)
            shares = (overlap.set(_Z, *level),) if overlap else ()
            m.let_in(rail, runner, channels=(channel,), shares=shares, runs=True, hold=hold, names=names)
        m.let_in(rail, panel, channels=(channel,), room=(clear, clear, 0), runs=True, hold=Hold.DRY, names=names)
    for runner, inner, end in ((left, Side.RIGHT, "left"), (right, Side.LEFT, "right")):
        house(runner, Hold.DRY, end)
        m.let_in(
            runner,
            panel,
            channels=(m.channel(runner, inner, tongue, z=level),),
            room=(clear, clear, 0),
            runs=True,
            hold=Hold.DRY,
        )
    m.freedom((panel,), 2 * clear, "panel.clearance")
    m.unit(title, (front, back, left, right, panel))


def _room_behind(m: Maker, shape: _Shape) -> None:
    """Say what room there is behind frames, whose grain runs as deep as the sides are wide."""
    if shape.framed and shape.rows > 1:
        m.freedom(("left",), m.q("frame.gap"), "frame.gap", shrinks=True)


def _measures(m: Maker, shape: _Shape) -> None:
    q = m.q
    width, depth, height = (q(f"case.outside_{way}") for way in ("width", "depth", "height"))
    side, top = q("sides.thickness"), q("top.thickness")
    front, section, above = View.FRONT, View.SECTION, View.ABOVE
    m.measure("case.outside_width", front, (0, 0, height), (width, 0, height), 6)
    m.measure("case.outside_height", front, (0, 0, 0), (0, 0, height), 6)
    m.measure("sides.thickness", front, (0, 0, 0), (side, 0, 0), -6)
    m.measure("top.thickness", section, (0, depth, height - top), (0, depth, height), -6)
    m.measure("case.outside_depth", section, (0, 0, height), (0, depth, height), 6)
    m.measure("back.thickness", section, (0, depth - q("back.thickness"), 0), (0, depth, 0), -6)
    m.measure("case.inside_width", above, (side, depth / 2, 0), (width - side, depth / 2, 0), 0)
    left, right = _column(m, 1)
    for row in range(1, shape.rows + 1):
        low, high = _row(m, shape, row)
        m.measure(f"row{row}.height", section, (0, 0, low), (0, 0, high), 6)
        if row < shape.rows:
            m.measure("divider.thickness", section, (0, depth, low - q("divider.thickness")), (0, depth, low), -6)
    if shape.columns > 1:
        low, _ = _row(m, shape, shape.rows)
        m.measure("column.width", front, (left, 0, low), (right, 0, low), -14)


CASE = Form(
    "case",
    "Case",
    (SIZING, _CORNERS, _ROWS, _COLUMNS, _HEIGHTS, _DADOS, _DIVIDERS, _BACK, _DRAWERS, _DRAWER_BOTTOM),
    _define,
    _assemble,
    ("case.outside_width", "case.outside_depth", "case.outside_height"),
)
