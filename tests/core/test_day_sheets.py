"""The day's sheet, the book and the shop list on paper; what is shown, as it stands."""

from datetime import datetime

import pytest

from nullah.core.bench.book import BookEntry, Event
from nullah.core.bench.hours import Hours
from nullah.core.drawing import Label
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.sheets.as_shown import as_shown
from nullah.core.sheets.day import book_sheets, day_sheets, shop_sheets
from nullah.core.sheets.page import PAGE
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import DayBookSelection, Selection
from nullah.core.wording.task_titles import task_title
from nullah.core.work.day_book import least_minutes, measured_off, standing
from nullah.core.work.order_of_work import order_of_work
from nullah.demo.seed_cabinet import seed_cabinet

NOW = datetime(2026, 11, 26, 18, 30)


@pytest.fixture(scope="module")
def cabinet():
    return work_out(seed_cabinet(), milling=False, proving=False)


def words(sheets):
    return [element.text for sheet in sheets for element in sheet.drawing.elements if isinstance(element, Label)]


def on_the_page(sheets):
    for sheet in sheets:
        left, top, right, bottom = sheet.drawing.bounds()
        assert left >= 0 and top >= 0 and right <= PAGE[0] and bottom <= PAGE[1], sheet.name


def test_the_days_sheet_holds_what_the_calendar_puts_into_that_day_and_no_more(cabinet):
    sheets = list(day_sheets(cabinet, NOW))
    on_the_page(sheets)
    calendar = standing(cabinet, NOW).calendar
    today = {task_title(stint.task, cabinet.reader) for stint in calendar.stints if stint.begin.date() == NOW.date()}
    boxes = [text for text in words(sheets) if text.startswith("☐")]
    assert len(boxes) == len(today) and all(any(title[:24] in box for box in boxes) for title in today)
    assert sheets[0].title == "Thursday, November 26"


def test_all_cuts_of_a_board_stand_on_it(cabinet):
    texts = words(day_sheets(cabinet, NOW))
    board = next(each for each in cabinet.boards if each.board.id == "4")
    assert sum("Crosscut the" in text or "Rip the" in text for text in texts) >= len(board.cuts)


def test_without_hours_there_is_no_day(cabinet):
    never = cabinet.project.working._replace(hours=Hours((None,) * 7))
    plan = work_out(Project(piece=Piece("box"), working=never), milling=False, proving=False)
    assert list(day_sheets(plan, NOW)) == []
    assert list(day_sheets(work_out(Project(piece=Piece("own")), milling=False), NOW)) == []


def test_the_book_is_printed_in_its_order_over_as_many_pages_as_it_takes(cabinet):
    book = tuple(
        BookEntry(f"2026-11-{1 + n // 4:02d}T1{n % 4}:00", Event.NOTE, "", text=f"line {n} of the story")
        for n in range(100)
    )
    plan = work_out(Project(piece=Piece("box"), book=book), milling=False, proving=False)
    sheets = list(book_sheets(plan))
    on_the_page(sheets)
    assert len(sheets) > 1 and [sheet.name for sheet in sheets][:2] == ["book-page1", "book-page2"]
    told = [text.strip() for text in words(sheets) if "of the story" in text]
    assert told == [f"line {n} of the story" for n in range(100)]
    assert list(book_sheets(cabinet)) == []


def test_the_shop_list_has_a_box_for_everything(cabinet):
    sheets = list(shop_sheets(cabinet))
    on_the_page(sheets)
    texts = words(sheets)
    assert any(text.startswith("☐ Nails") for text in texts) and any("Dividers" in text for text in texts)


@pytest.mark.parametrize("station", STATIONS, ids=lambda station: station.id)
def test_any_station_is_printed_as_it_stands(cabinet, station):
    selection = Selection(part="left", daybook=DayBookSelection(now="2026-11-26T18:30"))
    sheets = as_shown(cabinet, station, selection)
    on_the_page(sheets)
    card = station.card(cabinet, selection)
    texts = " ".join(words(sheets))
    assert sheets[0].title == (card.title or station.title)
    assert all(setting.figure in texts for setting in card.set[:3])


def test_the_critical_path_is_less_than_the_hours_and_no_less_than_the_longest_wait(cabinet):
    stand = standing(cabinet, NOW)
    least = least_minutes(stand)
    longest = max(task.waits for task in order_of_work(cabinet).tasks) * 60
    took = (stand.calendar.finish - NOW).total_seconds() / 60
    assert longest < least < took


def test_what_was_measured_to_a_hair_counts_for_the_record_though_nothing_is_made_of_it(cabinet):
    from nullah.core.lengths import mm
    from nullah.core.work.day_book import deviations
    from nullah.core.work.recording import measured

    plan = work_out(measured(cabinet, "column.width", mm("325.9"), NOW), milling=False, proving=False)
    (found,) = measured_off(plan)
    assert found.off == pytest.approx(-0.1) and "length of the dividers" in found.follows
    assert deviations(plan) == ()
