"""Nothing that people make is lost, renamed or overwritten: kept work, earlier versions, others at the same file."""

import os
import signal
import subprocess
import sys
import time
from dataclasses import replace
from datetime import datetime
from pathlib import Path

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QGuiApplication
from PySide6.QtGui import Qt as GuiQt
from PySide6.QtWidgets import QApplication, QDialog, QFileDialog, QWidget

from nullah.core import actions
from nullah.core.lengths import read_length
from nullah.core.piece.own import OwnBoard
from nullah.core.project import Project
from nullah.core.work import doing
from nullah.demo.seed_box import seed_box
from nullah.desk.banner import Banner, Urgency
from nullah.desk.document import AUTOSAVE_AFTER, Document
from nullah.desk.errors import ErrorWatch, log_file, write_log
from nullah.desk.papers import beside
from nullah.files.project_file import parse_project, project_text, read_project, write_project
from nullah.files.recovery import Autosave
from nullah.files.versions import versions_of


def ctrl(user, key):
    user.bot.keyClick(user.window, key, Qt.KeyboardModifier.ControlModifier)


def dialog(user):
    found = [each for each in QApplication.topLevelWidgets() if isinstance(each, QDialog) and each.isVisible()]
    assert len(found) == 1
    return found[0]


def length(user):
    return user.plan.ledger.length("contents.length").text


def full_disk(monkeypatch):
    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)


# --- the name of the piece ------------------------------------------------------------------------


def test_opening_another_piece_while_the_name_has_the_focus_renames_nothing(user):
    user.window.activateWindow()
    user.window.header.name.setFocus()
    user.window.papers.open_sample()
    assert user.project.piece.name == "Seed cabinet" and user.window.header.name.text() == "Seed cabinet"
    user.window.bench.setFocus()
    assert user.project.piece.name == "Seed cabinet" and not user.window.document.undo_name


def test_a_name_typed_and_not_entered_is_of_the_piece_it_was_typed_for(user):
    user.window.header.name.setFocus()
    user.window.header.name.selectAll()
    user.bot.keyClicks(user.window.header.name, "Twine box")
    ctrl(user, Qt.Key.Key_N)
    assert user.project.piece.name == "New piece" and user.window.header.name.text() == "New piece"
    assert "Twine box was not saved" in user.window.banner.words.text()
    user.press("Open it again")
    assert user.project.piece.name == "Twine box"


def test_boards_from_the_list_leave_the_name_alone(user):
    user.go("rack")
    desk = user.window.desk(1)
    user.bot.mouseClick(desk.several, Qt.MouseButton.LeftButton)
    desk.typing.text.setFocus()
    desk.typing.text.setPlainText("2400 x 200 x 27 black cherry")
    user.press("Put them on the rack")
    QApplication.processEvents()
    assert not user.window.header.name.hasFocus()
    assert user.project.piece.name == "Seed box" and len(user.project.boards) == len(seed_box().boards) + 1


def test_typing_that_was_not_entered_does_not_stand_in_the_next_piece(user):
    user.go("breakdown")
    kerf = user.window.desk(2).kerf
    kerf.line.setFocus()
    kerf.line.selectAll()
    user.bot.keyClicks(kerf.line, "9")
    user.window.papers.open_sample()
    assert kerf.line.text() == user.project.shop.kerf.as_text() != "9"


# --- kept work ------------------------------------------------------------------------------------


def test_work_is_kept_however_fast_changes_follow_each_other(tmp_path, qtbot):
    """Each change is nearer to the last than the time after which work is kept, and it is kept all the same."""
    document = Document(seed_box(), Autosave(tmp_path))
    started = []
    document._timer.timeout.connect(lambda: started.append(document.project.piece.name))
    for number in range(40):
        document.do("name", lambda p, n=number: actions.rename(p, str(n)))
        qtbot.wait(AUTOSAVE_AFTER // 10)
    assert len(started) >= 2, "not only after the last change"
    document.close()
    assert [each.read().piece.name for each in Autosave(tmp_path).kept()] == ["39"]


def test_the_time_is_that_of_the_first_change_that_is_not_kept_yet(tmp_path, qapp):
    document = Document(seed_box(), Autosave(tmp_path))
    assert not document._timer.isActive() and document._timer.interval() == AUTOSAVE_AFTER <= 1500
    document.do("name", lambda p: actions.rename(p, "one"))
    identity = document._timer.timerId()
    assert identity > 0
    document.do("name", lambda p: actions.rename(p, "two"))
    assert document._timer.timerId() == identity, "it was not started anew"
    assert document.keep() and not document._timer.isActive()
    document.do("name", lambda p: actions.rename(p, "three"))
    assert document._timer.isActive(), "and begins again with the next change"
    document.close()


ASKED_TO_END = """
import sys
from pathlib import Path
from PySide6.QtCore import QTimer
from nullah.core import actions
from nullah.desk import start
def work():
    window = next(w for w in start.application().topLevelWidgets() if hasattr(w, "document"))
    window.document.do("name", lambda p: actions.rename(p, "just now"))
    print("worked", flush=True)
start.application()
QTimer.singleShot(0, work)
sys.exit(start.open_desk(None))
"""


@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGINT, signal.SIGHUP])
def test_a_desk_that_is_asked_to_end_keeps_its_work_first(tmp_path, how):
    environment = {**os.environ, "XDG_STATE_HOME": str(tmp_path), "QT_QPA_PLATFORM": "offscreen"}
    desk = subprocess.Popen([sys.executable, "-c", ASKED_TO_END], env=environment, stdout=subprocess.PIPE)
    try:
        assert desk.stdout.readline() == b"worked\n"
        desk.send_signal(how)
        assert desk.wait(timeout=60) == 128 + how
    finally:
        desk.kill()
    (kept,) = Autosave(tmp_path / "nullah" / "unsaved").kept()
    assert kept.read().piece.name == "just now"


def test_all_kept_work_is_offered_newest_first_with_name_time_and_file(user, tmp_path, open_window):
    root = tmp_path / "unsaved"
    for number, name in enumerate(("oldest", "middle", "newest")):
        desk = Autosave(root)
        aside = desk.set_aside(actions.rename(seed_box(), name), tmp_path / f"{name}.nullah")
        os.utime(aside.folder / "work.nullah", (1_780_000_000 + number * 3600,) * 2)
    user.window.papers.offer_kept()
    said = user.window.banner.words.text()
    assert "newest, of newest.nullah" in said and "2 more pieces are kept" in said
    user.press("See all …")
    shown = dialog(user)
    titles = [shown.list.item(row).text() for row in range(shown.list.count())]
    assert [title.partition(" ·")[0] for title in titles] == ["newest", "middle", "oldest"]
    assert str(tmp_path / "newest.nullah") in shown.said.text() and shown.picture.pixmap().width() > 300
    shown.list.setCurrentRow(1)
    user.bot.mouseClick(shown.taken, Qt.MouseButton.LeftButton)
    assert user.project.piece.name == "middle" and user.window.document.unsaved
    assert user.window.document.file == tmp_path / "middle.nullah"
    assert sorted(each.read().piece.name for each in Autosave(root).kept()) == ["newest", "oldest"]


def test_kept_work_is_deleted_only_when_the_list_is_closed(user, tmp_path):
    for name in ("one", "two"):
        Autosave(tmp_path / "unsaved").set_aside(actions.rename(seed_box(), name), None)
    user.window.papers.show_kept()
    shown = dialog(user)
    first = shown.list.item(0).text().partition(" ·")[0]
    user.bot.mouseClick(shown.deleted, Qt.MouseButton.LeftButton)
    assert "deleted when this is closed" in shown.list.item(0).text() and shown.deleted.text() == "Do not delete it"
    shown.list.setCurrentRow(1)
    user.bot.mouseClick(shown.deleted, Qt.MouseButton.LeftButton)
    user.bot.mouseClick(shown.deleted, Qt.MouseButton.LeftButton)
    assert len(Autosave(tmp_path / "unsaved").kept()) == 2
    shown.reject()
    (left,) = Autosave(tmp_path / "unsaved").kept()
    assert left.read().piece.name != first


@pytest.mark.parametrize(
    "damage", ["{", '{"format": "nullah project", "version": ' + "9" * 5000 + "}", "\x00", "[" * 9999]
)
def test_damaged_kept_work_is_named_and_can_be_deleted(user, tmp_path, damage):
    aside = Autosave(tmp_path / "unsaved").set_aside(seed_box(), None)
    (aside.folder / "work.nullah").write_text(damage)
    user.window.papers.offer_kept()
    assert "cannot be read any more" in user.window.banner.words.text()
    user.press("Look at it …")
    shown = dialog(user)
    assert not shown.taken.isEnabled() and shown.said.text().startswith("work.nullah ")
    user.bot.mouseClick(shown.deleted, Qt.MouseButton.LeftButton)
    shown.reject()
    assert not Autosave(tmp_path / "unsaved").kept()


def test_the_true_path_is_remembered_from_wherever_it_was_opened(user, tmp_path, monkeypatch, open_window):
    (tmp_path / "there").mkdir()
    (tmp_path / "elsewhere").mkdir()
    write_project(seed_box(), tmp_path / "there" / "a.nullah")
    monkeypatch.chdir(tmp_path / "there")
    assert user.window.open_path(Path("a.nullah"))
    user.type_figure("contents.length", "300")
    user.window.close()
    monkeypatch.chdir(tmp_path / "elsewhere")
    again = open_window(Project())
    again.papers.offer_kept()
    again.banner.button("Open it").click()
    again.papers.save()
    assert not list((tmp_path / "elsewhere").iterdir())
    assert dict(read_project(tmp_path / "there" / "a.nullah").piece.given)["contents.length"].text == "300 mm"


@pytest.mark.parametrize("name", [b"caf\xe9.nullah", "ü €.nullah".encode(), b"a%20b.nullah", b"a#b?c.nullah"])
def test_a_file_of_any_name_is_found_again(user, tmp_path, open_window, name):
    path = tmp_path / os.fsdecode(name)
    user.window.papers.save_path(path)
    user.type_figure("contents.length", "300")
    user.window.close()
    again = open_window(Project())
    again.papers.offer_kept()
    again.banner.button("Open it").click()
    assert again.document.file == path
    again.papers.save()
    assert dict(read_project(path).piece.given)["contents.length"].text == "300 mm"


def test_kept_work_that_is_older_than_its_file_says_so_and_never_overwrites_it(user, tmp_path, open_window):
    path = tmp_path / "a.nullah"
    write_project(seed_box(), path)
    assert user.window.open_path(path)
    user.type_figure("contents.length", "300")
    user.window.close()
    write_project(actions.rename(seed_box(), "newer"), path)
    again = open_window(Project())
    again.papers.offer_kept()
    assert "The file was changed after that." in again.banner.words.text()
    again.banner.button("Open it").click()
    assert "was changed by another program or window" in again.banner.words.text()
    again.papers.save()
    assert read_project(path).piece.name == "newer", "not without asking"
    again.banner.button("Keep mine").click()
    assert read_project(path).piece.name == "Seed box"
    assert read_project(versions_of(path)[0].path).piece.name == "newer"


def test_closing_on_a_full_disk_asks_before_it_loses_anything(user, monkeypatch, tmp_path):
    user.type_figure("contents.length", "300")
    with monkeypatch.context() as patch:
        full_disk(patch)
        assert not user.window.close() and user.window.isVisible()
        assert "Closing now loses it" in user.window.banner.words.text()
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(tmp_path / "ok.nullah"), ""))
    user.press("Save it …")
    assert user.window.close() and (tmp_path / "ok.nullah").exists()


def test_closing_on_a_full_disk_can_lose_it_knowingly(user, monkeypatch):
    user.type_figure("contents.length", "300")
    full_disk(monkeypatch)
    user.window.close()
    user.press("Close and lose it")
    assert not user.window.isVisible()


def test_folders_without_work_do_not_pile_up(tmp_path):
    for name in ("making-old", "desk-old"):
        (tmp_path / name).mkdir()
        os.utime(tmp_path / name, (1_700_000_000,) * 2)
    (tmp_path / "making-young").mkdir()
    assert Autosave(tmp_path).kept() == []
    assert [path.name for path in tmp_path.iterdir()] == ["making-young"], "that may be one just being made"


# --- earlier versions -----------------------------------------------------------------------------


@pytest.fixture
def saved(user, tmp_path):
    """A user at a file that was saved four times, with other lengths."""
    for number in (300, 310, 320, 330):
        user.type_figure("contents.length", str(number))
        assert user.window.papers.save_path(tmp_path / "a.nullah")
    return user


def test_earlier_versions_are_looked_at_and_taken_back(saved):
    saved.window.papers.show_versions()
    shown = dialog(saved)
    assert shown.list.count() == 3 and "length of the contents 320 mm → 330 mm" in shown.said.text()
    shown.list.setCurrentRow(2)
    assert "length of the contents 300 mm → 330 mm" in shown.said.text() and not shown.picture.pixmap().isNull()
    saved.bot.mouseClick(shown.taken, Qt.MouseButton.LeftButton)
    assert length(saved) == "300 mm" and saved.window.document.unsaved
    saved.press("Undo")
    assert length(saved) == "330 mm" and not saved.window.document.unsaved


def test_a_damaged_file_offers_its_earlier_versions(saved, tmp_path):
    (tmp_path / "a.nullah").write_text('{"format": "nullah project", "vers')
    saved.window.papers.new()
    assert not saved.window.open_path(tmp_path / "a.nullah")
    assert "Look at its earlier versions" in saved.window.banner.words.text()
    saved.press("Earlier versions …")
    saved.bot.mouseClick(dialog(saved).taken, Qt.MouseButton.LeftButton)
    assert length(saved) == "320 mm" and saved.window.document.file == tmp_path / "a.nullah"


def test_a_button_that_goes_leaves_the_focus_to_the_bench(saved, tmp_path):
    saved.window.activateWindow()
    write_elsewhere(tmp_path / "a.nullah", "theirs")
    saved.window.document.look_at_file()
    saved.window.banner.button("Save beside").setFocus()
    saved.press("Save beside")
    QApplication.processEvents()
    assert saved.window.bench.hasFocus() and not saved.window.header.name.hasFocus()


def test_without_versions_it_says_so(user, tmp_path):
    user.window.papers.show_versions()
    assert "has not been saved yet" in user.window.banner.words.text()
    user.window.papers.save_path(tmp_path / "a.nullah")
    user.window.papers.show_versions()
    assert "has no earlier versions" in user.window.banner.words.text()


def test_three_refused_saves_leave_every_version(saved, tmp_path, monkeypatch):
    before = {each.number: each.path.read_bytes() for each in versions_of(tmp_path / "a.nullah")}
    full_disk(monkeypatch)
    for _ in range(3):
        assert not saved.window.papers.save_path(tmp_path / "a.nullah")
    assert {each.number: each.path.read_bytes() for each in versions_of(tmp_path / "a.nullah")} == before


# --- others at the same file ----------------------------------------------------------------------


def write_elsewhere(path, name):
    """Write a project as another program does: in place, another time."""
    path.write_text(project_text(actions.rename(seed_box(), name)), encoding="utf-8")


@pytest.mark.parametrize("replaced", [False, True])
def test_a_file_that_another_program_writes_is_noticed_at_once(saved, tmp_path, replaced):
    path = tmp_path / "a.nullah"
    if replaced:
        write_elsewhere(tmp_path / "other", "theirs")
        (tmp_path / "other").replace(path)
    else:
        write_elsewhere(path, "theirs")
    saved.bot.waitUntil(saved.window.banner.isVisible, timeout=5000)
    assert "a.nullah was changed by another program or window" in saved.window.banner.words.text()


def test_before_saving_it_is_noticed_even_if_nothing_told_of_it(saved, tmp_path):
    path = tmp_path / "a.nullah"
    saved.window.document._watch.blockSignals(True)
    saved.type_figure("contents.length", "340")
    write_elsewhere(path, "theirs")
    ctrl(saved, Qt.Key.Key_S)
    assert read_project(path).piece.name == "theirs" and saved.window.document.unsaved
    saved.press("Save beside")
    assert read_project(tmp_path / "a (mine).nullah").piece.name == "Seed box"
    assert saved.window.document.file == tmp_path / "a (mine).nullah" and read_project(path).piece.name == "theirs"


def test_theirs_is_taken_and_mine_is_kept_all_the_same(saved, tmp_path):
    saved.type_figure("contents.length", "340")
    write_elsewhere(tmp_path / "a.nullah", "theirs")
    saved.window.document.look_at_file()
    saved.press("Take theirs")
    assert saved.project.piece.name == "theirs" and not saved.window.document.unsaved
    saved.press("Open it again")
    assert length(saved) == "340 mm"


def test_two_windows_on_one_file_notice_each_other(saved, tmp_path, open_window):
    other = open_window(Project())
    assert other.open_path(tmp_path / "a.nullah")
    saved.type_figure("contents.length", "340")
    saved.window.papers.save()
    other.document.look_at_file()
    assert "was changed by another" in other.banner.words.text()
    assert not saved.window.banner.isVisible(), "who saved it knows"


def test_a_file_that_is_touched_or_gone_asks_nothing(saved, tmp_path):
    path = tmp_path / "a.nullah"
    os.utime(path, (1, 1))
    saved.window.document.look_at_file()
    path.unlink()
    saved.window.document.look_at_file()
    assert not saved.window.banner.isVisible()
    saved.type_figure("contents.length", "340")
    ctrl(saved, Qt.Key.Key_S)
    assert path.exists()


def test_a_name_beside_is_free(tmp_path):
    for wanted in ("a (mine).nullah", "a (mine 2).nullah", "a (mine 3).nullah"):
        assert beside(tmp_path / "a.nullah").name == wanted
        (tmp_path / wanted).write_text("")


# --- what goes wrong ------------------------------------------------------------------------------


def test_an_error_at_the_start_is_not_covered_by_the_offer(user, tmp_path):
    Autosave(tmp_path / "unsaved").set_aside(actions.rename(seed_box(), "left"), None)
    assert not user.window.open_path(tmp_path / "none.nullah")
    user.window.papers.offer_kept()
    assert "There is no file" in user.window.banner.words.text()
    user.press("Dismiss")
    assert "left, from" in user.window.banner.words.text(), "the offer waits below it"
    user.press("Dismiss")
    assert not user.window.banner.isVisible()


def test_the_most_urgent_sentence_is_shown_and_the_others_wait(qtbot):
    banner = Banner()
    qtbot.addWidget(banner)
    for urgency in (Urgency.QUESTION, Urgency.OFFER, Urgency.ERROR, Urgency.WORD):
        banner.say(urgency.name, urgency=urgency)
        assert banner.words.text() == max(banner._said).name
    banner.tell("still asking", Urgency.QUESTION)
    for words in ("ERROR", "still asking", "WORD", "OFFER"):
        assert banner.words.text() == words
        qtbot.mouseClick(banner.button("Dismiss"), Qt.MouseButton.LeftButton)
    assert not banner.isVisible()


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
    said = watched.window.banner.words.text()
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


def test_writing_sheets_leaves_the_window_free_tells_how_far_it_is_and_stops(cabinetmaker, tmp_path):
    user = cabinetmaker
    user.window.papers.exports.write_sheets(tmp_path / "out")
    assert user.window.banner.words.text() == "Laying the sheets out …"
    user.bot.waitUntil(lambda: "Writing " in user.window.banner.words.text(), timeout=60_000)
    user.go("rack")
    assert user.window.station == 1, "the window answers meanwhile"
    user.press("Stop")
    assert "Stopped." in user.window.banner.words.text() and not user.window.papers.exports.work.running
    written = list((tmp_path / "out").iterdir())
    assert written and not [path for path in written if path.name.startswith(".nullah")]
    assert all(path.stat().st_size > 100 for path in written), "what is there is whole"


def test_closing_stops_what_is_written(user, tmp_path):
    user.window.papers.exports.write_sheets(tmp_path / "out")
    user.window.close()
    assert not user.window.papers.exports.work.running


def test_one_thing_at_a_time(user, tmp_path):
    user.window.papers.exports.write_sheets(tmp_path / "out")
    user.window.papers.exports.write_solids(tmp_path / "a.glb")
    assert "One thing at a time" in user.window.banner.words.text()
    user.press("Dismiss")
    user.wait_for_files()
    assert "32 files written" in user.window.banner.words.text() and not (tmp_path / "a.glb").exists()


def test_printing_is_stopped_between_two_pages(cabinetmaker, tmp_path):
    from PySide6.QtPrintSupport import QPrinter

    user = cabinetmaker
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    user.window.papers.exports.print_all(printer)
    user.bot.waitUntil(lambda: "Printing page" in user.window.banner.words.text(), timeout=60_000)
    user.press("Stop")
    assert "Stopped after page" in user.window.banner.words.text()


def test_a_process_that_dies_is_an_error_and_not_a_silence(user, tmp_path):
    user.window.papers.exports.write_sheets(tmp_path / "out")
    os.kill(user.window.papers.exports.work._aside._process.pid, signal.SIGKILL)
    user.wait_for_files()
    assert "ended without a word" in user.window.banner.words.text()


# --- names ----------------------------------------------------------------------------------------


def test_no_tool_tip_takes_a_name_for_markup(user):
    own = OwnBoard("", "<b>x</b>", *((read_length("300 mm"),) * 3,) * 2)
    project = actions.add_own(actions.rename(seed_box(), "<i>y</i>"), own)
    boards = tuple(replace(board, name="<u>z</u>") for board in project.boards)
    user.window.document.replace_project(replace(project, boards=boards), None)
    user.window.document.do("<b>action</b>", lambda p: actions.rename(p, "<s>y</s>"))
    for station in range(7):
        user.window.show_station(station)
        for widget in user.window.findChildren(QWidget):
            tip = widget.toolTip()
            assert not GuiQt.mightBeRichText(tip) or not any(f"<{sign}>" in tip for sign in "biuzs"), tip


def test_what_cannot_be_printed_is_a_sign_as_soon_as_it_is_typed(user):
    """So that what is on the desk is what comes back from the file."""
    odd = "a\u202eb\x1bc\ud800"
    act = user.window.document.do
    board = replace(user.project.boards[0], name=odd, colour=odd, source=odd)
    own = OwnBoard("", odd, *((read_length("300 mm"),) * 3,) * 2)
    assert act("1", lambda p: actions.rename(p, odd)) == act("2", lambda p: actions.change_board(p, board)) == ""
    assert act("3", lambda p: actions.add_own(p, own)) == ""
    assert act("4", lambda p: doing.note(p, datetime(2026, 11, 27), f"{odd}\nline")) == ""
    project = user.project
    assert project.piece.name == project.boards[0].colour == project.piece.own[0].name == "ab␛c�"
    assert project.book[-1].text == "ab␛c�\nline"
    assert project_text(parse_project(project_text(project), "again")) == project_text(project)


def test_desks_that_are_killed_leave_their_work_whole(tmp_path):
    """Two, without a stop watch; `script/torture` kills a hundred and holds a second and a half."""
    from tests.torture.kills import kills_of_desks

    begun = time.monotonic()
    report = kills_of_desks(2, tmp_path, seed=int(begun), at_once=1, may_lose=20.0)
    assert report.tried == 2 and not report.failures
