"""What is kept of the work: the Day Book in the project, records of pieces, the calendar; and what is broken."""

import json
from dataclasses import replace
from datetime import datetime

import pytest
from tests.same import untyped

from nullah.core.bench.book import BookEntry, Event, Timer
from nullah.core.bench.hours import Hours
from nullah.core.bench.rates import Learned
from nullah.core.bench.working import Working
from nullah.core.project import Project
from nullah.core.reader import Reader
from nullah.core.wood.climate import PRESETS
from nullah.core.wording.record import record_words
from nullah.core.work.day_book import PieceRecord
from nullah.demo.seed_box import seed_box
from nullah.files.errors import ProjectFileError
from nullah.files.piece_records import RecordsError, begin_from, keep_record, read_records
from nullah.files.project_file import parse_project, project_text
from nullah.instruments.hygrometer import read_air_line
from nullah.instruments.moisture_meter import read_line
from nullah.instruments.shape_gauges import read_gauge_line
from nullah.instruments.stream import MOST_BYTES, LineReader, as_sent, readings

BOOK = (
    BookEntry(
        "2026-11-26T18:47", Event.DONE, "Saw Ford 1", "saw/1", ("left",), 12.5, 9.0, (("cross", 0.4), ("rip", 2.0))
    ),
    BookEntry("2026-11-26T19:02", Event.NOTE, "Saw Ford 1", "saw/1", text="it pinches"),
    BookEntry("2026-11-25T08:00", Event.PHOTO, "", file="/nowhere/gone.jpg"),
    BookEntry("2026-11-27T08:00", Event.REMADE, "bottom", parts=("bottom",), text="short", work=(("wood", 1e6),)),
)


def test_the_work_comes_back_as_it_was():
    working = Working(
        Hours((None, (540, 750), *(None,) * 5)), "epoxy", 6, 2, "2026-12-01", (("rip", Learned(1.4, 0.1, 8)),)
    )
    project = replace(
        seed_box(),
        working=working,
        book=BOOK,
        timer=Timer("saw/2", "2026-11-26T19:10"),
        climate=PRESETS[3],
        finish="shellac",
    )
    assert untyped(parse_project(project_text(project), "x")) == untyped(project)


def test_a_file_without_any_of_it_is_read_as_before():
    data = json.loads(project_text(seed_box()))
    for name in ("working", "book", "timer", "climate", "finish"):
        del data[name]
    assert untyped(parse_project(json.dumps(data), "x")) == untyped(seed_box())


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (lambda data: data["book"].append({"at": "noon", "event": "note", "title": ""}), "“noon” is not a time"),
        (lambda data: data["working"]["hours"].__setitem__(0, "21-18"), "ends before it begins"),
        (lambda data: data.update(timer={"task": "a", "since": "now"}), "“now” is not a time"),
        (lambda data: data["climate"]["months"].pop(), "months"),
        (lambda data: data["climate"]["months"].__setitem__(0, [20, 130]), "130"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_a_sentence(change, words):
    data = json.loads(project_text(seed_box()))
    change(data)
    with pytest.raises(ProjectFileError, match="x cannot be opened") as told:
        parse_project(json.dumps(data), "x")
    assert words in str(told.value) or "month" in str(told.value)


# --- records of pieces --------------------------------------------------------------------------------------------

RECORD = PieceRecord(
    "Seed box", "2026-12-20T19:00", 4e6, 8e6, 620, 500, 2, 1, (0.1, -0.2, 0.3), (("rip", Learned(1.3, 0.1, 9)),)
)


def test_records_are_kept_one_beside_the_other_and_replaced_by_their_own(tmp_path):
    file = tmp_path / "deep" / "pieces.json"
    assert read_records(file) == ()
    keep_record(file, RECORD)
    keep_record(file, RECORD._replace(name="Stool"))
    keep_record(file, RECORD._replace(minutes=700.0))
    assert [(each.name, each.minutes) for each in read_records(file)] == [("Stool", 620), ("Seed box", 700)]


def test_a_new_piece_starts_from_the_last():
    begun = begin_from(Project(), (RECORD._replace(wood_used=10e6), RECORD))
    assert dict(begun.working.rates) == {"rip": Learned(1.3, 0.1, 9)}
    assert float(begun.flawed_share) == pytest.approx((0.6 + 0.5) / 2)
    assert begin_from(Project(), ()) == Project()


def test_a_broken_file_of_records_is_as_if_there_were_none(tmp_path):
    file = tmp_path / "pieces.json"
    for text in ("", "{", "{}", '[{"name": "x"}]', "[3]", "\x00"):
        file.write_text(text)
        assert read_records(file) == (), text
    (tmp_path / "wall").write_text("")
    with pytest.raises(RecordsError, match="cannot be kept"):
        keep_record(tmp_path / "wall" / "pieces.json", RECORD)


def test_a_record_tells_itself_in_words():
    words = " ".join(record_words(RECORD, Reader()))
    assert "50 % waste" in words and "10 h 20 min where 8 h 20 min were guessed (1.24 times)" in words
    assert "2 tasks done without a time" in words and "1 part made again" in words and "0.21 mm off" in words


# --- instruments that send lines ----------------------------------------------------------------------------------


@pytest.mark.parametrize("size", [1, 3, 7, 1000])
@pytest.mark.parametrize("end", [b"\r\n", b"\n", b"\r"])
def test_a_stream_gives_its_readings_however_it_is_cut_up(size, end):
    sent = ["+ 19.42 mm", "19.40", "", "???", "-0,05 mm"]
    found, garbled = readings(as_sent(sent, size, end), read_gauge_line)
    assert [float(length) for length in found] == [19.42, 19.4, -0.05]
    assert [(each.line, "calliper" in each.why) for each in garbled] == [("???", True)]


def test_meter_and_hygrometer_send_over_the_same_stream():
    assert readings(as_sent(["MC 11.5 %", "9"]), read_line)[0] == [23 / 2, 9]
    now = datetime(2026, 3, 1)
    found, garbled = readings(as_sent(["21.5 C 47 %", "21 C 147 %"]), lambda line: read_air_line(line, now))
    assert [(each.temperature, each.humidity) for each in found] == [(21.5, 47.0)] and len(garbled) == 1


def test_noise_without_an_end_is_let_go():
    reader = LineReader(float)
    assert list(reader.feed(b"\xff" * (MOST_BYTES + 1))) == [] and "no end of line" in reader.garbled[0].why
    assert list(reader.feed(b"3.5\n")) == [3.5]
