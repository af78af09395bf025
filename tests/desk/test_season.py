"""The Season station as a user works it."""

from datetime import datetime

import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read

from nullah.core import actions
from nullah.core.lengths import mm
from nullah.core.wood.climate import PRESETS


def desk(user):
    return user.window.desk(5)


@pytest.mark.dear
def test_another_room_is_chosen_and_what_binds_there_is_mended_with_one_click(cabinetmaker):
    cabinetmaker.window.document.do("tight", lambda p: actions.give(p, "drawer.reveal", mm("0.1")))
    cabinetmaker.go("season")
    cabinetmaker.choose(desk(cabinetmaker).climate, PRESETS[1].name)
    assert cabinetmaker.reads_on_card("in height binds in August")
    mend = next(text for text in cabinetmaker.card_texts() if text.startswith("Make the gap round the front"))
    cabinetmaker.press(mend)
    assert cabinetmaker.plan.ledger["drawer.reveal"] > 0.4
    assert not cabinetmaker.reads_on_card("binds in")
    cabinetmaker.press("Undo")
    assert cabinetmaker.reads_on_card("in height binds in August")


def test_a_part_is_taken_in_hand_on_the_drawing(cabinetmaker):
    cabinetmaker.go("season")
    cabinetmaker.click_bench("back1")
    assert cabinetmaker.window.document.selection.part == "back1"
    assert cabinetmaker.reads_on_card("Back board 1: ")


def test_months_are_typed_in_the_table_and_what_cannot_be_is_said(cabinetmaker):
    cabinetmaker.go("season")
    cabinetmaker.press("Air month by month")
    table = desk(cabinetmaker).table
    assert table.isVisible() and table.table.item(0, 1).text() == "20"
    table.table.item(6, 2).setText("80")
    assert cabinetmaker.project.climate.months[6].humidity == 80 and cabinetmaker.project.climate.name == "as typed"
    assert desk(cabinetmaker).climate.currentText() == "as typed"
    table.table.item(6, 2).setText("130")
    assert "July" in as_read(table.sentence) and cabinetmaker.project.climate.months[6].humidity == 80
    table.table.item(6, 2).setText("damp")
    assert "“damp” is not a figure" in as_read(table.sentence)
    cabinetmaker.bot.keyClick(cabinetmaker.window, Qt.Key.Key_Z, Qt.KeyboardModifier.ControlModifier)
    assert cabinetmaker.project.climate == PRESETS[0]


@pytest.mark.dear
def test_a_log_is_brought_in_and_a_bad_one_changes_nothing(cabinetmaker, tmp_path):
    cabinetmaker.go("season")
    (tmp_path / "loft.csv").write_text("time,temperature,humidity\n2026-01-01T08:00,18,60\n")
    assert desk(cabinetmaker).bring_log(tmp_path / "loft.csv")
    assert "nothing of February" in as_read(desk(cabinetmaker).said)
    assert cabinetmaker.project.climate.name == "loft"
    (tmp_path / "bad.csv").write_text("time,temperature,humidity\n2026-01-01T08:00,18,160\n")
    assert not desk(cabinetmaker).bring_log(tmp_path / "bad.csv")
    assert "line 2" in as_read(desk(cabinetmaker).said) and cabinetmaker.project.climate.name == "loft"


def test_the_hygrometer_is_read_and_the_finish_chosen(cabinetmaker):
    cabinetmaker.go("season")
    desk(cabinetmaker).now = lambda: datetime(2026, 5, 4, 12)
    cabinetmaker.press("Read the hygrometer")
    assert cabinetmaker.project.climate.name == "simulated hygrometer"
    cabinetmaker.choose(desk(cabinetmaker).finish, "shellac")
    assert cabinetmaker.project.finish == "shellac"
