"""Rack: the boards there are, each drawn as itself, with its flaws."""

from __future__ import annotations

import math
from collections.abc import Iterator

from nullah.core.card import Card, Remark, Setting, Weight
from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Role,
    drawing,
    grain_lines,
    rectangle,
)
from nullah.core.lengths import Length
from nullah.core.plan import Plan
from nullah.core.rack.board import Board, Flaw, FlawKind
from nullah.core.stations.station import Hand, Station
from nullah.core.wood.movement import Cut, coefficient
from nullah.core.wood.species import SOURCE, STRENGTH_SOURCE, Species, SpeciesError, find_species

#: With more boards than this, they stand in two columns, and only the board in hand tells everything.
MOST_IN_A_COLUMN = 5

_FLAW_WORDS = {
    FlawKind.CHECK: "check", FlawKind.SPLIT: "split", FlawKind.KNOT: "knot",
    FlawKind.SAP: "sap", FlawKind.WANE: "wane", FlawKind.RUNOUT: "run-out",
}  # fmt: skip


def board_places(boards: tuple[Board, ...]) -> dict[str, tuple[float, float]]:
    """Give, by board id, the upper left corner of each on the drawing, mm: one under another, many in two columns."""
    # The longest board sets the scale of the drawing, and so the room that type needs.
    longest = max((float(board.length) for board in boards), default=0.0)
    columns = 1 if len(boards) <= MOST_IN_A_COLUMN else 2
    gap = 30 + longest * 0.075 * columns
    beside = longest + 0.2 * longest + max((float(board.thickness) for board in boards), default=0.0)
    first = -(-len(boards) // columns)
    places: dict[str, tuple[float, float]] = {}
    for column in range(columns):
        top = 0.0
        for board in boards[column * first : (column + 1) * first]:
            places[board.id] = (column * beside, top)
            top += float(board.width) + gap
    return places


def draw_board(board: Board, fill: Fill = Fill.WOOD) -> Iterator[Element]:
    """Draw a board lying flat: y runs down the drawing from its upper edge, which is y = width."""
    length, width = float(board.length), float(board.width)
    of = f"board/{board.id}"
    yield rectangle(0, 0, length, width, fill=fill, species=board.species, of=of)
    yield from grain_lines(0, 0, length, width, board.name, of=of)


def draw_flaws(board: Board) -> Iterator[Element]:
    """Draw the flaws of a board on it, each in its own way."""
    for index, flaw in enumerate(board.flaws):
        yield from _draw_flaw(board, flaw, f"flaw/{board.id}/{index}")


def _draw_flaw(board: Board, flaw: Flaw, of: str) -> Iterator[Element]:
    x, top = float(flaw.start), float(board.width - flaw.high)
    long, high = float(flaw.end - flaw.start), float(flaw.high - flaw.low)
    yield rectangle(x, top, long, high, Role.FLAW, Fill.FLAW, of=of)
    middle = top + high / 2
    if flaw.kind is FlawKind.KNOT:
        for share in (0.9, 0.55, 0.25):
            yield _ellipse(x + long / 2, middle, long / 2 * share, high / 2 * share, of)
    elif flaw.kind in (FlawKind.CHECK, FlawKind.SPLIT):
        points = tuple((x + long * step / 6, middle + high * 0.18 * math.sin(step * 1.7)) for step in range(7))
        yield Path(points, Role.FLAW, of=of)
    elif flaw.kind is FlawKind.RUNOUT:
        for share in (0.15, 0.45, 0.75):
            yield Path(((x + long * share, top + high), (x + long * min(1, share + 0.25), top)), Role.FLAW, of=of)
    yield Label((x + long / 2, top + high), _FLAW_WORDS[flaw.kind], 2.9, role=Role.FLAW, of=of, nudge_mm=(0, 2))


def _ellipse(x: float, y: float, rx: float, ry: float, of: str) -> Path:
    points = tuple(
        (x + rx * math.cos(2 * math.pi * i / 24), y + ry * math.sin(2 * math.pi * i / 24)) for i in range(24)
    )
    return Path(points, Role.FLAW, closed=True, of=of)


def _end_grain(board: Board) -> Iterator[Element]:
    """Draw the board's end at its left, with the rings as it was cut."""
    thick, width = float(board.thickness), float(board.width)
    left = -thick - 22
    yield rectangle(left, 0, thick, width, fill=Fill.END_GRAIN, species=board.species, of=f"board/{board.id}")
    count = max(3, round(width / 18))
    for index in range(count):
        y = width * (index + 0.5) / count
        if board.cut is Cut.QUARTER:
            yield Path(((left, y), (left + thick, y)), Role.GRAIN)
        elif board.cut is Cut.RIFT:
            yield Path(((left, min(width, y + thick / 2)), (left + thick, max(0, y - thick / 2))), Role.GRAIN)
    if board.cut is Cut.FLAT:
        for index in range(3):
            bulge = thick * (0.25 + 0.3 * index)
            points = tuple(
                (left + max(0.0, bulge - thick * 0.55 * (2 * s / 12 - 1) ** 2), width * s / 12) for s in range(13)
            )
            yield Path(points, Role.GRAIN)


def _draw(plan: Plan, hand: Hand) -> Drawing:
    boards = plan.project.boards
    places, in_hand = board_places(boards), find_board(plan, hand)
    shown = Drawing()
    for board in boards:
        one = drawing(draw_board(board), draw_flaws(board), _end_grain(board), _heading(plan, board, in_hand is board))
        shown += one.moved(*places[board.id])
    return shown


def _heading(plan: Plan, board: Board, in_hand: bool) -> Iterator[Element]:
    """Name a board and its size in a line; the one in hand has its dimensions, to be clicked."""
    length, width = float(board.length), float(board.width)
    of = f"board/{board.id}"
    name = f"{board.name} · {board.species}"
    entered = plan.marks.write_entered
    yield Label(
        (-float(board.thickness) - 22, width / 2), entered(board.thickness), 2.9, Anchor.END,
        nudge_mm=(-1.5, 0), of=f"{of}/thickness",
    )  # fmt: skip
    if not in_hand:
        size = f"{plan.marks.write(board.length, unit=False)} × {plan.marks.write(board.width)}"
        yield Label((0, 0), f"{name} · {size}", 3.0, Anchor.START, of=of, nudge_mm=(0, -3))
        return
    # Nothing here may need more room than before: taking a board in hand must not move the drawing.
    yield Label((0, 0), name, 3.2, Anchor.START, Role.CHALK, bold=True, of=of, nudge_mm=(0, -3))
    yield Dimension((0, width), (length, width), entered(board.length), -3.4, of=f"{of}/length")
    yield Dimension((length, width), (length, 0), entered(board.width), 6, of=f"{of}/width")


def find_board(plan: Plan, hand: Hand) -> Board | None:
    """Give the board in hand: pointed at, or the one the part in hand lies on."""
    board = plan.project.board(hand.board)
    if board is None:
        laid_on = plan.board_of(hand.part)
        board = laid_on.board if laid_on else None
    return board


def _card(plan: Plan, hand: Hand) -> Card:
    board = find_board(plan, hand)
    if board is None:
        return Card("The rack", mind=(Remark("Pick a board to see what it is."),) if plan.project.boards else ())
    write = plan.marks.write_entered

    def figure(title: str, value: Length, name: str, note: str = "") -> Setting:
        return Setting(title, write(value), note, of=f"board/{board.id}/{name}")

    settings = (
        figure("Length", board.length, "length", "rough"),
        figure("Width", board.width, "width", "rough"),
        figure("Thickness", board.thickness, "thickness", "rough"),
        figure("Cup", board.cup, "cup", "hollow or hump across"),
        figure("Bow", board.bow, "bow", "hollow or hump along"),
        figure("Twist", board.twist, "twist", "the corner that stands up"),
    )
    remarks = [_count_flaws(board)]
    why: tuple[str, ...] = ()
    try:
        species = find_species(board.species)
        words = {Cut.FLAT: "flat-sawn: it cups", Cut.RIFT: "rift-sawn", Cut.QUARTER: "quarter-sawn: it stays flat"}
        remarks.append(Remark(f"{species.name.capitalize()}, {words[board.cut]}."))
        remarks.append(Remark(_heft(board, species)))
        why = (_why_wood(species, board.cut),)
    except SpeciesError as error:
        remarks.append(Remark(str(error), Weight.LOOK))
    remarks.append(
        Remark("Gloves for rough timber. Look for nails in old wood; treated pallets marked MB: do not use.")
    )
    return Card(
        board.name, settings,
        (
            "Drag on the board to mark a flaw; drag its border to change it; Delete rubs it out.",
            "Lay the board on a flat bench, three corners down: twist is the gap under the fourth.",
            "Straightedge across for cup, along for bow: the gap at the middle.",
        ),
        tuple(remarks),
        why,
    )  # fmt: skip


def _heft(board: Board, species: Species) -> str:
    """Say how hard the wood is to work, and what the board weighs at 12 % moisture."""
    volume = float(board.length) * float(board.width) * float(board.thickness) * 1e-9
    return f"{species.hardness_class.capitalize()} wood; the board weighs about {volume * species.density:.1f} kg."


def _why_wood(species: Species, cut: Cut) -> str:
    """Say what is known of a wood, and from where."""
    moves = coefficient(species, cut) * 100
    return (
        f"{species.name.capitalize()}, {cut.value}: its width changes {moves:.3f} % for each per cent of moisture "
        f"({SOURCE}). "
        f"{species.density:.0f} kg/m³, stiffness {species.stiffness:g} GPa, hardness {species.hardness:.0f} N "
        f"({STRENGTH_SOURCE})."
    )


def _count_flaws(board: Board) -> Remark:
    if not board.flaws:
        return Remark("No flaw marked.")
    kinds = [_FLAW_WORDS[flaw.kind] for flaw in board.flaws]
    listed = ", ".join(f"{kinds.count(kind)} × {kind}" for kind in dict.fromkeys(kinds))
    return Remark(f"Flaws: {listed}. Checks, splits, wane and run-out never go into a part.")


def _state(plan: Plan) -> str:
    count = len(plan.project.boards)
    return "no boards yet" if count == 0 else f"{count} board{'s' if count > 1 else ''}"


STATION = Station(
    "rack", "Rack", _draw, _card, _state,
    "The rack is empty. Add the first board: its rough length, width and thickness, then mark its flaws on it.",
)  # fmt: skip
