"""The command line and its contracts, run as a script would run it."""

import json
import os
import stat
import subprocess
import sys
from fractions import Fraction
from importlib import metadata

import pytest

from nullah.cli import main
from nullah.core.forms import FORMS
from nullah.core.ledger import Snapping, work_out_ledger
from nullah.core.lengths import Unit
from nullah.demo.seed_box import seed_box
from nullah.files.project_file import read_project, write_project


def answer(capsys, *words):
    assert main([*words, "--json", "-"]) == 0
    return json.loads(capsys.readouterr().out)


def refused(capsys, *words):
    assert main(list(words)) == 2
    told = capsys.readouterr()
    assert told.out == ""
    assert told.err.count("\n") == 1, "one sentence"
    return told.err


DOVETAIL = {
    "--width": "150mm", "--tail-thickness": "15mm", "--pin-thickness": "15mm", "--tails": "4",
    "--half-pin": "8mm", "--pin": "5mm", "--slope": "1:7",
}  # fmt: skip


def dovetail(**changes):
    words = {**DOVETAIL, **{f"--{name.replace('_', '-')}": value for name, value in changes.items()}}
    return ["dovetail", *(word for pair in words.items() for word in pair)]


def test_dovetail_answers_with_every_figure(capsys):
    found = answer(capsys, *dovetail())
    assert found["step_mm"] == 34.75 and found["tail_mm"] == 29.75
    assert found["tail_base_mm"] == pytest.approx(29.75 - 30 / 7)
    assert found["pin_mm"] == 5 and found["pin_base_mm"] == pytest.approx(5 + 30 / 7)
    assert found["marks_mm"] == [8, 37.75, 42.75, 72.5, 77.5, 107.25, 112.25, 142]
    assert found["slope_degrees"] == pytest.approx(8.130102)
    assert (found["gauge_tail_board_mm"], found["gauge_pin_board_mm"]) == (15, 15)
    assert found["warnings"] == []
    proud = answer(capsys, *dovetail(proud="0.5mm", pin_thickness="5/8in"))
    assert (proud["gauge_tail_board_mm"], proud["gauge_pin_board_mm"]) == (15.875 + 0.5, 15.5)


def test_dovetail_that_cannot_be_made_answers_with_warnings(capsys):
    assert answer(capsys, *dovetail(tails="40"))["warnings"]


@pytest.mark.parametrize(
    "changes",
    [{"width": "0mm"}, {"width": "wide"}, {"tails": "0"}, {"tails": "two"}, {"slope": "steep"}, {"pin": "-1mm"}],
)
def test_dovetail_refuses_nonsense(capsys, changes):
    refused(capsys, *dovetail(**changes), "--json", "-")


def test_move_and_emc(capsys):
    moved = answer(
        capsys, "move", "--species", "black cherry", "--cut", "flat", "--width", "300mm", "--from", "7", "--to", "11"
    )
    assert moved["change_mm"] == pytest.approx(300 * 0.00248 * 4)
    assert moved["coefficient"] == 0.00248 and "Wood Handbook" in moved["source"]
    assert answer(capsys, "emc", "--temperature", "21", "--humidity", "50")["emc_percent"] == pytest.approx(
        9.2, abs=0.05
    )


@pytest.mark.parametrize(
    "words",
    [
        ["move", "--species", "moonwood", "--cut", "flat", "--width", "1mm", "--from", "7", "--to", "8", "--json", "-"],
        ["move", "--species", "cherry", "--cut", "askew", "--width", "1mm", "--from", "7", "--to", "8", "--json", "-"],
        ["move", "--species", "cherry", "--cut", "flat", "--width", "1mm", "--from", "7", "--to", "80", "--json", "-"],
        ["emc", "--temperature", "21", "--humidity", "101", "--json", "-"],
        ["emc", "--temperature", "warm", "--humidity", "50", "--json", "-"],
        ["emc", "--temperature", "21"],
        ["emc", "--temperature", "21", "--humidity", "50", "--json", "/no/such/folder/x.json"],
        ["sheets", "/no/such/file.nullah", "--out", "/tmp/x"],
        ["slab", "/no/such/file.csv", "--json", "-"],
        ["--frobnicate"],
        ["one.nullah", "two.nullah"],
    ],
)
def test_bad_input_is_one_sentence_and_status_2(capsys, words):
    refused(capsys, *words)


def test_slab_answers_with_plane_and_halves(capsys, tmp_path):
    rows = ["x,y,top,bottom"]
    for x in range(0, 901, 100):
        for y in range(0, 181, 45):
            wave = 3 * (1 - (x / 450 - 1) ** 2) + 0.01 * x - 0.02 * y
            rows.append(f"{x},{y},{27 + wave},{wave}")
    (tmp_path / "s.csv").write_text("\n".join(rows))
    found = answer(capsys, "slab", str(tmp_path / "s.csv"))
    # The grid has no station at the very middle: the bow it sees is 3·(1 - 1/81).
    assert found["thickness_mm"] == pytest.approx(27 - 3 * (80 / 81))
    assert found["plane"]["b"] == pytest.approx(-0.02)
    assert len(found["halves_crosscut_mm"]) == len(found["halves_ripped_mm"]) == 2
    assert min(found["halves_crosscut_mm"]) > 26
    (tmp_path / "bad.csv").write_text("x,y,top,bottom\n0,0,1,0\n")
    refused(capsys, "slab", str(tmp_path / "bad.csv"), "--json", "-")


def breakdown_files(tmp_path, parts, boards="A,1000,200,22\n", flaws=""):
    (tmp_path / "b.csv").write_text("board,length,width,thickness\n" + boards)
    (tmp_path / "p.csv").write_text("part,quantity,length,width,thickness,needs\n" + parts)
    (tmp_path / "f.csv").write_text("board,from,to,low,high,kind\n" + flaws)
    words = ["breakdown", "--boards", "b.csv", "--parts", "p.csv", "--flaws", "f.csv", "--seconds", "0.8"]
    return [str(tmp_path / word) if word.endswith(".csv") else word for word in words]


def test_breakdown_answers_with_pieces_cuts_and_reasons(capsys, tmp_path):
    words = breakdown_files(tmp_path, "leg,3,300,60,20,clear\nlong,1,2000,60,20,any\n", flaws="A,0,50,0,200,check\n")
    found = answer(capsys, *words, "--kerf", "2mm")
    (board,) = found["boards"]
    assert [piece["part"] for piece in board["pieces"]] == ["leg"] * 3
    assert all(piece["x_mm"] >= 50 for piece in board["pieces"])
    assert {"order", "kind", "x_mm", "y_mm", "length_mm"} == set(board["cuts"][0])
    assert found["unplaced"][0]["part"] == "long" and "longest board" in found["unplaced"][0]["why"]
    assert found["consumed_mm2"] == pytest.approx(200 * max(p["x_mm"] + p["length_mm"] for p in board["pieces"]))
    assert pytest.approx(found["bound_mm2"]) == 3 * 300 * 60


def test_breakdown_stacks_parts_across_the_board(capsys, tmp_path):
    found = answer(capsys, *breakdown_files(tmp_path, "strip,3,300,65,20,clear\n"), "--kerf", "2mm")
    assert found["unplaced"] == []
    assert found["consumed_mm2"] == 300 * 200, "three across take no more length than one"


@pytest.mark.parametrize("seconds", ["0", "soon"])
def test_breakdown_refuses_no_time(capsys, tmp_path, seconds):
    words = breakdown_files(tmp_path, "leg,1,10,10,10,any\n")
    refused(capsys, *words[:-1], seconds, "--json", "-")


@pytest.mark.dear
def test_sheets_writes_the_whole_set_without_a_screen(tmp_path):
    write_project(seed_box(), tmp_path / "box.nullah")
    words = [sys.executable, "-m", "nullah.cli", "sheets", str(tmp_path / "box.nullah"), "--out", str(tmp_path / "out")]
    done = subprocess.run(words, capture_output=True, text=True, check=False, env={"PATH": "/usr/bin:/bin"})
    assert done.returncode == 0, done.stderr
    names = {path.name for path in (tmp_path / "out").iterdir()}
    assert {"sheets.pdf", "corner-template.svg", "cut-list.csv", "part-5-bottom.svg"} <= names


@pytest.mark.whole
def test_shots_shows_every_main_view(tmp_path):
    words = [sys.executable, "-m", "nullah.cli", "shots", str(tmp_path / "shots")]
    done = subprocess.run(words, capture_output=True, text=True, check=False, env={"PATH": "/usr/bin:/bin"})
    assert done.returncode == 0, done.stderr
    assert len(list((tmp_path / "shots").glob("*.png"))) == 19


@pytest.mark.dear
def test_shots_of_a_project_tell_where_its_words_stand(tmp_path, capsys):
    write_project(seed_box(), tmp_path / "box.nullah")
    words = [sys.executable, "-m", "nullah.cli", "shots", str(tmp_path / "shots"), "--size", "1024x700"]
    words += ["--units", "inches", "--project", str(tmp_path / "box.nullah"), "--labels", "-"]
    done = subprocess.run(words, capture_output=True, text=True, check=False, env={"PATH": "/usr/bin:/bin"})
    assert done.returncode == 0, done.stderr
    views = json.loads(done.stdout)["views"]
    assert {view["name"] for view in views} == {path.stem for path in (tmp_path / "shots").glob("*.png")}
    assert any("″" in label["text"] for view in views for label in view["labels"])
    for size in ("639x700", "1024", "1024x", "9000x700", "axb"):
        assert "is not a size" in refused(capsys, "shots", str(tmp_path / "more"), "--size", size)
    assert "none.nullah" in refused(capsys, "shots", str(tmp_path / "m"), "--project", str(tmp_path / "none.nullah"))


def test_solids_are_written_as_asked(tmp_path, capsys):
    write_project(seed_box(), tmp_path / "box.nullah")
    assert main(["solids", str(tmp_path / "box.nullah"), "--out", str(tmp_path / "box.stl")]) == 0
    assert (tmp_path / "box.stl").stat().st_size > 5000
    assert ".stl or .glb" in refused(capsys, "solids", str(tmp_path / "box.nullah"), "--out", str(tmp_path / "b.obj"))
    assert "none.nullah" in refused(capsys, "solids", str(tmp_path / "none.nullah"), "--out", str(tmp_path / "b.stl"))


def test_without_a_screen_the_desk_says_so(capsys, monkeypatch):
    for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"):
        monkeypatch.delenv(name, raising=False)
    assert "no screen" in refused(capsys, "demo")


# --- forms and new --------------------------------------------------------------------------------


@pytest.fixture(scope="module")
def forms():
    done = subprocess.run([sys.executable, "-m", "nullah", "forms", "--json", "-"], capture_output=True, check=True)
    return {form["id"]: form for form in json.loads(done.stdout)["forms"]}


def test_forms_lists_every_form_with_its_choices_and_quantities(forms):
    assert set(forms) == set(FORMS)
    # Of the shop as it comes: half a millimetre, and these chisels and irons.
    chisels, irons = (3, 6, 10, 12, 19, 25), (3, 5, 6, 8, 10, 12)
    bits = ("1.5", 2, "2.5", 3, 4, 5, 6, 8, 10, 12, 16)
    there = Snapping(Fraction(1, 2), *(tuple(map(Fraction, sizes)) for sizes in (chisels, irons, bits)))
    for name, form in forms.items():
        usual = {choice["key"]: choice["options"][0]["value"] for choice in form["choices"]}
        ledger = work_out_ledger(FORMS[name].define(usual), {}, {}, there)
        assert [q["name"] for q in form["quantities"]] == list(ledger.quantities)
        for quantity in form["quantities"]:
            assert quantity["default_mm"] == pytest.approx(float(ledger[quantity["name"]]))
            assert quantity["kind"] in ("length", "count", "slope") and quantity["title"]
        assert sum(q["size"] for q in form["quantities"]) == (0 if name == "own" else 3)
        keys = {choice["key"] for choice in form["choices"]}
        assert all(set(choice["only_if"]) <= keys for choice in form["choices"])
    fits = {q["name"]: q["fits"] for q in forms["drawer"]["quantities"] if q["fits"]}
    assert fits, "what must be measured first is told"


def new(tmp_path, *words):
    path = tmp_path / "new.nullah"
    assert main(["new", *words, "--out", str(path)]) == 0
    return read_project(path)


@pytest.mark.parametrize("form", FORMS)
def test_new_makes_every_form(tmp_path, capsys, form):
    project = new(tmp_path, form)
    assert project.piece.form == form and project.piece.name == FORMS[form].title
    assert capsys.readouterr().err == ""


@pytest.mark.dear
def test_new_takes_every_option_of_every_choice(tmp_path, capsys, forms):
    for name, form in forms.items():
        for choice in form["choices"]:
            # Its condition made true, and the condition of that.
            chosen, after = {}, choice
            while after["only_if"]:
                ((key, values),) = after["only_if"].items()
                chosen[key] = values[0]
                after = next(each for each in form["choices"] if each["key"] == key)
            for option in choice["options"]:
                words = [f"--choose={key}={value}" for key, value in {**chosen, choice["key"]: option["value"]}.items()]
                project = new(tmp_path, name, *words)
                assert dict(project.piece.choices)[choice["key"]] == option["value"]
                assert capsys.readouterr().err == ""


def test_new_takes_sizes_units_mark_name_and_boards(tmp_path):
    (tmp_path / "b.csv").write_text("board,length,width,thickness\nFord 1,2400,200,27\nFord 2,8 ft,9 in,1 in\n")
    project = new(
        tmp_path,
        "box",
        "--give",
        "box.outside_length=14 1/2 in",
        "--give",
        "tails.count=3",
        "--give",
        "tails.slope=1:8",
        "--give",
        "sides.thickness=12",
        "--units",
        "inches",
        "--mark",
        "1/64 in",
        "--name",
        "Twine box",
        "--boards",
        str(tmp_path / "b.csv"),
    )
    given = dict(project.piece.given)
    assert given["box.outside_length"].text == "14 1/2 in" and given["sides.thickness"].text == "12 mm"
    assert given["tails.count"] == 3 and given["tails.slope"].run == 8
    assert project.marks.unit is Unit.INCH and project.marks.inch_mark == Fraction(1, 64)
    assert project.piece.name == "Twine box" and [b.name for b in project.boards] == ["Ford 1", "Ford 2"]
    assert new(tmp_path, "box", "--mark", "0.1mm").marks.mm_mark == Fraction(1, 10)


def test_new_says_which_columns_of_a_table_of_boards_it_passes_over(tmp_path, capsys):
    boards = tmp_path / "rack.csv"
    boards.write_text("board,length,width,thickness,Wood,species\nFord 1,2 m,180 mm,27 mm,oak,white oak\n")
    assert new(tmp_path, "box", "--boards", str(boards)).boards[0].species == "white oak"
    assert capsys.readouterr().err == "nullah: Nothing is taken of the column “wood” of rack.csv.\n"


def test_new_leaves_out_choices_that_do_not_apply_and_names_them(tmp_path, capsys):
    project = new(tmp_path, "box", "--choose", "corners=rabbeted", "--choose", "tails_on=ends")
    assert dict(project.piece.choices) == {"corners": "rabbeted"}
    assert capsys.readouterr().err == "nullah: The choice tails_on does not apply here and is left out.\n"


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (["bocks"], "“bocks” is not a form; did you mean box?"),
        (["box", "--choose", "corner=dovetailed"], "did you mean corners?"),
        (["box", "--choose", "corners=dovetail"], "did you mean dovetailed?"),
        (["box", "--choose", "corners"], "is not a name and a value"),
        (["box", "--give", "box.outside_lenght=300"], "did you mean box.outside_length?"),
        (["box", "--give", "box.outside_length=0"], "more than nothing"),
        (["box", "--give", "box.outside_length=-1mm"], "more than nothing"),
        (["box", "--give", "box.outside_length=wide"], "is not a length"),
        (["box", "--give", "box.outside_length=9 mm"], "cannot be made"),
        (["box", "--give", "tails.count=0"], "Use 1 to 200"),
        (["box", "--give", "tails.count=201"], "Use 1 to 200"),
        (["box", "--give", "tails.slope=1:1"], "cannot be sawn"),
        (["box", "--mark", "11 mm"], "no mark on a rule"),
        (["box", "--mark", "0.009 mm"], "no mark on a rule"),
        (["box", "--units", "feet"], "invalid choice"),
        (["box", "--boards", "/no/such.csv"], "there is no such file"),
        (["box", "--name", " "], "a name has 1 to 200"),
        (["box", "--name", "x" * 201], "a name has 1 to 200"),
    ],
)
def test_new_refuses_what_cannot_be(tmp_path, capsys, words, said):
    assert said in refused(capsys, "new", *words, "--out", str(tmp_path / "x.nullah"))
    assert not list(tmp_path.iterdir())


def test_new_refuses_where_nothing_may_be_written(tmp_path, capsys):
    (tmp_path / "x.nullah").write_text("mine")
    (tmp_path / "x.nullah").chmod(0o444)
    assert "write-protected" in refused(capsys, "new", "box", "--out", str(tmp_path / "x.nullah"))
    assert (tmp_path / "x.nullah").read_text() == "mine"


# --- the terminal itself --------------------------------------------------------------------------


def run(*words, **named):
    return subprocess.run(
        [sys.executable, "-m", "nullah", *words], capture_output=True, text=True, check=False, **named
    )


def test_the_version_is_told():
    assert run("--version").stdout == f"nullah {metadata.version('nullah')}\n"


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (["dovetial", "--width", "3"], "Did you mean “nullah dovetail”?"),
        (["brakdown"], "Did you mean “nullah breakdown”?"),
        (["frobnicate"], "“nullah --help” lists the commands."),
        (["a.nullah", "b.nullah"], "One project at a time: 2 were named."),
    ],
)
def test_a_wrong_command_suggests_the_nearest(capsys, words, said):
    assert said in refused(capsys, *words)


def test_an_answer_that_cannot_be_written_is_a_sentence():
    with open("/dev/full", "w") as full:
        done = subprocess.run(
            [sys.executable, "-m", "nullah", "emc", "--temperature", "21", "--humidity", "50", "--json", "-"],
            stdout=full,
            stderr=subprocess.PIPE,
            text=True,
            check=False,
        )
    assert done.returncode == 2 and done.stderr.count("\n") == 1 and "cannot be written" in done.stderr
    done = run("emc", "--temperature", "21", "--humidity", "50", "--json", "/dev/full")
    assert done.returncode == 2 and "the disk is full" in done.stderr


def test_an_answer_into_a_pipe_that_is_closed_is_no_error():
    words = f"{sys.executable} -m nullah forms --json - | head -c 1"
    done = subprocess.run(["bash", "-c", f"set -o pipefail; {words}"], capture_output=True, text=True, check=False)
    assert done.stdout == "{" and done.stderr == "" and done.returncode == 0


def test_an_answer_into_a_device_leaves_it_a_device():
    assert run("emc", "--temperature", "21", "--humidity", "50", "--json", "/dev/null").returncode == 0
    assert stat.S_ISCHR(os.stat("/dev/null").st_mode)


@pytest.mark.parametrize(
    "changes", [{"tails": "9", "width": "20mm"}, {"half_pin": "80mm"}, {"slope": "1:2", "tails": "8"}]
)
def test_a_dovetail_without_room_for_a_tail_has_warnings_and_no_layout(capsys, changes):
    found = answer(capsys, *dovetail(**changes))
    assert found["warnings"]
    for name in ("step_mm", "tail_mm", "tail_base_mm", "pin_mm", "pin_base_mm", "marks_mm"):
        assert found[name] is None


def test_a_dovetail_with_just_room_for_a_tail_has_a_layout(capsys):
    # Tails of 10 narrow by 30/7 = 4.29: 5.71 are left; at 1:3 exactly nothing is.
    found = answer(capsys, *dovetail(tails="4", width="71mm", half_pin="8mm", pin="5mm", slope="1:7"))
    assert found["tail_mm"] == 10 and found["tail_base_mm"] > 5 and len(found["marks_mm"]) == 8
    assert answer(capsys, *dovetail(tails="4", width="71mm", slope="1:3"))["marks_mm"] is None
    assert answer(capsys, *dovetail(tails="4", width="71mm", slope="1:3.1"))["tail_base_mm"] > 0


@pytest.mark.parametrize("tails", ["²", "٣", "9" * 5000, "1e3", "-4", "4.0"])
def test_counts_on_the_command_line(capsys, tails):
    said = refused(capsys, *dovetail(tails=tails), "--json", "-")
    assert len(said) < 320 and "is not a number of tails" in said


@pytest.mark.dear
def test_a_piece_is_rehearsed(tmp_path):
    made = tmp_path / "box.nullah"
    assert main(["new", "box", "--out", str(made)]) == 0
    answers = []
    for name, options in (("a", []), ("b", []), ("c", ["--seed", "2"]), ("d", ["--hands", "steady"])):
        out = tmp_path / f"{name}.json"
        assert main(["rehearse", str(made), "--json", str(out), *options]) == 0
        answers.append(json.loads(out.read_text(encoding="utf-8")))
    assert answers[0] == answers[1] != answers[2]
    steady = answers[3]
    assert steady["goes_together"] is True and steady["refused"] == []
    assert {frozenset(each["parts"]) for each in steady["joints"]} >= {
        frozenset(("front", "left")), frozenset(("back", "bottom")),
    }  # fmt: skip
    assert all(each["gap_mm"] < 0.55 and each["interference_mm"] <= 0.15 for each in steady["joints"])
    assert {each["quantity"] for each in steady["measured"]} == {"opening.length", "opening.width"}
    assert all(each["found_mm"] == pytest.approx(each["planned_mm"], abs=0.5) for each in steady["measured"])
    out = tmp_path / "drawing.json"
    assert main(["rehearse", str(made), "--from", "drawing", "--hands", "rough", "--json", str(out)]) == 0
    assert json.loads(out.read_text(encoding="utf-8"))["measured"] == []


@pytest.mark.parametrize("options", [["--hands", "clumsy"], ["--from", "memory"], ["--seed", "x"]])
def test_a_rehearsal_that_cannot_be_is_refused(options, tmp_path, capsys):
    made = tmp_path / "box.nullah"
    assert main(["new", "box", "--out", str(made)]) == 0
    assert main(["rehearse", str(made), "--json", "-", *options]) == 2
    assert capsys.readouterr().err.count("\n") == 1
