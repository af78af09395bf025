"""Earlier versions of a file, and others at the same file."""

import os

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QApplication
from tests.desk.conftest import as_read, full_disk

from nullah.core import actions
from nullah.core.lengths import Unit
from nullah.core.project import Project
from nullah.demo.seed_box import seed_box
from nullah.desk.papers import beside
from nullah.files.project_file import project_text, read_project
from nullah.files.versions import versions_of

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
    shown = saved.dialog()
    assert shown.list.count() == 3 and "length of the contents 320 mm → 330 mm" in as_read(shown.said)
    shown.list.setCurrentRow(2)
    assert "length of the contents 300 mm → 330 mm" in as_read(shown.said) and not shown.picture.pixmap().isNull()
    saved.bot.mouseClick(shown.taken, Qt.MouseButton.LeftButton)
    assert saved.length == "300 mm" and saved.window.document.unsaved
    saved.press("Undo")
    assert saved.length == "330 mm" and not saved.window.document.unsaved


def test_a_damaged_file_offers_its_earlier_versions(saved, tmp_path):
    (tmp_path / "a.nullah").write_text('{"format": "nullah project", "vers')
    saved.window.papers.new("box", Unit.MM)
    assert not saved.window.open_path(tmp_path / "a.nullah")
    assert "Look at its earlier versions" in as_read(saved.window.banner.words)
    saved.press("Earlier versions …")
    saved.bot.mouseClick(saved.dialog().taken, Qt.MouseButton.LeftButton)
    assert saved.length == "320 mm" and saved.window.document.file == tmp_path / "a.nullah"


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
    assert "has not been saved yet" in as_read(user.window.banner.words)
    user.window.papers.save_path(tmp_path / "a.nullah")
    user.window.papers.show_versions()
    assert "has no earlier versions" in as_read(user.window.banner.words)


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


@pytest.mark.dear
@pytest.mark.parametrize("replaced", [False, True])
def test_a_file_that_another_program_writes_is_noticed_at_once(saved, tmp_path, replaced):
    path = tmp_path / "a.nullah"
    if replaced:
        write_elsewhere(tmp_path / "other", "theirs")
        (tmp_path / "other").replace(path)
    else:
        write_elsewhere(path, "theirs")
    saved.bot.waitUntil(saved.window.banner.isVisible)
    assert "a.nullah was changed by another program or window" in as_read(saved.window.banner.words)


def test_before_saving_it_is_noticed_even_if_nothing_told_of_it(saved, tmp_path):
    path = tmp_path / "a.nullah"
    saved.window.document._watch.blockSignals(True)
    saved.type_figure("contents.length", "340")
    write_elsewhere(path, "theirs")
    saved.ctrl(Qt.Key.Key_S)
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
    assert saved.length == "340 mm"


def test_two_windows_on_one_file_notice_each_other(saved, tmp_path, open_window):
    other = open_window(Project())
    assert other.open_path(tmp_path / "a.nullah")
    saved.type_figure("contents.length", "340")
    saved.window.papers.save()
    other.document.look_at_file()
    assert "was changed by another" in as_read(other.banner.words)
    assert not saved.window.banner.isVisible(), "who saved it knows"


def test_who_has_closed_a_piece_hears_no_more_of_its_file(saved, tmp_path):
    told = []
    saved.window.document.changed_elsewhere.connect(lambda: told.append(1))
    saved.window.close()
    write_elsewhere(tmp_path / "a.nullah", "theirs")
    saved.bot.wait(200)
    assert not told and not saved.window.document._watch.files()


def test_a_file_that_is_touched_or_gone_asks_nothing(saved, tmp_path):
    path = tmp_path / "a.nullah"
    os.utime(path, (1, 1))
    saved.window.document.look_at_file()
    path.unlink()
    saved.window.document.look_at_file()
    assert not saved.window.banner.isVisible()
    saved.type_figure("contents.length", "340")
    saved.ctrl(Qt.Key.Key_S)
    assert path.exists()


def test_a_name_beside_is_free(tmp_path):
    for wanted in ("a (mine).nullah", "a (mine 2).nullah", "a (mine 3).nullah"):
        assert beside(tmp_path / "a.nullah").name == wanted
        (tmp_path / wanted).write_text("")
