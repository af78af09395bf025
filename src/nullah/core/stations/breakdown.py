"""Breakdown: which part comes out of which place of which board, and the cuts in order."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.board_plans import BoardPlan, sawing_of
from nullah.core.breakdown.cuts import CutKind, SawCut
from nullah.core.breakdown.facts import (
    BoardsBeingCounted,
    BoardsToBuy,
    DepthUnknown,
    LieNowhere,
    LiesWrongly,
    Nowhere,
    SawInWaste,
    ToBuyOne,
)
from nullah.core.breakdown.glue_up import arranged
from nullah.core.breakdown.layout import PlacedPart, Rect, flaw_rect
from nullah.core.breakdown.rough import RoughPart
from nullah.core.card import Card, Remark, Setting, Severity
from nullah.core.catalogue import Catalogue
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Ring, Role, drawing, grain_lines, line, rectangle
from nullah.core.fixes import GlueFromStaves
from nullah.core.identity import IdentityKey, kept_by_value
from nullah.core.lengths import Direction, Marks, from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.rack.board import Board, Faces
from nullah.core.rack.sizes import quarters_name
from nullah.core.reader import Reader, sentence
from nullah.core.refs import BoardRef, PartRef, PieceRef
from nullah.core.stations.rack import (
    MOST_IN_A_COLUMN,
    MOST_TOLD,
    RackLayout,
    board_places,
    draw_flaws,
    draw_missing,
    rack_layout,
)
from nullah.core.stations.saw_order import draw_step, short_name, step_card
from nullah.core.stations.selection import Selection
from nullah.core.wood.species import USUAL_WOOD
from nullah.core.wording.breakdown_card import (
    bare_words,
    board_words,
    card_title,
    laid_words,
    no_parts,
    place_setting,
    rest_words,
    rough_setting,
    rough_words,
    sawing_setting,
    turned_words,
    without_wood,
    wood_setting,
)
from nullah.core.wording.glue_up import arrangement_words
from nullah.core.wording.laying import complaint_words, saw_words
from nullah.core.wording.operations import operation_words
from nullah.core.work.clamping import staves_glue_up
from nullah.core.work.milling import gluing_of_staves
from nullah.core.work.sawing import saw_operations

#: About how large the bench of a small window is, and a letter and the height of a name on it, paper mm.
_BENCH = (128.0, 112.0)
_LETTER, _LINE = 2.1, 5.5
#: What is left free above the parts that wait, between rows of them and parts in a row, and between a part and its name
#: where it has no room for that, paper mm.
_HEAD, _ROW, _BESIDE = 12.0, 3.0, 1.5
#: So far the parts of a stack look out behind one another, as a share of their width.
_STEP = 0.04


def selected_piece(plan: Plan, selection: Selection) -> RoughPart | None:
    """Return the rough part in hand: the one pointed at, or the first that the part in hand comes of."""
    pointed = next((rough for rough in plan.rough if rough.id == selection.breakdown.piece), None)
    if pointed is not None and selection.part in pointed.parts:
        return pointed
    return plan.rough_part(selection.part)


def selected_board(plan: Plan, selection: Selection) -> BoardPlan | None:
    """Return the board the piece in hand lies on, else the one pointed at."""
    piece = selected_piece(plan, selection)
    on = plan.board_of(piece.id) if piece is not None else None
    return on or next((each for each in plan.boards if each.board.id == selection.board), None)


def draw(plan: Plan, selection: Selection) -> Drawing:
    """Return the drawing on the bench."""
    in_hand = selected_board(plan, selection)
    cut = selection.breakdown.cut
    if cut is not None and in_hand is not None and in_hand.cuts:
        return draw_step(plan, in_hand, cut)
    places = board_places(plan.project.boards)
    crowded = len(plan.boards) > MOST_IN_A_COLUMN
    shown = Drawing()
    for board_plan in plan.boards:
        told = not crowded or in_hand is board_plan
        wood, words = _board(plan, board_plan, not told and bool(plan.unplaced or len(plan.boards) > MOST_TOLD), told)
        place = places[board_plan.board.id]
        # Each by itself: wood that is kept is kept where it lies.
        shown += wood.moved(*place) + words.moved(*place)
    return shown + drawing(_waiting(plan, selection)) if plan.boards else shown


def _alike(rough: RoughPart) -> tuple[object, ...]:
    return rough.along, rough.across, rough.thickness, rough.wood


class _Waiting(NamedTuple):
    """Where parts without a board are drawn, which of them hold their name, and else how far beside them it is; mm."""

    places: dict[tuple[object, ...], tuple[float, float]]
    named: frozenset[tuple[object, ...]]
    beside: float
    width: float
    height: float


def _waiting_places(plan: Plan) -> _Waiting:
    """Set parts without a board out in rows below the boards, equal ones on one another."""
    layout = rack_layout(plan.project.boards)
    found = _Waiting({}, frozenset(), 0.0, layout.width, layout.height)
    # How large type comes out hangs on how large all of it is, and that on the room that type is given.
    named = [(key, stack, len(_stack_name(plan, stack))) for key, stack in _stacks(plan).items()]
    for _ in range(3):
        found = _in_rows(named, layout, max(found.width / _BENCH[0], found.height / _BENCH[1]))
    return found


def _in_rows(
    stacks: list[tuple[tuple[object, ...], list[RoughPart], int]], layout: RackLayout, scale: float
) -> _Waiting:
    """Set stacks out, each with the letters of its name, in rows as wide as the boards.

    Parameters
    ----------
    stacks : list of (key, parts, letters)
    layout : RackLayout
        Of the boards above.
    scale : float
        How many mm of the drawing a mm of paper is.
    """
    places: dict[tuple[object, ...], tuple[float, float]] = {}
    named: set[tuple[object, ...]] = set()
    x, below, row_high, width = 0.0, layout.height + _HEAD * scale, 0.0, layout.width
    for key, stack, letters in stacks:
        long, wide = float(stack[0].along), float(stack[0].across)
        name = _LETTER * scale * letters
        if name < long and _LINE * scale < wide:
            named.add(key)
        room = long if key in named else long + _BESIDE * scale + name
        if x and x + room > layout.width:
            x, below, row_high = 0.0, below + row_high, 0.0
        # Of several, those behind look out above.
        top = _behind(stack) * _STEP * wide
        places[key] = (x, below + top)
        width = max(width, x + room)
        x += room + _ROW * scale
        row_high = max(row_high, top + max(wide, _LINE * scale) + _ROW * scale)
    return _Waiting(places, frozenset(named), _BESIDE * scale, width, below + row_high)


def _behind(stack: list[RoughPart]) -> int:
    """Return how many of a stack are seen behind the one on top."""
    return min(len(stack) - 1, 2)


def _stacks(plan: Plan) -> dict[tuple[object, ...], list[RoughPart]]:
    """Return the parts without a board, equal ones together."""
    stacks: dict[tuple[object, ...], list[RoughPart]] = {}
    for item in plan.unplaced:
        stacks.setdefault(_alike(item.part), []).append(item.part)
    return stacks


def _stack_name(plan: Plan, stack: list[RoughPart]) -> str:
    return plan.reader.name_of_kind([each.name for each in stack])


def place_on_bench(plan: Plan, part_id: str) -> tuple[float, float]:
    """Return the upper left corner of a rough part on the drawing, mm: on its board, or waiting below."""
    board_plan = plan.board_of(part_id)
    if board_plan is None:
        rough = plan.rough_part(part_id)
        return _waiting_places(plan).places.get(_alike(rough), (0.0, 0.0)) if rough is not None else (0.0, 0.0)
    rect = next(item.rect for item in board_plan.placed if item.part.id == part_id)
    left, top = board_places(plan.project.boards)[board_plan.board.id]
    return left + rect.x, top + float(board_plan.board.width) - rect.top


def _waiting(plan: Plan, selection: Selection) -> Iterator[Element]:
    """Draw the parts that lie nowhere, dashed, to be dragged onto a board; of equal ones the one in hand is on top."""
    stacks, in_hand = _stacks(plan), selected_piece(plan, selection)
    waiting = _waiting_places(plan)
    for number, (key, (x, y)) in enumerate(waiting.places.items()):
        if number == 0:
            top = y - _behind(stacks[key]) * _STEP * float(stacks[key][0].across)
            yield Label((x, top), without_wood(plan.reader), 3.2, Anchor.START, Role.WARN, nudge_mm=(0, -4.5))
        stack = stacks[key]
        rough = in_hand if in_hand is not None and in_hand in stack else stack[0]
        long, wide, ref = float(rough.along), float(rough.across), PieceRef(rough.id)
        for behind in range(_behind(stack), 0, -1):
            step = _STEP * wide * behind
            yield rectangle(x + step, y - step, long, wide, Role.HIDDEN, Fill.PAPER, ref=ref)
        yield rectangle(x, y, long, wide, Role.HIDDEN, Fill.PAPER, ref=ref)
        name = _stack_name(plan, stack)
        if key in waiting.named:
            yield Label((x + long / 2, y + wide / 2), name, 3.8, bold=True, ref=ref)
        else:
            yield Label((x + long + waiting.beside, y + wide / 2), name, 3.2, Anchor.START, ref=ref)


def draw_one_board(plan: Plan, board_plan: BoardPlan) -> Drawing:
    """Draw one board with its parts and cuts, its upper left corner at (0, 0)."""
    wood, words = _board(plan, board_plan, crowded=False)
    return wood + words


def _board(plan: Plan, board_plan: BoardPlan, crowded: bool, told: bool = True) -> tuple[Drawing, Drawing]:
    """Draw a board with what lies on it, and its words; where it is not `told`, without its cuts, parts by numbers.

    Among a `crowded` rack only that is written for which there is room.
    """
    catalogue = IdentityKey(plan.marks.catalogue)
    spare = not plan.unplaced
    wood = _wood(board_plan.board, board_plan.placed, frozenset(board_plan.wrong), crowded, spare, catalogue)
    return wood, drawing(_words(plan, board_plan, crowded, told))


@kept_by_value(256)
def _wood(
    board: Board,
    placed: tuple[PlacedPart, ...],
    wrong: frozenset[str],
    crowded: bool,
    spare: bool,
    catalogue: IdentityKey[Catalogue],
) -> Drawing:
    """Return a board and what lies on it, without words; it is kept, for most changes are of something else."""
    parts = (_placed(board, item, wrong) for item in placed)
    wood = _board_wood(board, placed, crowded, spare, Reader(Marks(catalogue=catalogue.carried)))
    return drawing(wood, *parts, draw_flaws(board, catalogue.carried, crowded))


def _board_wood(
    board: Board, placed: tuple[PlacedPart, ...], crowded: bool, spare: bool, reader: Reader
) -> Iterator[Element]:
    """Draw a board; where it is `spare`, all parts lie on wood, and it is not needed if it holds none of them."""
    length, width = float(board.length), float(board.width)
    if placed:
        used = max(item.rect.end for item in placed)
        yield rectangle(0, 0, used, width, fill=Fill.WASTE, ref=BoardRef(board.id))
        if length - used > 1:
            yield rectangle(
                used, 0, length - used, width, fill=Fill.WOOD, species=board.species, ref=BoardRef(board.id)
            )
            yield from grain_lines(used, 0, length - used, width, board.name)
            if length - used > 0.18 * length and not crowded:
                clear_to = min((float(f.start) for f in board.flaws if float(f.start) > used + 60), default=length)
                middle = ((used + clear_to) / 2, width * 0.8)
                yield Label(middle, rest_words(True, reader), 3.0, role=Role.FAINT)
    else:
        yield rectangle(0, 0, length, width, fill=Fill.WOOD, species=board.species, ref=BoardRef(board.id))
        yield from grain_lines(0, 0, length, width, board.name)
        if spare and not crowded:
            yield Label((length / 2, width / 2), rest_words(False, reader), 3.0, role=Role.FAINT)
    yield from draw_missing(board)


def _words(plan: Plan, board_plan: BoardPlan, crowded: bool, told: bool) -> Iterator[Element]:
    board, width = board_plan.board, float(board_plan.board.width)
    for item in board_plan.placed:
        yield from _named(plan, board_plan, item, crowded, told)
    for item, why in board_plan.told_wrong():
        at = (item.rect.x + item.rect.length / 2, width - item.rect.y - item.rect.width / 2)
        said = sentence(f"{item.part.name} {complaint_words(why, plan.reader)}")
        yield Label(at, said, 2.9, role=Role.WARN, ref=PieceRef(item.part.id), nudge_mm=(0, 5))
    for cut in board_plan.cuts if told else ():
        yield from _cut(cut, width)
    said = board.name if crowded else board_words(board, plan.reader)
    yield Label((0, 0), said, 3.2, Anchor.START, nudge_mm=(0, -3), minor=crowded)
    if board_plan.not_sawable is not None:
        yield Label(
            (0, width), saw_words(board_plan.not_sawable, plan.reader), 3.0, Anchor.START, Role.WARN, nudge_mm=(0, 8)
        )


def _placed(board: Board, item: PlacedPart, wrong: frozenset[str]) -> Iterator[Element]:
    rect, ref = item.rect, PieceRef(item.part.id)
    top = float(board.width) - rect.top
    role = Role.WARN if item.part.id in wrong else Role.CHALK
    yield rectangle(rect.x, top, rect.length, rect.width, role, Fill.WOOD, board.species, ref)
    yield from grain_lines(rect.x, top, rect.length, rect.width, item.part.name, along_x=not item.part.turned, ref=ref)


def _named(plan: Plan, board_plan: BoardPlan, item: PlacedPart, crowded: bool, told: bool) -> Iterator[Element]:
    """Name a part, by its number where there is no room."""
    rect, ref = item.rect, PieceRef(item.part.id)
    top = float(board_plan.board.width) - rect.top
    middle = (_clear_of_flaws(board_plan.board, rect), top + rect.width / 2)
    name = item.part.name
    if not told or (len(plan.boards) > MOST_IN_A_COLUMN and len(name) * 34 > rect.length):
        name = short_name(plan, item.part)
    yield Label(middle, name, 3.8, bold=True, ref=ref, minor=crowded)
    if item.pinned or board_plan.board.sawn:
        yield Ring((rect.x, top), "", 1.2, Role.KNIFE, ref=ref, nudge_mm=(2.4, 2.4))
    if item.flipped or item.over:
        words = turned_words(item.flipped, item.over, plan.reader)
        yield Label(
            (rect.x + rect.length, top + rect.width), words, 2.6, Anchor.END, Role.FAINT, ref=ref, nudge_mm=(-1, -2)
        )


def _clear_of_flaws(board: Board, rect: Rect) -> float:
    """Return where along a board a part is named, mm: in its middle, or in its longest stretch clear of flaws there."""
    middle, half = rect.y + rect.width / 2, 0.2 * rect.width
    marks = [flaw_rect(flaw) for flaw in board.flaws]
    on = [each for each in marks if each.meets(Rect(rect.x, middle - half, rect.length, 2 * half))]
    stops = sorted([(rect.x, rect.x), (rect.end, rect.end), *((each.x, each.end) for each in on)])
    clear = [(max(end for _, end in stops[: n + 1]), start) for n, (start, _) in enumerate(stops[1:])]
    start, end = max(clear, key=lambda stretch: stretch[1] - stretch[0])
    return rect.x + rect.length / 2 if end <= start else (start + end) / 2


def _cut(cut: SawCut, width: float) -> Iterator[Element]:
    """Draw a cut as a chalk line past the wood, with its place in the order ringed at its end."""
    if cut.kind is CutKind.CROSS:
        low, high = width - cut.y - cut.length, width - cut.y
        yield line((cut.x, low), (cut.x, high), Role.CHALK)
        yield Ring((cut.x, high), str(cut.order), 2.6, nudge_mm=(0, 3.2))
    else:
        y = width - cut.y
        yield line((cut.x, y), (cut.x + cut.length, y), Role.CHALK)
        yield Ring((cut.x + cut.length * 0.12, y), str(cut.order), 2.6)


def card(plan: Plan, selection: Selection) -> Card:
    """Return what is carried away."""
    shown = selected_board(plan, selection) or next((board for board in plan.boards if board.cuts), None)
    cut = selection.breakdown.cut
    if cut is not None and shown is not None and shown.cuts:
        return step_card(plan, shown, cut)
    settings = list(_settings(plan, selected_piece(plan, selection)))
    steps = tuple(operation_words([cut], plan.reader) for cut in saw_operations(plan, shown)) if shown else ()
    remarks = [*_unplaced(plan), *_wrong(plan), *_buying(plan)]
    remarks.append(Remark(SawInWaste(plan.project.shop.kerf)))
    why = (rough_words(plan.project.allowances, plan.reader),)
    title = card_title(shown.board.name if shown else "", plan.reader)
    return Card(title, tuple(settings), (*_glue_up(plan, selection), *steps), tuple(remarks), why)


def _settings(plan: Plan, rough: RoughPart | None) -> Iterator[Setting]:
    """Yield the size and place of the piece in hand, and how much wood and sawing the layout takes."""
    if rough is not None:
        yield rough_setting(rough.name, _size(plan, rough), rough.thickness, plan.reader)
        on = plan.board_of(rough.id)
        if on is not None:
            place = next(item.rect for item in on.placed if item.part.id == rough.id)
            yield place_setting(on.board.name, from_float(place.x), plan.reader)
    total = sum(board.consumed for board in plan.boards)
    asked = sum(float(part.length) * float(part.width) for part in plan.rough)
    if plan.unplaced == () and total:
        yield wood_setting(total, asked, plan.reader)
        minutes = sum(
            sawing_of(board.board).minutes(cut.kind is CutKind.CROSS, cut.length)
            for board in plan.boards
            for cut in board.cuts
        )
        yield sawing_setting(sum(len(board.cuts) for board in plan.boards), minutes, plan.reader)


def _unplaced(plan: Plan) -> Iterator[Remark]:
    """Say of the parts that lie nowhere why, and what would place each."""
    alike: dict[tuple[Nowhere, int], list[RoughPart]] = {}
    for item in plan.unplaced:
        whole = len(item.part.parts) == 1 and "/" not in item.part.id
        alike.setdefault((item.why, item.staves if whole else 0), []).append(item.part)
    for (why, staves), parts in alike.items():
        fact = LieNowhere(tuple(part.name for part in parts), why)
        fixes = (GlueFromStaves(tuple(part.parts[0] for part in parts), staves),) if staves else ()
        yield Remark(fact, Severity.FAILURE, fixes, ref=PartRef(parts[0].parts[0]))


def _wrong(plan: Plan) -> Iterator[Remark]:
    """Say what lies wrongly, and which parts hang on a flaw's depth that nobody knows."""
    for board in plan.boards:
        for item, why in board.told_wrong():
            yield Remark(LiesWrongly(item.part.name, why), Severity.FAILURE, ref=PartRef(item.part.parts[0]))
        if board.not_sawable is not None:
            yield Remark(board.not_sawable, Severity.FAILURE)
        for item in board.placed:
            for flaw in board.board.flaws:
                near = item.rect.meets(flaw_rect(flaw))
                if near and flaw.faces is not Faces.THROUGH and flaw.depth is None and item.part.id not in board.wrong:
                    fact_of_flaw = DepthUnknown(item.part.name, flaw.kind, flaw.faces is Faces.UP, board.board.name)
                    yield Remark(fact_of_flaw, Severity.WARNING, ref=PartRef(item.part.parts[0]))


def wood_to_buy(plan: Plan, wood: str, asks: str) -> str:
    """Name the wood to ask the yard for: where none was chosen, that of the boards there are."""
    there = next((board.species for board in plan.project.boards if board.species), USUAL_WOOD)
    return f"{asks} {plan.reader.text(wood or there)}".strip()


def _buying(plan: Plan) -> Iterator[Remark]:
    """Say what to ask the yard for, where the rack is not enough."""
    if not plan.unplaced:
        return
    # Brings the search, which the window does not need to stand.
    from nullah.core.breakdown.buying import buying_list, known_buying_list
    from nullah.core.laying import shortage_of

    shortage = shortage_of(plan)
    if not shortage.parts:
        return
    lines = known_buying_list(shortage) if plan.aside else buying_list(shortage)
    if lines is None:
        yield Remark(BoardsBeingCounted(), Severity.WARNING)
        return
    boards = tuple(
        ToBuyOne(
            item.number,
            wood_to_buy(plan, item.wood, item.asks),
            item.thickness,
            quarters_name(item.thickness),
            item.width,
            item.length,
        )
        for item in lines
    )
    yield Remark(BoardsToBuy(round(float(plan.project.flawed_share) * 100), boards), Severity.WARNING)


def _glue_up(plan: Plan, selection: Selection) -> tuple[str, ...]:
    """Say how the staves of the part in hand go together."""
    made, part = next((each for each in plan.staves if each.part == selection.part), None), plan.part(selection.part)
    glued = None if part is None else staves_glue_up(plan, part)
    if made is None or part is None or glued is None:
        return ()
    placed = {item.part.id: (item, each.board) for each in plan.boards for item in each.placed}
    laid = [placed[piece.id] for piece in plan.pieces_of(selection.part) if piece.id in placed]
    woods = tuple(dict.fromkeys(each.species.name for each in plan.woods_of(part)))
    said = arrangement_words(made, arranged(made, laid), woods, part.laminated, plan.reader)
    if len(laid) < len(made.widths):
        return said
    return (*said, operation_words([gluing_of_staves(plan, part, glued)], plan.reader))


def _size(plan: Plan, rough: RoughPart) -> str:
    write, up = plan.marks.write, Direction.UP
    return f"{write(rough.length, up, unit=False)} × {write(rough.width, up)}"


def _bare(plan: Plan) -> tuple[RoughPart, ...]:
    """Return the pieces that lie on no board."""
    return tuple(item.part for item in plan.unplaced)


def state(plan: Plan) -> str:
    """Return a few words for the rod."""
    if not plan.rough:
        return no_parts(plan.reader)
    if plan.unplaced:
        bare, every = ({part for each in pieces for part in each.parts} for pieces in (_bare(plan), plan.rough))
        return bare_words(len(bare), len(every), plan.reader)
    wrong = any(board.wrong or board.not_sawable for board in plan.boards)
    return laid_words(wrong, sum(len(board.cuts) for board in plan.boards), plan.reader)
