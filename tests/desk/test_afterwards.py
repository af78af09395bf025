"""What takes long comes after what was typed: a window that does not wait for it, as users have it."""

import os
import threading
import time
from dataclasses import replace

import pytest
from PySide6.QtCore import QPoint, Qt, QTimer
from PySide6.QtWidgets import QApplication, QLabel
from tests.desk.conftest import as_read
from tests.processes import below

from nullah.background import IDLE
from nullah.core import actions
from nullah.core.breakdown.facts import BoardsToBuy
from nullah.core.fraction import Fraction
from nullah.core.identity import let_go
from nullah.core.lengths import Unit, mm
from nullah.core.plan import work_out
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.facts import fact_words
from nullah.core.work.order_of_work import known_order, order_of_work
from nullah.demo.seed_box import seed_box
from nullah.desk.afterwards import Afterwards
from nullah.desk.asking import Asker
from nullah.desk.start import make_window
from nullah.desk.thumbnails import Thumbnails, _painter
from nullah.paper.palette import DAY

BREAKDOWN, DAY_BOOK = 2, 6


@pytest.fixture
def window(qtbot, tmp_path):
    window = make_window(seed_box(), tmp_path / "unsaved")
    window.document.numbers_ready()
    window.resize(1280, 800)
    with qtbot.waitExposed(window):
        window.show()
    yield window
    window.close()
    window.deleteLater()


def read(card):
    """Return all that a card says."""
    return [as_read(each) for each in card.findChildren(QLabel) if each.isVisibleTo(card) and each.text()]


def longer(window, length):
    window.document.do("longer", lambda p: actions.give(p, "contents.length", mm(length)))


@pytest.mark.dear
def test_the_order_of_work_comes_after_and_nothing_old_is_left(window, qtbot):
    window.show_station(DAY_BOOK)
    assert known_order(window.document.plan) is None, "the window did not wait for it"
    assert not window.bench.drawing.elements and "being worked out" in window.bench.invitation
    assert read(window.card) == ["Day Book", "Mind", window.bench.invitation], "nothing of the station before"
    qtbot.waitUntil(lambda: bool(window.bench.drawing.elements))
    assert known_order(window.document.plan) == order_of_work(window.document.plan)
    first, seen = window.bench.drawing, window.bench.grab().toImage()
    for length in (310, 320, 333):
        longer(window, length)
    assert window.bench.drawing is first, "what was shown stays until the new one has come"
    assert "being worked out" in window.bench.outdated and window.bench.grab().toImage() != seen, "and says so"
    assert read(window.card)[2:] == [window.bench.outdated], "no figure stands there that may no longer hold"
    qtbot.mouseClick(window.desk(DAY_BOOK).done, Qt.MouseButton.LeftButton)
    assert not window.document.project.book, "nothing is done of an order that no longer holds"
    assert "being worked out" in as_read(window.desk(DAY_BOOK).said)
    qtbot.waitUntil(lambda: known_order(window.document.plan) is not None)
    qtbot.waitUntil(lambda: window.bench.drawing is not first)
    assert window.document.plan.ledger["contents.length"] == 333
    qtbot.waitUntil(lambda: not as_read(window.desk(DAY_BOOK).said))
    assert not window.bench.outdated


@pytest.mark.dear
def test_what_to_buy_is_counted_beside_the_window(window, qtbot, monkeypatch):
    def told():
        lines = [line.removeprefix("◆ ") for line in read(window.card)]
        return [line for line in lines if line.startswith(("To buy", "What to buy"))]

    # Another test may have asked for the same.
    let_go()
    # No answer comes before the window has said that it is waited for: on a busy machine it could.
    may_come, read_aside = threading.Event(), Asker._read_aside
    monkeypatch.setattr(Asker, "_read_aside", lambda *given: may_come.wait(60) and read_aside(*given))
    window.show_station(BREAKDOWN)
    window.document.do("clear", lambda p: replace(p, boards=(), layout=()))
    for change in (lambda: None, lambda: [longer(window, by) for by in (1500, 1700)]):
        may_come.clear()
        change()
        qtbot.waitUntil(lambda: told() == ["What to buy is being worked out …"])
        may_come.set()
        qtbot.waitUntil(lambda: bool(told()) and told()[0].startswith("To buy"))
    first = told()
    qtbot.waitUntil(lambda: window.document.prover.asked is None)
    # Nothing else comes after this change.
    window.document.do("flaws", lambda p: replace(p, flawed_share=Fraction(2, 5)))
    qtbot.waitUntil(lambda: bool(told()) and told()[0].startswith("To buy, with 40 %"))
    assert told() != first
    plan = work_out(window.document.project, milling=False, proving=False)
    facts = [remark.fact for remark in STATIONS[BREAKDOWN].card(plan, Selection()).mind]
    (said,) = [fact for fact in facts if isinstance(fact, BoardsToBuy)]
    assert told() == [fact_words(said, plan.reader)], "of the last change"


@pytest.mark.dear
def test_what_has_nothing_to_do_for_long_ends_and_is_begun_again_when_it_is_wanted(window, qtbot):
    document = window.document
    window.show_station(DAY_BOOK)
    longer(window, 328)  # of a size that no other test has proved
    qtbot.waitUntil(lambda: document.plan.proof is not None and document.order_ready())
    askers = document.prover, document._orderer
    qtbot.waitUntil(lambda: all(asker._idle.isActive() for asker in askers))
    begun = below(os.getpid())
    for asker in askers:
        assert asker._idle.interval() == IDLE
        asker._idle.start(10)
    qtbot.waitUntil(lambda: len(below(os.getpid())) <= len(begun) - 2)
    longer(window, 330)
    qtbot.waitUntil(lambda: document.plan.proof is not None and document.order_ready())
    assert document.plan.ledger["contents.length"] == 330


def test_the_drawing_is_painted_before_the_rest_follows(window, qtbot):
    window.show_station(0)
    qtbot.wait(50)
    before = window.rod.marks[0].state
    longer(window, 345)
    said = [e.text for e in window.bench.drawing.elements if getattr(e, "text", "")]
    assert "345" in said, "at once"
    assert window.rod.marks[0].state == before
    qtbot.waitUntil(lambda: window.rod.marks[0].state != before)


def test_a_newer_change_puts_the_steps_of_the_one_before_away(qtbot):
    done = []
    after = Afterwards(QApplication.instance())
    after.begin([lambda n=n: done.append(n) for n in (1, 2, 3)])
    after.begin([lambda n=n: done.append(n) for n in (4, 5)])
    qtbot.waitUntil(lambda: done == [4, 5])
    after.begin([lambda: done.append(6), lambda: done.append(7)])
    after.finish()
    assert done == [4, 5, 6, 7]
    qtbot.wait(20)
    assert done == [4, 5, 6, 7], "each once"


def test_work_is_done_bit_by_bit_and_the_window_answers_in_between(qtbot):
    answered, done = [], []

    def work(bits, name):
        for _ in range(bits):
            time.sleep(0.002)
            yield
        done.append(name)

    def answers():
        answered.append(len(done))
        if not done:
            QTimer.singleShot(0, answers)

    after = Afterwards(QApplication.instance())
    QTimer.singleShot(0, answers)
    after.begin([lambda: work(20, "first"), lambda: done.append("second")])
    qtbot.waitUntil(lambda: done == ["first", "second"])
    assert len(answered) > 4
    after.begin([lambda: work(20, "dropped")])
    qtbot.wait(5)
    after.begin([lambda: work(3, "newer")])
    after.finish()
    qtbot.wait(60)
    assert done == ["first", "second", "newer"], "what a newer change put away is not gone on with"


def test_a_step_that_fails_does_not_keep_the_others_back(qtbot):
    done = []
    after = Afterwards(QApplication.instance())

    def fails():
        raise ValueError("this one")

    def fails_at_the_second_bit():
        yield
        fails()

    with qtbot.captureExceptions() as raised:
        after.begin([fails, fails_at_the_second_bit, lambda: done.append(1)])
        qtbot.waitUntil(lambda: done == [1])
    assert [type(each[1]) for each in raised] == [ValueError, ValueError]


def test_the_views_come_with_the_proof(window, qtbot, monkeypatch):
    def draw(*_):
        raise AssertionError("the window drew solids")

    window.show_station(0)
    for length in (351, 352, 353):
        longer(window, length)
    monkeypatch.setattr("nullah.core.stations.piece.views", draw)
    qtbot.waitUntil(lambda: window.document.plan.proof is not None)
    shown = window.bench.drawing
    monkeypatch.undo()
    assert shown == STATIONS[0].draw(replace(window.document.plan), Selection()), "as if they were drawn here"


def test_views_in_another_unit_are_drawn_here(window, qtbot):
    window.show_station(0)
    longer(window, 354)
    window.show_unit(Unit.INCH)
    qtbot.waitUntil(lambda: window.document.plan.proof is not None)
    assert "13 15/16" in [getattr(e, "text", "") for e in window.bench.drawing.elements]


def test_a_line_that_is_dragged_is_painted_with_every_move_and_the_card_once_the_hand_rests(window, qtbot):
    window.show_station(4)
    qtbot.wait(300)
    bench, spec = window.bench, window.document.plan.corner.layout.spec
    line = bench.scale.put((-1.0, float(spec.width) - float(spec.half_pin))).toPoint()
    refresh_card = window.showing._refresh_card
    told = []
    window.showing._refresh_card = lambda: told.append(1) or refresh_card()
    qtbot.mousePress(bench, Qt.MouseButton.LeftButton, pos=line)
    for step in range(1, 5):
        before = bench.drawing
        qtbot.mouseMove(bench, pos=line - QPoint(0, 3 * step))
        assert bench.drawing is not before and bench._picture_for[0] is bench.drawing, "painted with every move"
    assert not told, "the card waits"
    qtbot.waitUntil(lambda: bool(told))
    qtbot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=line - QPoint(0, 12))
    assert window.document.undo_name.startswith("half-pin ")


def test_little_pictures_are_painted_again_after_who_paints_them_had_nothing_to_do(qtbot):
    pictures = Thumbnails()
    for key in ("first", "second"):
        with qtbot.waitSignal(pictures.painted) as painted:
            pictures.ask(key, seed_box(), (60, 40), DAY)
        assert painted.args[0] == key and painted.args[1].width() == 60
        qtbot.waitUntil(_painter()._idle.isActive)
        _painter()._idle.start(10)
        qtbot.waitUntil(lambda: _painter()._process is None)
