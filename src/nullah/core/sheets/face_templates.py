"""Full-size templates of faces too large to be wrapped: where a joint is cut into a board, in pages joined at crosses.

Laid on the face with its edges at the reference end and edge, every line is pricked or knifed through.
"""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Role, drawing, rectangle
from nullah.core.joints.kinds import JointGroup, Mate, kinds_of
from nullah.core.joints.mate_views import is_from_below, shown_part
from nullah.core.lengths import Marks, from_float
from nullah.core.plan import Plan
from nullah.core.sheets.page import Sheet
from nullah.core.sheets.tiling import tiled
from nullah.core.sheets.wrap import goes_round
from nullah.core.wording.sheets import FACE_TEMPLATE, face_template_note


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
    shown = shown_part(mate)
    size = shown.high - shown.low, float(mate.sizes.across)
    title = plan.reader.text(
        "{joint}: {second} to {first}",
        joint=plan.reader.text(kind.name),
        second=kind.second.part.name,
        first=mate.part.name,
    )
    words = face_template_note(title, None if shown.starts else from_float(shown.low), plan.reader)
    name, face = f"face-{number}-{mate.part.id}", face_at_full_size(mate, plan.marks)
    yield from tiled(
        name, plan.project.piece.name, plan.reader.text(FACE_TEMPLATE), mate.part.name, words, face, size, plan.reader
    )
