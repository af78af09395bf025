"""The rack in CSV, and boards as people type them."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from tests.same import untyped

from nullah.core.lengths import Unit, mm
from nullah.core.rack.board import Board, Faces, Flaw, FlawKind, GrainFigure, Rise
from nullah.core.wood.movement import GrainCut
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.rack_tables import flaws_beside, flaws_text, rack_text, read_rack, read_typed_boards
from nullah.files.tables import TableError


def test_a_rack_comes_back_as_it_went(tmp_path):
    boards = seed_cabinet().boards
    path = tmp_path / "rack.csv"
    path.write_text(rack_text(boards))
    flaws_beside(path).write_text(flaws_text(boards))
    came = read_rack(path)
    # A table has no room for drawn edges, readings of shape and the like: the project file has.
    left = {"heart": None, "low_edge": (), "high_edge": (), "shape": (), "rises": Rise.UNKNOWN}
    kept = [replace(board, id=board.name, **left) for board in boards]
    assert untyped(came) == untyped(tuple(kept))


@settings(max_examples=40, deadline=None)
@given(
    st.integers(100, 3000), st.integers(40, 400), st.integers(5, 80), st.sampled_from(list(GrainCut)),
    st.sampled_from(list(GrainFigure)), st.sampled_from(list(Faces)), st.text("ab=+-, ;'\"ü", max_size=8),
)  # fmt: skip
def test_any_board_survives_its_table(tmp_path_factory, length, width, thick, cut, figure, faces, words):
    flaw = Flaw(FlawKind.KNOT, mm(1), mm(40), mm(2), mm(30), faces, None if faces is Faces.THROUGH else mm(2))
    board = Board(
        "x",
        "x",
        "black cherry",
        mm(length),
        mm(width),
        mm(thick),
        cut=cut,
        figure=figure,
        flaws=(flaw,),
        colour=words.strip(),
    )
    path = tmp_path_factory.mktemp("rack") / "rack.csv"
    path.write_text(rack_text([board]))
    flaws_beside(path).write_text(flaws_text([board]))
    (came,) = read_rack(path)
    # A colour that a spreadsheet would take for a formula is written with a mark before it.
    assert untyped(replace(came, colour="")) == untyped(replace(board, colour=""))
    assert came.colour.lstrip("'") == board.colour.lstrip("'")


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("a,1000,200,25,oakish wood,sideways,,,,,,,,,", "cut is “sideways”; it must be one of flat, rift, quarter"),
        ("a,1000,200,25,,,,,,,,,,,damp", "a moisture of “damp” cannot be read"),
        ("a,1000,200,25,,,,,,,,,,,2026-13-01 12", "“2026-13-01” is not a day"),
        ("a,1000,200,25,,,,,,dear,,,,,", "“dear” is not a price"),
        (",1000,200,25,,,,,,,,,,,", "the board has no name"),
    ],
)
def test_what_is_wrong_with_a_row_is_said_with_its_line(tmp_path, line, words):
    path = tmp_path / "rack.csv"
    path.write_text(rack_text([]) + line + "\n")
    with pytest.raises(TableError) as refusal:
        read_rack(path)
    assert str(refusal.value).startswith("rack.csv, line 2: ") and words in str(refusal.value)


@pytest.mark.parametrize(
    ("text", "unit", "sizes", "wood", "names"),
    [
        ("2400 x 200 x 27", Unit.MM, (2400, 200, 27), "black cherry", ["Board 1"]),
        ("8' x 7 1/2 x 1 black walnut shed 3", Unit.INCH, (2438.4, 190.5, 25.4), "black walnut", ["shed 3"]),
        ("8' 1x12 *2", Unit.INCH, (2438.4, 285.75, 19.05), "black cherry", ["Board 1", "Board 2"]),
        ("6' 4/4 x 6 1/4", Unit.INCH, (1828.8, 158.75, 25.4), "black cherry", ["Board 1"]),
        ("1800\t150 mm\t22\tyellow-poplar\tloft", Unit.MM, (1800, 150, 22), "yellow-poplar", ["loft"]),
        ("1800; 150; 22; *2; loft", Unit.MM, (1800, 150, 22), "black cherry", ["loft 1", "loft 2"]),
    ],
)
def test_boards_are_typed_as_people_write_them(text, unit, sizes, wood, names):
    found = read_typed_boards(text, unit, "black cherry")
    assert [board.name for board in found] == names
    for board in found:
        assert (float(board.length), float(board.width), float(board.thickness)) == pytest.approx(sizes)
        assert board.species == wood


@pytest.mark.parametrize(
    ("text", "words"),
    [("", "no board in that list"), ("2400 x 200", "three sizes"), ("2400 x 0 x 27", "cannot be 0 mm wide"),
     ("x x x", "Line 1"), ("2400 x 200 x 27 *900", "More than 500 boards"), ("100 3x1000", "three sizes")],
)  # fmt: skip
def test_lines_that_are_no_boards_are_named(text, words):
    with pytest.raises(TableError) as refusal:
        read_typed_boards(text, Unit.MM, "black cherry")
    assert words in str(refusal.value)
