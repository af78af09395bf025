"""Rack: the boards there are, each drawn as itself, with its flaws."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.catalogue import Catalogue
from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Ring,
    Role,
    drawing,
    grain_lines,
    rectangle,
)
from nullah.core.identity import IdentityKey, kept_by_value
from nullah.core.lengths import Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind
from nullah.core.rack.outline import edge_at
from nullah.core.reader import Reader
from nullah.core.refs import BoardRef, BoardSizeRef, FlawRef, HeartRef, Ref
from nullah.core.stations.drying import draw_drying, room_for_details
from nullah.core.stations.selection import Selection
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import SpeciesError, find_species
from nullah.core.wording.rack import (
    SIZES,
    dryness,
    end_grain_words,
    flaw_words,
    flaws_remark,
    how_to_look,
    known_of_wood,
    old_wood_remark,
    pick_a_board,
    rack_state,
    wood_remarks,
)

#: With more boards than this, they stand in columns, and only the board in hand tells everything.
MOST_IN_A_COLUMN = 5
#: With more boards than this, only the board in hand tells its size, and flaws are named where there is room.
MOST_TOLD = 20
#: Width to height of the room there usually is for drawing.
_ROOM = 1.35


class RackLayout(NamedTuple):
    """Where boards lie on the drawing: by board id the upper left corner of each, mm, and how large it all is.

    `columns` they stand in, `width` and `height` of all of them, mm. `detail` is the length that what is drawn
    large beside them goes by, mm: half the width of two columns.
    """

    places: dict[str, tuple[float, float]]
    columns: int
    width: float
    height: float
    detail: float


@kept_by_value(8)
def rack_layout(boards: tuple[Board, ...]) -> RackLayout:
    """Lay boards out on the drawing: a few one under another, more in as many columns as make them largest."""
    if len(boards) <= MOST_IN_A_COLUMN:
        return _in_columns(boards, 1)
    tried = (_in_columns(boards, columns) for columns in range(2, 2 + len(boards) // MOST_IN_A_COLUMN))
    return min(tried, key=lambda layout: max(layout.width / _ROOM, layout.height))


def _in_columns(boards: tuple[Board, ...], columns: int) -> RackLayout:
    # The longest board sets the scale of the drawing, and so the room that type needs.
    longest = max((float(board.length) for board in boards), default=0.0)
    gap = 30 + longest * 0.075 * columns
    beside = longest + 0.2 * longest + max((float(board.thickness) for board in boards), default=0.0)
    first = max(1, -(-len(boards) // columns))
    places: dict[str, tuple[float, float]] = {}
    height = 0.0
    for column in range(columns):
        top = 0.0
        for board in boards[column * first : (column + 1) * first]:
            places[board.id] = (column * beside, top)
            height = max(height, top + float(board.width))
            top += float(board.width) + gap
    return RackLayout(places, columns, beside * columns, height, longest * max(1.0, columns / 2))


def board_places(boards: tuple[Board, ...]) -> dict[str, tuple[float, float]]:
    """Give, by board id, the upper left corner of each on the drawing, mm."""
    return rack_layout(boards).places


def draw_board(board: Board, fill: Fill = Fill.WOOD) -> Iterator[Element]:
    """Draw a board lying flat: y runs down the drawing from its upper edge, which is y = width."""
    length, width = float(board.length), float(board.width)
    ref = BoardRef(board.id)
    yield rectangle(0, 0, length, width, fill=fill, species=board.species, ref=ref)
    yield from grain_lines(0, 0, length, width, board.name, ref=ref)
    yield from draw_missing(board)


def draw_missing(board: Board) -> Iterator[Element]:
    """Draw what a crooked or tapered outline leaves out of the board's rectangle, and the edge itself."""
    width, ref = float(board.width), BoardRef(board.id)
    for high, points in ((False, board.low_edge), (True, board.high_edge)):
        if not points:
            continue
        stations = sorted({0.0, float(board.length), *(float(x) for x, _ in points)})
        edge = [(x, width - edge_at(board, x, high)) for x in stations]
        border = 0.0 if high else width
        outside = (*edge, (stations[-1], border), (stations[0], border))
        yield Path(outside, Role.BARE, closed=True, fill=Fill.PAPER, ref=ref)
        yield Path(tuple(edge), Role.OUTLINE, ref=ref)
        for at in edge[1:-1]:
            yield Ring(at, "", 0.9, Role.OUTLINE, ref=ref)


def draw_flaws(board: Board, catalogue: Catalogue, crowded: bool = False) -> Iterator[Element]:
    """Draw the flaws of a board on it, each in its own way; where it is `crowded`, named only if there is room."""
    reader = Reader(Marks(catalogue=catalogue))
    for index, flaw in enumerate(board.flaws):
        yield from _draw_flaw(board, flaw, FlawRef(board.id, index))
        at = (float(flaw.start + flaw.end) / 2, float(board.width - flaw.low))
        words, ref = flaw_words(flaw, reader), FlawRef(board.id, index)
        yield Label(at, words, 2.9, role=Role.FLAW, ref=ref, nudge_mm=(0, 2), minor=crowded)


def _draw_flaw(board: Board, flaw: Flaw, ref: Ref) -> Iterator[Element]:
    x, top = float(flaw.start), float(board.width - flaw.high)
    long, high = float(flaw.end - flaw.start), float(flaw.high - flaw.low)
    under = flaw.faces is Faces.DOWN
    yield rectangle(x, top, long, high, Role.HIDDEN if under else Role.FLAW, Fill.NONE if under else Fill.FLAW, ref=ref)
    middle = top + high / 2
    if flaw.kind is FlawKind.KNOT:
        for share in (0.9, 0.55, 0.25):
            yield _ellipse(x + long / 2, middle, long / 2 * share, high / 2 * share, ref)
    elif flaw.kind in (FlawKind.CHECK, FlawKind.SPLIT):
        points = tuple((x + long * step / 6, middle + high * 0.18 * math.sin(step * 1.7)) for step in range(7))
        yield Path(points, Role.FLAW, ref=ref)
    elif flaw.kind is FlawKind.RUNOUT:
        for share in (0.15, 0.45, 0.75):
            yield Path(((x + long * share, top + high), (x + long * min(1, share + 0.25), top)), Role.FLAW, ref=ref)


def _ellipse(x: float, y: float, rx: float, ry: float, ref: Ref) -> Path:
    points = tuple(
        (x + rx * math.cos(2 * math.pi * i / 24), y + ry * math.sin(2 * math.pi * i / 24)) for i in range(24)
    )
    return Path(points, Role.FLAW, closed=True, ref=ref)


def _end_grain(board: Board) -> Iterator[Element]:
    """Draw the board's end at its left, with the rings as it was cut."""
    thick = float(board.thickness)
    left = -thick - 22
    ref = BoardRef(board.id)
    yield rectangle(left, 0, thick, float(board.width), fill=Fill.END_GRAIN, species=board.species, ref=ref)
    for arc in end_rings(board):
        yield Path(tuple((left + up, float(board.width) - across) for across, up in arc), Role.GRAIN, ref=ref)


def end_rings(board: Board) -> tuple[tuple[tuple[float, float], ...], ...]:
    """Return the rings seen on the left end as lines of (across, up), mm: circles about the heart, cut to the wood."""
    return _rings(float(board.width), float(board.thickness), board.heart or usual_heart(board))


@kept_by_value(256)
def _rings(width: float, thick: float, heart: tuple[float, float]) -> tuple[tuple[tuple[float, float], ...], ...]:
    across, up = heart
    corners = [math.hypot(a - across, u - up) for a in (0.0, width) for u in (0.0, thick)]
    nearest = math.hypot(max(-across, 0.0, across - width), max(-up, 0.0, up - thick))
    count = 9
    found = []
    for index in range(1, count):
        radius = nearest + (max(corners) - nearest) * index / count
        run: list[tuple[float, float]] = []
        for step in range(361):
            angle = math.radians(step)
            at = (across + radius * math.cos(angle), up + radius * math.sin(angle))
            if -1e-6 <= at[0] <= width + 1e-6 and -1e-6 <= at[1] <= thick + 1e-6:
                run.append(at)
            elif run:
                found.append(tuple(run))
                run = []
        if run:
            found.append(tuple(run))
    return tuple(run for run in found if len(run) > 1)


def usual_heart(board: Board) -> tuple[float, float]:
    """Return where the heart of a board of its cut would lie, for drawing, where nobody looked."""
    width = float(board.width)
    if board.cut is GrainCut.QUARTER:
        return -0.9 * width, float(board.thickness) / 2
    if board.cut is GrainCut.RIFT:
        return -0.25 * width, -0.75 * width
    return width / 2, -0.55 * width


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    boards = plan.project.boards
    layout, in_hand = rack_layout(boards), find_board(plan, selection)
    crowded = len(boards) > MOST_TOLD
    shown = Drawing()
    for board in boards:
        place = layout.places[board.id]
        shown += _wood(board, place, crowded and in_hand is not board, IdentityKey(plan.marks.catalogue))
        shown += drawing(_heading(plan, board, in_hand is board, layout.columns)).moved(*place)
    if boards:
        details = room_for_details(layout.detail)
        if in_hand is not None:
            details += draw_drying(in_hand, plan.project.room, layout.detail, plan.reader)
            end = drawing(_large_end(in_hand, plan.reader))
            details += end.moved(*_beside(layout.detail), _end_scale(in_hand, layout.detail))
        shown += details.moved(*_details(layout))
    return shown


@kept_by_value(256)
def _wood(board: Board, place: tuple[float, float], crowded: bool, catalogue: IdentityKey[Catalogue]) -> Drawing:
    """Return a board as it lies there, with its end beside it; it is kept, for most changes are of something else."""
    return drawing(draw_board(board), draw_flaws(board, catalogue.carried, crowded), _end_grain(board)).moved(*place)


def _details(layout: RackLayout) -> tuple[float, float]:
    """Return where the details of the board in hand are drawn: below all boards."""
    return 0.0, layout.height + 0.23 * layout.detail


def _beside(detail: float) -> tuple[float, float]:
    """Return where the large end grain lies beside the drying curve."""
    return 1.15 * detail, 0.04 * detail


def _end_scale(board: Board, detail: float) -> float:
    """Return how many times its size the large end grain is drawn."""
    return min(0.6 * detail / float(board.width), 0.13 * detail / float(board.thickness))


class EndView(NamedTuple):
    """Where the large end grain of a board is drawn: its upper left corner, mm, and how many times its size."""

    left: float
    top: float
    scale: float


def end_view(boards: tuple[Board, ...], board: Board) -> EndView:
    """Return where the end grain of a board in hand is drawn large, to pick the heart of the tree on it."""
    layout = rack_layout(boards)
    (left, top), (across, down) = _details(layout), _beside(layout.detail)
    return EndView(left + across, top + down, _end_scale(board, layout.detail))


def _large_end(board: Board, reader: Reader) -> Iterator[Element]:
    """Draw the left end of a board with its rings, its lower edge at the left."""
    thick, ref = float(board.thickness), HeartRef(board.id)
    yield rectangle(0, 0, float(board.width), thick, fill=Fill.END_GRAIN, species=board.species, ref=ref)
    for arc in end_rings(board):
        yield Path(tuple((across, thick - up) for across, up in arc), Role.GRAIN, ref=ref)
    yield Label((0, 0), end_grain_words(board, reader), 2.9, Anchor.START, Role.FAINT, nudge_mm=(0, -2.4))


def _heading(plan: Plan, board: Board, in_hand: bool, columns: int) -> Iterator[Element]:
    """Name a board and its size in a line, or only name it; the one in hand has its dimensions, to be clicked."""
    length, width = float(board.length), float(board.width)
    ref = BoardRef(board.id)
    name = f"{board.name} · {plan.reader.text(board.species)}"
    entered = plan.marks.write_entered
    if not in_hand and len(plan.boards) > MOST_TOLD:
        yield Label((0, 0), board.name, 3.0, Anchor.START, ref=ref, nudge_mm=(0, -3), minor=True)
        return
    yield Label(
        (-float(board.thickness) - 22, width / 2),
        entered(board.thickness),
        2.9,
        Anchor.END,
        nudge_mm=(-1.5, 0),
        ref=BoardSizeRef(board.id, "thickness"),
    )
    if not in_hand:
        size = f"{plan.marks.write(board.length, unit=False)} × {plan.marks.write(board.width)}"
        heading = f"{name if columns <= 2 else board.name} · {size}"
        yield Label((0, 0), heading, 3.0, Anchor.START, ref=ref, nudge_mm=(0, -3))
        return
    # Nothing here may need more room than before: taking a board in hand must not move the drawing.
    yield Label((0, 0), name, 3.2, Anchor.START, Role.CHALK, bold=True, ref=ref, nudge_mm=(0, -3))
    yield Dimension((0, width), (length, width), entered(board.length), -3.4, ref=BoardSizeRef(board.id, "length"))
    yield Dimension((length, width), (length, 0), entered(board.width), 6, ref=BoardSizeRef(board.id, "width"))


def find_board(plan: Plan, selection: Selection) -> Board | None:
    """Return the board in hand: pointed at, or the one the part in hand lies on."""
    board = plan.project.board(selection.board)
    if board is None:
        laid_on = plan.board_of(selection.part)
        board = laid_on.board if laid_on else None
    return board


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    board = find_board(plan, selection)
    reader = plan.reader
    if board is None:
        return Card(reader.text("The rack"), mind=(pick_a_board(reader),) if plan.project.boards else ())
    sizes = (board.length, board.width, board.thickness, board.cup, board.bow, board.twist)
    settings = tuple(
        Setting(reader.text(title), plan.marks.write_entered(size), reader.text(note), ref=BoardSizeRef(board.id, name))
        for (name, (title, note)), size in zip(SIZES.items(), sizes, strict=True)
    )
    remarks = [dryness(board, plan.project.room, _rough_size(plan, board), reader), flaws_remark(board, reader)]
    why: tuple[str, ...] = ()
    try:
        species = find_species(board.species)
        remarks += wood_remarks(board, species, reader)
        why = (known_of_wood(species, board.cut, reader),)
    except SpeciesError as error:
        remarks.append(Remark(error.fact, Severity.WARNING))
    remarks.append(old_wood_remark(reader))
    return Card(board.name, settings, how_to_look(reader), tuple(remarks), why)


def _rough_size(plan: Plan, board: Board) -> tuple[float, float] | None:
    """Return the size of the largest rough part that lies on a board, mm."""
    on = next(item for item in plan.boards if item.board.id == board.id).placed
    sizes = [(item.rect.length, item.rect.width) for item in on]
    return max(sizes, key=lambda size: size[0] * size[1], default=None)


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    return rack_state(plan.project.boards, plan.project.room, plan.reader)
