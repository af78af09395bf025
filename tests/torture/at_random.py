"""A long session of random actions at the real window: nothing raises, hangs, or cannot be saved."""

import json
import random
import sys
import time
import traceback

from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import (
    QAbstractButton,
    QApplication,
    QComboBox,
    QDialog,
    QFileDialog,
    QLineEdit,
    QTableView,
    QWidget,
)
from tests.torture.mutants import where
from tests.torture.reports import HungError, Report, within

from nullah.core.stations import STATIONS
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.application import application
from nullah.desk.start import make_window
from nullah.files.project_file import parse_project, project_text
from nullah.files.recovery import Autosave

TEXTS = (
    "300", "12 in", "1 7/8", "0", "-3", "1/2 of 19", "18+0.5", "abc", "", "9" * 400, "²", "4", "1:7", "20", "0.3",
    "2026-11-27",
    "18:30-21", "cherry", "=1+1", "<b>x</b>", "a\u202eb", "49 m", "0.01", "3 mm; 6 mm", "12, 13", "50", "1e9",
)  # fmt: skip
KEYS = (
    Qt.Key.Key_Tab, Qt.Key.Key_Backtab, Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Left, Qt.Key.Key_Right,
    Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Space, Qt.Key.Key_Delete, Qt.Key.Key_Home, Qt.Key.Key_F2,
)  # fmt: skip
#: An action that takes longer has hung, in seconds.
WITHIN = 60.0
#: Closing is for the end.
NOT_PRESSED = ("Close", "Close and lose it", "Lay the parts out", "One more like it?")


class Session:
    """A window, and somebody who does anything at all at it."""

    def __init__(self, folder, seed):
        self.chance, self.folder = random.Random(seed), folder
        self.errors = []
        application()
        self.window = make_window(seed_cabinet(), folder / "unsaved")
        self.window.document.numbers_ready()
        self.window.resize(1280, 800)
        self.window.show()
        sys.excepthook = lambda kind, error, place: self.errors.append(error.with_traceback(place))
        QFileDialog.getSaveFileName = staticmethod(lambda *_, **__: (str(folder / self.name()), ""))
        QFileDialog.getOpenFileName = staticmethod(lambda *_, **__: (str(folder / self.name()), ""))
        QFileDialog.getExistingDirectory = staticmethod(lambda *_, **__: str(folder / "sheets"))
        exports = self.window.papers.exports
        exports.choose_sheets = lambda sheets: None
        self.did = ""

    def name(self):
        return self.chance.choice(("a.nullah", "b.nullah", "c.csv", "d.pdf", "e.svg", "f.glb", "g.ics", "none.csv"))

    def widgets(self, kind):
        shown = [each for each in self.window.findChildren(kind) if each.isVisible() and each.isEnabled()]
        return [each for each in shown if each.window() is self.window]

    def act(self):
        acts = (
            (self.press, 6),
            (self.choose, 4),
            (self.type, 5),
            (self.click, 6),
            (self.drag, 3),
            (self.key, 4),
            (self.go, 2),
            (self.undo, 3),
            (self.pick_row, 2),
            (self.menu, 1),
            (self.open, 0.3),
            (self.resize, 0.3),
        )
        self.chance.choices([act for act, _ in acts], [weight for _, weight in acts])[0]()
        QApplication.processEvents()
        # Dialogs of the program's own are closed again.
        for dialog in QApplication.topLevelWidgets():
            if isinstance(dialog, QDialog) and dialog.isVisible():
                dialog.reject()
        QApplication.processEvents()

    def press(self):
        buttons = [each for each in self.widgets(QAbstractButton) if each.text() not in NOT_PRESSED]
        if buttons:
            button = self.chance.choice(buttons)
            if button.metaObject().className() == "QToolButton":
                return
            self.did = f"press {button.text()}"
            QTest.mouseClick(button, Qt.MouseButton.LeftButton)

    def choose(self):
        boxes = [each for each in self.widgets(QComboBox) if each.count()]
        if boxes:
            box = self.chance.choice(boxes)
            index = self.chance.randrange(box.count())
            self.did = f"choose {box.itemText(index)} for {box.accessibleName()}"
            box.setCurrentIndex(index)
            box.activated.emit(index)

    def type(self):
        fields = self.widgets(QLineEdit)
        if fields:
            field = self.chance.choice(fields)
            text = self.chance.choice(TEXTS)
            self.did = f"type {text[:20]} into {field.accessibleName()}"
            field.setFocus()
            field.selectAll()
            # Pasted: a test's keyboard has no signs beyond ASCII.
            QApplication.clipboard().setText(text)
            field.paste()
            if self.chance.random() < 0.8:
                QTest.keyClick(field, Qt.Key.Key_Return)

    def spot(self):
        bench = self.window.bench
        targets = bench.targets()
        if targets and self.chance.random() < 0.6:
            return bench.place_of(self.chance.choice(targets)).toPoint()
        return QPoint(self.chance.randrange(max(1, bench.width())), self.chance.randrange(max(1, bench.height())))

    def click(self):
        if self.window.bench.isVisible():
            self.did = "click the bench"
            QTest.mouseClick(self.window.bench, Qt.MouseButton.LeftButton, pos=self.spot())

    def drag(self):
        if self.window.bench.isVisible():
            self.did = "drag on the bench"
            start, end = self.spot(), self.spot()
            QTest.mousePress(self.window.bench, Qt.MouseButton.LeftButton, pos=start)
            for share in (0.4, 0.8, 1.0):
                QTest.mouseMove(self.window.bench, start + (end - start) * share)
            if self.chance.random() < 0.1:
                QTest.keyClick(self.window.bench, Qt.Key.Key_Escape)
            QTest.mouseRelease(self.window.bench, Qt.MouseButton.LeftButton, pos=end)

    def key(self):
        target = QApplication.focusWidget() or self.window.bench
        if isinstance(target, QWidget) and target.window() is self.window:
            key = self.chance.choice(KEYS)
            self.did = f"key {key.name}"
            QTest.keyClick(target, key)

    def go(self):
        self.did = "go to another station"
        self.window.show_station(self.chance.randrange(len(STATIONS)))

    def undo(self):
        self.did = "undo or redo"
        self.chance.choice((self.window.document.undo, self.window.document.redo))()

    def pick_row(self):
        tables = [each for each in self.widgets(QTableView) if each.model() and each.model().rowCount()]
        if tables:
            table = self.chance.choice(tables)
            index = table.model().index(self.chance.randrange(table.model().rowCount()), 0)
            self.did = "pick a row"
            table.clicked.emit(index)

    def menu(self):
        self.window.header.menu.aboutToShow.emit()
        entries = [each for each in self.window.header.menu.actions() if each.text() and not each.isSeparator()]
        entry = self.chance.choice([each for each in entries if not each.text().startswith(("Close", "Write all"))])
        self.did = f"menu {entry.text()}"
        entry.trigger()

    def open(self):
        self.did = "open another piece"
        project = self.chance.choice((seed_box, seed_cabinet, plant_stair))()
        self.window.papers._replace(project, None)

    def resize(self):
        self.did = "resize"
        self.window.resize(self.chance.choice((1024, 1280, 1900)), self.chance.choice((640, 800, 1050)))

    def end(self):
        self.window.papers.exports.wait()
        self.window.document.keep()
        return self.window.document.project


def random_actions(number, folder, seed=5):
    """Act at random; errors, hangs, and states that cannot be saved or come back otherwise are failures."""
    report = Report("random actions at the window")
    session = Session(folder, seed)
    before = sys.excepthook
    try:
        for _ in range(number):
            report.tried += 1
            begun = time.monotonic()
            try:
                with within(WITHIN):
                    session.act()
            except HungError:
                report.fail(f"hung: {session.did}")
            except Exception as error:
                report.fail(f"{session.did}: {where(error)}")
            if time.monotonic() - begun > 2:
                report.count(f"slower than 2 s: {session.did[:40]}")
            for error in session.errors:
                report.fail(f"{session.did[:60]}: {where(error)}")
                if len(report.failures) < 4:
                    traceback.print_exception(error, limit=-4)
            session.errors.clear()
            if report.tried % 10 == 0:
                check(report, session)
    finally:
        sys.excepthook = before
    last = session.end()
    desk = Autosave(folder / "unsaved")
    session.window.document.close()
    kept = desk.kept()
    if session.window.document.unsaved:
        found = [json.loads(project_text(each.read())) for each in kept]
        wanted = json.loads(project_text(last))
        if wanted not in found[:1]:
            place = found.index(wanted) if wanted in found else "nowhere"
            report.fail(f"the last state was not kept as the newest of {len(found)}: it is {place}")
    return report


def check(report, session):
    project = session.window.document.project
    text = project_text(project)
    report.count("states saved and read again")
    try:
        again = project_text(parse_project(text, "again"))
        if json.loads(again) != json.loads(text):
            pairs = zip(text.splitlines(), again.splitlines(), strict=False)
            was, became = next((pair for pair in pairs if pair[0] != pair[1]), ("?", "?"))
            report.fail(f"a state comes back otherwise: {was.strip()} is {became.strip()}")
    except Exception as error:
        report.fail(f"a state cannot be read again: {str(error)[:80]}")
