"""Full-size templates of faces too large to be wrapped: where a joint is cut into a board, in pages joined at crosses.

Laid on the face with its edges at the reference end and edge, every line is pricked or knifed through.
"""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Role, drawing, line, rectangle
from nullah.core.joints.kinds import JointGroup, Mate, kinds_of
from nullah.core.joints.mate_views import is_from_below, shown_part
from nullah.core.lengths import Marks, from_float
from nullah.core.plan import Plan
from nullah.core.sheets.page import A4, MARGIN, Sheet, check_scale, cut_to_band, heading
from nullah.core.sheets.wrap import goes_round

#: So much of a face is on one page, mm.
WIDE, HIGH = A4[0] - 2 * MARGIN - 10, 200.0
_LEFT, _TOP = MARGIN + 5, 66.0


def face_templates(plan: Plan) -> Iterator[Sheet]:
    """Make a template for every kind of joint that is cut into the face of a wide board, dovetails apart."""
    number = 0
    for kind in kinds_of(plan.assembly):
        sizes, cuts = kind.first.sizes, kind.first.cutouts
        # What runs along the grain is gauged and ploughed, not traced.
        along = kind.joint.type.captures and all(cut.size(0) > cut.size(1) for cut in cuts)
        partly = bool(cuts) and not along
        if not kind.corner_prefix and partly and not goes_round(sizes, cuts):
            number += 1
            yield from _pages(plan, kind, number)


def face_at_full_size(mate: Mate, marks: Marks) -> Drawing:
    """Draw the face of a mate with what is cut into it, its upper left corner at (0, 0); no other measures than places.

    Along it only what `mate_views` shows is drawn.
    """
    shown = shown_part(mate)
    long, wide = shown.high - shown.low, float(mate.sizes.across)
    found: list[Element] = [rectangle(0, 0, long, wide, Role.OUTLINE)]
    for cut in mate.cutouts:
        open_here = cut.through[0] == 0 if is_from_below(mate) else cut.through[1] == mate.sizes.through
        x0, x1 = (min(max(float(at), shown.low), shown.high) - shown.low for at in cut.along)
        y0, y1 = wide - float(cut.across[1]), wide - float(cut.across[0])
        fill, role = (Fill.WASTE, Role.KNIFE) if open_here else (Fill.NONE, Role.HIDDEN)
        found.append(rectangle(x0, y0, x1 - x0, y1 - y0, role, fill))
        for x, at in ((x0, cut.along[0]), (x1, cut.along[1])):
            if 0 < x < long:
                words = marks.write_setting(from_float(float(at)))
                found.append(Label((x, y0), words, 2.4, Anchor.START, Role.FAINT, nudge_mm=(0.8, -2)))
    return drawing(found)


def _pages(plan: Plan, kind: JointGroup, number: int) -> Iterator[Sheet]:
    mate = kind.first
    face = face_at_full_size(mate, plan.marks)
    shown = shown_part(mate)
    long, high = shown.high - shown.low, float(mate.sizes.across)
    columns, rows = max(1, -(-int(long * 1000) // int(WIDE * 1000))), max(1, -(-int(high * 1000) // int(HIGH * 1000)))
    for row in range(rows):
        for column in range(columns):
            page = row * columns + column + 1
            note = f"print at 100 %, check the scale · page {page} of {rows * columns}"
            found: list[Element] = heading(plan.project.piece.name, "Face template, full size", note)
            found += check_scale(MARGIN, 30)
            end = "the left end is the part's own" if shown.starts else f"begins {_at(plan, shown.low)} from its end"
            words = f"{kind.title} · reference edge below; {end}"
            found.append(Label((MARGIN, 52), words, 3.0, Anchor.START, Role.FAINT))
            left, top = column * WIDE, row * HIGH
            tile = _across(cut_to_band(face, top, min(top + HIGH, high)), left, min(left + WIDE, long))
            if not any(isinstance(element, Path) for element in tile.elements):
                continue
            found += tile.moved(_LEFT - left, _TOP - top).elements
            corners = ((left, top), (left + WIDE, top), (left, top + HIGH), (left + WIDE, top + HIGH))
            for x, y in corners:
                if 0 < x < long or 0 < y < high:
                    found += _cross(_LEFT + min(x, long) - left, _TOP + min(y, high) - top)
            suffix = f"-page{page}" if rows * columns > 1 else ""
            yield Sheet(f"face-{number}-{mate.part.id}{suffix}", "Face template, full size", drawing(found))


def _at(plan: Plan, place: float) -> str:
    return plan.marks.write_setting(from_float(place))


def _across(shown: Drawing, left: float, right: float) -> Drawing:
    """Cut a drawing to what lies between two places along, mm."""
    turned = Drawing(tuple(_turned(shown)))
    return Drawing(tuple(_turned(cut_to_band(turned, left, right))))


def _turned(shown: Drawing) -> Iterator[Element]:
    """Put x in the place of y."""
    for element in shown.elements:
        if isinstance(element, Path):
            yield element._replace(points=tuple((y, x) for x, y in element.points))
        elif isinstance(element, Label):
            yield element._replace(at=(element.at[1], element.at[0]))


def _cross(x: float, y: float) -> Iterator[Element]:
    """Draw the cross at which pages are joined."""
    yield line((x - 4, y), (x + 4, y), Role.KNIFE)
    yield line((x, y - 4), (x, y + 4), Role.KNIFE)
