"""The tag beside what is picked: the commonest things that can be done with it, in place; the same in menus."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtCore import QRectF, Qt
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QWidget

from nullah.desk.stations.base import Verb

_GAP, _MOST = 8, 5


class Tag(QWidget):
    """Buttons on the bench, beside what they are about and never over it where there is room."""

    def __init__(self, bench: QWidget) -> None:
        super().__init__(bench)
        self.setObjectName("tag")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(3, 3, 3, 3)
        self._row.setSpacing(2)
        self._shown: tuple[tuple[str, bool, tuple[str, ...]], ...] = ()
        self._verbs: tuple[Verb, ...] = ()
        self.hide()

    def show_verbs(self, verbs: Sequence[Verb]) -> None:
        """Show the first few of what can be done."""
        self._verbs = tuple(verbs)[:_MOST]
        shown = tuple((v.text, v.enabled, tuple(text for text, _ in v.options)) for v in self._verbs)
        if shown != self._shown:
            self._shown = shown
            self._rebuild()
        self.setVisible(bool(self._verbs))

    def _rebuild(self) -> None:
        while (item := self._row.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        for number, verb in enumerate(self._verbs):
            self._row.addWidget(self._button(number, verb))
        self.adjustSize()

    def _button(self, number: int, verb: Verb) -> QWidget:
        if not verb.options:
            button = QPushButton(verb.text)
            button.clicked.connect(lambda: self._do(number))
        else:
            button = QPushButton(f"{verb.text} ▾")
            menu = QMenu(button)
            for at, (text, _) in enumerate(verb.options):
                menu.addAction(text).triggered.connect(lambda _=False, at=at: self._do(number, at))
            button.clicked.connect(lambda: menu.popup(button.mapToGlobal(button.rect().bottomLeft())))
        button.setAccessibleName(verb.text)
        button.setMinimumHeight(32)
        button.setEnabled(verb.enabled)
        return button

    def _do(self, number: int, option: int = -1) -> None:
        verb = self._verbs[number]
        act: Callable[[], object] | None = verb.options[option][1] if option >= 0 else verb.act
        if act is not None:
            act()

    def stand_by(self, what: QRectF) -> None:
        """Stand above what it is about, or below, or where there is room."""
        bench = self.parentWidget()
        if bench is None or not self._verbs:
            return
        wide, high = self.width(), self.height()
        left = min(max(what.left(), 4.0), bench.width() - wide - 4.0)
        above, below = what.top() - _GAP - high, what.bottom() + _GAP
        top = above if above > 4 else below if below + high < bench.height() - 4 else 4.0
        self.move(int(left), int(top))
        self.raise_()


def fill_menu(menu: QMenu, verbs: Sequence[Verb]) -> None:
    """Put what can be done into a menu, after what stands there."""
    if verbs and menu.actions():
        menu.addSeparator()
    for verb in verbs:
        if verb.options:
            below = menu.addMenu(verb.text)
            below.setEnabled(verb.enabled)
            for text, act in verb.options:
                below.addAction(text).triggered.connect(lambda _=False, act=act: act())
        else:
            action = menu.addAction(verb.text)
            action.setEnabled(verb.enabled)
            if verb.act is not None:
                action.triggered.connect(lambda _=False, act=verb.act: act())


