"""The parts strip: every part in proportion, with its number and state; one is in hand."""

from __future__ import annotations

from PySide6.QtCore import QPointF, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PySide6.QtWidgets import QAbstractButton, QHBoxLayout, QLabel, QScrollArea, QWidget

from nullah.core.card import Severity
from nullah.core.drawing import grain_lines
from nullah.core.piece.part import Part
from nullah.core.plan import PartState, Plan, Stand
from nullah.core.wood.species import SpeciesError, find_species
from nullah.core.wording.plan import state_words
from nullah.desk.tips import plain_tip
from nullah.paper.lettering import typeface
from nullah.paper.palette import DAY, Palette, mixed

_DRAWN = 46.0


class _Chip(QAbstractButton):
    """One part of the strip."""

    def __init__(self, part: Part) -> None:
        super().__init__()
        self.part = part
        self.palette_: Palette = DAY
        self.state, self.told = PartState(Stand.PLANNED), ""
        self.species = ""
        self.per_mm = 0.1
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def sizeHint(self) -> QSize:
        return QSize(max(128, int(float(self.part.length) * self.per_mm) + 26), 92)

    def paintEvent(self, event: QPaintEvent) -> None:
        palette = self.palette_
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self.isChecked():
            painter.fillRect(self.rect(), QColor(palette.accent_ground))
        wide, high = float(self.part.length) * self.per_mm, float(self.part.width) * self.per_mm
        left, top = 12.0, 6 + (_DRAWN - high) / 2
        try:
            tone = find_species(self.species).tone
        except SpeciesError:
            tone = "#c9b193"
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
        text = painter.fontMetrics().elidedText(
            f"{self.part.number}  {self.part.name}", Qt.TextElideMode.ElideRight, room
        )
        painter.drawText(QRectF(12, 53, room, 19), int(Qt.AlignmentFlag.AlignVCenter), text)
        colour = {Severity.NOTE: palette.quiet, Severity.WARNING: palette.look, Severity.FAILURE: palette.fails}
        sign = {Severity.NOTE: "●", Severity.WARNING: "◆", Severity.FAILURE: "▲"}[self.state.stand.weight]
        painter.setFont(typeface(13))
        painter.setPen(QColor(colour[self.state.stand.weight]))
        words = painter.fontMetrics().elidedText(f"{sign} {self.told}", Qt.TextElideMode.ElideRight, room)
        painter.drawText(QRectF(12, 71, room, 18), int(Qt.AlignmentFlag.AlignVCenter), words)


class PartStrip(QScrollArea):
    """All parts; `picked` carries the id of the one taken in hand."""

    picked = Signal(str)

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAccessibleName("Parts")
        self.setWidgetResizable(True)
        self.setFixedHeight(106)
        self.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self._row = QWidget()
        self._layout = QHBoxLayout(self._row)
        self._layout.setContentsMargins(16, 4, 16, 4)
        self._layout.setSpacing(4)
        self._empty = QLabel("No parts yet.")
        self._empty.setProperty("quiet", "true")
        self._layout.addWidget(self._empty)
        self._layout.addStretch(1)
        self.setWidget(self._row)
        self.chips: list[_Chip] = []
        self._palette: Palette = DAY

    def show_parts(self, plan: Plan, in_hand: str) -> None:
        """Show the parts of a plan and which one is in hand."""
        if [chip.part.id for chip in self.chips] != [part.id for part in plan.parts]:
            self._make_chips(plan)
        self._empty.setVisible(not self.chips)
        longest = max((float(part.length) for part in plan.parts), default=1.0)
        widest = max((float(part.width) for part in plan.parts), default=1.0)
        per_mm = min(150 / longest, _DRAWN / widest)
        for chip, part in zip(self.chips, plan.parts, strict=True):
            chip.part, chip.state, chip.species = part, plan.state_of(part), plan.species_of(part)
            chip.told = state_words(chip.state, plan.reader)
            chip.per_mm = per_mm
            chip.palette_ = self._palette
            chip.setChecked(part.id == in_hand)
            chip.setAccessibleName(f"{part.number} {part.name}: {chip.told}")
            chip.setToolTip(plain_tip(f"{part.name}: {chip.told}"))
            chip.setFixedSize(chip.sizeHint())
            chip.update()

    def _make_chips(self, plan: Plan) -> None:
        for chip in self.chips:
            self._layout.removeWidget(chip)
            chip.hide()
            chip.deleteLater()
        self.chips = []
        for index, part in enumerate(plan.parts):
            chip = _Chip(part)
            chip.clicked.connect(lambda _=False, c=chip: self.picked.emit(c.part.id))
            self._layout.insertWidget(index, chip)
            self.chips.append(chip)

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
            self.picked.emit(chip.part.id)
        else:
            super().keyPressEvent(event)
