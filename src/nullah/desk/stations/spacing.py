"""How the tails of a corner are spaced: chosen, or taken over from a corner that exists."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace

from nullah.core import actions
from nullah.core.drawing import Drawing, Path, drawing
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.joints.dovetail.layout import DovetailError, lay_out
from nullah.core.joints.dovetail.spacing import (
    BELOW,
    EQUAL,
    MIDDLE,
    SPACINGS,
    SpacingError,
    graded,
    matched,
    spacing_of,
)
from nullah.core.joints.views import tail_board_face
from nullah.core.lengths import mm
from nullah.core.wording.facts import error_words
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, labelled
from nullah.desk.stations.drawn_choice import DrawnChoice
from nullah.language import tr, tr_pairs

#: The choice that opens the field for the marks of another corner.
_MATCH = "match"


class SpacingChoice:
    """A choice of spacing, and a field for the marks of a row of tails to match."""

    def __init__(self, document: Document, row: Section) -> None:
        self._document = document
        self._corner: Corner | None = None
        options = [*tr_pairs((name, name) for name in SPACINGS), (_MATCH, tr("as on another corner"))]
        self.box = DrawnChoice(tr("Spacing of tails"), options, self.space)
        row.addWidget(self.box)
        self.marks = ValueField(tr("tails to match"), width=210)
        self.marks.line.setToolTip(
            tr(
                "Both edges of every tail of a corner that exists, from one edge of its board, "
                "and last that board's width"
            )
        )
        self.marks.line.returnPressed.disconnect()
        self.marks.line.returnPressed.connect(self._match)
        self._marks_pair = labelled(tr("its marks"), self.marks, row)

    def show_corner(self, corner: Corner | None) -> None:
        """Show the spacing of a corner, or nothing."""
        self._corner = corner
        self.box.setVisible(corner is not None)
        matching = corner is not None and self.box.value == _MATCH
        self._marks_pair.setVisible(matching)
        shown = self._document.project.marks
        self.marks.set_unit(shown.unit)
        example = ", ".join(shown.write(mm(at), unit=False) for at in (8, 40, 46, 78, 86))
        self.marks.line.setPlaceholderText(f"{example}{shown.style.suffix}")
        if corner is not None and not matching:
            self.box.show_value(spacing_of(corner.layout.spec.widths, corner.layout.spec.tails))
        if corner is not None:
            self.box.draw(lambda name: _picture(corner, name))

    def space(self, name: str) -> None:
        """Space the tails of the corner in hand."""
        corner = self._corner
        if corner is None:
            return
        if name == _MATCH:
            self.show_corner(corner)
            self.marks.line.setFocus()
            return
        widths = graded(name, corner.layout.spec.tails)
        self._document.do(
            tr("tails {spacing}", spacing=tr(name)), lambda p: actions.space_tails(p, corner.prefix, widths)
        )

    def _match(self) -> None:
        corner, found = self._corner, self.marks.lengths()
        if corner is None or found is None:
            return
        if not found:
            self.marks.complain(tr("Both edges of every tail, and last the width of that board."))
            return
        edges, there = [length.mm for length in found[:-1]], found[-1].mm
        try:
            row = matched(edges, there, corner.layout.spec.width.mm)
        except SpacingError as error:
            self.marks.complain(error_words(error))
            return
        sentence = self._document.do(tr("match a row of tails"), lambda p: actions.match_tails(p, corner.prefix, row))
        if sentence:
            self.marks.complain(sentence)
        else:
            self.marks.line.clear()
            self.box.show_value(spacing_of(row.widths, row.number))
            self.show_corner(self._corner)


def _picture(corner: Corner, name: str) -> Drawing:
    """Draw the end of the tail board with its tails spaced so; as they are where it cannot be."""
    layout = corner.layout
    if name in (EQUAL, BELOW, MIDDLE):
        spec = replace(layout.spec, widths=graded(name, layout.spec.tails))
        with suppress(DovetailError):
            layout = lay_out(spec)
    show = 2.5 * float(layout.gauge_tail_board)
    face = tail_board_face(layout, show, (), "", "")
    # Lying down it fills the picture.
    return drawing(
        each._replace(points=tuple((y, -x) for x, y in each.points)) for each in face if isinstance(each, Path)
    )
