"""The parts strip: every part in proportion, equal ones together, with number and state; one is in hand."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QAbstractButton, QHBoxLayout, QScrollArea, QWidget

from nullah.core.bits import Bits
from nullah.core.card import Severity
from nullah.core.drawing import grain_lines
from nullah.core.piece.part import Part
from nullah.core.plan import PartState, Plan, Stand
from nullah.core.wood.species import SpeciesError, find_species
from nullah.core.wording.plan import state_words
from nullah.desk.text_label import TextLabel
from nullah.desk.tips import plain_tip
from nullah.language import tr
from nullah.paper.lettering import typeface, width_of
from nullah.paper.palette import DAY, Palette, mixed

_DRAWN = 42.0
#: No group is wider than this, pixels, whatever it is called.
_MOST = 190.0


def _equal(plan: Plan) -> Bits[list[tuple[Part, ...]]]:
    """Put parts of one size and wood together that stand alike, in the order of the first of each."""
    groups: dict[tuple[object, ...], list[Part]] = {}
    for part in plan.parts:
        key = (part.length, part.width, part.thickness, plan.species_of(part), plan.state_of(part))
        groups.setdefault(key, []).append(part)
        yield
    return [tuple(parts) for parts in groups.values()]


def _numbers(numbers: list[int]) -> str:
    """Write the numbers of equal parts: 8, 9 and 10 as ``8–10``, more than two with gaps by the first."""
    if len(numbers) == 1:
        return str(numbers[0])
    if numbers[-1] - numbers[0] == len(numbers) - 1:
        return f"{numbers[0]}–{numbers[-1]}"
    return ", ".join(map(str, numbers)) if len(numbers) == 2 else f"{numbers[0]} …"


class _Chip(QAbstractButton):
    """Equal parts of the strip; `part` is the one in hand among them, or the first."""

    def __init__(self) -> None:
        super().__init__()
        self.parts: tuple[Part, ...] = ()
        self.part: Part | None = None
        self.palette_: Palette = DAY
        self.state, self.told = PartState(Stand.PLANNED), ""
        self.species = self.title = ""
        self.per_mm = 0.1
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def show_parts(self, parts: tuple[Part, ...], in_hand: str, plan: Plan) -> None:
        """Show some equal parts of a plan."""
        self.parts = parts
        self.part = part = next((each for each in parts if each.id == in_hand), parts[0])
        self.state, self.species = plan.state_of(part), plan.species_of(part)
        self.told = state_words(self.state, plan.reader)
        number = _numbers([each.number for each in parts])
        name = plan.reader.name_of_kind([each.name for each in parts])
        self.title = f"{number}  {name}"
        self.setChecked(part.id == in_hand)
        self.setAccessibleName(f"{number} {name}: {self.told}")
        names = ", ".join(f"{each.number} {each.name}" for each in parts)
        self.setToolTip(plain_tip(f"{names}: {self.told}"))

    def following(self) -> str:
        """Return which of them a click takes in hand: the first, or the next after the one in hand."""
        if not self.isChecked() or self.part is None:
            return self.parts[0].id
        return self.parts[(self.parts.index(self.part) + 1) % len(self.parts)].id

    def sizeHint(self) -> QSize:
        words = max(width_of(self.title, 14, bold=True), width_of(f"● {self.told}", 13)) + 26
        drawn = float(self.parts[0].length) * self.per_mm + 26 if self.parts else 0
        return QSize(int(max(92, min(words, _MOST), drawn)), 88)

    def paintEvent(self, event: QPaintEvent) -> None:
        palette = self.palette_
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.isChecked():
            painter.fillRect(self.rect(), QColor(palette.accent_ground))
        if self.part is None:
            return
        wide, high = float(self.part.length) * self.per_mm, float(self.part.width) * self.per_mm
        left, top = 12.0, 8 + (_DRAWN - high) / 2
        try:
            tone = find_species(self.species).tone
        except SpeciesError:
            tone = "#c9b193"
        for behind in range(min(len(self.parts) - 1, 2), 0, -1):
            painter.setPen(QPen(QColor(palette.quiet), 1))
            painter.drawRect(QRectF(left + 3 * behind, top - 2 * behind, wide, high))
        painter.fillRect(QRectF(left, top, wide, high), QColor(mixed(tone, palette.ground, palette.wood_shade)))
        painter.setPen(QPen(QColor(palette.grain), 0.7))
        painter.setClipRect(QRectF(left, top, wide, high))
        for path in grain_lines(left, top, wide, high, self.part.name)[:3]:
            painter.drawPolyline(QPolygonF([QPointF(*point) for point in path.points]))
        painter.setClipping(False)
        painter.setPen(QPen(QColor(palette.wood_line), 1))
        painter.drawRect(QRectF(left, top, wide, high))
        self._words(painter)
        if self.hasFocus():
            painter.setPen(QPen(QColor(palette.accent), 2))
            painter.drawRect(QRectF(self.rect()).adjusted(1, 1, -1, -1))
        painter.end()

    def _words(self, painter: QPainter) -> None:
        palette = self.palette_
        room = self.width() - 20
        painter.setFont(typeface(14, bold=self.isChecked()))
        painter.setPen(QColor(palette.accent if self.isChecked() else palette.text))
        text = painter.fontMetrics().elidedText(self.title, Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(12, 51, room, 19), int(Qt.AlignmentFlag.AlignVCenter), text)
        colour = {Severity.NOTE: palette.quiet, Severity.WARNING: palette.look, Severity.FAILURE: palette.fails}
        sign = {Severity.NOTE: "●", Severity.WARNING: "◆", Severity.FAILURE: "▲"}[self.state.stand.weight]
        painter.setFont(typeface(13))
        painter.setPen(QColor(colour[self.state.stand.weight]))
        words = painter.fontMetrics().elidedText(f"{sign} {self.told}", Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(12, 68, room, 18), int(Qt.AlignmentFlag.AlignVCenter), words)


class PartStrip(QScrollArea):
    """All parts; `picked` carries the id of the one taken in hand."""

    picked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAccessibleName(tr("Parts"))
        self.setWidgetResizable(True)
        self.setFixedHeight(100)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._row = QWidget()
        self._layout = QHBoxLayout(self._row)
        self._layout.setContentsMargins(16, 4, 16, 4)
        self._layout.setSpacing(4)
        self._empty = TextLabel(tr("No parts yet."), quiet=True)
        self._layout.addWidget(self._empty)
        self._layout.addStretch(1)
        self.setWidget(self._row)
        self.chips: list[_Chip] = []
        self._in_hand = ""
        self._palette: Palette = DAY

    def show_parts(self, plan: Plan, in_hand: str) -> Bits[None]:
        """Show the parts of a plan, equal ones together, and which one is in hand, bit by bit."""
        groups = yield from _equal(plan)
        self._in_hand = in_hand
        while len(self.chips) > len(groups):
            chip = self.chips.pop()
            self._layout.removeWidget(chip)
            chip.hide()
            chip.deleteLater()
        while len(self.chips) < len(groups):
            self._add_chip()
        self._empty.setVisible(not self.chips)
        longest = max((float(part.length) for part in plan.parts), default=1.0)
        widest = max((float(part.width) for part in plan.parts), default=1.0)
        per_mm = min(150 / longest, _DRAWN / widest)
        for chip, parts in zip(self.chips, groups, strict=True):
            chip.per_mm, chip.palette_ = per_mm, self._palette
            chip.show_parts(parts, in_hand, plan)
            chip.setFixedSize(chip.sizeHint())
            chip.update()
            yield

    def _add_chip(self) -> None:
        chip = _Chip()
        chip.clicked.connect(lambda: self._clicked(chip))
        self._layout.insertWidget(len(self.chips), chip)
        self.chips.append(chip)

    def _clicked(self, chip: _Chip) -> None:
        # The click has checked or unchecked it already: what is in hand says which one follows.
        chip.setChecked(chip.part is not None and chip.part.id == self._in_hand)
        self.picked.emit(chip.following())

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self._palette = palette
        for chip in self.chips:
            chip.palette_ = palette
            chip.update()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        way = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()), 0)
        focused = next((i for i, chip in enumerate(self.chips) if chip.hasFocus()), None)
        if way and focused is not None and 0 <= focused + way < len(self.chips):
            chip = self.chips[focused + way]
            chip.setFocus()
            self.ensureWidgetVisible(chip)
            self.picked.emit(chip.parts[0].id)
        else:
            super().keyPressEvent(event)
