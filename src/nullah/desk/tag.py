"""The tag beside what is picked: the commonest things that can be done with it, in place; the same in menus."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QAction
from PySide6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QWidget

from nullah.desk.stations.base import Verb

_GAP, _EDGE, _MOST = 8.0, 4.0, 5
#: How far off it is tried, pixels.
_STEPS = (0.0, 20.0, 40.0, 64.0, 96.0, 140.0, 200.0)


class Tag(QWidget):
    """Buttons on the bench, beside what they are about and never over it where there is room."""

    def __init__(self, bench: QWidget) -> None:
        super().__init__(bench)
        self.setObjectName("tag")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._row = QHBoxLayout(self)
        self._row.setContentsMargins(3, 3, 3, 3)
        self._row.setSpacing(2)
        self._shown: tuple[tuple[str, bool, tuple[str, ...], int], ...] = ()
        self._verbs: tuple[Verb, ...] = ()
        self.hide()

    def show_verbs(self, verbs: Sequence[Verb]) -> None:
        """Show the first few of what can be done."""
        self._verbs = tuple(verbs)[:_MOST]
        shown = tuple((v.text, v.enabled, tuple(text for text, _ in v.options), v.chosen) for v in self._verbs)
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
            button = self._button(number, verb)
            self._row.addWidget(button)
            button.show()
        self._row.activate()
        self.resize(self._row.sizeHint())

    def _button(self, number: int, verb: Verb) -> QWidget:
        if not verb.options:
            button = QPushButton(verb.text)
            button.clicked.connect(lambda: self._do(number))
        else:
            button = QPushButton(f"{verb.text} ▾")
            menu = QMenu(button)
            for at, option in enumerate(_listed(menu, verb)):
                option.triggered.connect(lambda _=False, at=at: self._do(number, at))
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

    def stand_by(self, what: QRectF, drawn: Sequence[QRectF]) -> None:
        """Stand near what it is about, where it covers the least of what is drawn."""
        bench = self.parentWidget()
        if bench is None or not self._verbs:
            return
        wide, high = float(self.width()), float(self.height())
        lefts = {what.left(), what.center().x() - wide / 2, what.right() - wide}
        tops = [what.top() - _GAP - high - step for step in _STEPS] + [what.bottom() + _GAP + step for step in _STEPS]
        beside = [(what.right() + _GAP, what.top()), (what.left() - _GAP - wide, what.top())]
        places = [*((left, top) for left in lefts for top in tops), *beside]
        lefts_in = [min(max(left, _EDGE), bench.width() - wide - _EDGE) for left, _ in places]
        tops_in = [min(max(top, _EDGE), bench.height() - high - _EDGE) for _, top in places]
        inside = [(left, top, left + wide, top + high) for left, top in zip(lefts_in, tops_in, strict=True)]
        reach = min(lefts_in), min(tops_in), max(lefts_in) + wide, max(tops_in) + high
        near = [box for each in drawn if _common(box := _coords(each), reach) > 0]
        best = min(inside, key=lambda box: _covered(box, _coords(what), near))
        self.move(QPointF(best[0], best[1]).toPoint())
        self.raise_()


#: Left, top, right and bottom, pixels.
_Coords = tuple[float, float, float, float]


def _coords(box: QRectF) -> _Coords:
    return box.left(), box.top(), box.right(), box.bottom()


def _covered(box: _Coords, what: _Coords, drawn: Sequence[_Coords]) -> float:
    """Return how bad a place is: by what it covers, most of all what it is about, and by how far off it is."""
    beside = max(box[0] - what[2], what[0] - box[2], 0.0)
    above = max(box[1] - what[3], what[1] - box[3], 0.0)
    off = beside + above + 0.05 * abs(box[0] + box[2] - what[0] - what[2])
    shares = sum(_common(box, other) for other in drawn) + 4 * _common(box, what)
    return off + 900 * shares / ((box[2] - box[0]) * (box[3] - box[1]))


def _common(one: _Coords, other: _Coords) -> float:
    wide = min(one[2], other[2]) - max(one[0], other[0])
    if wide <= 0:
        return 0.0
    return wide * max(min(one[3], other[3]) - max(one[1], other[1]), 0.0)


def fill_menu(menu: QMenu, verbs: Sequence[Verb]) -> None:
    """Put what can be done into a menu, after what stands there."""
    if verbs and menu.actions():
        menu.addSeparator()
    for verb in verbs:
        if verb.options:
            below = menu.addMenu(verb.text)
            below.setEnabled(verb.enabled)
            for option, (_, act) in zip(_listed(below, verb), verb.options, strict=True):
                option.triggered.connect(lambda _=False, act=act: act())
        else:
            action = menu.addAction(verb.text)
            action.setEnabled(verb.enabled)
            if verb.act is not None:
                action.triggered.connect(lambda _=False, act=verb.act: act())


def _listed(menu: QMenu, verb: Verb) -> list[QAction]:
    """List the options of a verb in a menu, the one that holds now ticked; return them."""
    options = [menu.addAction(text) for text, _ in verb.options]
    if verb.chosen >= 0:
        for place, option in enumerate(options):
            option.setCheckable(True)
            option.setChecked(place == verb.chosen)
    return options
