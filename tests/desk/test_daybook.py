"""The Day Book as a user keeps it."""

from datetime import datetime, timedelta

import pytest
from PySide6.QtCore import QPointF, Qt
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QApplication, QLabel
from tests.desk.conftest import as_read

from nullah.core.bench.book import Event
from nullah.core.drawing import Fill, Role
from nullah.core.lengths import Unit, mm
from nullah.core.refs import TaskRef
from nullah.core.work import recording
from nullah.files.piece_records import read_records
from nullah.paper.painted_text import painted_texts

START = datetime(2026, 11, 26, 18, 40)


def desk(user):
    return user.window.desk(6)


@pytest.fixture
def keeper(cabinetmaker, tmp_path):
    rows = desk(cabinetmaker)
    rows.time = START
    rows.clock = lambda: rows.time
    rows.records = tmp_path / "records" / "pieces.json"
    cabinetmaker.go("daybook")
    return cabinetmaker


def pass_minutes(user, minutes):
    desk(user).time += timedelta(minutes=minutes)


def pick(user, task):
    rows = desk(user)
    user.press("Order")
    page = rows.page()
    number = next(n for n, each in enumerate(page.model.stand.order.tasks) if each.id == task)
    page.table.scrollTo(page.model.index(number, 1))
    spot = page.table.visualRect(page.model.index(number, 1)).center()
    user.bot.mouseClick(page.table.viewport(), Qt.MouseButton.LeftButton, pos=spot)


@pytest.mark.dear
def test_a_task_is_done_with_one_key_and_the_next_one_stands_there(keeper):
    title = keeper.card_texts()[0]
    assert title == "Saw Ford 4 apart: 8 cuts" and keeper.reads_on_card("Crosscut the board")
    keeper.bot.keyClick(keeper.window, Qt.Key.Key_Return, Qt.KeyboardModifier.ControlModifier)
    (entry,) = keeper.project.book
    assert entry.title == title and entry.minutes == 0
    assert keeper.card_texts()[0] != title and "offcuts of it came to the rack" in as_read(desk(keeper).said)
    keeper.press("Undo")
    assert keeper.project.book == () and keeper.card_texts()[0] == title


@pytest.mark.dear
def test_minutes_are_typed_or_come_from_the_timer(keeper):
    keeper.press("Start the timer")
    assert keeper.project.timer.task == "saw/4" and keeper.reads_on_card("The timer runs since 18:40")
    pass_minutes(keeper, 14)
    keeper.press("Done")
    assert keeper.project.book[-1].minutes == 14 and keeper.project.timer is None
    keeper.bot.keyClicks(desk(keeper).minutes, "soon")
    keeper.press("Done")
    assert "“soon” are no minutes" in as_read(desk(keeper).said) and len(keeper.project.book) == 1
    desk(keeper).minutes.clear()
    keeper.bot.keyClicks(desk(keeper).minutes, "21,5")
    keeper.press("Done")
    assert keeper.project.book[-1].minutes == 21.5


@pytest.mark.dear
def test_a_forgotten_timer_is_not_believed(keeper):
    keeper.press("Start the timer")
    pass_minutes(keeper, 60 * 20)
    keeper.press("Done")
    assert "forgotten" in as_read(desk(keeper).said) and keeper.project.book[-1].minutes < 30


@pytest.mark.dear
def test_any_task_is_picked_from_the_order_and_an_opening_measured_there(keeper):
    pick(keeper, "measure/divider.opening")
    assert keeper.card_texts()[0] == "Measure dado to dado"
    assert desk(keeper).what.currentData() == "divider.opening"
    keeper.type_in(desk(keeper).figure, "335.1 mm")
    assert keeper.plan.ledger["divider.opening"] == mm("335.1").mm
    assert keeper.project.book[-1].event is Event.MEASURED and "planned 336.0 mm" in keeper.project.book[-1].text
    assert keeper.reads_on_card("0.9 mm less than planned")
    keeper.press("Make it up with a shim of 0.9 mm")
    assert keeper.plan.ledger["divider.opening"] == 336 and "Shim of 0.9 mm" in keeper.project.book[-1].text


@pytest.mark.dear
def test_a_calliper_is_read_where_something_is_measured(keeper):
    pick(keeper, "mill/divider")
    keeper.choose(desk(keeper).what, "divider.thickness")
    keeper.press("Read the caliper")
    reading = dict(keeper.project.piece.measured)["divider.thickness"]
    assert abs(float(reading.value) - 12) < 0.2 and reading.by == "with the caliper"
    keeper.type_in(desk(keeper).figure, "thick")
    assert as_read(desk(keeper).figure.sentence)


def test_what_is_in_hand_is_what_went_wrong_as_a_rule(keeper):
    keeper.window.document.pick_part("drawer21_back")
    keeper.press("It went wrong …")
    assert desk(keeper).wrong.currentData() == "drawer21_back" and desk(keeper).wood.currentData()
    keeper.press("It went wrong …")
    keeper.window.document.pick_part("left")
    keeper.press("It went wrong …")
    assert desk(keeper).wrong.currentData() == "left"


@pytest.mark.dear
def test_when_all_of_a_task_is_measured_it_is_said_that_the_next_stands_there(user):
    rows = desk(user)
    rows.clock = lambda: START
    user.go("daybook")
    for task in rows._standing().order.tasks:
        if task.measures:
            break
        user.window.document.do(
            "done", lambda p, task=task: recording.finish(user.plan, task, "done", START, 5.0).project
        )
    user.type_in(rows.figure, "355.2 mm")
    assert "the next task stands here" in as_read(rows.said)
    assert float(user.plan.ledger["opening.length"]) == 355.2


@pytest.mark.dear
def test_a_part_cut_short_is_made_again_from_what_the_rack_has(keeper):
    keeper.press("It went wrong …")
    keeper.choose(desk(keeper).wrong, "drawer11_back")
    woods = desk(keeper).wood
    assert woods.count() > 1, "the smallest piece first, others to choose from"
    wanted = woods.itemData(1)
    keeper.choose(woods, wanted)
    keeper.type_line(desk(keeper).why, "cut short")
    keeper.press("Make it again")
    assert "another comes out of" in as_read(desk(keeper).said)
    assert keeper.plan.board_of("drawer11_back").board.id == wanted
    entry = keeper.project.book[-1]
    assert entry.event is Event.REMADE and "cut short" in entry.text and entry.parts == ("drawer11_back",)
    assert not desk(keeper).why.isVisible()
    keeper.press("Undo")
    assert keeper.project.book == ()


def test_notes_and_photographs_stand_in_the_book_and_are_searched(keeper, tmp_path):
    keeper.type_line(desk(keeper).text, "<b>hard</b> knot in Ford 4")
    picture = tmp_path / "knot.png"
    QImage(20, 20, QImage.Format.Format_RGB32).save(str(picture))
    desk(keeper).add_photo(picture)
    desk(keeper).add_photo(tmp_path / "none.png")
    assert "There is no photograph" in as_read(desk(keeper).said) and len(keeper.project.book) == 2
    keeper.press("The book")
    page = desk(keeper).page()
    lines = [page.list.item(n).text() for n in range(page.list.count())]
    assert "<b>hard</b> knot" in lines[1] and str(picture) in lines[0] and "gone" not in lines[0]
    assert not page.list.item(0).icon().isNull()
    picture.unlink()
    page.search.setText("knot ford")
    assert page.list.count() == 2 and "2 lines" in as_read(page.told)
    assert "the photograph is gone from there" in page.list.item(0).text()
    page.search.setText("walnut")
    assert page.list.count() == 0 and "0 of 2 lines" in as_read(page.told)


@pytest.mark.dear
def test_glance_shows_one_step_large(keeper):
    keeper.press("Glance")
    page = desk(keeper).page()
    QApplication.processEvents()
    painted = painted_texts(page)
    read = {each.text.replace("\u00a0", " "): each for each in painted}
    title = read["Saw Ford 4 apart: 8 cuts"]
    (kerf,) = [each for words, each in read.items() if words.endswith("1.5 mm") and words.startswith("Kerf")]
    assert kerf.box.height() > 24 and title.box.height() > 24, (
        "capitals of a hand's breadth away are read across the shop"
    )
    assert not any(each.isVisible() for each in (keeper.window.rod, keeper.window.column, keeper.window.strip))
    seen = set(page.steps_shown)
    while 7 not in seen:
        before = page.steps_shown
        keeper.bot.keyClick(page, Qt.Key.Key_Space)
        QApplication.processEvents()
        painted_texts(page)
        assert page.steps_shown != before, "nothing is left out"
        seen |= set(page.steps_shown)
    assert seen == set(range(8))
    keeper.press("Done")
    QApplication.processEvents()
    assert title.text not in [each.text for each in painted_texts(page)]
    keeper.press("Next")
    assert keeper.window.rod.isVisible() and keeper.window.column.isVisible()


@pytest.mark.dear
def test_hours_glue_and_hands_change_the_calendar(keeper):
    keeper.press("Calendar")
    assert keeper.reads_on_card("18 h a week")
    with keeper.in_shop() as shop:
        keeper.type_line(shop.hours[4], "9-17")
        assert keeper.project.working.hours.week[4] == (540, 1020)
        assert keeper.reads_on_card("26 h a week")
        keeper.type_line(shop.hours[4], "all day")
        assert "are no hours" in as_read(shop.hours_said) and keeper.project.working.hours.week[4] == (540, 1020)
        keeper.type_line(shop.clamps, "4")
        keeper.type_line(shop.people, "21")
        assert any("from 1 to 20" in as_read(label) for label in shop.findChildren(QLabel))
        keeper.type_line(shop.people, "20")
        keeper.type_line(shop.people, "1")
    rows = desk(keeper).working
    keeper.choose(rows.glue, "hide glue")
    keeper.type_line(rows.begin, "2027-02-01")
    working = keeper.project.working
    assert (working.glue, working.clamps, working.people, working.begin) == ("hide glue", 4, 1, "2027-02-01")
    assert any("February" in text or "March" in text for text in keeper.card_texts())
    keeper.type_line(rows.begin, "spring")
    assert "is not a day" in as_read(rows.said)


def test_the_calendar_is_written_as_a_file(keeper, tmp_path):
    keeper.press("Calendar")
    desk(keeper).working.write_calendar(tmp_path / "days.ics")
    assert "sessions are in days.ics" in as_read(desk(keeper).working.said)
    assert (tmp_path / "days.ics").read_text().startswith("BEGIN:VCALENDAR")
    desk(keeper).working.write_calendar(tmp_path / "no" / "days.ics")
    assert "cannot be written" in as_read(desk(keeper).working.said)


@pytest.mark.dear
def test_a_task_is_picked_on_the_calendar(keeper):
    keeper.press("Calendar")
    keeper.click_bench(TaskRef("saw/4"))
    assert keeper.card_texts()[0].startswith("Saw Ford 4"), "its card stands beside the days"
    order = keeper.window.desk(6)._standing().order
    (task,) = [each for each in order.tasks if each.id == "saw/4"]
    followers = [each for each in order.tasks if task.id in each.after]
    lit = [e for e in keeper.window.bench.drawing.elements if isinstance(e.ref, TaskRef) and e.fill is Fill.LIT]
    assert followers and lit, "what it lets go is lit"
    arrows = [e for e in keeper.window.bench.drawing.elements if getattr(e, "role", None) is Role.STROKE]
    assert arrows, "and pointed at"
    keeper.window._bench_clicked(None, QPointF(0, 0))
    assert keeper.card_texts()[0] == "Calendar"
    keeper.click_bench(TaskRef("saw/4"))
    keeper.press("Show it")
    assert keeper.window.desk(6).looks[""].isChecked() and keeper.card_texts()[0].startswith("Saw Ford 4")


@pytest.mark.dear
def test_a_finished_piece_leaves_its_record_and_the_next_starts_from_it(user, tmp_path, monkeypatch):
    rows = desk(user)
    rows.clock = lambda: datetime(2027, 1, 4, 19)
    rows.records = tmp_path / "pieces.json"
    monkeypatch.setattr("nullah.files.piece_records.records_file", lambda: rows.records)
    user.go("daybook")
    # All tasks at once, in their order.
    stand = rows._standing()
    for task in stand.order.tasks:
        user.window.document.do(
            "done", lambda p, task=task: recording.finish(user.plan, task, "done", rows.clock(), 20.0).project
        )
    rows.clock = lambda: datetime(2027, 3, 4, 19)
    user.go("piece")
    user.go("daybook")
    assert user.reads_on_card("Seed box is made.") and user.reads_on_card("waste")
    user.press("Save its times")
    (record,) = read_records(rows.records)
    assert record.name == "Seed box" and record.minutes == 20 * len(stand.order.tasks)
    user.window.papers.new("box", Unit.MM)
    assert dict(user.project.working.rates)["fit"].records > 0
    assert user.project.flawed_share != 0.2


def test_the_day_book_speaks_of_an_empty_piece(beginner):
    beginner.window.document.do("own", lambda p: p.__class__(p.piece.__class__("own")))
    beginner.go("daybook")
    assert beginner.reads_on_card("There is no piece to work at yet")
    beginner.press("Order")
    beginner.press("Calendar")
