"""The search for a layout: answers at once, gets better while it is watched, and knows how far it is from the best.

Blanks are laid by straight cuts, taken apart in part, and laid again (`packing`); beside it
grows a proven lower bound (`bound`). What was pinned stays.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence

from nullah.core.breakdown.asks import TOLERANCE, Rect, can_supply, shows, spoilt
from nullah.core.breakdown.blanks import BlankOption, alternatives
from nullah.core.breakdown.clear_wood import Area, area_of, areas_for
from nullah.core.breakdown.cuts import NotSawableError, left_over
from nullah.core.breakdown.facts import BoardNotSawable, TooManyParts
from nullah.core.breakdown.layout import PlacedPart, Placement, Unplaced, consumed, place
from nullah.core.breakdown.packing import Blank, PackedBoard, Packer, Packing, Price
from nullah.core.breakdown.reasons import why_nowhere
from nullah.core.breakdown.rough import RoughPart
from nullah.core.breakdown.wishes import SearchWeights
from nullah.core.errors import FactError
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length
from nullah.core.rack.board import Board, Faces, GrainFigure

#: More parts than this in one list are a slip of the key.
MOST_PARTS = 5000
#: So many rounds of the search go by between two steps of the lower bound.
_BOUND_EVERY = 4


class BreakdownError(FactError):
    """A list of parts or boards that cannot be laid out at all."""


class Layout(FrozenRecord):
    """One way to lay the parts out; areas in mm². `bound` is proven: no layout consumes less."""

    placements: tuple[Placement, ...]
    unplaced: tuple[Unplaced, ...]
    consumed: float
    bound: float
    #: What the wishes weigh, in mm²; the wood consumed where only wood counts.
    cost: float = 0.0

    @property
    def score(self) -> tuple[int, float]:
        """What the search makes small: unplaced parts first."""
        return len(self.unplaced), self.cost

    @property
    def rank(self) -> tuple[int, float]:
        """Fewer unplaced parts first, then less wood."""
        return len(self.unplaced), self.consumed

    @property
    def over(self) -> float:
        """How much more than the proven least it consumes, as a share of that."""
        return max(0.0, self.consumed / self.bound - 1) if self.bound else 0.0


#: For no part it matters where its near end lies.
_EVERYWHERE: Mapping[tuple[str, str], tuple[tuple[float, float], ...]] = {}


class LayoutTask(FrozenRecord):
    """What is to be laid out, and how.

    Parameters
    ----------
    parts : tuple of RoughPart
    boards : tuple of Board
    kerf : Length
    wishes : SearchWeights
    pinned : tuple of Placement
        Stay where they are.
    reaches : mapping from (part id, board id) to intervals of x in mm
        Where the near end of a part may lie for it to be thick enough; a pair that is not
        there may lie anywhere.
    """

    parts: tuple[RoughPart, ...]
    boards: tuple[Board, ...]
    kerf: Length
    wishes: SearchWeights = SearchWeights()
    pinned: tuple[Placement, ...] = ()
    reaches: Mapping[tuple[str, str], tuple[tuple[float, float], ...]] = _EVERYWHERE


def search(
    parts: Sequence[RoughPart], boards: Sequence[Board], kerf: Length, rounds: int = 400, seed: int = 1
) -> Iterator[Layout]:
    """Return better and better layouts of parts on boards that ask nothing else; see `search_task`.

    Parameters
    ----------
    parts : Sequence[RoughPart]
        To be laid.
    boards : Sequence[Board]
        There are.
    kerf : Length
        Of the saw.
    rounds : int
        How often it is tried.
    seed : int
        Of its chance.
    """
    task = LayoutTask(tuple(parts), tuple(boards), kerf)
    return search_task(task, rounds, seed)


def search_task(
    task: LayoutTask, rounds: int = 400, seed: int = 1, over: Callable[[], float] | None = None, prove: bool = True
) -> Iterator[Layout]:
    """Yield better and better layouts: unplaced parts first, then what the wishes weigh.

    Parameters
    ----------
    task : LayoutTask
    rounds : int
        How many layouts to try at most.
    seed : int
        The same seed gives the same layouts, if `over` says the same.
    over : callable
        Gives the share of the time that is over, 0 to 1; by default the share of the rounds.
    prove : bool
        Whether to work on the lower bound too.

    Yields
    ------
    Layout
        After every round the best so far, so that whoever listens can stop at any round.

    Raises
    ------
    BreakdownError
        For more parts than anyone makes, or pinned parts that no saw can part.
    """
    if len(task.parts) > MOST_PARTS:
        raise BreakdownError(TooManyParts(len(task.parts), MOST_PARTS))
    laying = _Laying(task, seed)
    packer, bounds = laying.packer, laying.bounds()
    best: Layout | None = None
    bound = laying.area_bound()
    for number, better in enumerate(packer.rounds()):
        packer.cool(over() if over is not None else number / max(1, rounds))
        if packer.best is not None and (better or best is None):
            best = laying.layout(packer.best, bound)
        if prove and number % _BOUND_EVERY == _BOUND_EVERY - 1 and best is not None and not best.unplaced:
            proven = next(bounds, None)
            if proven is not None and proven > bound:
                bound = proven
                best = laying.layout(packer.best, bound) if packer.best is not None else best
        if best is None:
            continue
        yield best
        done = not best.unplaced and best.consumed <= best.bound + 1 and laying.only_wood
        if done or number + 1 >= rounds or not laying.anything:
            return


class _Laying:
    """A task in the search's own terms, and its answers back in the task's."""

    def __init__(self, task: LayoutTask, seed: int) -> None:
        self._task = task
        self._kerf = float(task.kerf)
        self._by_id = {part.id: part for part in task.parts}
        self._pinned = {item.part: item for item in task.pinned if item.part in self._by_id}
        loose = [part for part in task.parts if part.id not in self._pinned]
        least = (min((float(p.along) for p in loose), default=1.0), min((float(p.across) for p in loose), default=1.0))
        self._rooms = _Rooms(task, least)
        self.choices = [choice for group in alternatives(loose, self._kerf) for choice in self._possible(group)]
        self._blanks = [self._blank(choice) for choice in self.choices]
        price = _price(task)
        self.only_wood = price.free and not task.wishes.value
        self.packer = Packer(self._blanks, self._sheets(), self._kerf, price, seed)

    @property
    def anything(self) -> bool:
        """Whether there is anything to be laid."""
        return bool(self._blanks)

    def _possible(self, group: Sequence[BlankOption]) -> Sequence[BlankOption]:
        """Take the first of several ways to lay a set of parts that some board has room for; else the last."""
        for choice in group:
            if any(self._rooms.fits(choice, board) for board in self._task.boards):
                return (choice,)
        return (group[-1],)

    def _blank(self, choice: BlankOption) -> Blank:
        return Blank(choice.along, choice.across, self._rooms.kinds_on_each(choice), len(choice.parts))

    def _sheets(self) -> list[PackedBoard]:
        worth = _worth(self._task)
        sheets = []
        for board in self._task.boards:
            placed = [place(self._by_id[i.part], i) for i in self._pinned.values() if i.board == board.id]
            whole = Rect(0, 0, float(board.length), float(board.width))
            try:
                free = left_over(whole, placed, self._kerf) if placed else (whole,)
            except NotSawableError as error:
                raise BreakdownError(BoardNotSawable(board.name, error.fact)) from error
            used_to = max((item.rect.end for item in placed), default=0.0)
            if board.sawn:
                free = ()
            sheets.append(
                PackedBoard(
                    whole.length,
                    whole.width,
                    tuple(area_of(rect) for rect in free),
                    used_to,
                    self._rooms.of(board),
                    worth[board.id],
                )
            )
        return sheets

    def layout(self, packing: Packing, bound: float) -> Layout:
        """Return a packing as a layout."""
        task = self._task
        placements = list(self._pinned.values())
        for spot in packing.spots:
            board = task.boards[spot.sheet]
            over = self._rooms.face(board, spot.kind) is Faces.DOWN
            for part, dx, dy in self.choices[spot.blank].parts:
                turn = over and len(shows(self._by_id[part])) > 1
                placements.append(Placement(part, board.id, spot.x + dx, spot.y + dy, over=turn))
        left = [part for index in packing.missing for part, _, _ in self.choices[index].parts]
        bare = {board.id for board in task.boards} - {item.board for item in placements}
        unplaced = tuple(
            Unplaced(self._by_id[part], why_nowhere(self._by_id[part], task.boards, frozenset(bare))) for part in left
        )
        used = _consumed(placements, self._by_id, task.boards)
        if unplaced:
            bound = min(bound, _smallest(task.parts, len(placements)))
        return Layout(tuple(placements), unplaced, used, min(bound, used), packing.cost)

    def area_bound(self) -> float:
        """Bound the wood by the parts' areas: they lie within what is consumed, and not over one another."""
        return _smallest(self._task.parts, len(self._task.parts))

    def bounds(self) -> Iterator[float]:
        """Yield better and better lower bounds for layouts of all the parts that any board can give."""
        # SciPy is only loaded when the search has given its first answer.
        from nullah.core.breakdown.bound import Plank, WidthGroup, lower_bounds

        strips: dict[tuple[float, frozenset[int]], list[float]] = {}
        for blank in self._blanks:
            where = frozenset(index for index, kinds in enumerate(blank.kinds) if kinds)
            if where:
                strips.setdefault((blank.across, where), []).append(blank.along + self._kerf)
        sheets = self._sheets()
        planks = [
            Plank(sheet.length, sheet.width, sheet.used_to, self._rooms.spoilt_for_all(board))
            for sheet, board in zip(sheets, self._task.boards, strict=True)
        ]
        pinned = sum(sheet.used_to * sheet.width for sheet in sheets)
        wanted = [WidthGroup(width, sum(found), len(found), where) for (width, where), found in strips.items()]
        # Boards that hold pinned parts count as far as they are used already.
        for bound in lower_bounds(wanted, planks, self._kerf):
            yield bound + pinned


class _Rooms:
    """The clear wood of each board, by kind: parts that ask the same share one."""

    def __init__(self, task: LayoutTask, least: tuple[float, float]) -> None:
        self._task, self._least = task, least
        self._by_id = {part.id: part for part in task.parts}
        self._found: dict[str, list[tuple[tuple[Area, ...], Faces]]] = {board.id: [] for board in task.boards}
        self._areas: dict[tuple[object, ...], tuple[Area, ...]] = {}
        self._kinds: dict[tuple[object, ...], tuple[int, ...]] = {}
        self._on_each: dict[tuple[object, ...], tuple[tuple[int, ...], ...]] = {}

    def of(self, board: Board) -> tuple[tuple[Area, ...], ...]:
        """Return the clear wood of a board by kind."""
        return tuple(areas for areas, _ in self._found[board.id])

    def face(self, board: Board, kind: int) -> Faces:
        """Return which face is up where a part lies in that kind of clear wood."""
        return self._found[board.id][kind][1]

    def spoilt_for_all(self, board: Board) -> tuple[Area, ...]:
        """Return what no part at all may cover of a board, as far as its parts could lie there otherwise."""
        parts = {(p.needs, p.finished, p.thickness): p for p in self._by_id.values() if can_supply(p, board)}
        spoilt_by = [
            {area_of(rect) for rect in spoilt(board, part, face)} for part in parts.values() for face in shows(part)
        ]
        return tuple(sorted(set.intersection(*spoilt_by))) if spoilt_by else ()

    def fits(self, choice: BlankOption, board: Board) -> bool:
        """Return whether a choice has room on a board that holds nothing else."""
        return bool(self.kinds(choice, board))

    def kinds(self, choice: BlankOption, board: Board) -> tuple[int, ...]:
        """Return the kinds of clear wood of a board that a choice may lie in, if it has room there at all."""
        asked = self._asked(choice)
        key = (board.id, choice.along, choice.across, asked)
        if key not in self._kinds:
            self._kinds[key] = tuple(self._new_kinds(choice, board, asked))
        return self._kinds[key]

    def kinds_on_each(self, choice: BlankOption) -> tuple[tuple[int, ...], ...]:
        """Return the same for every board of the task: equal choices are looked at once."""
        key = (choice.along, choice.across, self._asked(choice))
        if key not in self._on_each:
            self._on_each[key] = tuple(self.kinds(choice, board) for board in self._task.boards)
        return self._on_each[key]

    def _asked(self, choice: BlankOption) -> tuple[object, ...]:
        """Return all that two choices must have in common to share their kinds."""
        found: list[object] = []
        for part_id, dx, _ in choice.parts:
            part = self._by_id[part_id]
            reach = (
                tuple(self._task.reaches.get((part_id, board.id)) for board in self._task.boards)
                if self._task.reaches
                else ()
            )
            found.append((part.needs, part.thickness.mm, part.finished, part.wood, part.figure, part.rings, dx, reach))
        return tuple(found)

    def _new_kinds(self, choice: BlankOption, board: Board, asked: tuple[object, ...]) -> Iterator[int]:
        parts = [self._by_id[part_id] for part_id, _, _ in choice.parts]
        if not all(can_supply(part, board) for part in parts):
            return
        for face in max((shows(part) for part in parts), key=len):
            areas = self._clear(parts, board, face)
            for part_id, dx, _ in choice.parts:
                areas = _within(areas, self._task.reaches.get((part_id, board.id)), dx, choice.along)
            if any(
                area[2] - area[0] >= choice.along - TOLERANCE and area[3] - area[1] >= choice.across - TOLERANCE
                for area in areas
            ):
                yield self._number(board, areas, face)

    def _clear(self, parts: Sequence[RoughPart], board: Board, face: Faces) -> tuple[Area, ...]:
        """Return the wood that is clear for all of the parts that lie together."""
        asking = {(part.needs, part.finished, part.thickness): part for part in parts}
        key = (board.id, frozenset(asking), face)
        if key not in self._areas:
            self._areas[key] = areas_for(tuple(asking.values()), board, face, self._least)
        return self._areas[key]

    def _number(self, board: Board, areas: tuple[Area, ...], face: Faces) -> int:
        known = self._found[board.id]
        if (areas, face) not in known:
            known.append((areas, face))
        return known.index((areas, face))


def _within(
    areas: tuple[Area, ...], starts: tuple[tuple[float, float], ...] | None, dx: float, along: float
) -> tuple[Area, ...]:
    """Cut areas down to where a part that lies `dx` into a blank of that length may begin."""
    if starts is None:
        return areas
    found = []
    for low, high in starts:
        for area in areas:
            start, end = max(area[0], low - dx), min(area[2], high - dx + along)
            if end - start >= along - TOLERANCE:
                found.append((start, area[1], end, area[3]))
    return tuple(sorted(found))


def _price(task: LayoutTask) -> Price:
    """Return what sawing and risk count as in mm² of wood, by the wishes.

    At a full wish a metre of crosscut counts as 40 cm² of wood, one of rip as 60, and a metre
    along a flaw as 200: about what a careful worker would give for them (common practice).
    """
    wishes = task.wishes
    return Price(4.0 * wishes.sawing, 6.0 * wishes.sawing, 20.0 * wishes.risk)


def _worth(task: LayoutTask) -> dict[str, float]:
    """Return what a mm² of each board counts as: more for boards better than the middling one.

    The better is the dearer; where no price is known, the clearer and more figured.
    """
    boards, wish = task.boards, task.wishes.value
    if not wish or not boards:
        return {board.id: 1.0 for board in boards}
    rates = {board.id: float(board.price) / _area(board) for board in boards if board.price}
    rates = rates or {board.id: _beauty(board) for board in boards}
    middling = sorted(rates.values())[len(rates) // 2] or 1.0
    return {
        board.id: 1.0 + wish * (min(3.0, rates.get(board.id, middling) / middling) - 1.0) * 0.75 for board in boards
    }


def _area(board: Board) -> float:
    return float(board.length) * float(board.width)


def _beauty(board: Board) -> float:
    """Rate a board by how much of it is clear, and half as much again for figure."""
    flawed = sum(float(flaw.end - flaw.start) * float(flaw.high - flaw.low) for flaw in board.flaws)
    return (1.5 if board.figure is GrainFigure.FIGURED else 1.0) * max(0.05, 1 - flawed / _area(board))


def _consumed(placements: Sequence[Placement], by_id: Mapping[str, RoughPart], boards: Sequence[Board]) -> float:
    placed: dict[str, list[PlacedPart]] = {board.id: [] for board in boards}
    for placement in placements:
        placed[placement.board].append(place(by_id[placement.part], placement))
    return sum(consumed(board, placed[board.id]) for board in boards)


def _smallest(parts: Sequence[RoughPart], count: int) -> float:
    """Return the area of the smallest so many parts: what any layout of that many covers at least."""
    return sum(sorted(float(part.length) * float(part.width) for part in parts)[:count])
