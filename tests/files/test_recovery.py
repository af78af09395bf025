import os
import subprocess
import sys

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
    (lost,) = Autosave(tmp_path).lost()
    assert lost.read().piece.name == "lost box"
    assert str(lost.file) == "/somewhere/box.nullah"
    lost.drop()
    assert Autosave(tmp_path).lost() == []


def test_work_of_a_running_desk_is_left_alone(tmp_path):
    Autosave(tmp_path).keep(seed_box(), None)
    assert Autosave(tmp_path).lost() == [], "this very process"
    (tmp_path / f"desk-{os.getpid()}").rename(tmp_path / f"desk-{os.getppid()}")
    assert Autosave(tmp_path).lost() == [], "another that runs"


def test_saved_work_is_forgotten_and_work_set_aside_is_not(tmp_path):
    autosave = Autosave(tmp_path)
    autosave.keep(seed_box(), None)
    autosave.done()
    assert not list(tmp_path.iterdir())
    for name in ("one", "two"):
        assert autosave.set_aside(actions.rename(seed_box(), name), None)
    assert sorted(lost.read().piece.name for lost in autosave.lost()) == ["one", "two"]


def test_damaged_leftovers_do_no_harm(tmp_path):
    (tmp_path / "desk-99999999").mkdir()
    assert Autosave(tmp_path).lost() == []
    (tmp_path / "desk-99999999" / "work.nullah").write_text("{")
    (tmp_path / "desk-99999999" / "where.json").write_text("7")
    (lost,) = Autosave(tmp_path).lost()
    assert lost.file is None
