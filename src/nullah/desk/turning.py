"""The piece to be turned: shaded, opened along the way it goes together, picked with the mouse."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import QPointF, QSize, Qt, QThread, QTimer, Signal
from PySide6.QtGui import QColor, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PySide6.QtWidgets import QSlider, QVBoxLayout, QWidget

from nullah.core.card import Severity
from nullah.core.catalogue import N_
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.render import Colour, Look, Picture, Scene, Viewpoint, offsets_of, picture, scene
from nullah.core.wood.species import SpeciesError, find_species
from nullah.desk.document import Document
from nullah.desk.stations.base import action, toggle
from nullah.desk.stations.group import ViewChoices
from nullah.desk.text_label import TextLabel
from nullah.language import tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import DAY, Palette, mixed

# While it turns, the picture is drawn coarser by this much, and fine again after a rest, ms.
_COARSE, _REST_MS = 2, 140
_EYES = (
    (N_("Corner"), Viewpoint()),
    (N_("Front"), Viewpoint(0, 4)),
    (N_("Left"), Viewpoint(-90, 4)),
    (N_("Back"), Viewpoint(180, 4)),
    (N_("Top"), Viewpoint(0, 89)),
)


class _Order(NamedTuple):
    """All that a picture is painted from; `fine` is how many dots of it go to one pixel, each way."""

    scene: Scene
    eye: Viewpoint
    size: tuple[int, int]
    per_mm: float
    tones: tuple[Colour, ...]
    look: Look
    lit: int
    shift: tuple[float, float]
    fine: int


def _painted(order: _Order) -> Picture:
    (wide, high), fine = order.size, order.fine
    shift = (order.shift[0] * fine, order.shift[1] * fine)
    found = picture(
        order.scene,
        order.eye,
        (wide * fine, high * fine),
        order.per_mm * fine,
        order.tones,
        order.look,
        order.lit,
        shift,
    )
    if fine == 1:
        return found
    # Several dots to a pixel: edges come out smooth.
    dots = found.pixels.reshape(high, fine, wide, fine, 3).astype(np.uint16)
    return Picture((dots.sum(axis=(1, 3)) // fine**2).astype(np.uint8), found.parts[::fine, ::fine])


class _Painting(QThread):
    """One picture, painted beside the window."""

    painted = Signal(object, object)

    def __init__(self, order: _Order) -> None:
        super().__init__()
        self._order = order

    def run(self) -> None:
        self.painted.emit(self._order, _painted(self._order))


class _Glass(QWidget):
    """Shows the picture and turns it."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self._document = document
        self.palette_: Palette = DAY
        self.eye = Viewpoint()
        self.opened, self.only_in_hand = 0.0, False
        self.closer = 1.0
        self.shift = (0.0, 0.0)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("The piece, turned with the mouse or the arrow keys"))
        self._scene: Scene | None = None
        self._made_for: tuple[object, ...] = ()
        self.picture: Picture | None = None
        self._image = QImage()
        self._wanted: _Order | None = None
        self._runs: list[_Painting] = []
        self._from: QPointF | None = None
        self._pressed_at = QPointF()
        self._rest = QTimer(self)
        self._rest.setSingleShot(True)
        self._rest.setInterval(_REST_MS)
        self._rest.timeout.connect(lambda: self.draw(coarse=False))

    def sizeHint(self) -> QSize:
        return QSize(640, 480)

    # --- the picture ---

    def take(self) -> None:
        """Take what the document holds now."""
        plan = self._document.plan
        only = self._document.selection.part if self.only_in_hand else ""
        key = (id(plan.proof), self.opened, only)
        if plan.proof is None:
            if not plan.parts:
                self._scene, self.picture = None, None
                self.update()
            return
        if key != self._made_for:
            self._made_for = key
            offsets = offsets_of(plan.parts, plan.proof.order, self.opened, only)
            self._scene = scene(plan.parts, plan.proof.recipes, offsets)
            if not self._document.patient:
                self.draw(coarse=True)
                return
        self.draw(coarse=False)

    def draw(self, coarse: bool) -> None:
        """Draw the picture: coarse at once while it moves, fine beside the window when it rests."""
        if self._scene is None or self.width() < 20 or self.height() < 20:
            return
        self._wanted = wanted = self._order(self._scene, coarse)
        if coarse or self._document.patient:
            self._show(wanted, _painted(wanted))
        else:
            run = _Painting(wanted)
            run.painted.connect(self._show)
            run.finished.connect(lambda: self._runs.remove(run) if run in self._runs else None)
            self._runs.append(run)
            run.start()
        if coarse:
            self._rest.start()

    def _order(self, shown: Scene, coarse: bool) -> _Order:
        plan, ratio = self._document.plan, self.devicePixelRatioF() / (_COARSE if coarse else 1)
        wide, high = (max(8, round(side * ratio)) for side in (self.width(), self.height()))
        per_mm = 0.42 * min(wide, high * 1.25) / shown.reach * self.closer
        lit = next((i for i, part in enumerate(shown.parts) if part.id == self._document.selection.part), -1)
        wrong = {name for f in plan.findings if f.remark.weight is Severity.FAILURE for name in f.parts}
        warn = floats_of(self.palette_.fails)
        tones = []
        for part in shown.parts:
            tone = tone_of(plan.species_of(part), self.palette_)
            tones.append(_between(tone, warn) if part.id in wrong else tone)
        shift = (self.shift[0] * ratio, self.shift[1] * ratio)
        return _Order(shown, self.eye, (wide, high), per_mm, tuple(tones), self._look(), lit, shift, 1 if coarse else 2)

    def _show(self, order: _Order, found: Picture) -> None:
        """Show a picture, unless another has been asked for since."""
        if order is not self._wanted:
            return
        self.picture = found
        (wide, high), kept = order.size, np.ascontiguousarray(found.pixels)
        self._image = QImage(kept.tobytes(), wide, high, 3 * wide, QImage.Format.Format_RGB888).copy()
        self.update()

    def wait(self) -> None:
        """Wait for what is being painted: for closing the window."""
        self._wanted = None
        for run in list(self._runs):
            run.wait()

    def _look(self) -> Look:
        return Look(floats_of(self.palette_.sheet), floats_of(self.palette_.wood_line), floats_of(self.palette_.accent))

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self.palette_.sheet))
        if self._scene is None or self._image.isNull():
            painter.setFont(typeface(19))
            painter.setPen(QColor(self.palette_.quiet))
            words = tr("Putting it together …") if self._document.plan.parts else tr("There is nothing to turn yet.")
            painter.drawText(self.rect(), int(Qt.AlignmentFlag.AlignCenter), words)
        else:
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(self.rect(), self._image)
        if self.hasFocus():
            painter.setPen(QColor(self.palette_.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.end()

    # --- turning ---

    def turn(self, by: float, tilt: float) -> None:
        """Turn by so many degrees about the upright, and tilt."""
        self.eye = Viewpoint((self.eye.turn + by + 180) % 360 - 180, min(90.0, max(-90.0, self.eye.tilt + tilt)))
        self.draw(coarse=True)

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setFocus(Qt.FocusReason.MouseFocusReason)
        self._from = self._pressed_at = event.position()

    def mouseMoveEvent(self, event: QMouseEvent) -> None:
        if self._from is None:
            return
        by = event.position() - self._from
        self._from = event.position()
        if event.buttons() & Qt.MouseButton.MiddleButton:
            self.shift = (self.shift[0] + by.x(), self.shift[1] + by.y())
            self.draw(coarse=True)
        else:
            self.turn(by.x() * 0.5, by.y() * 0.5)

    def mouseReleaseEvent(self, event: QMouseEvent) -> None:
        moved = event.position() - self._pressed_at
        self._from = None
        if abs(moved.x()) + abs(moved.y()) < 4:
            self._document.pick_part(self.part_at(event.position()))

    def part_at(self, position: QPointF) -> str:
        """Return the part that shows at a point of the widget, or nothing."""
        if self.picture is None or self._scene is None:
            return ""
        high, wide = self.picture.parts.shape
        x = min(wide - 1, max(0, int(position.x() / self.width() * wide)))
        y = min(high - 1, max(0, int(position.y() / self.height() * high)))
        number = int(self.picture.parts[y, x])
        return self._scene.parts[number].id if number >= 0 else ""

    def wheelEvent(self, event: QWheelEvent) -> None:
        self.zoom(1.0015 ** event.angleDelta().y())

    def zoom(self, factor: float) -> None:
        """Come closer, or go away."""
        self.closer = min(12.0, max(0.3, self.closer * factor))
        self.draw(coarse=True)

    def keyPressEvent(self, event: QKeyEvent) -> None:
        turns = {
            Qt.Key.Key_Left: (-6.0, 0.0),
            Qt.Key.Key_Right: (6.0, 0.0),
            Qt.Key.Key_Up: (0.0, 6.0),
            Qt.Key.Key_Down: (0.0, -6.0),
        }
        key = Qt.Key(event.key())
        if key in turns:
            self.turn(*turns[key])
        elif key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            self.zoom(1.2)
        elif key == Qt.Key.Key_Minus:
            self.zoom(1 / 1.2)
        elif key == Qt.Key.Key_0:
            self.eye, self.closer, self.shift = Viewpoint(), 1.0, (0.0, 0.0)
            self.draw(coarse=False)
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent) -> None:
        self.draw(coarse=True)


class TurningView(QWidget):
    """The piece in the round, with the ways to look at it and how far it is opened."""

    def __init__(self, document: Document, choices: ViewChoices) -> None:
        super().__init__()
        self.choices = choices
        self.glass = _Glass(document)
        looks = choices.section(tr("Look from"))
        for title, eye in _EYES:
            action(tr(title), lambda eye=eye: self._look_from(eye), looks)  # type: ignore[misc]
        choices.keep_on_line(TextLabel(tr("Open the joints")))
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setAccessibleName(tr("How far the joints are opened"))
        self.slider.setRange(0, 100)
        self.slider.setFixedSize(140, 32)
        self.slider.valueChanged.connect(self._open)
        choices.keep_on_line(self.slider)
        self.only = toggle(tr("Open only the part in hand"), choices.section(tr("Joints")), self._open_only)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.glass, 1)

    def _look_from(self, eye: Viewpoint) -> None:
        self.glass.eye = eye
        self.glass.draw(coarse=False)

    def _open(self, percent: int) -> None:
        self.glass.opened = percent / 100
        self.glass.take()

    def _open_only(self, only: bool) -> None:
        self.glass.only_in_hand = only
        self.glass.take()

    def refresh(self) -> None:
        """Show what the document holds now."""
        self.glass.take()

    def leave(self) -> None:
        """Stop what runs aside: the window closes."""
        self.glass.wait()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.glass.palette_ = palette
        self.glass.draw(coarse=False)


def floats_of(colour: str) -> tuple[float, float, float]:
    """Return a colour as red, green and blue from 0 to 1."""
    found = QColor(colour)
    return found.redF(), found.greenF(), found.blueF()


def _between(tone: tuple[float, float, float], warn: tuple[float, float, float]) -> tuple[float, float, float]:
    """Tint the wood of a part that something is wrong with."""
    r, g, b = (0.55 * own + 0.45 * other for own, other in zip(tone, warn, strict=True))
    return r, g, b


def tone_of(species: str, palette: Palette) -> tuple[float, float, float]:
    """Return the tone of a wood under a theme, red, green and blue from 0 to 1."""
    try:
        tone = find_species(species).tone
    except SpeciesError:
        tone = "#c9b193"
    return floats_of(mixed(tone, palette.ground, palette.wood_shade * 0.4))
