"""The command line and its contracts, run as a script would run it."""

import json
import subprocess
import sys

import pytest

from nullah.cli import main
from nullah.demo.seed_box import seed_box
from nullah.files.project_file import write_project


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
    moved = answer(capsys, "move", "--species", "black cherry", "--cut", "flat", "--width", "300mm",
                   "--from", "7", "--to", "11")  # fmt: skip
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
    words = breakdown_files(
        tmp_path, "leg,3,300,60,20,clear\nlong,1,2000,60,20,any\n", flaws="A,0,50,0,200,check\n"
    )  # fmt: skip
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


def test_sheets_writes_the_whole_set_without_a_screen(tmp_path):
    write_project(seed_box(), tmp_path / "box.nullah")
    words = [sys.executable, "-m", "nullah.cli", "sheets", str(tmp_path / "box.nullah"), "--out", str(tmp_path / "out")]
    done = subprocess.run(words, capture_output=True, text=True, check=False, env={"PATH": "/usr/bin:/bin"})
    assert done.returncode == 0, done.stderr
    names = {path.name for path in (tmp_path / "out").iterdir()}
    assert {"sheets.pdf", "corner-template.svg", "cut-list.csv", "part-5-bottom.svg"} <= names


def test_shots_shows_every_main_view(tmp_path):
    words = [sys.executable, "-m", "nullah.cli", "shots", str(tmp_path / "shots")]
    done = subprocess.run(words, capture_output=True, text=True, check=False, env={"PATH": "/usr/bin:/bin"})
    assert done.returncode == 0, done.stderr
    assert len(list((tmp_path / "shots").glob("*.png"))) == 19


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
