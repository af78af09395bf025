import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read

from nullah.core.lengths import mm


def test_the_first_mend_is_one_click(user):
    user.go("milling")
    assert user.window.rod.marks[3].state == "3 parts too thin"
    assert user.reads_on_card("will not reach 16 mm, only 15.5 mm; 19.3 mm if cut out before flattening")
    user.press("Cut Ford 2 first")
    assert user.window.rod.marks[3].state == "all thick enough"
    assert user.window.desk(3).ticks["2"].isChecked()
    assert user.chip(user.plan.parts[0].id).told == "planned"


def test_the_other_mend_makes_the_piece_thinner_throughout(user):
    user.go("milling")
    user.press("Make them all 15.5 mm thick")
    assert {user.plan.part(p).thickness for p in ("front", "back", "left", "right")} == {mm("15.5")}
    assert user.window.rod.marks[3].state == "all thick enough"
    assert user.plan.corner.layout.gauge_tail_board == mm(16), "the gauge follows"


def test_flattening_is_chosen_board_by_board(user):
    user.go("milling")
    user.window.desk(3).ticks["2"].click()
    assert user.project.cut_first == {"2"}
    user.press("Undo")
    assert not user.window.desk(3).ticks["2"].isChecked()


@pytest.mark.dear
def test_the_corner_is_typed_and_read_off_the_card(user):
    user.go("joints")
    desk = user.window.desk(4)
    user.type_in(desk.fields["count"], "4")
    # Hand arithmetic: (130 - 16 + 7) / 4.
    assert user.reads_on_card("30.3 mm")
    user.type_in(desk.fields["slope"], "1:8")
    assert user.reads_on_card("7.1° from square")
    user.type_in(desk.fields["half_pin"], "10")
    assert user.plan.ledger.quantity("tails.half_pin").origin.value == "overruled"
    user.type_in(desk.fields["proud"], "0")
    assert user.reads_on_card("set to left end and front")
    user.type_figure("tails.pin", "5 mm")
    assert user.plan.corner.layout.spec.pin == mm(5)
    assert desk.fields["pin"].line.text() == "5 mm"


@pytest.mark.dear
def test_a_corner_that_cannot_be_made_says_so_first(user):
    user.go("joints")
    user.type_in(user.window.desk(4).fields["count"], "20")
    assert user.window.rod.marks[4].state == "cannot be made yet"
    assert user.reads_on_card("Up to")
    user.type_in(user.window.desk(4).fields["count"], "0")
    assert "not a number" in as_read(user.window.desk(4).fields["count"].sentence)
    assert user.plan.ledger["tails.count"] == 20


def test_a_groove_that_shows_is_mended_in_one_click(user):
    user.type_figure("groove.height", "4 mm")
    user.go("joints")
    assert user.reads_on_card("shows in both boards")
    (mend,) = [text for text in user.card_texts() if text.startswith("Put the groove at")]
    user.press(mend)
    assert user.reads_on_card("The groove runs inside tail 1")


def test_the_part_in_hand_stays_in_hand(user):
    user.bot.mouseClick(user.chip("left"), Qt.MouseButton.LeftButton)
    for station in ("breakdown", "milling", "joints", "rack"):
        user.go(station)
        assert user.chip("left").isChecked()
    assert user.reads_on_card("Ford 2"), "the rack shows its board"


def test_the_chisels_there_are_decide_what_the_card_says(user):
    user.go("joints")
    with user.in_shop() as shop:
        field = shop.sets["chisels"]
        user.type_in(field, "1/4 in, 1/2 in, 3/4 in")
        assert user.reads_on_card("3/4″") and user.reads_on_card("1/4″")
        user.type_in(field, "9 mm")
        assert sum("The widest chisel that enters is" in text for text in user.card_texts()) == 1, "between the pins"
        assert user.reads_on_card("No chisel on the wall enters the 7.0 mm between two tails.")
        user.type_in(field, "wide, narrow")
        assert "not a length" in as_read(field.sentence) and field.line.text() == "wide, narrow"
    assert len(user.project.shop.chisels) == 1
    user.press("Undo")
    user.press("Undo")
    assert len(user.project.shop.chisels) == 6
