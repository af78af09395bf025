"""Story sticks: every place along a part or along the piece at full size, tiled over pages to be joined.

A stick replaces a rule: lay it on the board and prick the marks through.
"""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Element, Label, Role, drawing, line, rectangle
from nullah.core.joints.cutouts import taken
from nullah.core.lengths import from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.space import Axis
from nullah.core.plan import Plan
from nullah.core.reader import Reader
from nullah.core.sheets.page import MARGIN, Sheet, SheetKind, check_scale, heading
from nullah.core.wording.sheets import STICKS, paged, print_note, stick_mark, stick_title, strip_note

#: So much of a stick is on one strip, and so many strips on a page; a strip is so high, mm.
STRIP, STRIPS, HIGH = 160.0, 4, 30.0
_FIRST, _STEP = 62.0, 50.0


class Mark(NamedTuple):
    """A place along a stick, mm, and what is there."""

    at: float
    what: str


class Stick(NamedTuple):
    """A stick: for the file, for people, how long it is in mm, and its marks in order."""

    id: str
    title: str
    long: float
    marks: tuple[Mark, ...]


def sticks_of(plan: Plan) -> tuple[Stick, ...]:
    """Return the sticks of the piece (height, width, depth) and of every set of equal parts with joints along them."""
    if not plan.parts:
        return ()
    return (*_piece_sticks(plan), *_part_sticks(plan))


def _piece_sticks(plan: Plan) -> Iterator[Stick]:
    for axis, name in ((Axis.Z, "height"), (Axis.X, "width"), (Axis.Y, "depth")):
        low = min(float(part.box.low[axis.value]) for part in plan.parts)
        places: dict[float, list[tuple[str, bool | None]]] = {}
        for part in plan.parts:
            for at, begins in ((part.box.low, True), (part.box.high, False)):
                place = round(float(at[axis.value]) - low, 4)
                places.setdefault(place, []).append((part.name, begins))
        marks = tuple(Mark(at, stick_mark(places[at], plan.reader)) for at in sorted(places))
        yield Stick(f"stick-{name}", plan.reader.text(STICKS[axis]), marks[-1].at, marks)


def _part_sticks(plan: Plan) -> Iterator[Stick]:
    """Yield a stick for each set of equal parts that has joints somewhere along it."""
    shown = {part.alike: part for part in reversed(plan.parts)}
    places: dict[str, dict[float, list[tuple[str, bool | None]]]] = {}
    for joint in plan.assembly.joints:
        first, second = plan.part(joint.first), plan.part(joint.second)
        if first is None or second is None:
            continue
        cuts = taken(joint, first, second)
        for part, other, own in ((first, second, cuts[0]), (second, first, cuts[1])):
            long = part.box.size(part.grain)
            for cut in own:
                if shown[part.alike] is not part or cut.size(0) == long:
                    continue
                for at in cut.along:
                    words = places.setdefault(part.alike, {}).setdefault(round(float(at), 4), [])
                    words.append((other.name, None))
    for alike, found in places.items():
        long = shown[alike].box.size(shown[alike].grain)
        for end in (0.0, round(float(long), 4)):
            found.setdefault(end, []).append((plan.reader.text("end"), None))
        marks = tuple(Mark(at, stick_mark(found[at], plan.reader)) for at in sorted(found))
        yield Stick(f"stick-{alike}", stick_title(shown[alike].name, plan.reader), float(long), marks)


# --- on paper -------------------------------------------------------------------------------------


def story_stick_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make the pages of every stick."""
    for stick in sticks_of(plan):
        yield from _pages(plan, stick)


def _pages(plan: Plan, stick: Stick) -> Iterator[Sheet]:
    strips = max(1, -(-int(stick.long * 1000) // int(STRIP * 1000)))
    pages = -(-strips // STRIPS)
    for page in range(pages):
        note = paged(print_note(plan.reader), page + 1, pages, plan.reader)
        found: list[Element] = heading(plan.project.piece.name, stick.title, note)
        found += check_scale(MARGIN, 30)
        for row in range(STRIPS):
            number = page * STRIPS + row
            if number < strips:
                found += _strip(stick, number, strips, _FIRST + row * _STEP, plan.reader)
        suffix = f"-page{page + 1}" if pages > 1 else ""
        yield Sheet(f"{stick.id}{suffix}", stick.title, drawing(found), SheetKind.STICK)


def _strip(stick: Stick, number: int, strips: int, top: float, reader: Reader) -> Iterator[Element]:
    """Draw one strip: register marks at both ends, the places on it with their figures."""
    left = MARGIN + 8
    low, high = number * STRIP, min((number + 1) * STRIP, stick.long)
    yield rectangle(left, top, high - low, HIGH, Role.PENCIL)
    for at, joins in ((low, number > 0), (high, number < strips - 1)):
        if joins:
            yield from _register(left + at - low, top)
    if strips > 1:
        words = strip_note(number + 1, strips, reader)
        yield Label((left, top + HIGH), words, 2.4, Anchor.START, Role.FAINT, nudge_mm=(0, 3))
    last = -99.0
    level = 0
    for mark in stick.marks:
        if not low - 1e-6 <= mark.at <= high + 1e-6:
            continue
        x = left + mark.at - low
        # Marks close together write in turn at other heights.
        level = (level + 1) % 3 if x - last < 26 else 0
        last = x
        yield line((x, top), (x, top + 6 + level * 7), Role.KNIFE)
        figure = reader.marks.write_fine(from_float(mark.at), unit=False)
        yield Label((x + 0.8, top + 4.2 + level * 7), figure, 2.8, Anchor.START, bold=True)
        yield Label((x + 0.8, top + 7.2 + level * 7), mark.what, 2.0, Anchor.START, Role.FAINT)


def _register(x: float, top: float) -> Iterator[Element]:
    """Draw the cross at which two strips are joined."""
    yield line((x, top - 5), (x, top + HIGH + 5), Role.KNIFE)
    yield line((x - 4, top + HIGH / 2), (x + 4, top + HIGH / 2), Role.KNIFE)
