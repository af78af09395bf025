import json
from dataclasses import replace
from fractions import Fraction
from pathlib import Path

import jsonschema
import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.examples import tried
from tests.same import untyped

from nullah.core import actions
from nullah.core.breakdown.layout import FirstCut
from nullah.core.forms.own_boards import LIES, OwnBoard, OwnJoint
from nullah.core.joints.dovetail.spacing import graded
from nullah.core.joints.types import TYPES
from nullah.core.ledger import Measured
from nullah.core.lengths import Marks, Unit, mm, read_length
from nullah.core.limits import shown
from nullah.core.piece.joint import Hold
from nullah.core.piece.shaping import Arch, Chamfer, Notch
from nullah.core.piece.space import Axis, Side
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, Rise
from nullah.core.rack.shape_readings import Calliper, Gap, Wind, figure_of
from nullah.core.shop import USUAL_PLANES
from nullah.demo.seed_box import seed_box
from nullah.files.errors import ProjectFileError
from nullah.files.project_file import parse_project, project_text, read_project, write_project
from nullah.files.schema import VERSION

SCHEMA = json.loads((Path(__file__).parents[2] / "docs" / "project.schema.json").read_text())


def test_a_project_comes_back_as_it_was_and_keeps_the_published_schema(tmp_path):
    project = actions.measure(seed_box(), "opening.length", read_length("355 1/4 mm"))
    project = actions.cut_first(project, "2", True)
    write_project(project, tmp_path / "a.nullah")
    assert untyped(read_project(tmp_path / "a.nullah")) == untyped(project)
    jsonschema.validate(json.loads((tmp_path / "a.nullah").read_text()), SCHEMA)


def test_lengths_stand_in_the_file_as_typed():
    project = actions.give(Project(), "tails.pin", read_length("1/4", Unit.INCH))
    data = json.loads(project_text(project))
    assert data["piece"]["given"] == {"tails.pin": "1/4 in"}
    assert parse_project(project_text(project), "x").piece.given[0][1].text == "1/4 in"


lengths = st.builds(
    lambda whole, part, unit: read_length(f"{whole} {part}/64 {unit}"),
    st.integers(1, 90),
    st.integers(1, 63),
    st.sampled_from(["in", "mm"]),
)
names = st.text(st.characters(codec="utf-8", exclude_categories=("Cs",)), max_size=20)


@given(names, lengths, lengths, lengths, st.sampled_from(FlawKind))
def test_any_project_comes_back(name, length, width, thickness, kind):
    flaw = Flaw(kind, length / 4, length / 2, width / 4, width / 2)
    board = Board("1", name, "pine", length, width, thickness, flaws=(flaw,))
    project = Project(piece=Piece(name=name, given=(("sides.thickness", thickness),)), boards=(board,))
    again = parse_project(project_text(project), "x")
    expected = replace(
        project, piece=replace(project.piece, name=shown(name)), boards=(replace(board, name=shown(name)),)
    )
    assert untyped(again) == untyped(expected), "what cannot be printed is shown as a sign"
    assert again.boards[0].length.as_text() == length.as_text()


def broken(**changes):
    data = json.loads(project_text(seed_box()))
    data.update(changes)
    return json.dumps(data)


def piece(**changes):
    return {**json.loads(project_text(seed_box()))["piece"], **changes}


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "is empty"),
        (project_text(seed_box())[:400], "is cut short"),
        (project_text(seed_box()).replace('"boards"', '"boards" "'), "damaged at line"),
        ("hello", "not JSON"),
        ("[1, 2]", "not a Nullah project"),
        ('{"format": "something"}', "not a Nullah project"),
        (broken(version=VERSION + 1), "newer Nullah"),
        (broken(version="one"), "which version"),
        (broken(glue="hide"), "“glue”, which this version does not know"),
        (broken(piece=piece(form="ark")), "“ark” is no form"),
        (broken(piece=piece(given={"sides.thickness": "thick"})), "sides.thickness: “thick” is not a length"),
        (broken(allowances={"end": "an inch"}), "allowances → end: “an inch” is not a length"),
        (broken(boards=[{"id": "1"}]), "missing"),
        (broken(marks={"unit": "cubits"}), "marks"),
        (broken(marks={"unit": "mm", "mm_mark": "0"}), "not a number from 1/1000 to 10"),
    ],
)
def test_files_that_cannot_be_read_say_why(text, words):
    with pytest.raises(ProjectFileError) as refusal:
        parse_project(text, "my.nullah")
    assert words in str(refusal.value)
    assert str(refusal.value).startswith("my.nullah") and str(refusal.value).endswith(".")


def test_a_board_that_cannot_be_is_refused_on_reading():
    data = json.loads(project_text(seed_box()))
    data["boards"][0]["length"] = "-5 mm"
    with pytest.raises(ProjectFileError, match="Ford 1"):
        parse_project(json.dumps(data), "x")


def test_missing_unreadable_and_binary_files(tmp_path):
    with pytest.raises(ProjectFileError, match="There is no file"):
        read_project(tmp_path / "none.nullah")
    with pytest.raises(ProjectFileError, match="cannot be read"):
        read_project(tmp_path)
    (tmp_path / "b.nullah").write_bytes(b"\xff\xfe\x00\x81")
    with pytest.raises(ProjectFileError, match="not text"):
        read_project(tmp_path / "b.nullah")


def test_the_last_three_versions_are_kept(tmp_path):
    path = tmp_path / "a.nullah"
    for number in range(5):
        write_project(actions.rename(seed_box(), f"box {number}"), path)
    assert read_project(path).piece.name == "box 4"
    kept = [read_project(tmp_path / f".a.nullah.{n}").piece.name for n in (1, 2, 3)]
    assert kept == ["box 3", "box 2", "box 1"]
    assert len(list(tmp_path.iterdir())) == 4


def test_a_disk_that_refuses_leaves_the_old_file_whole(tmp_path, monkeypatch):
    path = tmp_path / "a.nullah"
    write_project(seed_box(), path)
    before = path.read_text()

    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)
    with pytest.raises(ProjectFileError, match=r"the disk is full.*Your work is safe"):
        write_project(replace(seed_box(), cut_first=frozenset("2")), path)
    assert path.read_text() == before
    assert not list(tmp_path.glob("*.part"))
    with pytest.raises(ProjectFileError, match="could not be saved"):
        write_project(seed_box(), tmp_path / "no" / "folder" / "a.nullah")


# --- older files, and boards of one's own ---------------------------------------------------------


def test_a_file_of_the_first_version_is_read_and_saved_as_today():
    old = Path(__file__).with_name("version-1.nullah")
    project = read_project(old)
    assert json.loads(old.read_text())["version"] == 1
    assert dict(project.piece.measured)["opening.length"].value == read_length("355 1/4 mm")
    assert dict(project.piece.given)["bottom.clearance"].text == "1/32 in"
    assert project.piece.own == () and project.cut_first == {"2"}
    again = parse_project(project_text(project), "x")
    assert untyped(again) == untyped(project) and json.loads(project_text(project))["version"] == VERSION
    plan = work_out(project)
    assert [part.id for part in plan.parts] == ["front", "back", "left", "right", "bottom"]
    assert plan.failing == 0


def test_a_file_of_the_second_version_is_read_and_saved_as_today():
    old = Path(__file__).with_name("version-2.nullah")
    data = json.loads(old.read_text())
    project = read_project(old)
    assert data["version"] == 2 and "heart_mm" not in data["boards"][0]
    # The sample piece as it was: eight boards, all laid, nothing asked of the wood and nothing known of its water.
    assert len(project.boards) == 8 and len(project.layout) == 30
    assert project.asks == project.staves == project.resawn == () and project.room.target is None
    assert all(board.readings == () and board.straight and not board.sawn for board in project.boards)
    assert all(flaw.faces is Faces.THROUGH for board in project.boards for flaw in board.flaws)
    again = parse_project(project_text(project), "x")
    assert untyped(again) == untyped(project) and json.loads(project_text(project))["version"] == VERSION
    plan = work_out(project)
    assert plan.failing == 0 and not plan.unplaced and not any(board.wrong for board in plan.boards)


def test_a_file_of_the_third_version_is_read_and_saved_as_today():
    old = Path(__file__).with_name("version-3.nullah")
    data = json.loads(old.read_text())
    project = read_project(old)
    assert data["version"] == 3 and "shape" not in data["boards"][0]
    # Nothing was known then of shapes read at stations, of grain, of planes, or of cuts before flattening.
    assert all(board.shape == () and board.rises is Rise.UNKNOWN for board in project.boards)
    assert untyped(project.shop.planes) == USUAL_PLANES and project.first_cuts == () and project.lows_left.mm == 0
    again = parse_project(project_text(project), "x")
    assert untyped(again) == untyped(project) and json.loads(project_text(project))["version"] == VERSION
    assert work_out(project).milling


def test_a_file_of_the_fourth_version_is_read_and_saved_as_today():
    old = Path(__file__).with_name("version-4.nullah")
    project = read_project(old)
    assert json.loads(old.read_text())["version"] == 4
    assert project.shop.schools.dovetail == "pins first" and project.shop.hands.marking == 0.3
    # All tails were equal then.
    assert project.piece.spacings == ()
    again = parse_project(project_text(project), "x")
    assert untyped(again) == untyped(project) and json.loads(project_text(project))["version"] == VERSION


def test_a_file_of_the_fifth_version_is_set_out_in_the_unit_it_was_shown_in():
    old = Path(__file__).with_name("version-5.nullah")
    project = read_project(old)
    assert json.loads(old.read_text())["version"] == 5
    assert project.set_out is None and project.set_out_mark.mm == Fraction(254, 160)
    shown = actions.show_in(project, Marks())
    again = parse_project(project_text(shown), "x")
    assert again.set_out_mark.mm == project.set_out_mark.mm and again.marks == shown.marks
    assert work_out(again).ledger.quantities.keys() == work_out(project).ledger.quantities.keys()
    for name, quantity in work_out(project).ledger.quantities.items():
        assert work_out(again).ledger[name] == quantity.value, name


@pytest.mark.parametrize("mark", ["0.009 mm", "11 mm", "0 mm"])
def test_a_piece_is_set_out_to_a_mark_that_a_rule_has(mark):
    with pytest.raises(ProjectFileError, match="no mark on a rule"):
        parse_project(broken(set_out=mark), "x")
    assert parse_project(broken(set_out="0.01 mm"), "x").set_out_mark.mm == Fraction(1, 100)
    assert parse_project(broken(set_out="10 mm"), "x").set_out_mark.mm == 10


def test_how_tails_are_spaced_is_kept():
    project = actions.space_tails(seed_box(), "tails", graded("wider in the middle", 3))
    assert untyped(parse_project(project_text(project), "x")) == untyped(project)


def test_what_milling_knows_is_kept():
    project = seed_box()
    readings = (
        Gap(True, (0.0, 75.0), (980.0, 75.0), (490.0, 75.0), read_length("-1.2 mm")),
        Wind(False, 0.0, 980.0, mm(300), read_length("1/16 in")),
        Calliper((0.0, 150.0), read_length("22.4 mm")),
    )
    for reading in readings:
        project = actions.take_shape(project, "2", reading)
    project = actions.cut_at(project, "2", FirstCut("2", True, 655.0))
    project = actions.leave_lows(project, read_length("0.5 mm"))
    jack = USUAL_PLANES[1]._replace(shaving=read_length("0.3 mm"))
    project = replace(project, shop=replace(project.shop, planes=(jack,)))
    project = actions.change_board(project, replace(project.board("2"), rises=Rise.LEFT))
    again = parse_project(project_text(project), "x")
    assert untyped(again) == untyped(project)
    # As it was typed, too.
    assert [figure_of(each).text for each in again.board("2").shape] == ["-1.2 mm", "1/16 in", "22.4 mm"]
    assert again.lows_left.text == "0.5 mm" and again.shop.planes[0].shaving.text == "0.3 mm"


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda data: data["boards"][0].update(shape=[{"kind": "gap"}]), "shape"),
        (lambda data: data["boards"][0].update(rises="up"), "rises"),
        (lambda data: data.update(first_cuts=[{"board": "77", "kind": "cross", "at_mm": "x"}]), "first_cuts"),
        (lambda data: data["shop"].update(planes=[{"kind": "spokeshave"}]), "planes"),
    ],
)
def test_what_milling_does_not_know_is_refused(change, words):
    data = json.loads(project_text(seed_box()))
    change(data)
    with pytest.raises(ProjectFileError, match=words):
        parse_project(json.dumps(data), "x")


@pytest.mark.parametrize("version", [0, -1, True, "1", None, 1.5])
def test_a_version_that_is_none_is_refused(version):
    with pytest.raises(ProjectFileError):
        parse_project(broken(version=version), "x")


def test_a_measurement_keeps_its_day_and_its_tool(tmp_path):
    reading = Measured(read_length("16.3 mm"), "2026-11-23", "with the calliper")
    project = actions.measure(seed_box(), "sides.thickness", reading)
    write_project(project, tmp_path / "a.nullah")
    assert dict(read_project(tmp_path / "a.nullah").piece.measured)["sides.thickness"] == reading


small = st.builds(lambda n: read_length(f"{n}/8 in"), st.integers(1, 400))
sides = st.sampled_from(list(Side))
own_boards = st.builds(
    lambda number, name, sizes, at, lie, shows, inside, shapings: OwnBoard(
        f"own{number}", name, sizes, at, lie, shows, inside, tuple(shapings)
    ),
    st.integers(1, 99),
    names,
    st.tuples(small, small, small),
    st.tuples(small, small, small),
    st.sampled_from(LIES),
    st.sampled_from(["", "f", "lrfbut"]),
    st.booleans(),
    st.lists(
        st.one_of(
            st.builds(Chamfer, st.just((Side.TOP, Side.LEFT)), st.floats(0.5, 9)),
            st.builds(Arch, sides, st.sampled_from(list(Axis)), st.floats(10, 90), st.floats(1, 9)),
            st.builds(Notch, st.just((0.0, 1.0, 2.0)), st.just((3.0, 4.0, 5.5))),
        ),
        max_size=3,
    ),
)


@pytest.mark.dear
@tried(25)
@given(st.lists(own_boards, max_size=4, unique_by=lambda board: board.id), st.data())
def test_any_boards_of_ones_own_come_back_with_their_joints_and_contours(boards, data):
    ids = [board.id for board in boards] or ["front"]
    joints = tuple(
        OwnJoint(
            f"ownjoint{number}",
            data.draw(st.sampled_from(list(TYPES))),
            data.draw(st.sampled_from(ids)),
            "left",
            data.draw(st.sampled_from(Hold)).value,
        )
        for number in range(1, data.draw(st.integers(1, 3)) + 1)
    )
    piece_ = Piece("own", own=tuple(boards), own_joints=joints, woods=(("shown", "teak"),), holds=(("a-b", "nailed"),))
    again = parse_project(project_text(Project(piece_)), "x")
    seen = replace(piece_, own=tuple(board._replace(name=shown(board.name)) for board in boards))
    assert untyped(again.piece) == untyped(seen)
    jsonschema.validate(json.loads(project_text(Project(piece_))), SCHEMA)


OWN = {"id": "own1", "name": "a", "length": "100 mm", "width": "50 mm", "thickness": "10 mm",
       "at": ["0 mm", "0 mm", "0 mm"], "lie": "xz"}  # fmt: skip


@pytest.mark.parametrize(
    ("change", "words"),
    [
        ({"own": [{**OWN, "lie": "xx"}]}, "lie"), ({"own": [{**OWN, "id": "board"}]}, "id"),
        ({"own": [{**OWN, "length": "long"}]}, "length"), ({"own": [{**OWN, "at": ["0 mm"]}]}, "at"),
        ({"own": [OWN, OWN]}, "same id"), ({"own": [{**OWN, "shows": "x"}]}, "shows"),
        ({"own": [{**OWN, "shapings": [{"kind": "dent"}]}]}, "kind"),
        ({"own": [{**OWN, "shapings": [{"kind": "arch", "sides": ["front"], "axis": "z", "figures": [1]}]}]}, "arch"),
        ({"own_joints": [{"id": "ownjoint1", "sharing": "glue", "first": "a", "second": "b"}]}, "sharing"),
        ({"holds": {"a-b": "stuck"}}, "a-b"), ({"woods": {"outside": "teak"}}, "woods"),
        ({"measured": {"opening.length": {"value": "much"}}}, "much"), ({"form": "boat"}, "boat"),
    ],
)  # fmt: skip
def test_boards_of_ones_own_that_make_no_sense_are_refused_with_the_place(change, words):
    with pytest.raises(ProjectFileError, match=words) as refusal:
        parse_project(broken(piece=piece(**change)), "x")
    assert str(refusal.value).startswith("x cannot be opened.") and str(refusal.value).endswith(".")
