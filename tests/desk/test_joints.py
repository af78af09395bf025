"""The Joints station as a user works it."""

from PySide6.QtCore import Qt

from nullah.core import actions
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import mm


def desk(user):
    return user.window.desk(4)


def kind(user, name):
    return next(each for each in kinds_of(user.plan.assembly) if each.name == name)


def test_every_kind_of_joint_of_the_cabinet_can_be_chosen_and_is_laid_out(cabinetmaker):
    cabinetmaker.go("joints")
    for each in kinds_of(cabinetmaker.plan.assembly):
        cabinetmaker.choose(desk(cabinetmaker).corners, each.id)
        assert cabinetmaker.window.bench.drawing.elements, each.title
        assert "Mark" in cabinetmaker.card_texts(), each.title


def test_a_dado_is_typed_in_the_row_and_on_the_drawing(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "stopped dado").id)
    rows = desk(cabinetmaker)
    assert rows.others.fields["depth"].line.text() == "5 mm"
    assert not rows.fields["count"].isVisible(), "tails are of dovetails"
    cabinetmaker.type_in(rows.others.fields["depth"], "4 mm")
    assert cabinetmaker.plan.ledger["dado.depth"] == 4
    cabinetmaker.type_figure("dado.depth", "4.5 mm")
    assert rows.others.fields["depth"].line.text() == "4.5 mm"
    cabinetmaker.type_in(rows.others.fields["depth"], "nothing")
    assert rows.others.fields["depth"].sentence.text()
    assert cabinetmaker.plan.ledger["dado.depth"] == mm("4.5").mm


def test_what_is_measured_leads_and_the_layout_follows(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "stopped dado").id)
    before = desk(cabinetmaker).others.fields["width"].line.text()
    cabinetmaker.window.document.do("measure", lambda p: actions.measure(p, "divider.thickness", mm("11.6")))
    assert desk(cabinetmaker).others.fields["width"].line.text() != before
    assert cabinetmaker.reads_on_card("11.6 mm")


def test_ways_of_working_are_chosen_and_kept(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.press("Ways of working")
    cabinetmaker.choose(desk(cabinetmaker).schools["dovetail"], "pins first")
    assert cabinetmaker.project.shop.schools.dovetail == "pins first"
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "through dovetail").id)
    assert cabinetmaker.reads_on_card("trace the tails with a thin knife")
    cabinetmaker.press("Undo")
    assert cabinetmaker.reads_on_card("Trace the pins from the tails")


def test_a_joint_by_itself_is_made_up_from_typed_figures(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, "made/sliding")
    numbers = desk(cabinetmaker).numbers
    assert cabinetmaker.reads_on_card("16 mm")
    numbers.fields[3].selectAll()
    cabinetmaker.bot.keyClicks(numbers.fields[3], "3.5")
    cabinetmaker.bot.keyClick(numbers.fields[3], Qt.Key.Key_Return)
    assert cabinetmaker.reads_on_card("17 mm")
    numbers.fields[3].selectAll()
    cabinetmaker.bot.keyClicks(numbers.fields[3], "30")
    cabinetmaker.bot.keyClick(numbers.fields[3], Qt.Key.Key_Return)
    assert cabinetmaker.reads_on_card("less deep than the 20 mm board")
    numbers.fields[3].selectAll()
    cabinetmaker.bot.keyClicks(numbers.fields[3], "deep")
    cabinetmaker.bot.keyClick(numbers.fields[3], Qt.Key.Key_Return)
    assert "“deep” is not a figure" in numbers.sentence.text()
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "rabbet").id)
    assert not numbers.fields[0].isVisible()


def test_joints_by_themselves_need_no_piece(beginner):
    beginner.go("joints")
    beginner.choose(desk(beginner).corners, "made/tusk")
    assert beginner.reads_on_card("1 in 10")
    assert beginner.window.bench.drawing.elements
