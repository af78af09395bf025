"""Nothing that people make is lost or renamed: the name of the piece, kept work, names of any kind."""

import os
import signal
import subprocess
import sys
import time
from dataclasses import replace
from datetime import datetime
from pathlib import Path
from threading import Event
from types import SimpleNamespace

import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import Qt as GuiQt
from PySide6.QtWidgets import QApplication, QFileDialog, QWidget
from tests.desk.conftest import as_read, full_disk

from nullah.core import actions
from nullah.core.forms.own_boards import OwnBoard
from nullah.core.lengths import read_length
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.work import recording
from nullah.demo.seed_box import seed_box
from nullah.desk.document import AUTOSAVE_AFTER, Document
from nullah.desk.shutdown import ShutdownWatch
from nullah.files.project_file import parse_project, project_text, read_project, write_project
from nullah.files.recovery import Autosave
from nullah.files.versions import versions_of

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
    user.begin("Box")
    assert user.project.piece.name == "New piece" and user.window.header.name.text() == "New piece"
    assert "Twine box was not saved" in as_read(user.window.banner.words)
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
    user.go("joints")
    pin = user.window.desk(4).fields["pin"]
    pin.line.setFocus()
    pin.line.selectAll()
    user.bot.keyClicks(pin.line, "9")
    user.window.papers.open_sample()
    user.go("joints")
    assert pin.line.text() not in ("9", "")


# --- kept work ------------------------------------------------------------------------------------


@pytest.mark.dear
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


def test_work_that_was_left_is_kept_once_and_what_is_done_after_that_as_well(user, tmp_path):
    user.type_figure("contents.length", "201")
    assert user.window.close()
    # As the program does at its very end.
    assert user.window.keep()
    (left,) = Autosave(tmp_path / "unsaved").kept()
    assert work_out(left.read()).ledger.length("contents.length").text == "201 mm"
    assert [left.folder] == list((tmp_path / "unsaved").iterdir()), "nor one that this desk still holds"
    user.window.document.do("name", lambda p: actions.rename(p, "at the very end"))
    assert user.window.keep()
    user.window.document.close()
    assert sorted(each.read().piece.name for each in Autosave(tmp_path / "unsaved").kept()) == [
        "Seed box",
        "at the very end",
    ]


def test_the_window_answers_while_the_disk_takes_its_time(user, tmp_path, monkeypatch):
    begun, go_on, write = Event(), Event(), os.fsync

    def slowly(file):
        begun.set()
        go_on.wait(20)
        write(file)

    monkeypatch.setattr("os.fsync", slowly)
    user.type_figure("contents.length", "201")
    user.bot.waitUntil(begun.is_set)
    user.type_figure("contents.length", "202")
    assert user.length == "202 mm" and not go_on.is_set()
    go_on.set()
    user.window.close()
    (lost,) = Autosave(tmp_path / "unsaved").kept()
    assert work_out(lost.read()).ledger.length("contents.length").text == "202 mm"


def test_that_work_could_not_be_kept_is_not_said_once_it_is_kept_after_all(tmp_path, qtbot, monkeypatch):
    """The sentence of who kept it beside the window comes later than that of who waited for it to be kept."""
    document, said = Document(seed_box(), Autosave(tmp_path)), []
    document.warned.connect(said.append)
    document.do("name", lambda p: actions.rename(p, "Twine box"))
    go_on = Event()
    with monkeypatch.context() as disk, qtbot.waitSignal(document._kept) as told:
        full_disk(disk)
        refuse = os.fsync
        disk.setattr("os.fsync", lambda file: go_on.wait(20) and refuse(file))
        document._keep_beside()
        # Only now: of what is done already whoever began it would be told at once.
        go_on.set()
        document._keeping.result()
        disk.undo()
        assert document.keep(), "the disk has room again"
    assert told.args[0].result() and not said and document.keep()
    document.close()


def test_it_is_said_each_time_that_work_can_be_kept_no_longer(tmp_path, qtbot, monkeypatch):
    document, said = Document(seed_box(), Autosave(tmp_path)), []
    document.warned.connect(said.append)

    def change(name, holds):
        with monkeypatch.context() as disk:
            if not holds:
                full_disk(disk)
            document.do("name", lambda p: actions.rename(p, name))
            with qtbot.waitSignal(document._kept):
                pass
        return len(said)

    assert [change(*each) for each in (("a", False), ("b", False), ("c", True), ("d", False), ("e", True))] == [
        1, 1, 1, 2, 2,
    ]  # fmt: skip
    assert all("cannot be kept" in each for each in said)
    document.close()


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
from PySide6.QtCore import QTimer
from PySide6.QtTest import QTest
from nullah.desk import start
def work():
    window = next((w for w in start.application().topLevelWidgets() if hasattr(w, "document")), None)
    if window is None or not window.isVisible():
        # Nobody types into a window that is not there yet, however slow the machine is.
        QTimer.singleShot(20, work)
        return
    window.header.name.setFocus()
    window.header.name.selectAll()
    QTest.keyClicks(window.header.name, "just now")
    print("worked", flush=True)
start.application()
QTimer.singleShot(20, work)
sys.exit(start.open_desk(None))
"""


@pytest.mark.dear
@pytest.mark.sampled(3)
@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGINT, signal.SIGHUP])
def test_a_desk_that_is_asked_to_end_keeps_its_work_first_and_the_name_being_typed(tmp_path, how):
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


@pytest.mark.parametrize("failures", [1, 2])
def test_a_desk_that_is_asked_to_end_ends_though_keeping_fails_in_a_way_that_nobody_foresaw(
    qtbot, qapp, failures, capfd
):
    calls, ends = [], []

    def keep():
        calls.append(1)
        if len(calls) <= failures:
            raise ImportError("half loaded")
        return True

    watch = ShutdownWatch(keep)
    watch._app = SimpleNamespace(exit=ends.append, aboutToQuit=qapp.aboutToQuit)
    try:
        os.kill(os.getpid(), signal.SIGTERM)
        qtbot.waitUntil(lambda: bool(ends))
    finally:
        watch.end()
    assert ends == [128 + signal.SIGTERM] and len(calls) == 2
    assert ("could not be kept" in capfd.readouterr().err) is (failures == 2)


def test_all_kept_work_is_offered_newest_first_with_name_time_and_file(user, tmp_path, open_window):
    root = tmp_path / "unsaved"
    for number, name in enumerate(("oldest", "middle", "newest")):
        desk = Autosave(root)
        aside = desk.set_aside(actions.rename(seed_box(), name), tmp_path / f"{name}.nullah")
        os.utime(aside.folder / "work.nullah", (1_780_000_000 + number * 3600,) * 2)
    user.window.papers.offer_kept()
    said = as_read(user.window.banner.words)
    assert "newest, of newest.nullah" in said and "2 more pieces are kept" in said
    user.press("See all …")
    shown = user.dialog()
    titles = [shown.list.item(row).text() for row in range(shown.list.count())]
    assert [title.partition(" ·")[0] for title in titles] == ["newest", "middle", "oldest"]
    assert str(tmp_path / "newest.nullah") in as_read(shown.said) and shown.picture.pixmap().width() > 300
    shown.list.setCurrentRow(1)
    user.bot.mouseClick(shown.taken, Qt.MouseButton.LeftButton)
    assert user.project.piece.name == "middle" and user.window.document.unsaved
    assert user.window.document.file == tmp_path / "middle.nullah"
    assert sorted(each.read().piece.name for each in Autosave(root).kept()) == ["newest", "oldest"]


def test_kept_work_is_deleted_only_when_the_list_is_closed(user, tmp_path):
    for name in ("one", "two"):
        Autosave(tmp_path / "unsaved").set_aside(actions.rename(seed_box(), name), None)
    user.window.papers.show_kept()
    shown = user.dialog()
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
    assert "cannot be read any more" in as_read(user.window.banner.words)
    user.press("Look at it …")
    shown = user.dialog()
    assert not shown.taken.isEnabled() and as_read(shown.said).startswith("work.nullah ")
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
    assert "The file was changed after that." in as_read(again.banner.words)
    again.banner.button("Open it").click()
    assert "was changed by another program or window" in as_read(again.banner.words)
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
        assert "Closing now loses it" in as_read(user.window.banner.words)
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


# --- names ----------------------------------------------------------------------------------------


@pytest.mark.dear
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
    assert act("4", lambda p: recording.note(p, datetime(2026, 11, 27), f"{odd}\nline")) == ""
    project = user.project
    assert project.piece.name == project.boards[0].colour == project.piece.own[0].name == "ab␛c�"
    assert project.book[-1].text == "ab␛c�\nline"
    assert project_text(parse_project(project_text(project), "again")) == project_text(project)


@pytest.mark.dear
def test_desks_that_are_killed_leave_their_work_whole(tmp_path):
    """Two, without a stop watch; `script/torture` kills a hundred and holds a second and a half."""
    from tests.torture.kills import kills_of_desks

    begun = time.monotonic()
    report = kills_of_desks(2, tmp_path, seed=int(begun), at_once=1, may_lose=20.0)
    assert report.tried == 2 and not report.failures


@pytest.mark.parametrize("how", ["save", "close", "keep"])
def test_the_name_being_typed_for_a_board_is_saved_and_kept_with_the_rest(cabinetmaker, tmp_path, how):
    window = cabinetmaker.window
    cabinetmaker.go("rack")
    window.document.select(window.document.selection._replace(board="3"))
    line = window.desk(1).name
    line.setFocus()
    line.selectAll()
    cabinetmaker.bot.keyClicks(line, "Kiln 4")
    if how == "save":
        assert window.papers.save_path(tmp_path / "cabinet.nullah")
        found = read_project(tmp_path / "cabinet.nullah")
    else:
        if how == "keep":
            window.keep()
            window.document.close()  # lets go of what it keeps; it takes nothing more from the fields
        else:
            window.close()
        (kept,) = Autosave(tmp_path / "unsaved").kept()
        found = kept.read()
    assert "Kiln 4" in [board.name for board in found.boards]
