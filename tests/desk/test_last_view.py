"""The window as it was last seen stands there while the window itself is made."""

import os
import subprocess
import sys

import pytest
from PySide6.QtCore import QByteArray
from PySide6.QtWidgets import QLabel, QWidget

from nullah.desk.last_view import MOST_KEPT, keep_view, last_view, opened_name
from nullah.writing import write_file

NOWHERE = QByteArray()


@pytest.fixture
def label(qtbot):
    label = QLabel("a box")
    label.resize(300, 200)
    qtbot.addWidget(label)
    return label


def test_what_was_open_is_shown_as_it_looked_and_nothing_else_is(user, tmp_path, qtbot):
    user.go("season")
    keep_view(user.window, "box", tmp_path / "views", write_file, user.window.station)
    seen = last_view("box", tmp_path / "views", NOWHERE)
    qtbot.addWidget(seen)
    seen.show()
    assert seen.size() == user.window.size() and seen.windowTitle() == user.window.windowTitle()
    assert seen.station == user.window.station == 5
    assert seen.grab().toImage() == user.window.grab().toImage()
    assert last_view("chest", tmp_path / "views", NOWHERE) is None


@pytest.mark.parametrize("content", [b"", b"no picture", b"\x89PNG\r\n\x1a\n"])
def test_a_picture_that_is_damaged_is_as_if_it_were_not_there(label, tmp_path, content):
    keep_view(label, "box", tmp_path, write_file)
    (file,) = tmp_path.glob("*.png")
    file.write_bytes(content)
    assert last_view("box", tmp_path, NOWHERE) is None


def test_only_the_last_are_kept(label, tmp_path):
    for number in range(MOST_KEPT + 2):
        keep_view(label, str(number), tmp_path, write_file)
        os.utime(max(tmp_path.glob("*.png"), key=lambda file: file.stat().st_mtime_ns), (number, number))
    assert len(list(tmp_path.glob("*.png"))) == MOST_KEPT
    assert last_view("1", tmp_path, NOWHERE) is None and last_view("2", tmp_path, NOWHERE) is not None


def test_a_disk_that_refuses_keeps_nobody_from_leaving(label, tmp_path):
    def refuse(path, content):
        raise OSError(28, "No space left on device")

    keep_view(label, "box", tmp_path, refuse)
    assert not list(tmp_path.iterdir())


def test_whoever_closes_it_wants_no_window(label, tmp_path, qtbot):
    keep_view(label, "box", tmp_path, write_file)
    seen = last_view("box", tmp_path, NOWHERE)
    qtbot.addWidget(seen)
    assert not seen.closed_by_user
    seen.close()
    assert seen.closed_by_user


def test_a_file_the_sample_and_the_start_page_are_told_apart(tmp_path, monkeypatch):
    monkeypatch.chdir(tmp_path)
    named = [
        opened_name(tmp_path / "a.nullah", demo=False),
        opened_name(None, demo=True),
        opened_name(None, demo=False),
    ]
    assert len(set(named)) == 3
    assert named[0] == opened_name(type(tmp_path)("a.nullah"), demo=False)


_RUN = """
import sys
from PySide6.QtCore import QTimer
from PySide6.QtWidgets import QApplication, QMainWindow
import nullah.desk.last_view as last_view
loaded = [name for name in sys.modules if name.startswith(("nullah.core", "nullah.files", "nullah.paper", "numpy"))]
assert not loaded, loaded
show = last_view.show_last_view
def shown(*given):
    seen = show(*given)
    print("seen" if seen is not None and seen.isVisible() else "not seen")
    if seen is not None and sys.argv[2] == "leave":
        seen.close()
    return seen
last_view.show_last_view = shown
last_view.application()
def leave():
    for each in QApplication.topLevelWidgets():
        if isinstance(each, QMainWindow) and each.isVisible():
            print("at", each.station)
            each.show_station(5)
            each.close()
timer = QTimer()
timer.timeout.connect(leave)
timer.start(300)
import pathlib, nullah.cli.demo
status = nullah.cli.demo.open_desk(pathlib.Path(sys.argv[1]))
print([type(each).__name__ for each in QApplication.topLevelWidgets() if each.isVisible()], status)
"""


@pytest.mark.dear
def test_the_second_start_with_a_file_shows_the_first(user, tmp_path):
    file = tmp_path / "box.nullah"
    user.window.papers.save_path(file)
    env = os.environ | {"XDG_STATE_HOME": str(tmp_path / "s"), "XDG_CONFIG_HOME": str(tmp_path / "c")}

    def start(how):
        call = [sys.executable, "-c", _RUN, str(file), how]
        done = subprocess.run(call, env=env, capture_output=True, text=True, check=False, timeout=100)
        assert not done.returncode, done.stderr
        return done.stdout.split("\n")

    assert start("stay")[:3] == ["not seen", "at 0", "[] 0"]
    assert start("stay")[:3] == ["seen", "at 5", "[] 0"], "and it has gone when the window has"
    assert start("leave")[:2] == ["seen", "[] 0"]


def test_it_has_the_size_it_was_left_with(label, tmp_path, qtbot):
    keep_view(label, "box", tmp_path, write_file)
    frame = QWidget()
    qtbot.addWidget(frame)
    frame.resize(640, 480)
    seen = last_view("box", tmp_path, frame.saveGeometry())
    qtbot.addWidget(seen)
    assert (seen.width(), seen.height()) == (640, 480)
    other = last_view("box", tmp_path, NOWHERE)
    qtbot.addWidget(other)
    assert (other.width(), other.height()) == (300, 200)
