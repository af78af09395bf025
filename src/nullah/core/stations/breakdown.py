"""Breakdown: which part comes out of which place of which board, and the cuts in order."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.breakdown.cuts import CutKind, SawCut
from nullah.core.breakdown.layout import PlacedPart
from nullah.core.card import Card, Remark, Setting, Weight
from nullah.core.drawing import (
    Anchor,
    Drawing,
    Element,
    Fill,
    Label,
    Ring,
    Role,
    drawing,
    grain_lines,
    line,
    rectangle,
)
from nullah.core.lengths import Direction, from_float
from nullah.core.plan import BoardPlan, Plan
from nullah.core.stations.rack import MOST_IN_A_COLUMN, board_places, draw_flaws
from nullah.core.stations.station import Hand, Station


def _draw(plan: Plan, hand: Hand) -> Drawing:
    places = board_places(plan.project.boards)
    in_hand = plan.board_of(hand.part)
    crowded = len(plan.boards) > MOST_IN_A_COLUMN
    shown = Drawing()
    for board_plan in plan.boards:
        told = not crowded or in_hand is board_plan
        shown += drawing(_board(plan, board_plan, hand, told)).moved(*places[board_plan.board.id])
    return shown + drawing(_waiting(plan)) if plan.boards else shown


def _waiting_row(plan: Plan) -> dict[str, tuple[float, float]]:
    """Give, by part id, where parts without a board are drawn: in rows below the boards."""
    boards = plan.project.boards
    places = board_places(boards)
    below = max((places[board.id][1] + float(board.width) for board in boards), default=0.0) + 110
    longest = max((float(board.length) for board in boards), default=1000.0)
    spots: dict[str, tuple[float, float]] = {}
    x = row_high = 0.0
    for item in plan.unplaced:
        if x and x + float(item.part.along) > longest:
            x, below, row_high = 0.0, below + row_high + 30, 0.0
        spots[item.part.id] = (x, below)
        x += float(item.part.along) + 30
        row_high = max(row_high, float(item.part.across))
    return spots


def place_on_bench(plan: Plan, part_id: str) -> tuple[float, float]:
    """Give the upper left corner of a rough part on the drawing, mm: on its board, or waiting below."""
    board_plan = plan.board_of(part_id)
    if board_plan is None:
        return _waiting_row(plan).get(part_id, (0.0, 0.0))
    rect = next(item.rect for item in board_plan.placed if item.part.id == part_id)
    left, top = board_places(plan.project.boards)[board_plan.board.id]
    return left + rect.x, top + float(board_plan.board.width) - rect.top


def _waiting(plan: Plan) -> Iterator[Element]:
    """Draw the parts that lie nowhere, dashed, to be dragged onto a board."""
    for number, (part_id, (x, y)) in enumerate(_waiting_row(plan).items()):
        rough = plan.rough_part(part_id)
        if rough is None:
            continue
        if number == 0:
            yield Label((x, y), "Without wood: drag them onto a board", 3.2, Anchor.START, Role.WARN, nudge_mm=(0, -3))
        long, wide = float(rough.along), float(rough.across)
        yield rectangle(x, y, long, wide, Role.HIDDEN, Fill.PAPER, of=part_id)
        yield Label((x + long / 2, y + wide / 2), rough.name, 3.8, bold=True, of=part_id)


def draw_one_board(plan: Plan, board_plan: BoardPlan, hand: Hand) -> Drawing:
    """Draw one board with its parts and cuts, its upper left corner at (0, 0)."""
    return drawing(_board(plan, board_plan, hand))


def _board(plan: Plan, board_plan: BoardPlan, hand: Hand, told: bool = True) -> Iterator[Element]:
    """Draw a board; where it is not `told`, without its cuts, and parts by their numbers."""
    board = board_plan.board
    length, width = float(board.length), float(board.width)
    if board_plan.placed:
        used = max(item.rect.end for item in board_plan.placed)
        yield rectangle(0, 0, used, width, fill=Fill.WASTE, of=f"board/{board.id}")
        if length - used > 1:
            yield rectangle(used, 0, length - used, width, fill=Fill.WOOD, species=board.species,
                            of=f"board/{board.id}")  # fmt: skip
            yield from grain_lines(used, 0, length - used, width, board.name)
            if length - used > 0.18 * length:
                yield Label(((used + length) / 2, width * 0.8), "offcut", 3.0, role=Role.FAINT)
    else:
        yield rectangle(0, 0, length, width, fill=Fill.WOOD, species=board.species, of=f"board/{board.id}")
        yield from grain_lines(0, 0, length, width, board.name)
        yield Label((length / 2, width / 2), "not needed", 3.0, role=Role.FAINT)
    for item in board_plan.placed:
        yield from _placed(board_plan, item)
    yield from draw_flaws(board)
    for item in board_plan.placed:
        yield from _named(plan, board_plan, item, told)
    for cut in board_plan.cuts if told else ():
        yield from _cut(cut, width)
    size = f"{plan.marks.write(board.length, unit=False)} × {plan.marks.write(board.width, unit=False)} × "
    name = f"{board.name} · {size}{plan.marks.write(board.thickness)}"
    yield Label((0, 0), name, 3.2, Anchor.START, nudge_mm=(0, -3))
    if board_plan.not_sawable:
        yield Label((0, width), board_plan.not_sawable, 3.0, Anchor.START, Role.WARN, nudge_mm=(0, 8))


def _placed(board_plan: BoardPlan, item: PlacedPart) -> Iterator[Element]:
    rect, of = item.rect, item.part.id
    top = float(board_plan.board.width) - rect.top
    wrong = of in board_plan.wrong
    yield rectangle(rect.x, top, rect.length, rect.width, Role.WARN if wrong else Role.CHALK, Fill.WOOD,
                    board_plan.board.species, of)  # fmt: skip
    yield from grain_lines(rect.x, top, rect.length, rect.width, item.part.name, along_x=not item.part.turned, of=of)


def _named(plan: Plan, board_plan: BoardPlan, item: PlacedPart, told: bool) -> Iterator[Element]:
    """Name a part, by its number where there is no room."""
    rect, of = item.rect, item.part.id
    top = float(board_plan.board.width) - rect.top
    middle = (rect.x + rect.length / 2, top + rect.width / 2)
    part = plan.part(of)
    name = item.part.name
    if part is not None and (not told or (len(plan.boards) > MOST_IN_A_COLUMN and len(name) * 34 > rect.length)):
        name = str(part.number)
    yield Label(middle, name, 3.8, bold=True, of=of)
    if of in board_plan.wrong:
        yield Label(middle, board_plan.wrong[of], 2.9, role=Role.WARN, of=of, nudge_mm=(0, 5))


def _cut(cut: SawCut, width: float) -> Iterator[Element]:
    """Draw a cut as a chalk line past the wood, with its place in the order ringed at its end."""
    if cut.kind is CutKind.CROSS:
        low, high = width - cut.y - cut.length, width - cut.y
        yield line((cut.x, low), (cut.x, high), Role.CHALK)
        yield Ring((cut.x, high), str(cut.order), 2.6, nudge_mm=(0, 3.2))
    else:
        y = width - cut.y
        yield line((cut.x, y), (cut.x + cut.length, y), Role.CHALK)
        yield Ring((cut.x + cut.length * 0.3, y), str(cut.order), 2.6)


def _card(plan: Plan, hand: Hand) -> Card:
    settings: list[Setting] = []
    rough = plan.rough_part(hand.part)
    up = Direction.UP
    if rough is not None:
        settings.append(Setting(f"Rough {rough.name}", _size(plan, rough.id), "length × width"))
        on = plan.board_of(rough.id)
        if on is not None:
            place = next(item.rect for item in on.placed if item.part.id == rough.id)
            at = plan.marks.write(from_float(place.x))
            settings.append(Setting("Out of", on.board.name, f"{at} from its left end"))
    total = sum(board.consumed for board in plan.boards)
    asked = sum(float(part.length) * float(part.width) for part in plan.rough)
    if plan.unplaced == () and total:
        settings.append(
            Setting(
                "Wood used",
                plan.marks.write_area(total),
                f"at least {plan.marks.write_area(asked)} whatever the layout",
            )
        )
    shown = plan.board_of(hand.part) or next((board for board in plan.boards if board.cuts), None)
    steps = tuple(_cut_words(plan, cut) for cut in shown.cuts) if shown else ()
    remarks = [
        Remark(f"{item.part.name.capitalize()} lies nowhere. {item.why}", Weight.FAILS, of=item.part.id)
        for item in plan.unplaced
    ]
    for board in plan.boards:
        remarks += [Remark(f"{_name(plan, part)} {why}.", Weight.FAILS, of=part) for part, why in board.wrong.items()]
        if board.not_sawable:
            remarks.append(Remark(board.not_sawable, Weight.FAILS))
    kerf = plan.marks.write_fine(plan.project.shop.kerf)
    remarks.append(Remark(f"Saw beyond the line, in the waste; {kerf} is allowed for the saw. Hold the falling piece."))
    allow = plan.project.allowances
    why = (
        f"Rough = finished + {plan.marks.write(allow.end, up)} in length, {plan.marks.write(allow.edge, up)} in width, "
        f"{plan.marks.write(allow.thickness, up)} in thickness.",
    )
    title = f"Breaking down {shown.board.name}" if shown else "Breaking down"
    return Card(title, tuple(settings), steps, tuple(remarks), why)


def _size(plan: Plan, part_id: str) -> str:
    rough = plan.rough_part(part_id)
    if rough is None:
        return ""
    write, up = plan.marks.write, Direction.UP
    return f"{write(rough.length, up, unit=False)} × {write(rough.width, up)}"


def _name(plan: Plan, part_id: str) -> str:
    rough = plan.rough_part(part_id)
    return f"The {rough.name}" if rough else part_id


def _cut_words(plan: Plan, cut: SawCut) -> str:
    at = plan.marks.write(from_float(cut.at), cut.rounding)
    if cut.kind is CutKind.CROSS:
        return f"Crosscut at {at} from the left end"
    return f"Rip at {at} from the lower edge, {plan.marks.write(from_float(cut.length))} long"


def _state(plan: Plan) -> str:
    if not plan.rough:
        return "no parts yet"
    if plan.unplaced:
        return f"{len(plan.unplaced)} of {len(plan.rough)} without wood"
    if any(board.wrong or board.not_sawable for board in plan.boards):
        return "a part cannot lie there"
    cuts = sum(len(board.cuts) for board in plan.boards)
    return f"all laid, {cuts} cuts"


STATION = Station(
    "breakdown", "Breakdown", _draw, _card, _state,
    "There are no boards to lay the parts on. Add some on the rack first.",
)  # fmt: skip
