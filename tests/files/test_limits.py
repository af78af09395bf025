"""Every reader keeps to the limits: just inside is read, just outside is refused in one short sentence."""

import copy
import json
import os
import time
from dataclasses import replace

import pytest

from nullah.core import limits
from nullah.core.bench.book import BookEntry, Event
from nullah.core.lengths import LengthError, Unit, mm, read_length, read_slope
from nullah.core.limits import DayError, one_sentence, quoted, read_count, read_day, read_number, read_time, shown
from nullah.core.past_limits import TooManyFigures, past_limits
from nullah.core.plan import work_out
from nullah.core.rack.board import BoardError, Flaw, FlawKind, Surface
from nullah.core.wood.climate import USUAL
from nullah.core.wording.facts import error_words
from nullah.demo.seed_box import seed_box
from nullah.desk.document import Document
from nullah.files.errors import ProjectFileError
from nullah.files.hygrometer_log import read_hygrometer_log
from nullah.files.project_file import parse_project, project_text, read_project
from nullah.files.rack_tables import rack_text, read_boards, read_flaws, read_typed_boards
from nullah.files.recovery import Autosave
from nullah.files.tables import TableError, plain, read_own_boards, read_parts, read_survey_points, unguarded

BOX = json.loads(project_text(seed_box()))


def changed(path, value):
    data = copy.deepcopy(BOX)
    holder = data
    for key in path[:-1]:
        holder = holder[key]
    holder[path[-1]] = value
    return json.dumps(data)


def refuse(text):
    """Return the refusal of a project file, which is one short sentence and comes at once."""
    begun = time.monotonic()
    with pytest.raises(ProjectFileError) as refused:
        parse_project(text, "mine.nullah")
    said = str(refused.value)
    assert len(said) <= limits.SENTENCE and "\n" not in said and said.isprintable() and said.startswith("mine.nullah ")
    # No test asserts how fast: but nothing here may take its time over nothing.
    assert time.monotonic() - begun < 30
    return said


FLAW = {"kind": "knot", "from": "1 mm", "to": "2 mm", "low": "1 mm", "high": "2 mm"}
NOTE = {"at": "2026-11-26T18:47", "event": "note", "title": "x"}
OWN = {
    "name": "x", "length": "9 mm", "width": "9 mm", "thickness": "9 mm", "at": ["0 mm", "0 mm", "0 mm"], "lie": "xz"
}  # fmt: skip


@pytest.mark.parametrize(
    ("path", "inside", "outside"),
    [
        (("piece", "name"), "x" * limits.NAME_TEXT, "x" * (limits.NAME_TEXT + 1)),
        (("boards", 0, "colour"), "x" * limits.NAME_TEXT, "x" * (limits.NAME_TEXT + 1)),
        (("boards", 0, "length"), "50 m", "50001 mm"),
        (("allowances", "edge"), "0.000000000001 m", "0.0000000000001 m"),
        (("piece", "given", "tails.count"), limits.COUNT, limits.COUNT + 1),
        (("piece", "given", "shelf.load"), "1000 kg", "1001 kg"),
        (("marks", "mm_mark"), "1/1000", "1/1001"),
        (("marks", "mm_mark"), "10", "10.1"),
        (("marks", "inch_mark"), "0.015625", "1e-2"),
        (("layout", 0, "x_mm"), 50_000, 50_001),
        (("boards", 0, "flaws"), [FLAW] * limits.FLAWS, [FLAW] * (limits.FLAWS + 1)),
        (("boards", 0, "readings"), [{"day": "1900-01-01", "percent": 200}], [{"day": "1899-12-31", "percent": 9}]),
        (("boards", 0, "readings"), [{"day": "2200-12-31", "percent": 0}], [{"day": "2201-01-01", "percent": 9}]),
        (("book",), [NOTE] * 3, [NOTE] * (limits.BOOK_ENTRIES + 1)),
        (("book",), [{**NOTE, "text": "x" * limits.NOTE_TEXT}], [{**NOTE, "text": "x" * (limits.NOTE_TEXT + 1)}]),
        (
            ("piece", "own"),
            [{**OWN, "id": "own1"}],
            [{**OWN, "id": f"own{n}"} for n in range(1, limits.OWN_BOARDS + 2)],
        ),
        (("room",), {"humidity_percent": 100}, {"humidity_percent": 100.1}),
        (("working",), {"hours": [""] * 7, "begin": "2200-12-31"}, {"hours": [""] * 7, "begin": "9999-12-31"}),
        (("timer",), {"task": "x", "since": "2026-11-26T18:47+02:00"}, {"task": "x", "since": "9999-01-01T00:00"}),
    ],
    ids=str,
)
def test_just_inside_is_read_and_just_outside_is_refused(path, inside, outside):
    project = parse_project(changed(path, inside), "mine.nullah")
    assert project_text(parse_project(project_text(project), "again")) == project_text(project)
    work_out(project, milling=False, proving=False).unsettled()
    refuse(changed(path, outside))


@pytest.mark.parametrize(
    ("text", "said"),
    [
        (changed(("boards", 0, "length"), "1/2 of " * 1000 + "1"), "too long for a length"),
        (changed(("boards", 0, "length"), "9" * 5000), "too long for a length"),
        (changed(("boards", 0, "length"), "²"), "is not a length"),
        (changed(("marks", "mm_mark"), "1e9999999"), "is not a number from"),
        (changed(("room",), {"temperature_c": 1e9}), "temperature_c"),
        ('{"format": "nullah project", "version": ' + "9" * 5000 + "}", "a number past all sense"),
        ('{"format": "nullah project", "version": 5, "piece": ' + "[" * 5000, "nested more than"),
        ('{"format": "nullah project", "version": 5, "piece": ' + "[" * 60 + "]" * 60 + "}", "nested more than"),
        (json.dumps({**BOX, "layout": [0] * 200_001}), "more than 200,000 values"),
        (json.dumps({**BOX, "flawed_share": float("nan")}), "a number past all sense"),
        (json.dumps({**BOX, "x" * 5000: 1}), "which this version does not know"),
        (json.dumps({**BOX, "version": 10**8}), "newer Nullah"),
    ],
    ids=range(12),
)
def test_what_is_past_all_sense_is_refused(text, said):
    assert said in refuse(text)


@pytest.mark.parametrize(("name", "read"), [
    ("a\nb\r\tc", "a b  c"), ("a\x00b\x1b[31m", "a␀b␛[31m"), ("\ud800", "�"), ("\u202egnirts", "gnirts"), ("\x7f", "�"),
])  # fmt: skip
def test_names_hold_what_can_be_printed_and_show_the_rest_as_signs(name, read):
    assert parse_project(changed(("piece", "name"), name), "x").piece.name == read
    assert shown(name) == read and read.isprintable()


def test_notes_keep_their_lines():
    project = parse_project(changed(("book",), [{**NOTE, "text": "one\ntwo\x00"}]), "x")
    assert project.book[0].text == "one\ntwo␀"


def test_a_timer_with_a_zone_is_read_by_the_shops_clock():
    assert parse_project(changed(("timer",), {"task": "x", "since": "2026-11-26T18:47:00+02:00"}), "x").timer.since == (
        "2026-11-26T18:47:00"
    )


@pytest.mark.parametrize("which", ["folder", "pipe", "large", "loop"])
def test_what_is_no_file_to_read_is_refused_at_once(tmp_path, monkeypatch, which):
    path = tmp_path / "a.nullah"
    if which == "folder":
        path.mkdir()
    elif which == "pipe":
        os.mkfifo(path)
    elif which == "loop":
        path.symlink_to(path)
    else:
        monkeypatch.setattr("nullah.files.project_file.PROJECT_BYTES", 10)
        path.write_text("x" * 11)
    with pytest.raises(ProjectFileError) as refused:
        read_project(path)
    assert str(refused.value).endswith(".") and len(str(refused.value)) <= limits.SENTENCE
    table = tmp_path / "a.csv"
    path.rename(table)
    monkeypatch.setattr("nullah.files.tables.TABLE_BYTES", 10)
    for read in (read_boards, read_parts, read_survey_points, lambda path: read_hygrometer_log(path, USUAL)):
        with pytest.raises(TableError) as refused:
            read(table)
        assert str(refused.value).endswith(".") and len(str(refused.value)) <= limits.SENTENCE


HEAD = "board,length,width,thickness\n"


@pytest.mark.parametrize(
    ("table", "said"),
    [
        (HEAD + f"{'x' * (limits.CELL_TEXT + 1)},1,1,1\n", "a cell of more than"),
        (HEAD + f"{'x' * 140_000},1,1,1\n", "cannot be read as a table"),
        (HEAD + f"{'x' * (limits.NAME_TEXT + 1)},900,90,9\n", "characters; 200 at most"),
        (HEAD + "A,9,9,9\n" * (limits.TABLE_LINES + 1), "more than 40,001 lines"),
        (HEAD + "".join(f"A{n},9,9,9\n" for n in range(limits.BOARDS + 1)), "501 boards; 500 at most"),
        (HEAD + '"A,9,9,9\n', "cannot be read as a table"),
        (HEAD + "A,1e99999999,9,9\n", "line 2"),
        (HEAD.strip() + ",moisture\nA,900,90,9,2026-11-01 1e99999999\n", "cannot be read; write 2026-11-02"),
        (HEAD.strip() + ",moisture\nA,900,90,9,9999-12-31 9\n", "is not a year of a piece of work"),
    ],
    ids=range(9),
)
def test_tables_past_the_limits_are_refused(tmp_path, table, said):
    (tmp_path / "a.csv").write_text(table)
    with pytest.raises(TableError) as refused:
        read_boards(tmp_path / "a.csv")
    assert said in str(refused.value) and len(str(refused.value)) <= limits.SENTENCE


@pytest.mark.dear
def test_what_a_file_could_not_hold_is_not_done(tmp_path, qapp):
    """Whatever the desk lets in can be saved and read again, up to the very limit."""
    document = Document(seed_box(), Autosave(tmp_path))
    board = seed_box().boards[0]
    flaw = board.flaws[0] if board.flaws else Flaw(FlawKind.KNOT, mm(1), mm(2), mm(1), mm(2))
    note = BookEntry("2026-11-26T18:47", Event.NOTE, "x", text="y" * limits.NOTE_TEXT)
    full = {
        "boards": lambda n: replace(seed_box(), boards=tuple(replace(board, id=str(i)) for i in range(n)), layout=()),
        "flaws": lambda n: replace(seed_box(), boards=(replace(board, flaws=(flaw,) * n),), layout=()),
        "name": lambda n: replace(seed_box(), boards=(replace(board, name="x" * n),), layout=()),
        "book": lambda n: replace(seed_box(), book=(note._replace(text="y"),) * n),
        "note": lambda n: replace(seed_box(), book=(note._replace(text="y" * n),)),
    }
    most = {
        "boards": limits.BOARDS,
        "flaws": limits.FLAWS,
        "name": limits.NAME_TEXT,
        "book": limits.BOOK_ENTRIES,
        "note": limits.NOTE_TEXT,
    }
    for name, make in full.items():
        before = document.project
        assert document.do(name, lambda p, m=make, n=most[name]: m(n + 1)), name
        assert document.project is before
        assert document.do(name, lambda p, m=make, n=most[name]: m(n)) == "", name
        parse_project(project_text(document.project), "again")
    grid = tuple(float(n) for n in range(200))
    surface = Surface(grid, grid, ((27.0,) * 200,) * 200, ((0.0,) * 200,) * 200)
    surveyed = tuple(replace(board, id=str(n), surface=surface) for n in range(3))
    assert past_limits(replace(seed_box(), boards=surveyed)) == TooManyFigures(limits.PROJECT_VALUES)
    two = replace(seed_box(), boards=surveyed[:2], layout=())
    assert past_limits(two) is None and parse_project(project_text(two), "again").boards[1].surface == surface
    document.close()


def test_flaws_of_a_table_are_counted(tmp_path):
    boards = read_typed_boards("2400 x 200 x 27 *2", Unit.MM, "black cherry")
    boards = tuple(replace(board, id=name) for board, name in zip(boards, "AB", strict=True))
    line = "A,1,2,1,2,knot\n"
    for count, said in (
        (limits.FLAWS, ""),
        (limits.FLAWS + 1, "more than 200 flaws"),
        (10_001, "10,001 flaws; 10,000"),
    ):
        (tmp_path / "f.csv").write_text("board,from,to,low,high,kind\n" + line * count)
        if not said:
            assert len(read_flaws(tmp_path / "f.csv", boards)[0].flaws) == count
            continue
        with pytest.raises(TableError, match=said):
            read_flaws(tmp_path / "f.csv", boards)


@pytest.mark.parametrize(
    "text", ["2400 x 200 x 27 *" + "9" * 12, "9" * 20_000, "a " * 4000, "1x12 " * 1900, "x" * 10_001]
)
def test_typed_boards_of_any_kind_are_answered(text):
    with pytest.raises(TableError) as refused:
        read_typed_boards(text, Unit.MM, "black cherry")
    assert len(str(refused.value)) <= limits.SENTENCE and "\n" not in str(refused.value)
    with pytest.raises(TableError):
        read_own_boards(text, Unit.MM)


@pytest.mark.parametrize(
    "name", ["=1+1", "\t=1", "'=1", "''=1", " =1", "@x", "+1", "-1", "'plain", "plain", "＝1", "\r@"]
)
def test_no_cell_is_a_formula_and_every_cell_comes_back(name):
    cell = plain(name)
    assert cell[:1] not in ("=", "+", "-", "@", "\t", "\r", "＝")
    assert unguarded(cell) == name


def test_a_board_called_like_a_formula_comes_back_from_its_table(tmp_path):
    boards = read_typed_boards("1200 x 150 x 22 =SUM(A1)", Unit.MM, "black cherry")
    (tmp_path / "a.csv").write_text(rack_text(boards))
    assert "'=SUM(A1)" in (tmp_path / "a.csv").read_text()
    assert read_boards(tmp_path / "a.csv")[0].name == boards[0].name == "=SUM(A1)"


@pytest.mark.parametrize(("text", "count"), [
    ("4", 4), (" +4 ", 4), ("0", 0), ("200", 200), ("²", None), ("٤", None), ("4.0", None), ("-4", None), ("", None),
    ("9" * 12, 999_999_999_999), ("9" * 13, None),
])  # fmt: skip
def test_counts(text, count):
    assert read_count(text) == count


@pytest.mark.parametrize(("text", "number"), [
    ("8.5", 8.5), ("8,5", 8.5), ("-1e3", -1000), ("1e999", None), ("nan", None), ("inf", None), ("", None),
    ("9" * 101, None),
])  # fmt: skip
def test_numbers(text, number):
    assert read_number(text) == number


def test_days_and_times():
    assert read_day("1900-01-01").year == 1900 and read_time("2200-12-31T23:59").year == 2200
    for text in ("1899-12-31", "2201-01-01", "2026-13-01", "today", "2026-11-23T10:00", "20261123"):
        with pytest.raises(DayError):
            read_day(text)


@pytest.mark.parametrize("text", ["9" * 5000, "1:" + "9" * 5000, "1:1e9", "²", "1:²"])
def test_slopes_past_all_sense(text):
    with pytest.raises(LengthError) as refused:
        read_slope(text)
    assert len(error_words(refused.value)) <= limits.SENTENCE


def test_sentences_quote_little_and_on_one_line():
    assert quoted("x" * 10**6) == f"“{'x' * 19}…{'x' * 19}”" and quoted("a\n b\x00") == "“a b␀”"
    assert len(one_sentence("word " * 1000)) <= limits.SENTENCE and one_sentence("a\nb") == "a b"
    with pytest.raises(LengthError) as refused:
        read_length("x\n" * 20)
    assert "\n" not in error_words(refused.value)
    assert issubclass(BoardError, ValueError)


@pytest.mark.dear
def test_a_sample_of_mutants_is_read_or_refused(tmp_path, qapp):
    """Some; `script/torture` tries twenty thousand."""
    from tests.torture.mutants import project_mutants, table_mutants

    seed = int(time.time())
    for report in (project_mutants(120, seed, thorough=12), table_mutants(150, tmp_path, seed)):
        assert report.counts["read"] and report.counts["refused"] and not report.failures, (seed, report.failures)


@pytest.mark.dear
def test_a_sample_of_hostile_names_goes_through_every_output(tmp_path, qapp, monkeypatch):
    """Some; `script/torture` tries them all."""
    from tests.torture import names

    monkeypatch.setattr(names, "NAMES", ("=cmd|' /C calc'!A0", "<b>\x00\x1b\ud800</b>\r\nEND:VCALENDAR", "../../x"))
    report = names.hostile_names(tmp_path)
    assert report.tried == 3 and not report.failures
