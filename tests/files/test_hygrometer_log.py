"""A hygrometer's log: what it makes of a year, and what is said of one that is not whole."""

from datetime import datetime

import pytest

from nullah.core.wood.climate import PRESETS, USUAL
from nullah.files.hygrometer_log import read_hygrometer_log, year_of_log
from nullah.files.tables import TableError
from nullah.instruments.hygrometer import HygrometerError, SimulatedHygrometer, read_air_line


def write(path, *rows):
    path.write_text("\n".join(("Time,Temperature,Humidity", *rows)) + "\n")
    return path


def test_a_year_of_the_simulated_hygrometer_gives_its_climate_back():
    for climate in PRESETS:
        log = year_of_log(SimulatedHygrometer(climate).year(datetime(2026, 1, 1)), "log", USUAL)
        assert log.said == ()
        # Means of a month of a wave that goes from one month's middle to the next lie near that month's figure.
        for found, true in zip(log.climate.months, climate.months, strict=True):
            assert abs(found.temperature - true.temperature) < 2.5 and abs(found.humidity - true.humidity) < 4


def test_months_without_a_reading_are_filled_and_said(tmp_path):
    path = write(tmp_path / "loft.csv", "2026-01-10T08:00,18,44", "2026-02-10T08:00,18,45")
    log = read_hygrometer_log(path, USUAL)
    assert log.climate.name == "loft" and log.climate.months[0] == (18, 44)
    assert "nothing of March, April" in log.said[0] and USUAL.name in log.said[0]
    # Ten points damper than usual in what was measured: so in what was filled.
    assert log.climate.months[6].humidity == pytest.approx(USUAL.months[6].humidity + 10, abs=0.1)


def test_a_clock_that_goes_backwards_is_said_and_nothing_is_lost(tmp_path):
    path = write(tmp_path / "a.csv", "2026-03-02T08:00,20,40", "2026-03-01T08:00,20,50", "2026-03-03T08:00,20,60")
    log = read_hygrometer_log(path, USUAL)
    assert "clock went back at 1 place" in log.said[0]
    assert log.climate.months[2] == (20, 50)


def test_a_day_with_many_readings_counts_no_more_than_another(tmp_path):
    rows = [f"2026-05-01T{hour:02d}:00,20,30" for hour in range(24)]
    log = read_hygrometer_log(write(tmp_path / "a.csv", *rows, "2026-05-02T08:00,20,50"), USUAL)
    assert log.climate.months[4].humidity == 40


@pytest.mark.parametrize(
    ("row", "words"),
    [("2026-03-01,20,101", "line 2: a humidity of 101 %"), ("2026-03-01,99,50", "no air of a room"),
     ("spring,20,50", "line 2: “spring, 20, 50” is not a time"), ("2026-03-01,,50", "is not a time"),
     ("2026-03-01,20,nan", "nan")],
)  # fmt: skip
def test_what_cannot_be_is_refused_with_its_line(tmp_path, row, words):
    with pytest.raises(TableError, match=words.replace("(", "\\(")):
        read_hygrometer_log(write(tmp_path / "a.csv", row), USUAL)


def test_files_that_are_no_log_are_refused(tmp_path):
    (tmp_path / "a.csv").write_text("day,warm\n1,2\n")
    with pytest.raises(TableError, match="lacks the columns time, temperature, humidity"):
        read_hygrometer_log(tmp_path / "a.csv", USUAL)
    with pytest.raises(TableError, match="cannot be read"):
        read_hygrometer_log(tmp_path / "none.csv", USUAL)
    (tmp_path / "b.csv").write_text("time,temperature,humidity\n")
    with pytest.raises(TableError):
        read_hygrometer_log(tmp_path / "b.csv", USUAL)


def test_a_line_as_a_hygrometer_sends_it():
    at = datetime(2026, 3, 1)
    assert read_air_line("21,5 C; 47 %", at) == (at, 21.5, 47.0)
    for line, words in (("warm", "is not what"), ("21 C 140 %", "cannot be"), ("90 C 40 %", "no air")):
        with pytest.raises(HygrometerError, match=words):
            read_air_line(line, at)
