import os
import subprocess
import sys
import time
from threading import Event, Timer

import pytest

from nullah.core import actions
from nullah.demo.seed_box import seed_box
from nullah.files.recovery import Autosave

KEEP = """
import os, sys
from pathlib import Path
from nullah.core import actions
from nullah.demo.seed_box import seed_box
from nullah.files.recovery import Autosave
Autosave(Path(sys.argv[1])).keep(actions.rename(seed_box(), "lost box"), Path("/somewhere/box.nullah"))
os.kill(os.getpid(), 9)
"""


def test_work_of_a_killed_program_is_found_again(tmp_path):
    killed = subprocess.run([sys.executable, "-c", KEEP, str(tmp_path)], check=False)
    assert killed.returncode == -9
    (lost,) = Autosave(tmp_path).kept()
    assert lost.read().piece.name == "lost box"
    assert str(lost.file) == "/somewhere/box.nullah"
    lost.drop()
    assert Autosave(tmp_path).kept() == []


WAIT = KEEP.replace("os.kill(os.getpid(), 9)", "print('kept', flush=True); import time; time.sleep(60)").replace(
    "Autosave(Path(sys.argv[1])).keep", "desk = Autosave(Path(sys.argv[1])); desk.keep"
)


def test_work_of_a_running_desk_is_left_alone_until_it_is_gone(tmp_path):
    mine = Autosave(tmp_path)
    assert mine.keep(seed_box(), None) == ""
    assert mine.kept() == [] and Autosave(tmp_path).kept() == [], "this very desk"
    other = subprocess.Popen([sys.executable, "-c", WAIT, str(tmp_path)], stdout=subprocess.PIPE)
    try:
        assert other.stdout.readline() == b"kept\n"
        assert mine.kept() == [], "another that runs"
    finally:
        other.kill()
    # Killed, and nobody has asked how it ended: its number is still taken, its lock is not.
    deadline = time.monotonic() + 10
    while not mine.kept() and time.monotonic() < deadline:
        time.sleep(0.02)
    assert [lost.read().piece.name for lost in mine.kept()] == ["lost box"]
    other.wait()


def test_a_place_that_cannot_be_written_is_said(tmp_path):
    (tmp_path / "wall").write_text("")
    sentence = Autosave(tmp_path / "wall" / "unsaved").keep(seed_box(), None)
    assert "cannot be kept" in sentence and sentence.endswith("Save it to a file.")
    assert Autosave(tmp_path / "wall" / "unsaved").set_aside(seed_box(), None) is None


def test_saved_work_is_forgotten_and_work_set_aside_is_not(tmp_path):
    autosave = Autosave(tmp_path)
    autosave.keep(seed_box(), None)
    autosave.done()
    assert not list(tmp_path.iterdir())
    autosave.done()
    for name in ("one", "two"):
        assert autosave.set_aside(actions.rename(seed_box(), name), None)
    assert sorted(lost.read().piece.name for lost in autosave.kept()) == ["one", "two"]


@pytest.fixture
def held_up(monkeypatch):
    """Have the disk take its time until this is set."""
    go_on, write = Event(), os.fsync
    monkeypatch.setattr("os.fsync", lambda file: (go_on.wait(20), write(file)))
    yield go_on
    go_on.set()


def test_a_disk_that_takes_its_time_holds_nobody_up_and_the_last_work_stays(tmp_path, held_up):
    autosave = Autosave(tmp_path)
    first, second = (autosave.keep_beside(actions.rename(seed_box(), name), None) for name in ("first", "second"))
    assert not first.done() and not second.done()
    held_up.set()
    assert [second.result(20), first.result(0)] == ["", ""]
    autosave.leave()
    assert [lost.read().piece.name for lost in autosave.kept()] == ["second"]


def test_what_is_forgotten_while_it_is_being_kept_is_forgotten(tmp_path, held_up):
    autosave = Autosave(tmp_path)
    kept = autosave.keep_beside(seed_box(), None)
    Timer(0.2, held_up.set).start()
    autosave.done()
    assert kept.done() and not list(tmp_path.iterdir())


def test_damaged_leftovers_do_no_harm(tmp_path):
    (tmp_path / "desk-99999999").mkdir()
    assert Autosave(tmp_path).kept() == []
    (tmp_path / "desk-99999999" / "work.nullah").write_text("{")
    (tmp_path / "desk-99999999" / "where.json").write_text("7")
    (lost,) = Autosave(tmp_path).kept()
    assert lost.file is None
