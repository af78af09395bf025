"""Another language: whoever translates the catalogue translates the whole desk; nothing is left that it cannot reach.

The language of the tests is ours in other letters, so that what was not looked up stands bare.
"""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QAbstractButton, QApplication, QComboBox, QLabel, QLineEdit, QMenu, QTableView, QWidget
from tests.lettered import Lettered, bare, not_in_the_catalogue

from nullah.core.drawing import Label
from nullah.core.forms import FORMS
from nullah.core.lengths import Marks
from nullah.core.project import Piece, Project
from nullah.core.stations import STATIONS
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.catalogues import OWN_NAME, load, locales
from nullah.language import speak


def texts_of(widget):
    """Yield what one widget says, to the eye and to a screen reader."""
    yield from (widget.toolTip(), widget.accessibleName(), widget.windowTitle())
    match widget:
        case QLabel() | QAbstractButton():
            yield widget.text()
        case QLineEdit():
            yield widget.placeholderText()
        case QComboBox():
            yield from (widget.itemText(index) for index in range(widget.count()))
        case QMenu():
            widget.aboutToShow.emit()
            yield from (action.text() for action in widget.actions())
        case QTableView() if widget.model() is not None:
            model = widget.model()
            for column in range(model.columnCount()):
                yield model.headerData(column, Qt.Orientation.Horizontal, Qt.ItemDataRole.DisplayRole)
                yield from (model.index(row, column).data() for row in range(model.rowCount()))


def left_bare(window):
    """Return what stands bare in a window, with what the bench shows."""
    said = [text for each in (window, *window.findChildren(QWidget)) for text in texts_of(each)]
    if window.bench.drawing is not None:
        said += [element.text for element in window.bench.drawing.elements if isinstance(element, Label)]
    return {(text, bare(text)) for text in said if isinstance(text, str) and bare(text)}


@pytest.fixture
def lettering(monkeypatch):
    monkeypatch.setattr("nullah.desk.start.catalogue_for", lambda _: Lettered())
    yield
    speak(Marks().catalogue)


def look_everywhere(window):
    """Go to every station and through its ways of looking; return what stood bare, by the station."""
    found = {}
    for number, station in enumerate(STATIONS):
        window.show_station(number)
        desk = window.desk(number)
        for tab in desk.line.tabs() or [None]:
            if tab is not None:
                tab.click()
            QApplication.processEvents()
            for text, words in left_bare(window):
                found.setdefault(words, f"{station.id}: {text}")
    return found


@pytest.mark.dear
@pytest.mark.sampled(6)
@pytest.mark.parametrize("form", ["sample", *FORMS])
def test_every_station_of_every_form_speaks_the_language(form, lettering, open_window):
    window = open_window(seed_cabinet() if form == "sample" else Project(Piece(form, name="1")))
    assert not look_everywhere(window)
    assert not not_in_the_catalogue()


@pytest.mark.parametrize("page", ["show_start", "show_shop", "show_preferences", "show_about"])
def test_every_page_over_the_desk_speaks_the_language(page, lettering, open_window):
    window = open_window(seed_cabinet())
    getattr(window, page)()
    QApplication.processEvents()
    # Where a language is chosen each is called as it calls itself.
    own = {load(each).text(OWN_NAME) for each in locales()}
    assert {text for text, _ in left_bare(window)} <= own
    assert not not_in_the_catalogue()
