"""A rehearsal: the whole piece built by the order of work alone, by hands that err, measured as it comes out."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from itertools import product
from typing import cast

import numpy as np

from nullah.core import actions
from nullah.core.apprentice.by_hand import Bench, felt_along
from nullah.core.apprentice.contacts import TOUCHES, Contact, contacts
from nullah.core.apprentice.levelling import Level, highest_below
from nullah.core.apprentice.made_part import Floats, MadePart, bodies
from nullah.core.apprentice.standing import Place, Standing, stand, unmoved
from nullah.core.bench.task_facts import FitMover, PlaneLevel
from nullah.core.bench.tasks import Joining, Task
from nullah.core.bench.trades import Trade
from nullah.core.fraction import Fraction
from nullah.core.identity import kept_by_identity
from nullah.core.ledger import Ledger, Measured
from nullah.core.lengths import from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.operations.fastening import Bore, Pin
from nullah.core.operations.operation import Operation
from nullah.core.operations.regions import Region
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import Cut, PlaneOff, Take
from nullah.core.piece.form import Assembly
from nullah.core.piece.frames import frames_of
from nullah.core.piece.solids import recipe
from nullah.core.piece.space import Axis, Box, side_at
from nullah.core.plan import Plan, work_out
from nullah.core.rules import names_in
from nullah.core.shop import Hands
from nullah.core.work.bench_work import blank_of
from nullah.core.work.meetings import meetings_of
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.rehearsal import (
    OPEN,
    SHAVED,
    Found,
    Joined,
    MadeAgain,
    NoOrder,
    NotFound,
    OutOfOrder,
    Refused,
    Rehearsal,
)
from nullah.core.work.stock_tasks import waits_of

#: How near to its planned figure something must be to be what is measured, mm.
_SAME = 1.7
#: So far beside the place of what goes in an opening is felt, where the place itself is cut out, mm.
_BESIDE_PLACE = Fraction(4)
#: Where lines pass through a box on which something is measured, of its sides.
_FEW = (Fraction(1, 20), Fraction(1, 3), Fraction(3, 4))
_MANY = tuple(Fraction(each, 20) for each in range(1, 20, 2))
#: So far outside a surface it is looked whether something covers it, mm.
_BESIDE = 0.3


#: What holds parts together for good; what is only nailed is racked square again when the next part goes on.
_FAST = frozenset({Joining.GLUE, Joining.SCREWS, Joining.PEGS})


def rehearse(plan: Plan, hands: Hands, seed: int, measured: bool = True) -> Rehearsal:
    """Build a piece by its order of work.

    Parameters
    ----------
    plan : Plan
    hands : Hands
        How far off they are.
    seed : int
        Of their errors.
    measured : bool
        Whether what waits for a measurement is cut to it, or else to the drawing.
    """
    order = order_of_work(plan)
    if not order.tasks:
        return Rehearsal((), (), (NoOrder(),))
    found = _Building(plan, hands, seed, measured).whole()
    return found._replace(refused=(*map(OutOfOrder, order.faults), *found.refused))


class _Closed(NamedTuple):
    """How a contact closed: what is open at each of its points, and what is too tight, mm."""

    gaps: tuple[float, ...]
    tight: float


class _Building:
    """A piece as it is built: told by the plan of the moment, and standing as the first one designed it."""

    def __init__(self, plan: Plan, hands: Hands, seed: int, measured: bool) -> None:
        self.designed = self.plan = plan
        self.bench = Bench(hands, np.random.default_rng(seed), measured)
        self.touching = contacts_of(plan)
        self.shaved = _shaved(plan, self.touching)
        self.places: dict[str, Place] = {}
        self.bodies: list[frozenset[str]] = []
        #: How each contact closed when its parts were joined: what is open at each of its points, and too tight, mm.
        self.closed: dict[Contact, _Closed] = {}
        #: How much of what touches was shaved off as it was tried, mm.
        self.worn: dict[Contact, float] = {}
        self.there: set[str] = set()
        self.done: dict[str, Task] = {}
        self.found: list[Found] = []
        self.refused: dict[Refused, None] = {}

    def whole(self) -> Rehearsal:
        """Do all tasks, and put the piece together."""
        while (task := self._next()) is not None:
            self.done[task.id] = task
            if task.trade is Trade.MEASURE and self.bench.measured:
                self._measure(task)
                self.refused |= dict.fromkeys(map(MadeAgain, _changed(order_of_work(self.plan).tasks, self.done)))
            else:
                self._do(task)
        if self.plan.parts:
            self._join(part.id for part in self.plan.parts)
        joints = tuple(_joined(self.designed, self.touching, self.closed, self.shaved))
        return Rehearsal(joints, tuple(self.found), tuple(self.refused))

    def _next(self) -> Task | None:
        return next((task for task in order_of_work(self.plan).tasks if task.id not in self.done), None)

    def _do(self, task: Task) -> None:
        if task.trade is Trade.MILL:
            for part in task.parts:
                self._blank(part, [each for each in task.operations if each.part == part])
        elif isinstance(task.what, PlaneLevel):
            self._level(task.what)
        elif task.trade not in (Trade.SAW, Trade.DRY):
            for each in task.operations:
                self._blank(each.part)
            flush = [each for each in task.operations if isinstance(each, PlaneOff) and self._plane_flush(each)]
            self.bench.do(each for each in task.operations if each not in flush)
            if task.trade is Trade.JOINT:
                self._try(task)
            elif task.joins:
                self.there |= {part for join in task.joins for part in join.parts}
                self._join(part for join in task.joins if join.how in _FAST for part in join.parts)

    def _blank(self, part_id: str, milling: Iterable[Operation] = ()) -> None:
        part = self.plan.part(part_id)
        if part is not None and part_id not in self.bench.parts:
            told = [float(size) for size in blank_of(self.plan, part)]
            frame = frames_of(self.designed.assembly)[part_id]
            self.bench.parts[part_id] = MadePart(frame, told, self.bench.milled(told, milling))
            self.places[part_id] = unmoved(self.bench.parts[part_id])

    def _level(self, told: PlaneLevel) -> None:
        """Plane parts that stand together down to one plane, where what they carry goes on."""
        found: dict[str, list[tuple[Floats, Floats]]] = {}
        for contact in self.touching:
            if told.carried in (contact.first, contact.second) and contact.room == 0.0:
                carries, way = (contact.second, -1.0) if contact.first == told.carried else (contact.first, 1.0)
                if carries in told.parts:
                    normal = way * np.array(contact.normal)
                    found.setdefault(carries, []).extend((np.array(point), normal) for point in contact.points)
        if not found:
            return
        points = np.array([point for every in found.values() for point, _ in every])
        normals = np.array([normal for every in found.values() for _, normal in every])
        heights = np.concatenate([self._heights(part, *zip(*every, strict=True)) for part, every in found.items()])
        plane = highest_below(points, normals[0], heights)
        for part, every in found.items():
            self._plane_to(part, plane, *every[0])

    def _plane_to(self, part: str, plane: Level, corner: Floats, normal: Floats) -> None:
        """Plane a surface of a part that stands with others down to a plane; what lies below it stays."""
        across = np.eye(3)[[axis for axis in range(3) if axis != int(np.argmax(np.abs(normal)))]]
        off = self.bench.off(self.bench.hands.planing)
        corners = []
        for point in (corner, corner + across[0], corner + across[1]):
            high = float(plane.at(point)) + off - float(normal @ self.places[part].shift(point))
            corners.append(point + high * normal)
        self.bench.parts[part].planed(np.array(corners), normal)

    def _plane_flush(self, told: PlaneOff) -> bool:
        """Plane an end that was left proud down to the face of the part it stands out of; `False` without one."""
        frames = frames_of(self.designed.assembly)
        own, surface = frames[told.part], cast(Surface, told.setting.origin)
        axis = own.axes[surface.axis]
        side = side_at(axis, surface.high is not own.turned[surface.axis])
        at = own.part.box.at(side)
        pairs = ({contact.first, contact.second} for contact in self.touching)
        mates = {mate for pair in pairs if told.part in pair for mate in pair - {told.part}}
        flush = [each for mate in mates if (each := frames[mate].part).box.at(side) == at and each.face is axis]
        if not flush:
            return False
        normal = np.zeros(3)
        normal[axis.value] = 1.0 if side.high else -1.0
        points = np.concatenate([_on_side(each.box, axis, at) for each in flush])
        every = [(each.id, _on_side(each.box, axis, at)) for each in flush]
        heights = np.concatenate([self._heights(part, list(on), [normal] * len(on)) for part, on in every])
        self._plane_to(told.part, highest_below(points, normal, heights), points[0], normal)
        return True

    def _heights(self, part: str, points: Sequence[Floats], normals: Sequence[Floats]) -> Floats:
        """Return how far points of a surface stand out from where they were designed, as the part stands, mm."""
        out = self.bench.parts[part].stands_out(np.array(points), np.array(normals))
        shifts = [float(normal @ self.places[part].shift(point)) for point, normal in zip(points, normals, strict=True)]
        return np.asarray(out + np.array(shifts))

    def _try(self, task: Task) -> None:
        """Try what was cut to fit where it will be, and shave it until it goes in."""
        tried = {part for join in task.joins for part in join.parts}
        waits = waits_of(self.plan)
        names = {name for part in tried for name in waits.get(part, ())}
        around = {
            part
            for each in self.done.values()
            if each.trade is Trade.MEASURE and names & set(each.measures)
            for part in each.between
        }
        if tried & set(waits) and around:
            touching, standing = self._standing(tried | around)
            for contact, tight in zip(touching, standing.tight, strict=True):
                if contact in self.shaved:
                    self.worn[contact] = self.worn.get(contact, 0.0) + tight

    def _join(self, parts: Iterable[str]) -> None:
        """Join parts, and what they are joined to already, for good; what lies there loosely is held by them."""
        wanted = set(parts)
        if not wanted:
            return
        touching, standing = self._standing(self.there | wanted)
        self.places |= standing.places
        whole = frozenset(wanted.union(*(body for body in self.bodies if body & wanted)))
        self.bodies = [*(body for body in self.bodies if not body & wanted), whole]
        for contact, gaps, tight in zip(touching, standing.gaps, standing.tight, strict=True):
            if {contact.first, contact.second} <= whole:
                self.closed[contact] = _Closed(gaps, tight)

    def _standing(self, parts: Collection[str]) -> tuple[list[Contact], Standing]:
        """Put parts together; return what closes then, and how they stand."""
        for part in parts:
            self._blank(part)
        one = {part: number for number, body in enumerate(self.bodies) for part in body}
        touching = [
            contact
            for contact in self.touching
            if contact.first in parts
            and contact.second in parts
            and (contact.first not in one or one[contact.first] != one.get(contact.second))
        ]
        there = {part: made for part, made in self.bench.parts.items() if part in parts}
        worn = [self.worn.get(contact, 0.0) for contact in touching]
        return touching, stand(there, touching, worn, self.shaved, self.bodies, self.places)

    def _measure(self, task: Task) -> None:
        """Measure what a task says on what stands then, and let the plan follow it."""
        there = {part: made for part, made in self.bench.parts.items() if part in task.between}
        places = self._standing(there)[1].places
        project, ledger = self.plan.project, self.plan.ledger
        assert ledger is not None
        for name in task.measures:
            planned = ledger.length(name)
            off = self._off(name, ledger, there, places)
            if off is None:
                self.refused[NotFound(name)] = None
                continue
            found = from_float(round(float(planned) + off + self.bench.off(self.bench.hands.measuring), 2))
            self.found.append(Found(name, planned, found))
            project = actions.measure(project, name, Measured(found))
        self.plan = work_out(project, milling=False, proving=False)

    def _off(
        self, name: str, ledger: Ledger, there: Mapping[str, MadePart], places: Mapping[str, Place]
    ) -> float | None:
        """Return by how much a quantity is more than planned, mm; None where nothing that stands has it."""
        rule = ledger.quantity(name).definition.rule
        if not rule:
            return 0.0  # it is no part of the piece: the drawing has it as it is
        if not there:
            return None
        waiting = [part for part, names in waits_of(self.plan).items() if name in names]
        frames = frames_of(self.designed.assembly)
        # It is measured where it goes; what does not stand yet as a whole as far as it does: between the lines on one
        # board.
        fixed = [part for part in waiting if part in frames and not frames[part].part.group]
        for each in (name, *names_in(rule)):
            if len(fixed) > 1:
                # Where several go, the largest counts, and each is shot to its own place: felt there, or close beside.
                for beside in (Fraction(0), _BESIDE_PLACE):
                    around = [_wider(frames[part].part.box, beside) for part in fixed]
                    offs = [_measured(there, places, float(ledger[each]), [box], True) for box in around]
                    found = [off for off in offs if off is not None]
                    if found:
                        return max(found)
            goes = [frames[part].part.box for part in waiting if part in frames]
            stands = [frames[part].part.box for part in there]
            for boxes, within in (([_met(box, stands) for box in goes], True), (stands, False)):
                off = _measured(there, places, float(ledger[each]), boxes, within)
                if off is not None:
                    return off
        return None


def _on_side(box: Box, axis: Axis, at: Fraction) -> Floats:
    """Return four places (4, 3) on a side of a box square to an axis, within its border, mm."""
    spans = [
        (float(at),)
        if each is axis
        else tuple(float(low + (high - low) * share) for share in (Fraction(1, 5), Fraction(4, 5)))
        for each, low, high in zip(Axis, box.low, box.high, strict=True)
    ]
    return np.array(list(product(*spans)))


def _met(box: Box, stands: Sequence[Box]) -> Box:
    """Return as much of a box as lies between the outermost of what stands; all of it where that is nothing."""
    low = [min(each.low[axis] for each in stands) for axis in range(3)]
    high = [max(each.high[axis] for each in stands) for axis in range(3)]
    return box.overlap(Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))) or box


def _wider(box: Box, by: Fraction) -> Box:
    """Return a box that reaches so much further each way, mm."""
    low, high = (tuple(at + way * by for at in corner) for corner, way in ((box.low, -1), (box.high, 1)))
    return Box((low[0], low[1], low[2]), (high[0], high[1], high[2]))


def _changed(tasks: Iterable[Task], done: Mapping[str, Task]) -> Iterator[str]:
    """Yield parts whose cuts would now be told otherwise than they were done."""
    for task in tasks:
        before = done.get(task.id)
        if before is not None and task.trade not in (Trade.SAW, Trade.MILL, Trade.DRY):
            for was, now in zip(before.operations, task.operations, strict=False):
                nailed = isinstance(now, Bore) and now.pin is Pin.SCREW
                otherwise = len(was.takes) != len(now.takes)
                if not nailed and (otherwise or any(map(_apart, was.takes, now.takes))):
                    yield now.part


def _apart(was: Region, now: Region) -> bool:
    """Return whether what was taken is not what is told to be taken now, by more than a gap that shows."""
    for one, other in zip(bodies(was), bodies(now), strict=False):
        for face, moved in zip(one, other, strict=False):
            between = np.array(moved.points[0]) - np.array(face.points[0])
            if abs(float(np.array(face.normal) @ between)) > OPEN:
                return True
    return False


def _measured(
    parts: Mapping[str, MadePart],
    places: Mapping[str, Place],
    planned: float,
    boxes: Iterable[Box],
    within: bool = False,
) -> float | None:
    """Return by how much something that parts have between them is more than planned, mm.

    What is between them at the tightest place, what is over them at the widest.

    It is felt along lines through some boxes of the piece, along more of them where nothing was designed just so far
    apart: sockets are narrow. Where it is what goes into a box, its middle lies `within` that: the next column of
    a case may be as wide. None where nothing is so far apart.
    """
    boxes = tuple(boxes)
    for shares in (_FEW, _MANY):
        found = _felt_apart(parts, places, planned, boxes, shares, within)
        if found is not None and found[0] == 0:
            break
    return None if found is None else found[1]


def _felt_apart(
    parts: Mapping[str, MadePart],
    places: Mapping[str, Place],
    planned: float,
    boxes: Sequence[Box],
    across: Sequence[Fraction],
    within: bool,
) -> tuple[float, float] | None:
    """Return how far what was felt was designed to be off the planned figure, and how much more it is, mm."""
    best: tuple[float, float, float] | None = None
    for axis in range(3):
        others = [each for each in range(3) if each != axis]
        lines = {
            (
                tuple(
                    round(float(low + (high - low) * share), 3)
                    for low, high, share in zip(*corners, shares, strict=True)
                ),
                (float(box.low[axis]), float(box.high[axis])) if within else (-np.inf, np.inf),
            )
            for box in boxes
            for corners in [([box.low[each] for each in others], [box.high[each] for each in others])]
            for shares in product(across, repeat=2)
        }
        for line, (least, most) in sorted(lines):
            place = np.zeros(3)
            place[others] = line
            met = []
            for part, made in parts.items():
                for felt in felt_along(made, place, axis):
                    point = place.copy()
                    point[axis] = felt.at
                    met.append(felt._replace(off=felt.off + float(places[part].shift(point)[axis])))
            met.sort()
            for number, low in enumerate(met):
                for high in met[number + 1 :]:
                    away = abs(high.at - low.at - planned)
                    if away < _SAME and least <= (low.at + high.at) / 2 <= most:
                        more = high.at - low.at + high.off - low.off - planned
                        over = high.ends and not low.ends
                        key = (round(away, 2), -more if over else more, more)
                        best = key if best is None else min(best, key)
    return None if best is None else (best[0], best[2])


# --- contacts ---------------------------------------------------------------------------------------


def contacts_of(plan: Plan) -> tuple[Contact, ...]:
    """Return where the parts of a piece touch."""
    return _contacts(plan.assembly)


@kept_by_identity(4)
def _contacts(assembly: Assembly) -> tuple[Contact, ...]:
    parts = {part.id: part for part in assembly.parts}
    return contacts({part.id: recipe(part, assembly.joints, parts) for part in assembly.parts})


def _shaved(plan: Plan, touching: Iterable[Contact]) -> frozenset[Contact]:
    """Return where what enters is shaved until it goes in, as it is tried.

    What is held from both sides was made to enter, and a tenon is shortened that touches the bottom of its mortise
    before its shoulders close; what is cut to fit is tried where it will be, and its ends and edges are shaved, but not
    what others enter. What goes in and out is planed until it runs.
    """
    tasks = order_of_work(plan).tasks
    tried = {
        frozenset(join.parts)
        for task in tasks
        for join in task.joins
        if task.trade is Trade.JOINT and join.how in (Joining.DRY, Joining.STARTED)
    }
    ways: dict[tuple[str, str, int], dict[bool, list[Contact]]] = {}
    for contact in touching:
        key = (contact.first, contact.second, contact.axis)
        ways.setdefault(key, {}).setdefault(contact.normal[contact.axis] > 0, []).append(contact)
    told = (each for task in tasks for each in task.operations)
    mortised = {each.part for each in told if isinstance(each, Take) and each.cut is Cut.MORTISE}
    moving = {part for task in tasks if isinstance(task.what, FitMover) for part in task.parts}
    found = {each for each in touching if each.room > 0.0 and (each.first in moving) != (each.second in moving)}
    for (first, second, axis), sides in ways.items():
        every = [contact for facing in sides.values() for contact in facing]
        in_two = {first, second} in tried and len(sides) == 2
        if in_two or _fitted(plan, first, second, axis) or _fitted(plan, second, first, axis):
            found.update(every)
        elif {first, second} in tried:
            for host in {first, second} & mortised:
                found.update(contact for facing in sides.values() for contact in _bottoms(plan, host, facing))
    return frozenset(found)


def _fitted(plan: Plan, part: str, other: str, axis: int) -> bool:
    """Return whether one part is cut to fit another along an axis, and tried there."""
    fitted, met, own = waits_of(plan), meetings_of(plan.assembly), plan.part(part)
    cut_to_it = part in fitted and not set(fitted[part]) & set(fitted.get(other, ()))
    entered = other in met and part in met[other].entered
    return own is not None and cut_to_it and not entered and axis != own.face.value


def _bottoms(plan: Plan, host: str, facing: Sequence[Contact]) -> Iterator[Contact]:
    """Yield of surfaces that face one way those at the bottom of a mortise, where shoulders close on its part too."""
    own = plan.part(host)
    if own is not None:
        axis = facing[0].axis
        low, high = float(own.box.low[axis]) + TOUCHES, float(own.box.high[axis]) - TOUCHES
        inside = [contact for contact in facing if low < contact.points[0][axis] < high]
        yield from inside if len(inside) < len(facing) else ()


def _joined(
    plan: Plan, touching: tuple[Contact, ...], closed: Mapping[Contact, _Closed], shaved: frozenset[Contact]
) -> Iterator[Joined]:
    """Yield how parts came together."""
    pairs: dict[tuple[str, str], list[Contact]] = {}
    for contact in touching:
        pairs.setdefault((contact.first, contact.second), []).append(contact)
    joined = {frozenset((joint.first, joint.second)) for joint in plan.assembly.joints}
    for first, second in joined - {frozenset(pair) for pair in pairs}:
        yield Joined((first, second), 0.0, 0.0, 0.0)  # planned to stay apart, further than anything errs
    for pair, facing in pairs.items():
        seated = [contact for contact in facing if contact.room == 0.0]
        gaps = [gap for contact in seated for gap in closed[contact].gaps]
        seen = [closed[contact].gaps[number] for contact in seated for number in _seen(plan, contact)]
        tight = [closed[contact].tight - (SHAVED if contact in shaved else 0.0) for contact in facing]
        yield Joined(pair, max(gaps, default=0.0), max(tight, default=0.0), max(seen, default=0.0))


def _seen(plan: Plan, contact: Contact) -> frozenset[int]:
    """Return at which of its points a seam comes out nearby in a side that is seen, and that nothing covers there."""
    points, found = np.array(contact.points), set()
    for part_id in (contact.first, contact.second):
        part = plan.part(part_id)
        for side in part.shows if part is not None else ():
            axis = side.axis.value
            at = float(part.box.at(side)) if part is not None else 0.0
            if axis == contact.axis:
                continue
            for point in contact.border:
                # What stands on one side of the seam, as what enters does, leaves it to be seen on the other.
                beside = [np.array(point) + way * _BESIDE * np.array(contact.normal) for way in (1, -1)]
                for outside in beside:
                    outside[axis] += _BESIDE if side.high else -_BESIDE
                if abs(point[axis] - at) < TOUCHES and not all(_covered(plan, outside) for outside in beside):
                    found.add(int(np.argmin(np.linalg.norm(points - point, axis=1))))
    return frozenset(found)


def _covered(plan: Plan, point: Floats) -> bool:
    return any(_within(point, part.box) for part in plan.parts)


def _within(point: Floats, box: Box) -> bool:
    return all(low + TOUCHES < at < high - TOUCHES for at, low, high in zip(point, box.low, box.high, strict=True))
