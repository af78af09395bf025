"""The open desk sleeps when nobody touches it: no layout, timer or painting follows by itself."""

from collections import Counter

import pytest
from PySide6.QtCore import QEvent, QEventLoop, QObject, QTimer
from PySide6.QtWidgets import QApplication

from nullah.core.stations import STATIONS
from nullah.core.stations.selection import MillingView, Selection

BUSY = {
    QEvent.Type.Timer, QEvent.Type.LayoutRequest, QEvent.Type.UpdateRequest, QEvent.Type.Paint, QEvent.Type.MetaCall,
    QEvent.Type.Resize,
}  # fmt: skip


class Counts(QObject):
    """Counts what happens in the application."""

    def __init__(self):
        super().__init__()
        self.seen = Counter()
        self.own = QTimer(self)

    def eventFilter(self, watched, event):
        if event.type() in BUSY and watched is not self.own:
            self.seen[event.type().name, watched.metaObject().className()] += 1
        return False


#: What goes on before there is a window at all: left behind by other tests in this process, not the desk's.
_elsewhere = set()


@pytest.fixture(autouse=True)
def _before_the_window(qapp):
    _elsewhere.clear()
    _elsewhere.update(_idle(200))


def settle():
    for _ in range(30):
        QApplication.processEvents()


def idle(milliseconds=250):
    """Let the event loop run with nothing to do; return what happened all the same.

    What comes once, late, is waited for, however long it takes on a crowded machine: a desk that does not sleep never
    comes to rest.
    """
    for _ in range(100):
        seen = _idle(milliseconds)
        if not seen:
            break
    return seen


def _idle(milliseconds):
    settle()
    counts, loop = Counts(), QEventLoop()
    counts.own.setSingleShot(True)
    counts.own.timeout.connect(loop.quit)
    app = QApplication.instance()
    app.installEventFilter(counts)
    try:
        counts.own.start(milliseconds)
        loop.exec()
    finally:
        app.removeEventFilter(counts)
    return Counter({what: count for what, count in counts.seen.items() if what not in _elsewhere})


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("station", [station.id for station in STATIONS])
def test_it_sleeps_at_every_station(cabinetmaker, station):
    cabinetmaker.go(station)
    assert not idle()
    cabinetmaker.window.document.select(Selection(part="left", board="4"))
    assert not idle(), "with a part and a board in hand"
    cabinetmaker.window.resize(1100, 720)
    assert not idle(), "after another size"


@pytest.mark.dear
def test_it_sleeps_when_every_way_of_looking_was_gone_through(cabinetmaker):
    from nullah.desk.shots import _looks, _sawing

    window = cabinetmaker.window
    for name in _looks(window):
        assert not idle(120), name
    for name in _sawing(window):
        assert not idle(120), name


@pytest.mark.dear
def test_it_sleeps_after_a_search(user):
    user.go("breakdown")
    user.press("Lay the parts out")
    user.bot.waitUntil(lambda: not user.window.desk(2).runner.running)
    assert not idle()


@pytest.mark.dear
def test_it_sleeps_after_a_plan_was_played(cabinetmaker, tmp_path):
    from nullah.desk.shots import _milling

    for name in _milling(cabinetmaker.window, tmp_path):
        assert not idle(120), name
    desk = cabinetmaker.window.desk(3)
    desk.show_look(MillingView.PLANING)
    desk.planing.play_out(10)
    assert not idle()


@pytest.mark.dear
def test_it_sleeps_with_the_caret_in_a_field(user):
    user.window.header.name.setFocus()
    assert not idle(1300), "a caret that blinks is a desk that does not sleep"


@pytest.mark.dear
def test_it_would_be_noticed(user):
    timer = QTimer()
    timer.start(20)
    assert idle(1000)[("Timer", "QTimer")] > 3
