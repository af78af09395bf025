import csv
import io

import pytest

from nullah.core.lengths import Marks, Unit
from nullah.core.plan import work_out
from nullah.core.work.cut_list import cut_list
from nullah.demo.seed_box import seed_box
from nullah.files.rack_tables import read_boards, read_flaws
from nullah.files.tables import TableError, cut_list_text, read_parts, read_survey_points


def table(tmp_path, text):
    path = tmp_path / "t.csv"
    path.write_text(text)
    return path


def test_reads_boards_flaws_and_parts(tmp_path):
    boards = read_boards(
        table(tmp_path, "Board,length,width,thickness,colour\nA,8 ft,5 1/2 in,22,red\n\nB,900,150,25mm,\n")
    )
    assert [float(b.length) for b in boards] == [2438.4, 900]
    boards = read_flaws(table(tmp_path, "board,from,to,low,high,kind\nB,0,50,0,150,run-out\n"), boards)
    assert boards[1].flaws[0].kind.value == "runout" and not boards[0].flaws
    parts = read_parts(
        table(tmp_path, "part,quantity,length,width,thickness,needs,turn\nleg,4,400,40,40,clear,\nx,1,9,9,9,any,yes")
    )
    assert [p.id for p in parts] == ["leg#1", "leg#2", "leg#3", "leg#4", "x#1"]
    assert parts[0].name == "leg" and parts[4].turned
    assert read_survey_points(table(tmp_path, "x,y,top,bottom\n0,0,25.5,0\n")) == [(0, 0, 25.5, 0)]


@pytest.mark.parametrize(
    ("read", "text", "words"),
    [
        (read_boards, "board,length\nA,5", "lacks the columns width, thickness"),
        (read_boards, "", "lacks"),
        (read_boards, "board,length,width,thickness\nA,long,1,1", "line 2"),
        (read_boards, "board,length,width,thickness\nA,0,1,1", "more than nothing"),
        (read_boards, "board,length,width,thickness\nA,9,1,1\nA,9,1,1", "two boards are called “A”"),
        (read_boards, "board,length,width,thickness\n,9,1,1", "no name"),
        (read_parts, "part,quantity,length,width,thickness,needs\na,some,1,1,1,any", "quantity of “some”"),
        (read_parts, "part,quantity,length,width,thickness,needs\na,100000,1,1,1,any", "slip of the key"),
        (read_parts, "part,quantity,length,width,thickness,needs\na,1,1,1,1,best", "clear or any"),
        (read_parts, "part,quantity,length,width,thickness,needs\na,1,1,1,1,any\na,1,1,1,1,any", "twice"),
        (read_survey_points, "x,y,top,bottom\n0,0,high,0", "numbers in mm"),
    ],
)  # fmt: skip
def test_tables_that_cannot_be_read_name_the_place(tmp_path, read, text, words):
    with pytest.raises(TableError, match=words):
        read(table(tmp_path, text))


@pytest.mark.parametrize(
    ("row", "words"),
    [("C,0,5,0,5,knot", "no board “C”"), ("A,0,5,0,5,hole", "not a flaw"), ("A,9000,9001,0,5,knot", "outside")],
)
def test_flaws_that_lie_nowhere_name_the_place(tmp_path, row, words):
    boards = read_boards(table(tmp_path, "board,length,width,thickness\nA,900,100,20"))
    with pytest.raises(TableError, match=words):
        read_flaws(table(tmp_path, f"board,from,to,low,high,kind\n{row}"), boards)


def test_a_table_that_is_not_there_or_not_text(tmp_path):
    with pytest.raises(TableError, match="cannot be read"):
        read_boards(tmp_path / "none.csv")
    (tmp_path / "b.csv").write_bytes(b"\xff\xfe\x00")
    with pytest.raises(TableError, match="not text"):
        read_boards(tmp_path / "b.csv")


def test_the_cut_list_reads_back_with_a_general_reader():
    plan = work_out(seed_box())
    rows = list(csv.DictReader(io.StringIO(cut_list_text(cut_list(plan), Marks(Unit.INCH)))))
    assert [row["part"] for row in rows] == ["front", "back", "left end", "right end", "bottom"]
    assert float(rows[0]["length_mm"]) == 378 and float(rows[0]["cut_length_mm"]) == 379
    assert rows[0]["finished (inches, to the mark)"] == "14 7/8 x 5 1/8 x 5/8"
    assert rows[4]["wait_for"].startswith("groove to groove")
