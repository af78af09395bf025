"""What every station's desk has: the line above the bench, what can be chosen, and what is done with what is picked."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial
from inspect import getdoc, isfunction, ismethod
from typing import Protocol, TypeVar, runtime_checkable

from PySide6.QtCore import QEvent, QRect, QRectF, QSize, Qt, Signal
from PySide6.QtGui import QMouseEvent, QPainter, QPaintEvent, QResizeEvent
from PySide6.QtWidgets import (
    QAbstractButton,
    QButtonGroup,
    QComboBox,
    QHBoxLayout,
    QLayout,
    QLayoutItem,
    QLineEdit,
    QMenu,
    QPushButton,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from nullah.core.fixes import Fix
from nullah.core.named_tuple import NamedTuple
from nullah.core.refs import Ref
from nullah.desk.bench import Bench, Tool
from nullah.desk.document import Document
from nullah.desk.text_label import TextLabel
from nullah.language import tr


class Verb(NamedTuple):
    """Something that can be done with what is picked: at once, or by one of `options` (words and what each does).

    `chosen` is the place among the options of the one that holds now; -1: none does.
    """

    text: str
    act: Callable[[], object] | None = None
    options: tuple[tuple[str, Callable[[], object]], ...] = ()
    enabled: bool = True
    chosen: int = -1


class StationDesk(QWidget):
    """A station on the desk.

    The widget is what can be chosen, in sections; `line` stands above the bench, `tool` is what the
    pointer does. `page_wanted` tells that something else is to stand in the place of the drawing, or nothing.
    """

    page_wanted = Signal()
    #: Another station is to be gone to, by its id.
    station_wanted = Signal(str)
    #: The page of the tools one owns and the habits one works by is to be shown.
    shop_wanted = Signal()

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__()
        self.document, self.bench = document, bench
        self.tool: Tool = Tool()
        self.line = OneLine()
        self.notice = Notice()
        self.setObjectName("choices")
        self.sections: list[Section] = []
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(18, 10, 14, 14)
        self._column.setSpacing(4)
        self._column.addStretch(1)

    def event(self, event: QEvent) -> bool:
        done = super().event(event)
        if event.type() == QEvent.Type.LayoutRequest:
            for section in self.sections:
                section.show_heading()
        return done

    def refresh(self) -> None:
        """Show what the document holds now."""

    def page(self) -> QWidget | None:
        """Return what stands in the place of the drawing, if anything does."""
        return None

    def wants_choices(self) -> bool:
        """Return whether what is shown is worked by what can be chosen, so that the column shows that side."""
        return False

    def fills_window(self) -> bool:
        """Return whether what is shown wants the whole window, without rod, column and strip."""
        return False

    def leave(self) -> None:
        """Stop whatever runs aside: the window closes."""

    def clicked(self, ref: Ref | None) -> bool:
        """Take a click on something of one's own; False leaves it to the frame."""
        return False

    def fix(self, fix: Fix) -> None:
        """Carry out a way out that is this station's own."""

    def picked(self) -> Ref | None:
        """Return what is picked on the bench and has verbs of its own, if anything is."""
        return None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        """Return what can be done with something on the bench, the commonest first."""
        return ()

    def offer_shop(self, title: str) -> QPushButton:
        """Offer the page of tools and habits under a heading."""
        button = action(tr("My shop …"), self.shop_wanted.emit, self.section(title))
        button.setToolTip(tr("The tools you own and the habits you work by, on one page"))
        return button

    def section(self, title: str, place: int | None = None) -> Section:
        """Begin a section of choices under a heading, after the others or at a place among them."""
        section = Section(title)
        place = len(self.sections) if place is None else place
        self.sections.insert(place, section)
        self._column.insertLayout(place, section)
        return section


class Section(QVBoxLayout):
    """Choices under a heading, one a line; buttons stand side by side. The heading goes when all of it is hidden."""

    def __init__(self, title: str) -> None:
        super().__init__()
        self.setSpacing(4)
        self.heading = TextLabel(title)
        self.heading.setProperty("heading", "true")
        self.heading.setVisible(False)
        super().addWidget(self.heading)

    def show_heading(self) -> None:
        """Show the heading only while something stands under it."""
        shown = bool(self.heading.text()) and any(
            (item := self.itemAt(index)) is not None and not item.isEmpty() for index in range(1, self.count())
        )
        if self.heading.isHidden() == shown:
            self.heading.setVisible(shown)

    def addWidget(self, widget: QWidget, *_: object) -> None:
        """Put a widget on a line of its own; a button beside the button before it."""
        if not isinstance(widget, QAbstractButton) or widget.property("line") == "own":
            super().addWidget(widget)
            return
        last = self.itemAt(self.count() - 1)
        flow = last.layout() if last is not None else None
        if not isinstance(flow, Flow):
            flow = Flow()
            self.addLayout(flow)
        flow.addWidget(widget)

    def insert(self, place: int, widget: QWidget) -> None:
        """Put a widget before what stands at `place` under the heading."""
        self.insertWidget(place + 1, widget)

    def widgets(self) -> list[QWidget]:
        """Return all that stands under the heading."""
        found: list[QWidget] = []
        for index in range(1, self.count()):
            item = self.itemAt(index)
            flow = item.layout() if item is not None else None
            items = [flow.itemAt(at) for at in range(flow.count())] if isinstance(flow, Flow) else [item]
            found += [widget for each in items if each is not None and (widget := each.widget()) is not None]
        return found


class Flow(QLayout):
    """A row that goes on in the next line where there is no room."""

    def __init__(self) -> None:
        super().__init__()
        self._items: list[QLayoutItem] = []
        self.setSpacing(8)

    def addItem(self, item: QLayoutItem) -> None:
        self._items.append(item)

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, width: int) -> int:
        return self._place(QRect(0, 0, width, 0), move=False)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        widest = max((item.minimumSize().width() for item in self._items), default=0)
        return QSize(widest, max((item.sizeHint().height() for item in self._items), default=0))

    def setGeometry(self, room: QRect) -> None:
        super().setGeometry(room)
        self._place(room, move=True)

    def _place(self, room: QRect, move: bool) -> int:
        """Put the items in lines; give the height they take."""
        lines: list[list[QLayoutItem]] = [[]]
        x = 0
        for item in self._items:
            if item.isEmpty():
                continue
            wide = item.sizeHint().width()
            if lines[-1] and x + wide > room.width():
                lines.append([])
                x = 0
            lines[-1].append(item)
            x += wide + self.spacing()
        y = room.y()
        for line in lines:
            high = max((item.sizeHint().height() for item in line), default=0)
            x = room.x()
            for item in line:
                size = item.sizeHint()
                if move:
                    item.setGeometry(
                        QRect(x, y + (high - size.height()) // 2, min(size.width(), room.width()), size.height())
                    )
                x += size.width() + self.spacing()
            y += high + 3
        return y - 3 - room.y()


class Pair(Flow):
    """Words at the left and their field at the right, or below them where a choice would not be read in full."""

    def _place(self, room: QRect, move: bool) -> int:
        """Put both in one line or two; give the height they take."""
        words, field = self._items
        hint, left = field.sizeHint(), room.width() - words.sizeHint().width() - self.spacing()
        beside = left >= (hint if isinstance(field.widget(), Chooser) else field.minimumSize()).width()
        wide = min(hint.width(), left if beside else room.width())
        below = 0 if beside else words.sizeHint().height() + 3
        high = max(hint.height(), words.sizeHint().height()) if beside else below + hint.height()
        if move:
            words_high = high if beside else words.sizeHint().height()
            words.setGeometry(QRect(room.x(), room.y(), min(words.sizeHint().width(), room.width()), words_high))
            field_y = room.y() + below + ((high - hint.height()) // 2 if beside else 0)
            field.setGeometry(QRect(room.x() + room.width() - wide, field_y, wide, hint.height()))
        return high


class OneLine(QWidget):
    """The line above the bench: ways of looking at the left, what can be done at the right. It never wraps.

    Where there is no room for all of it, the ways of looking become one button that opens them.
    """

    def __init__(self) -> None:
        super().__init__()
        self.setObjectName("line")
        self.setFixedHeight(40)
        row = QHBoxLayout(self)
        row.setContentsMargins(12, 3, 12, 3)
        row.setSpacing(4)
        self._looks = QWidget()
        self.looks = QHBoxLayout(self._looks)
        self.looks.setContentsMargins(0, 0, 0, 0)
        self.looks.setSpacing(2)
        self._opener = QToolButton()
        self._opener.setObjectName("looks")
        self._opener.setAccessibleName(tr("Ways of looking at it"))
        self._opener.setMinimumHeight(32)
        self._opener.setPopupMode(QToolButton.ToolButtonPopupMode.InstantPopup)
        self._menu = QMenu(self)
        self._menu.aboutToShow.connect(self._fill)
        self._opener.setMenu(self._menu)
        self._opener.hide()
        self.verbs = QHBoxLayout()
        self.verbs.setSpacing(4)
        row.addWidget(self._looks)
        row.addWidget(self._opener)
        row.addStretch(1)
        row.addLayout(self.verbs)

    def tabs(self) -> list[QPushButton]:
        """Return the buttons of the ways of looking."""
        return self._looks.findChildren(QPushButton)

    def _fill(self) -> None:
        self._menu.clear()
        for tab in self.tabs():
            entry_ = self._menu.addAction(tab.text())
            entry_.setCheckable(True)
            entry_.setChecked(tab.isChecked())
            entry_.triggered.connect(lambda _=False, tab=tab: tab.click())

    def fit(self) -> None:
        """Show the ways of looking side by side, or behind one button where there is no room."""
        tabs = self.tabs()
        verbs = [self.verbs.itemAt(index) for index in range(self.verbs.count())]
        taken = sum(item.sizeHint().width() + 4 for item in verbs if item is not None and not item.isEmpty())
        narrow = self._looks.sizeHint().width() + taken + 32 > self.width() and len(tabs) > 1
        chosen = next((tab.text() for tab in tabs if tab.isChecked()), "")
        self._opener.setText(f"{chosen} ▾")
        if narrow == self._opener.isHidden():
            self._looks.setVisible(not narrow)
            self._opener.setVisible(narrow)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        self.fit()

    def event(self, event: QEvent) -> bool:
        done = super().event(event)
        if event.type() == QEvent.Type.LayoutRequest:
            self.fit()
        return done


class Notice(TextLabel):
    """What a station says, over the foot of the bench; a click takes it away."""

    def __init__(self) -> None:
        super().__init__(wraps=True)
        self.setObjectName("notice")
        self.hide()

    def setText(self, text: str) -> None:
        """Say something, or nothing."""
        super().setText(text.strip())
        self.lay()

    def lay(self) -> None:
        """Stand at the foot of what it lies over, if there is anything to say."""
        below = self.parentWidget()
        self.setVisible(bool(self.text()) and below is not None)
        if below is None or not self.text():
            return
        wide = min(below.width() - 24, self.fontMetrics().horizontalAdvance(self.text()) + 40)
        high = self.heightForWidth(wide)
        self.setGeometry((below.width() - wide) // 2, below.height() - high - 12, wide, high)
        self.raise_()

    def mousePressEvent(self, event: QMouseEvent) -> None:
        self.setText("")


def reach(widget: QWidget) -> None:
    """Put the keyboard on a choice, wherever its side of the column is."""
    above = widget.parentWidget()
    while above is not None:
        if isinstance(above, HasSides):
            above.bring_up(widget)
        above = above.parentWidget()
    widget.setFocus()


@runtime_checkable
class HasSides(Protocol):
    """What shows one of several sides."""

    def bring_up(self, widget: QWidget) -> None:
        """Show the side on which a widget stands."""


def words(text: str, row: QLayout, quiet: bool = True) -> TextLabel:
    """Put words into a section."""
    label = TextLabel(text, wraps=True, quiet=quiet)
    row.addWidget(label)
    return label


class Chooser(QComboBox):
    """A choice, as wide as what is chosen, with a mark at its right that says it opens."""

    def sizeHint(self) -> QSize:
        # Not the base's hint, which measures every option there is.
        wanted = self.fontMetrics().horizontalAdvance(self.currentText() or "…") + 40
        return QSize(max(wanted, 48), max(32, self.fontMetrics().height() + 14))

    def minimumSizeHint(self) -> QSize:
        return QSize(48, self.sizeHint().height())

    def paintEvent(self, event: QPaintEvent) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setPen(self.palette().color(self.foregroundRole()))
        box = QRectF(self.width() - 24, 0, 18, self.height())
        painter.drawText(box, int(Qt.AlignmentFlag.AlignCenter), "▾")
        painter.end()


def labelled(text: str, widget: QWidget, row: QLayout) -> QWidget:
    """Put a field into a section with its words before it; give the pair."""
    pair = QWidget()
    beside = Pair()
    pair.setLayout(beside)
    beside.setContentsMargins(0, 0, 0, 0)
    label = TextLabel(text[:1].upper() + text[1:], quiet=True)
    label.setBuddy(widget)
    beside.addWidget(label)
    beside.addWidget(widget)
    row.addWidget(pair)
    return pair


def entry(name: str, width: int, entered: Callable[[], object] | None = None) -> QLineEdit:
    """Make a bare line to type in: its name for those who cannot see it, and what Enter does."""
    field = QLineEdit()
    field.setAccessibleName(name)
    field.setMaximumWidth(width)
    field.setMinimumHeight(32)
    if entered is not None:
        field.returnPressed.connect(entered)
    return field


def chooser(
    name: str, options: list[tuple[str, str]], chosen: Callable[[str], None], row: QLayout, label: str = ""
) -> QComboBox:
    """Put a choice into a section, after `label` or else its name; `options` are pairs of value and words."""
    box = Chooser()
    box.setAccessibleName(name)
    for value, text in options:
        box.addItem(text, value)
    # Its width is that of what is chosen, whoever chose it.
    box.currentIndexChanged.connect(lambda _: box.updateGeometry())
    box.activated.connect(lambda _: chosen(str(box.currentData())))
    labelled(label or name, box, row)
    return box


def show_choice(box: QComboBox, value: str) -> None:
    """Show a value in a choice without choosing it."""
    index = box.findData(value)
    if index >= 0 and index != box.currentIndex():
        box.setCurrentIndex(index)


Way = TypeVar("Way")


def tabs(
    owner: QWidget, options: Iterable[tuple[Way, str]], chosen: Callable[[Way], None], row: QLayout
) -> dict[Way, QPushButton]:
    """Put ways of looking into a line, of which one is chosen; `options` are pairs of value and words."""
    group = QButtonGroup(owner)
    made: dict[Way, QPushButton] = {}
    for value, text in options:
        button = toggle(text, row)
        button.clicked.connect(lambda _=False, value=value: chosen(value))
        # A screen reader is told one of several by this, not by the group.
        button.setAutoExclusive(True)
        group.addButton(button)
        made[value] = button
    looks = row.parentWidget()
    line = looks.parentWidget() if looks is not None else None
    if isinstance(line, OneLine):
        # Where the ways of looking stand behind one button, it says which is chosen.
        group.buttonToggled.connect(lambda *_: line.fit())
    return made


def toggle(text: str, row: QLayout, toggled: Callable[[bool], object] | None = None) -> QPushButton:
    """Put a button that stays down into a line or a section."""
    button = QPushButton(text)
    button.setCheckable(True)
    button.setProperty("tab", "true")
    button.setAccessibleName(text)
    button.setMinimumHeight(32)
    if toggled is not None:
        button.toggled.connect(toggled)
    row.addWidget(button)
    return button


def action(text: str, done: Callable[[], object], row: QLayout, main: bool = False) -> QPushButton:
    """Put something to do into a line or a section."""
    button = QPushButton(text)
    button.setAccessibleName(text)
    button.setProperty("main", "true" if main else "false")
    button.setMinimumHeight(32)
    button.setProperty("does", does(done))
    button.clicked.connect(lambda: done())
    row.addWidget(button)
    return button


def does(act: Callable[..., object]) -> str:
    """Return the first sentence of what a function says it does; empty where it says nothing."""
    of = act.func if isinstance(act, partial) else act
    told = getdoc(of) if isfunction(of) or ismethod(of) else None
    return (told or "").partition("\n")[0]
