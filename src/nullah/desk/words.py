"""Every label of the desk and what it does, as a page: made from the window itself."""

from __future__ import annotations

from collections.abc import Iterator

from PySide6.QtWidgets import QAbstractButton, QComboBox, QLabel, QLineEdit, QMenu, QWidget

from nullah.core.named_tuple import NamedTuple
from nullah.core.stations import STATIONS
from nullah.desk.stations.base import does
from nullah.desk.window import Window


class Word(NamedTuple):
    """A label: where it stands, what it says, what it does."""

    where: str
    label: str
    what: str


def words_page(window: Window) -> str:
    """Return the page, as Markdown."""
    lines = [
        "# Words of the desk",
        "",
        "Every label and what it does, made from the window by `script/words`. What says nothing more says it all.",
    ]
    stations = ((station.title, _station(window, number)) for number, station in enumerate(STATIONS))
    for title, found in (("Menus", _menus(window)), *stations):
        lines += ["", f"## {title}", "", "| Where | Label | What it does |", "|---|---|---|"]
        lines += [f"| {word.where} | {word.label} | {word.what} |" for word in dict.fromkeys(found)]
    return "\n".join(lines) + "\n"


def _plain(text: str) -> str:
    return " ".join(text.replace("&", "").replace("|", "/").split())


def _menus(window: Window) -> Iterator[Word]:
    acts = {entry.text: entry.act for entry in window.menus.entries}

    def walk(menu: QMenu, where: str) -> Iterator[Word]:
        for action in menu.actions():
            below = action.menu()
            if isinstance(below, QMenu):
                yield from walk(below, f"{where} › {_plain(action.text())}")
            elif action.text():
                told = acts.get(action.text())
                yield Word(where, _plain(action.text()).partition(":")[0], does(told) if told is not None else "")

    for top in window.menuBar().actions():
        menu = top.menu()
        if isinstance(menu, QMenu):
            yield from walk(menu, _plain(top.text()))


def _station(window: Window, number: int) -> Iterator[Word]:
    window.show_station(number)
    desk = window.desk(number)
    for tab in desk.line.tabs():
        yield Word("view", _plain(tab.text()), _told(tab))
    for index in range(desk.line.verbs.count()):
        item = desk.line.verbs.itemAt(index)
        widget = item.widget() if item is not None else None
        if isinstance(widget, QAbstractButton):
            yield Word("line", _plain(widget.text()), _told(widget))
    for section in desk.sections:
        for widget in section.widgets():
            yield from _controls(widget, _plain(section.heading.text()))


def _controls(widget: QWidget, where: str) -> Iterator[Word]:
    labels = [label for label in widget.findChildren(QLabel) if label.buddy() is not None]
    name = _plain(labels[0].text()) if labels else ""
    for each in (widget, *widget.findChildren(QWidget)):
        if isinstance(each, QAbstractButton):
            yield Word(where, _plain(each.text()), _told(each))
        elif isinstance(each, QComboBox | QLineEdit):
            yield Word(where, name or _plain(each.accessibleName()), _told(each))


def _told(widget: QWidget) -> str:
    """Return what a control does: its tip, what it was made to do, or its whole name."""
    label = widget.text() if isinstance(widget, QAbstractButton) else ""
    told = (widget.toolTip(), str(widget.property("does") or ""), widget.accessibleName())
    return _plain(next((each for each in told if each not in ("", label)), ""))
