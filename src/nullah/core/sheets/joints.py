"""A sheet for every kind of joint that has no template of its own: both mates, settings, steps, what to mind."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Drawing, Label, Role, drawing, wrapped
from nullah.core.joints.kinds import JointGroup, kinds_of
from nullah.core.plan import Plan
from nullah.core.reader import sentence
from nullah.core.sheets.page import MARGIN, PAGE, Sheet, SheetKind, card_on_pages, card_on_paper, heading
from nullah.core.stations.joints import draw_mates, joint_card
from nullah.core.wording.card import worded
from nullah.core.wording.sheets import paged

_WIDE = PAGE[0] - 2 * MARGIN
# The drawing may take so much of the page's height, less where there is much to say, and its measures so much round
# it, mm.
_HEIGHTS, _ROUND = (92.0, 75.0, 60.0, 48.0, 38.0), 22.0

#: So many letters of the names of its parts stand in a line over a joint.
_LETTERS = 92


def joint_sheets(plan: Plan) -> Iterator[Sheet]:
    """Yield the sheets for every kind of joint but dovetails, which have their templates."""
    number = 0
    for kind in kinds_of(plan.assembly):
        if not kind.corner_prefix:
            number += 1
            yield from _sheets(plan, kind, number)


def _sheets(plan: Plan, kind: JointGroup, number: int) -> Iterator[Sheet]:
    """Yield the pages of a kind of joint: one, its drawing as small as that takes; else as many as its words fill."""
    title = sentence(plan.reader.text(kind.name))
    name = f"joint-{number}-{kind.name.split(',')[0].replace(' ', '-')}"
    card = worded(joint_card(plan, kind), plan.reader)
    made = [_picture(plan, kind, high) for high in _HEIGHTS]
    fitting = (each for each in made if card_on_paper(card, MARGIN, each[1], _WIDE)[1] < PAGE[1] - 8)
    picture, y = next(fitting, made[0])
    pages = card_on_pages(card, MARGIN, y, _WIDE)
    for page, words in enumerate(pages, start=1):
        said = paged(plan.reader.count(len(kind.all), "{n} of it", "{n} of it"), page, len(pages), plan.reader)
        head = heading(plan.project.piece.name, title, said)
        yield Sheet(
            name if page == 1 else f"{name}-page{page}",
            title,
            drawing(head, picture.elements if page == 1 else (), words),
            SheetKind.JOINT,
            plan.reader.together(dict.fromkeys(each for joint in kind.all for each in (joint.second, joint.first))),
        )


def _picture(plan: Plan, kind: JointGroup, high: float) -> tuple[Drawing, float]:
    """Draw both mates so high at the most, with their names and the scale; and return where the drawing ends, mm."""
    parts = list(dict.fromkeys(part for joint in kind.all for part in (joint.second, joint.first)))
    names = [part.name for each in parts if (part := plan.part(each)) is not None]
    shown = draw_mates(plan, kind, titled=False)
    left, top, right, bottom = shown.bounds()
    scale = min((_WIDE - 2 * _ROUND) / max(right - left, 1.0), (high - _ROUND) / max(bottom - top, 1.0), 1.0)
    lines = wrapped(", ".join(names), _LETTERS)
    y = 26 + 4 * len(lines) + _ROUND
    said = plan.reader.text("true size") if scale > 0.999 else f"1 : {1 / scale:.1f}"
    words = (
        Label((PAGE[0] - MARGIN, 26), said, 2.8, Anchor.END, Role.FAINT),
        *(
            Label((MARGIN, 26 + 4 * number), text, 2.8, Anchor.START, Role.FAINT, running=True)
            for number, text in enumerate(lines)
        ),
    )
    picture = shown.moved(MARGIN + _ROUND - left * scale, y - top * scale, scale)
    return drawing(words, picture.elements), y + (bottom - top) * scale + 16
