"""The desk as a user finds it: a window on the sample piece, driven by mouse and keys."""

from contextlib import contextmanager

import pytest
from PySide6.QtCore import QEvent, QPoint, QPointF, Qt
from PySide6.QtWidgets import QApplication, QDialog, QLabel, QPushButton, QToolButton
from pytestqt.qtbot import QtBot

from nullah.core.project import Project
from nullah.core.refs import PartRef, PieceRef, QuantityRef
from nullah.core.stations import STATIONS
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.start import make_window
from nullah.desk.start_page import StartPage
from nullah.desk.stations.drawn_choice import DrawnChoice


def as_read(widget):
    """Return the words of a widget as they are read: in one line, with plain spaces in their figures."""
    return widget.text().replace("\n", " ").replace("\u00a0", " ")


class User:
    """What a person does at the desk, and what they read on it."""

    def __init__(self, qtbot, window):
        self.bot, self.window = qtbot, window

    @property
    def project(self):
        return self.window.document.project

    @property
    def plan(self):
        return self.window.document.plan

    def go(self, station):
        number = [each.id for each in STATIONS].index(station)
        self.bot.mouseClick(self.window.rod.marks[number], Qt.MouseButton.LeftButton)
        assert self.window.station == number

    def press(self, text):
        """Click a button by its words, wherever it stands."""
        buttons = [b for b in self.window.findChildren(QPushButton) if as_read(b) == text and self.offered(b)]
        assert buttons, f"no button says {text}"
        self.reach(buttons[0])
        if not buttons[0].isVisible():
            # The line is too narrow for its ways of looking: they stand behind one button.
            opener = self.window.desk(self.window.station).line.findChild(QToolButton)
            opener.menu().aboutToShow.emit()
            next(a for a in opener.menu().actions() if a.text() == text).trigger()
            return
        self.bot.mouseClick(buttons[0], Qt.MouseButton.LeftButton)

    def begin(self, form):
        """Begin a new piece from the start page."""
        self.ctrl(Qt.Key.Key_N)
        page = self.window.findChild(StartPage)
        (button,) = [each for each in page.forms.values() if each.text() == form]
        self.bot.mouseClick(button, Qt.MouseButton.LeftButton)

    def offered(self, widget):
        """Return whether a widget is seen, or would be once its side of the column or the line's menu is opened."""
        if widget in self.window.desk(self.window.station).line.tabs():
            return True
        column = self.window.column
        side = next((s for s in (column.card, column.choices.widget()) if s.isAncestorOf(widget)), None)
        return widget.isVisible() if side is None else widget.isVisibleTo(side)

    def reach(self, widget):
        """Turn the column to the side on which a widget stands, as a user does, and scroll to it."""
        column = self.window.column
        if column.isAncestorOf(widget) and not widget.isVisible():
            side = 0 if column.card.isAncestorOf(widget) else 1
            self.bot.mouseClick(column.buttons[side], Qt.MouseButton.LeftButton)
        QApplication.processEvents()
        if column.choices.isAncestorOf(widget):
            column.choices.ensureWidgetVisible(widget)
        elif column.card.isAncestorOf(widget):
            column.card.ensureWidgetVisible(widget)

    def enter(self, menu, text):
        """Choose an entry of the menu bar by its words."""
        bar = self.window.menuBar()
        (top,) = [a.menu() for a in bar.actions() if a.text().replace("&", "") == menu]
        top.aboutToShow.emit()
        found = [a for a in _entries(top) if a.text().replace("&", "").partition(":")[0] == text]
        assert found, f"{menu} has no {text}: {[a.text() for a in _entries(top)]}"
        found[0].trigger()

    @contextmanager
    def in_shop(self):
        """Open the page of tools and habits, and leave it as a user does."""
        self.enter("Edit", "My shop …")
        page = self.window.over.shop
        assert page.isVisible()
        yield page
        self.press("Done")
        assert not page.isVisible()

    def card_texts(self):
        """Return what stands on the card, from its head down: lines first, then what can be pressed."""
        body = self.window.card.widget()
        body.layout().activate()
        shown = [[w for w in body.findChildren(kind) if w.isVisibleTo(body)] for kind in (QLabel, QPushButton)]
        ordered = [sorted(each, key=lambda w: w.mapTo(body, QPoint()).y()) for each in shown]
        return [as_read(w) for each in ordered for w in each]

    def reads_on_card(self, words):
        return any(words in text for text in self.card_texts())

    def on_bench(self, what):
        """Return the reference of what is on the bench; a part, a piece or a figure may be given by its name."""
        if not isinstance(what, str):
            return what
        named = (PartRef(what), PieceRef(what), QuantityRef(what))
        return next((ref for ref in named if ref in self.window.bench.targets()), None)

    def click_bench(self, what, beside=False):
        """Click what is on the bench in its middle, or `beside` what lies over that: a knot on a part, say."""
        bench, ref = self.window.bench, self.on_bench(what)
        assert ref in bench.targets(), f"{what} is not on the bench"
        place = bench.place_of(ref)
        if beside:
            near = [place + QPointF(x, y) for x in (0, 18, -18, 36, -36) for y in (0, 8, -8, 16, -16)]
            place = next(each for each in near if bench.at(each) == ref)
        self.bot.mouseClick(bench, Qt.MouseButton.LeftButton, pos=place.toPoint())

    def drag(self, start, end):
        """Drag on the bench between two points given in mm of the drawing."""
        bench = self.window.bench
        a, b = (bench.scale.put(point).toPoint() for point in (start, end))
        self.bot.mousePress(bench, Qt.MouseButton.LeftButton, pos=a)
        for share in (0.3, 0.7, 1.0):
            self.bot.mouseMove(bench, pos=a + (b - a) * share)
        self.bot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=b)

    def type_figure(self, what, text, button=None):
        """Click a figure on the bench, type another and press Enter, or a button."""
        self.click_bench(what)
        assert self.window.editor.ref == self.on_bench(what), f"{self.window.editor.ref or 'nothing'} opened"
        field = self.window.editor.field
        field.line.selectAll()
        self.bot.keyClicks(field.line, text)
        if button:
            self.press(button)
        else:
            self.bot.keyClick(field.line, Qt.Key.Key_Return)

    def choose(self, box, value):
        """Open a choice and click the option wanted; of a drawn one its drawing."""
        if isinstance(box, DrawnChoice):
            self.reach(box.buttons[value])
            self.bot.mouseClick(box.buttons[value], Qt.MouseButton.LeftButton)
            return
        index = box.findData(value)
        assert index >= 0, f"{value} is not among {[box.itemText(i) for i in range(box.count())]}"
        assert self.offered(box)
        self.reach(box)
        box.showPopup()
        view = box.view()
        # A long list comes to rest on what is chosen now; only then it is scrolled.
        QApplication.processEvents()
        view.scrollTo(box.model().index(index, 0))
        QApplication.processEvents()
        spot = view.visualRect(box.model().index(index, 0)).center()
        self.bot.mouseMove(view.viewport(), pos=spot)
        self.bot.mouseClick(view.viewport(), Qt.MouseButton.LeftButton, pos=spot)
        box.hidePopup()

    def chip(self, part):
        """Return what stands for a part on the strip."""
        return next(chip for chip in self.window.strip.chips if part in [each.id for each in chip.parts])

    @property
    def length(self):
        """The length of the contents, as it was typed."""
        return self.plan.ledger.length("contents.length").text

    def ctrl(self, key):
        self.bot.keyClick(self.window, key, Qt.KeyboardModifier.ControlModifier)

    def dialog(self):
        """Return the one dialog that is open."""
        (found,) = [w for w in QApplication.topLevelWidgets() if isinstance(w, QDialog) and w.isVisible()]
        return found

    def wait_for_files(self):
        """Wait until all that is written or printed aside is done."""
        exports = self.window.papers.exports
        self.bot.waitUntil(lambda: not exports.work.running and not (exports.printing and exports.printing.running))

    def type_in(self, field, text):
        self.type_line(field.line, text)

    def type_line(self, line, text):
        """Type into a bare line, over what stands there, and press Enter."""
        self.reach(line)
        line.setFocus()
        line.selectAll()
        self.bot.keyClicks(line, text)
        self.bot.keyClick(line, Qt.Key.Key_Return)


def _entries(menu):
    for action in menu.actions():
        if action.menu() is not None:
            action.menu().aboutToShow.emit()
            yield from _entries(action.menu())
        else:
            yield action


def full_disk(monkeypatch):
    """Let the disk refuse from now on."""

    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)


#: In ms: as long as a crowded machine may need. What never comes is a fault, not what comes late.
PATIENCE = 180_000


class PatientBot(QtBot):
    def waitUntil(self, callback, *, timeout=PATIENCE):
        super().waitUntil(callback, timeout=timeout)

    def waitSignal(self, signal, *, timeout=PATIENCE, **how):
        return super().waitSignal(signal, timeout=timeout, **how)

    def waitExposed(self, widget, *, timeout=PATIENCE):
        return super().waitExposed(widget, timeout=timeout)


@pytest.fixture
def qtbot(qapp, request):
    return PatientBot(request)


@pytest.fixture
def open_window(qtbot, tmp_path, monkeypatch):
    monkeypatch.setattr("nullah.desk.search._SECONDS", 0.8)
    # Letters typed at a list belong together however slow the machine is.
    QApplication.setKeyboardInputInterval(3000)
    made = []

    def make(project):
        window = make_window(project, tmp_path / "unsaved", patient=True)
        window.resize(1280, 800)
        with qtbot.waitExposed(window):
            window.show()
        QApplication.processEvents()
        made.append(window)
        return window

    yield make
    for window in made:
        window.close()
        window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


@pytest.fixture
def user(qtbot, open_window):
    return User(qtbot, open_window(seed_box()))


@pytest.fixture
def beginner(qtbot, open_window):
    return User(qtbot, open_window(Project()))


@pytest.fixture
def cabinetmaker(qtbot, open_window):
    return User(qtbot, open_window(seed_cabinet()))


@pytest.fixture
def practice(tmp_path, monkeypatch):
    file = tmp_path / "practice.json"
    monkeypatch.setattr("nullah.desk.sighting.practice_file", lambda: file)
    return file


@pytest.fixture
def miller(user):
    """Someone at the milling station, with the board the sides lie on in hand."""
    user.go("milling")
    user.choose(user.window.desk(3).boards, "2")
    return user
