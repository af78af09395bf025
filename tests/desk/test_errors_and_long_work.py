"""What goes wrong is said and kept; what takes long leaves the window free."""

import os
import signal
import sys

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication
from tests.desk.conftest import as_read
from tests.processes import below

from nullah.core import actions
from nullah.core.sheets.sheets import all_sheets
from nullah.demo.seed_box import seed_box
from nullah.desk.banner import Banner, Urgency
from nullah.desk.errors import ErrorWatch, log_file, write_log
from nullah.files.recovery import Autosave

# --- what goes wrong ------------------------------------------------------------------------------


def test_an_error_at_the_start_is_not_covered_by_the_offer(user, tmp_path):
    Autosave(tmp_path / "unsaved").set_aside(actions.rename(seed_box(), "left"), None)
    assert not user.window.open_path(tmp_path / "none.nullah")
    user.window.papers.offer_kept()
    assert "There is no file" in as_read(user.window.banner.words)
    user.press("Dismiss")
    assert "left, from" in as_read(user.window.banner.words), "the offer waits below it"
    user.press("Dismiss")
    assert not user.window.banner.isVisible()


def test_the_most_urgent_sentence_is_shown_and_the_others_wait(qtbot):
    banner = Banner()
    qtbot.addWidget(banner)
    for urgency in (Urgency.QUESTION, Urgency.OFFER, Urgency.ERROR, Urgency.WORD):
        banner.say(urgency.name, ("Do it", lambda: None), urgency=urgency)
        assert as_read(banner.words) == max(banner._said).name
    banner.tell("still asking", Urgency.QUESTION)
    for words in ("ERROR", "still asking", "WORD", "OFFER"):
        assert as_read(banner.words) == words
        qtbot.mouseClick(banner.button("Dismiss"), Qt.MouseButton.LeftButton)
    assert not banner.isVisible()


def test_what_only_tells_gives_way_to_what_is_told_of_a_later_action(qtbot):
    banner = Banner()
    qtbot.addWidget(banner)
    banner.say("cannot be read", urgency=Urgency.ERROR)
    banner.say("work of yesterday", ("Open it", lambda: None), urgency=Urgency.OFFER)
    assert as_read(banner.words) == "cannot be read", "an offer is no answer to what was done"
    banner.say("3 boards are on the rack")
    assert as_read(banner.words) == "3 boards are on the rack"
    qtbot.mouseClick(banner.button("Dismiss"), Qt.MouseButton.LeftButton)
    assert as_read(banner.words) == "work of yesterday"
    banner.say("cannot be saved", ("Save elsewhere", lambda: None), urgency=Urgency.ERROR)
    banner.say("printed")
    assert as_read(banner.words) == "cannot be saved", "there is something to be done about it"


@pytest.fixture
def watched(user, tmp_path):
    watch = ErrorWatch(user.window, tmp_path / "state")
    yield user
    watch.end()


def raise_in_the_program():
    secret = "a note of somebody's"
    assert secret
    raise RuntimeError("a figure that nobody expected")


def test_an_unexpected_error_is_said_logged_and_the_work_kept(watched, tmp_path):
    watched.window.document.do("name", lambda p: actions.rename(p, "before it"))
    try:
        raise_in_the_program()
    except RuntimeError:
        sys.excepthook(*sys.exc_info())
    said = as_read(watched.window.banner.words)
    assert "RuntimeError: a figure that nobody expected." in said and "Your work is kept." in said
    assert (tmp_path / "unsaved").exists() and not watched.window.document._timer.isActive()
    log = log_file(tmp_path / "state").read_text()
    assert "raise_in_the_program" in log and "ERROR" in log
    assert "somebody's" not in log, "nothing of what was in hand"
    watched.press("Copy details")
    assert "Traceback" in QGuiApplication.clipboard().text()


def test_an_action_that_cannot_be_worked_out_changes_nothing(watched, monkeypatch):
    before = watched.project

    def broken(*_, **__):
        raise RuntimeError("cannot be worked out")

    with monkeypatch.context() as patch:
        patch.setattr("nullah.desk.document.work_out", broken)
        with pytest.raises(RuntimeError):
            watched.window.document.do("name", lambda p: actions.rename(p, "broken"))
    assert watched.project is before and not watched.window.document.undo_name
    assert watched.window.document.do("name", lambda p: actions.rename(p, "well")) == ""
    assert watched.project.piece.name == "well"


def test_the_log_is_rotated(tmp_path, monkeypatch):
    monkeypatch.setattr("nullah.desk.errors._LONGEST", 2000)
    for _ in range(60):
        write_log(tmp_path, "x" * 300)
    files = list(log_file(tmp_path).parent.iterdir())
    assert len(files) == 4 and all(path.stat().st_size < 2500 for path in files)


# --- long work ------------------------------------------------------------------------------------


@pytest.mark.dear
def test_writing_sheets_leaves_the_window_free_tells_how_far_it_is_and_stops(cabinetmaker, tmp_path):
    user = cabinetmaker
    user.window.papers.exports.write_sheets(tmp_path / "out")
    assert as_read(user.window.banner.words) == "Laying the sheets out …"
    user.bot.waitUntil(lambda: "Writing " in as_read(user.window.banner.words))
    user.go("rack")
    assert user.window.station == 1, "the window answers meanwhile"
    user.press("Stop")
    assert "Stopped." in as_read(user.window.banner.words) and not user.window.papers.exports.work.running
    written = list((tmp_path / "out").iterdir())
    assert written and not [path for path in written if path.name.startswith(".nullah")]
    assert all(path.stat().st_size > 100 for path in written), "what is there is whole"


def test_closing_stops_what_is_written(user, tmp_path):
    user.window.papers.exports.write_sheets(tmp_path / "out")
    user.window.close()
    assert not user.window.papers.exports.work.running


@pytest.mark.dear
def test_one_thing_at_a_time(user, tmp_path):
    user.window.papers.exports.write_sheets(tmp_path / "out")
    user.window.papers.exports.write_solids(tmp_path / "a.glb")
    assert "One thing at a time" in as_read(user.window.banner.words)
    user.press("Dismiss")
    user.wait_for_files()
    assert " files written" in as_read(user.window.banner.words) and not (tmp_path / "a.glb").exists()


@pytest.mark.dear
def test_printing_is_stopped_between_two_pages(cabinetmaker, tmp_path):
    from PySide6.QtPrintSupport import QPrinter

    user = cabinetmaker
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    user.window.papers.exports.print_on(printer, all_sheets(user.plan))
    user.bot.waitUntil(lambda: "Printing page" in as_read(user.window.banner.words))
    user.press("Stop")
    assert "Stopped after page" in as_read(user.window.banner.words)


@pytest.mark.dear
def test_a_process_that_dies_is_an_error_and_not_a_silence(user, tmp_path):
    there = below(os.getpid())
    user.window.papers.exports.write_sheets(tmp_path / "out")
    user.bot.waitUntil(lambda: "Writing" in as_read(user.window.banner.words))
    for process in below(os.getpid()) - there:
        os.kill(process, signal.SIGKILL)
    user.wait_for_files()
    assert "ended without a word" in as_read(user.window.banner.words)
