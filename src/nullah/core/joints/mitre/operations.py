"""How mitres are made: both ends on the slant; where they hold, keys across the glued corner."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import JointStage, Moment
from nullah.core.fraction import Fraction
from nullah.core.joints.making import BenchStep, Making
from nullah.core.joints.mitre.keys import Keys, keys_of, places_of
from nullah.core.joints.mitre.solid import clear_of
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.mitres import KeySlot, MitreEnd
from nullah.core.operations.settings import by_mate, by_rule, of_line
from nullah.core.operations.stock import surface_at
from nullah.core.piece.frame import Frame
from nullah.core.piece.joint import Hold
from nullah.core.piece.part import Part
from nullah.core.piece.space import Axis, Box, Side, side_at


def mitre_steps(making: Making) -> tuple[BenchStep, ...] | None:
    """Return the sawing of both ends, and of the slots for keys when it is glued; None where they lie otherwise."""
    one, other = _End.of(making, making.first, making.second), _End.of(making, making.second, making.first)
    if one is None or other is None:
        return None
    sawn = BenchStep(JointStage.CUT, "both", (one.mitred, other.mitred))
    keys = keys_of(making.joint)
    if keys is None:
        return (sawn,)
    lines = (*one.key_lines(keys), *other.key_lines(keys))
    return (
        sawn,
        BenchStep(JointStage.MARKED, "both", lines, moment=Moment.GLUED),
        BenchStep(JointStage.CUT, "both", (*one.slots(keys), *other.slots(keys)), moment=Moment.GLUED),
    )


def _body(part: Part, overlap: Box, axis: Axis) -> Side:
    """Return on which side of an overlap most of a part lies, along an axis."""
    below = overlap.low[axis.value] - part.box.low[axis.value]
    return side_at(axis, part.box.high[axis.value] - overlap.high[axis.value] > below)


class _End:
    """One of the two ends."""

    def __init__(self, making: Making, own: Frame, other: Frame, overlap: Box) -> None:
        self._making, self._own, self._other, self._overlap = making, own, other, overlap
        self._tip = _body(own.part, overlap, own.part.grain).opposite
        self._body = _body(other.part, overlap, other.part.grain)
        self._end, self._inner = own.surface(self._tip), own.surface(self._body)

    @classmethod
    def of(cls, making: Making, own: Frame, other: Frame) -> _End | None:
        """Return the end of a part; None where it does not end in the corner."""
        overlap = own.part.box.overlap(other.part.box)
        if overlap is None or own.part.grain is other.part.grain:
            return None
        found = cls(making, own, other, overlap)
        at_tip = overlap.at(found._tip) == own.part.box.at(found._tip)
        return found if at_tip and overlap.at(found._body) == own.part.box.at(found._body) else None

    @property
    def mitred(self) -> MitreEnd:
        """The slant: from the face towards the other's body to the tip."""
        marks, mate = self._making.marks, self._other.part
        long, through = (self._overlap.size(part.grain) for part in (self._own.part, mate))
        holds = self._making.joint.hold is not Hold.DRY
        more = 1 + clear_of(self._making.joint) / long
        set_back = (("miter", long * more, self._end), ("miter", through * more, self._inner))
        back, deep = (by_mate(*each, mate.id) if holds else by_rule(*each, marks) for each in set_back)
        return MitreEnd(part=self._own.part.id, stock=self._own.stock, end=self._end, back=back, deep=deep, holds=holds)

    def _walls(self, keys: Keys) -> Iterator[tuple[Gauge, Gauge]]:
        """Yield the lines of both walls of each key."""
        through = next(axis for axis in Axis if axis not in (self._own.part.grain, self._other.part.grain))
        axis = self._own.axes.index(through)
        joint, marks = self._making.joint, self._making.marks
        spans = sorted(self._own.span(axis, *place) for place in places_of(keys, self._overlap, through))
        for number, (low, _) in enumerate(spans, start=1):
            first = Gauge(
                part=self._own.part.id,
                stock=self._own.stock,
                kind=LineKind.KEY,
                setting=by_rule("key", Fraction(low), surface_at(axis, False), marks),
                on=(self._inner.opposite,),
                end=self._end,
                number=number,
                of=joint.id,
            )
            base = first.line
            second = Gauge(
                part=self._own.part.id,
                stock=self._own.stock,
                kind=LineKind.OTHER_KEY,
                setting=by_rule("key thick", keys.thick, of_line(base), marks, quantity=joint.names.width),
                on=(self._inner.opposite,),
                end=self._end,
                number=number,
                of=joint.id,
                base=base,
            )
            yield first, second

    def key_lines(self, keys: Keys) -> tuple[Gauge, ...]:
        """Return the lines of all keys."""
        pairs = list(self._walls(keys))
        return (*(first for first, _ in pairs), *(second for _, second in pairs))

    def slots(self, keys: Keys) -> Iterator[KeySlot]:
        """Yield the slots."""
        marks, name = self._making.marks, self._making.joint.names.reach
        for first, second in self._walls(keys):
            yield KeySlot(
                part=self._own.part.id,
                stock=self._own.stock,
                end=self._end,
                back=by_rule("reach", keys.reach, self._end, marks, quantity=name),
                deep=by_rule("reach", keys.reach, self._inner.opposite, marks, quantity=name),
                low=first.line,
                high=second.line,
            )
