"""A first box in ten minutes: a walk through the real window, step by step, that can be left at any time.

The words are those of the manual's page; here stands where each step is, and when it is done.
"""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QEvent, QObject, QRect, Qt
from PySide6.QtGui import QColor, QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import Plan
from nullah.core.project import Project
from nullah.core.refs import QuantityRef
from nullah.core.stations import STATIONS
from nullah.desk.column import CARD, CHOOSE
from nullah.desk.manual import page_text
from nullah.desk.text_label import TextLabel
from nullah.language import tr
from nullah.paper.lettering import typeface

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.window import Window

_PAGE, _WIDE, _GAP, _RING = "first-box", 340, 14, 5


class Step(NamedTuple):
    """A step of the walk.

    `station` is where it is done, by its id; `done` tells from the piece when the step began and as it is now, None
    where only *Next* goes on; `side` is the side of the column it is about.
    """

    station: str
    target: Callable[[Window], QRect | None]
    done: Callable[[Project, Plan], bool] | None = None
    side: int | None = None


def _box_of(widget: QWidget, window: Window) -> QRect:
    return QRect(widget.mapTo(window, widget.rect().topLeft()), widget.size())


def _begin(window: Window) -> QRect | None:
    start = window.over.start
    return _box_of(start.forms["box"] if start.isVisible() else window.menuBar(), window)


def _length(window: Window) -> QRect | None:
    box = window.bench.box_of(QuantityRef("box.outside_length"))
    if box is None:
        return _box_of(window.bench, window)
    return box.toAlignedRect().translated(window.bench.mapTo(window, window.bench.rect().topLeft()))


def _adding(window: Window) -> QRect | None:
    from nullah.desk.stations.rack import RackDesk

    desk = window.desk(window.station)
    if not isinstance(desk, RackDesk):
        return None
    fields = [_box_of(field, window) for field in desk.fields.values()]
    return fields[0].united(fields[-1])


def _laying(window: Window) -> QRect | None:
    from nullah.desk.stations.breakdown import BreakdownDesk

    desk = window.desk(window.station)
    return _box_of(desk.lay_out, window) if isinstance(desk, BreakdownDesk) else None


def _column(window: Window) -> QRect | None:
    return _box_of(window.column, window)


def _bench(window: Window) -> QRect | None:
    return _box_of(window.place, window)


def _menu(window: Window) -> QRect | None:
    bar = window.menuBar()
    return bar.actionGeometry(bar.actions()[0]).translated(bar.mapTo(window, bar.rect().topLeft()))


#: One for each heading of the page, in its order.
STEPS = (
    Step("piece", _begin, lambda before, now: now.project is not before and now.form.id == "box"),
    Step("piece", _length, lambda before, now: now.project.piece.given != before.piece.given),
    Step("piece", _column, side=CHOOSE),
    Step("rack", _adding, lambda _, now: bool(now.project.boards), side=CHOOSE),
    Step("breakdown", _laying, lambda _, now: bool(now.project.layout) and not now.unplaced),
    Step("milling", _bench),
    Step("joints", _column, side=CARD),
    Step("joints", _menu),
    Step("daybook", _bench),
)


def told() -> tuple[tuple[str, str], ...]:
    """Return title and text of each step, as they stand in the manual."""
    steps = page_text(_PAGE).split("\n## ")[1:]
    return tuple((title, text.strip()) for title, _, text in (step.partition("\n") for step in steps))


class _Ring(QWidget):
    """A ring round what a step is about; what lies under it is worked as ever."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setAttribute(Qt.WidgetAttribute.WA_NoSystemBackground)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor(self.palette().highlight().color()), 3))
        painter.drawRoundedRect(self.rect().adjusted(2, 2, -2, -2), 7, 7)
        painter.end()


class Tour(QWidget):
    """The step in hand, beside what it is about."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self.setObjectName("tour")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setAccessibleName(tr("A first box in ten minutes"))
        self.setFixedWidth(_WIDE)
        self._window = window
        self._told = told()
        self._ring = _Ring(window)
        self.number = 0
        self._before = window.document.project
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 12, 16, 10)
        self.place = self._label(column)
        self.place.setProperty("quiet", "true")
        self.title = self._label(column)
        self.title.setFont(typeface(19, bold=True))
        self.text = self._label(column)
        self.text.setTextFormat(Qt.TextFormat.MarkdownText)
        row = QHBoxLayout()
        self.leave = self._button(tr("Leave"), self.end, row)
        row.addStretch(1)
        self.back = self._button(tr("Back"), lambda: self.go(self.number - 1), row)
        self.next = self._button(tr("Next"), lambda: self.go(self.number + 1), row)
        column.addLayout(row)
        window.installEventFilter(self)
        window.looked.connect(self._follow)
        window.document.changed.connect(self._follow)
        window.over.left.connect(self._follow)
        self.go(0)
        self.next.setFocus()

    def _label(self, column: QVBoxLayout) -> TextLabel:
        label = TextLabel(wraps=True)
        column.addWidget(label)
        return label

    def _button(self, text: str, act: Callable[[], object], row: QHBoxLayout) -> QPushButton:
        button = QPushButton(text)
        button.setMinimumHeight(32)
        button.clicked.connect(act)
        row.addWidget(button)
        return button

    # --- the steps ---

    @property
    def step(self) -> Step:
        """The step in hand."""
        return STEPS[self.number]

    def go(self, number: int) -> None:
        """Go to a step; after the last the walk is over."""
        if number >= len(STEPS):
            self.end()
            return
        self.number = number
        self._before = self._window.document.project
        title, text = self._told[number]
        self.place.setText(f"{number + 1} / {len(STEPS)}")
        self.title.setText(title)
        self.text.setText(text)
        self.back.setEnabled(number > 0)
        self.next.setText(tr("Finish") if number == len(STEPS) - 1 else tr("Next"))
        if number == 0:
            self._window.show_start()
        self._lay()

    def end(self) -> None:
        """Leave the walk; what was made stays."""
        self._window.removeEventFilter(self)
        self._ring.hide()
        self._ring.deleteLater()
        self.hide()
        self._window.tour = None
        self.deleteLater()

    def _follow(self) -> None:
        """Go on where the step is done, and stand beside what is shown now."""
        window = self._window
        if window.tour is not self:
            return
        done = self.step.done
        shown = window.document.plan.project is window.document.project  # and no preview of a search
        if done is not None and shown and done(self._before, window.document.plan):
            self.go(self.number + 1)
            return
        if self.step.side is not None and self._at_station() and not window.over.covers():
            window.column.show_side(self.step.side)
        self._lay()

    def _at_station(self) -> bool:
        return STATIONS[self._window.station].id == self.step.station

    # --- where it stands ---

    def eventFilter(self, watched: QObject, event: QEvent) -> bool:
        if event.type() in (QEvent.Type.Resize, QEvent.Type.LayoutRequest):
            self._lay()
        return False

    def _target(self) -> QRect | None:
        window = self._window
        if self.number and not window.over.covers() and not self._at_station():
            number = [station.id for station in STATIONS].index(self.step.station)
            return _box_of(window.rod.marks[number], window)
        return self.step.target(window)

    def _lay(self) -> None:
        """Ring what the step is about, and stand in the corner of the bench that is farthest from it."""
        window = self._window
        self.adjustSize()
        self.resize(_WIDE, self.heightForWidth(_WIDE))
        target = self._target()
        self._ring.setVisible(target is not None)
        if target is not None:
            self._ring.setGeometry(target.adjusted(-_RING, -_RING, _RING, _RING).intersected(window.rect()))
            self._ring.raise_()
        over = window.over.covers()
        room = _box_of(window.frame if over else window.place, window).adjusted(_GAP, _GAP, -_GAP, -_GAP)
        places = [
            QRect(x, y, self.width(), self.height())
            for y in (room.bottom() - self.height(), room.top())
            for x in (room.right() - self.width(), room.left())[:: 1 if over else -1]
        ]

        def covered(place: QRect) -> int:
            shared = place.intersected(target) if target is not None else QRect()
            return shared.width() * shared.height()

        self.setGeometry(min(places, key=covered))
        self.show()
        self.raise_()
