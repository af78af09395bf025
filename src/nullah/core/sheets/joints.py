"""A sheet for every kind of joint that has no template of its own: both mates, settings, steps, what to mind."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.drawing import Anchor, Element, Label, Role, drawing
from nullah.core.joints.kinds import JointGroup, kinds_of
from nullah.core.plan import Plan
from nullah.core.sheets.page import A4, MARGIN, Sheet, card_on_paper, heading
from nullah.core.stations.joints import draw_mates, joint_card
from nullah.core.wording.card import worded

_WIDE = A4[0] - 2 * MARGIN
# The drawing may take so much of the page's height, less where there is much to say, and its measures so much round
# it, mm.
_HEIGHTS, _ROUND = (92.0, 75.0, 60.0, 48.0, 38.0), 22.0


def joint_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make a sheet for every kind of joint but dovetails, which have their templates."""
    number = 0
    for kind in kinds_of(plan.assembly):
        if not kind.corner_prefix:
            number += 1
            made = (_sheet(plan, kind, number, high) for high in _HEIGHTS)
            yield next((sheet for sheet, end in made if end < A4[1] - 8), _sheet(plan, kind, number, _HEIGHTS[-1])[0])


def _sheet(plan: Plan, kind: JointGroup, number: int, high: float) -> tuple[Sheet, float]:
    """Make a sheet with a drawing so high at the most, mm; and where its words end."""
    title = f"{kind.name[:1].upper()}{kind.name[1:]}"
    parts = list(dict.fromkeys(part for joint in kind.all for part in (joint.second, joint.first)))
    names = [part.name for each in parts if (part := plan.part(each)) is not None]
    found: list[Element] = heading(plan.project.piece.name, title, f"{len(kind.all)} of it")
    shown = draw_mates(plan, kind, titled=False)
    left, top, right, bottom = shown.bounds()
    scale = min((_WIDE - 2 * _ROUND) / max(right - left, 1.0), (high - _ROUND) / max(bottom - top, 1.0), 1.0)
    y = 30 + _ROUND
    picture = shown.moved(MARGIN + _ROUND - left * scale, y - top * scale, scale)
    y += (bottom - top) * scale + 16
    said = "true size" if scale > 0.999 else f"1 : {1 / scale:.1f}"
    found.append(Label((A4[0] - MARGIN, 26), said, 2.8, Anchor.END, Role.FAINT))
    found.append(Label((MARGIN, 26), _short(names), 2.8, Anchor.START, Role.FAINT))
    words, end = card_on_paper(worded(joint_card(plan, kind), plan.reader), MARGIN, y, _WIDE)
    name = f"joint-{number}-{kind.name.split(',')[0].replace(' ', '-')}"
    return Sheet(name, title, drawing(found, picture.elements, words)), end


def _short(names: list[str]) -> str:
    text = ", ".join(names)
    return text if len(text) < 95 else f"{text[:92].rsplit(',', 1)[0]}, …"
