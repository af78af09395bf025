"""The documentation is run, so that it stays true."""

import doctest
import importlib
import re
import subprocess
import sys
from pathlib import Path

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint, offers
from nullah.core.joints.base import JointBase
from nullah.core.lengths import mm
from nullah.core.piece.solids import build
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.files.project_file import read_project, write_project

ROOT = Path(__file__).parent.parent
SOURCES = ROOT / "src"
#: The modules in whose docstrings an example stands.
WITH_EXAMPLES = sorted(
    ".".join(file.relative_to(SOURCES).with_suffix("").parts)
    for file in SOURCES.rglob("*.py")
    if ">>>" in file.read_text(encoding="utf-8")
)


@pytest.mark.parametrize("name", WITH_EXAMPLES)
def test_the_examples_in_docstrings_are_true(name):
    found = doctest.testmod(importlib.import_module(name))
    assert found.attempted and not found.failed


def test_the_form_in_the_documentation_is_whole_and_proves_clean(monkeypatch):
    page = (ROOT / "docs" / "forms.md").read_text(encoding="utf-8")
    (code,) = re.findall(r"```python\n(.*?)```", page, re.S)
    names: dict[str, object] = {}
    exec(compile(code, "docs/forms.md", "exec"), names)  # our own page, which is what is tested
    form = names["LEDGE"]
    monkeypatch.setitem(FORMS, "ledge", form)
    for sizing in ("outside", "inside", "contents"):
        for brackets in ("cut", "plain"):
            project = Project(Piece("ledge", choices=(("sizing", sizing), ("brackets", brackets))))
            plan = work_out(project, milling=False)
            assert len(plan.parts) == 3 and plan.proof.clean, [said(f, plan) for f in plan.findings]
    thick = work_out(actions.measure(actions.measure(plan.project, "dado.width", mm(20)), "brackets.thickness", mm(21)))
    assert any("1.0 mm too tight" in said(finding, thick) for finding in thick.findings)


def test_every_form_has_its_place_in_the_readme():
    readme = " ".join((ROOT / "README.md").read_text(encoding="utf-8").casefold().split())
    for form in FORMS.values():
        word = form.title.split(",")[0].split(" or ")[0].casefold().removeprefix("a ")
        assert word in readme, form.title


def corner(fingers, type_id="finger joint", lie="xz"):
    """Return two boards of one's own joined at a corner."""
    side = OwnBoard("own1", "side", (mm(400), mm(120), mm(18)), (mm(0), mm(0), mm(0)), "zx")
    top = OwnBoard("own2", "top", (mm(300), mm(120), mm(15)), (mm(0), mm(0), mm(385)), lie)
    project = Project(Piece("own", own=(side, top), own_joints=(OwnJoint("ownjoint1", type_id, "own1", "own2"),)))
    return project if fingers is None else actions.give(project, "ownjoint1_fingers.count", fingers)


@pytest.mark.dear
def test_the_worked_examples_are_what_the_program_tells_now():
    assert subprocess.run([sys.executable, "script/examples", "--check"], cwd=ROOT, check=False).returncode == 0


def test_the_type_of_joint_in_the_documentation_is_the_whole_of_it():
    page = (ROOT / "docs" / "joints.md").read_text(encoding="utf-8")
    (code,) = re.findall(r"```python\n(.*?)```", page, re.S)
    assert code == (ROOT / "src/nullah/core/joints/finger/__init__.py").read_text(encoding="utf-8")
    asked = {name for name in dir(JointBase) if not name.startswith("_")}
    assert asked == set(
        re.findall(r"`(\w+)`", "".join(line.split("|")[1] for line in page.splitlines() if line[:3] == "| `"))
    )


@pytest.mark.parametrize(("given", "made"), [(None, 7), (2, 3), (3, 3), (8, 9), (15, 15)])
def test_fingers_share_a_corner_out_whole_and_go_together(given, made):
    plan = work_out(corner(given), milling=False)
    assert plan.proof.clean, [said(finding, plan) for finding in plan.findings]
    (joint,) = plan.assembly.joints
    assert len(joint.shares) == made // 2 and {float(each.size(Axis.Y)) for each in joint.shares} == {120 / made}
    side, top = (build(plan.proof.recipes[part]) for part in ("own1", "own2"))
    boards = 400 * 120 * 18 + 300 * 120 * 15
    assert side.volume() + top.volume() == pytest.approx(boards - 120 * 18 * 15)
    assert (side ^ top).volume() == pytest.approx(0, abs=1e-6)
    # Apart along the grain of either; never across the fingers.
    assert joint.type.frees(joint, *plan.parts) == {Side.UNDER, Side.LEFT}
    told = next(each for each in STATIONS if each.id == "joints").card(plan, Selection())
    assert told.title == "Finger joint" and len(told.mark) == 6
    assert [each.figure for each in told.set[:3]] == ["15 mm", "18 mm", f"{round(120 / made, 1):g} mm"]


def test_fingers_are_offered_at_the_corner_of_a_box_only_and_a_turned_board_is_said():
    parts = work_out(corner(None), milling=False, proving=False).parts
    assert [offer.joint.type for offer in offers(*parts, 1)].count("finger joint") == 2
    turned = work_out(corner(None, lie="yz"), milling=False)
    assert any("cannot be finger-jointed as they lie" in said(finding, turned) for finding in turned.findings)
    crossing = work_out(corner(None, lie="yz"), milling=False, proving=False).parts
    assert "finger joint" not in [offer.joint.type for offer in offers(*crossing, 1)]


def test_a_finger_joint_comes_back_from_its_file(tmp_path):
    project = corner(9)
    write_project(project, tmp_path / "corner.nullah")
    assert read_project(tmp_path / "corner.nullah").piece.own_joints == project.piece.own_joints
