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
    cabinetmaker.type_line(numbers.fields[3], "3.5")
    assert cabinetmaker.reads_on_card("17 mm")
    cabinetmaker.type_line(numbers.fields[3], "30")
    assert cabinetmaker.reads_on_card("less deep than the 20 mm board")
    cabinetmaker.type_line(numbers.fields[3], "deep")
    assert "“deep” is not a figure" in numbers.sentence.text()
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "rabbet").id)
    assert not numbers.fields[0].isVisible()


def test_joints_by_themselves_need_no_piece(beginner):
    beginner.go("joints")
    beginner.choose(desk(beginner).corners, "made/tusk")
    assert beginner.reads_on_card("1 in 10")
    assert beginner.window.bench.drawing.elements


def test_a_tail_is_dragged_with_its_limits_said(user):
    user.go("joints")
    bench, corner = user.window.bench, user.plan.corner
    wide, half = float(corner.layout.spec.width), float(corner.layout.spec.half_pin)
    start = (-1.0, wide - half)
    a, b = (bench.scale.put(point).toPoint() for point in (start, (-1.0, wide - half - 3)))
    user.bot.mousePress(bench, Qt.MouseButton.LeftButton, pos=a)
    user.bot.mouseMove(bench, pos=b)
    assert any("half-pin" in e.text for e in bench.overlay.elements)
    user.bot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=b)
    assert float(user.plan.corner.layout.spec.half_pin) > half + 2
    assert user.window.document.undo_name.startswith("half-pin ")
    user.press("Undo")
    # Much too far: it stops at what can be made, and says why.
    a, b = (bench.scale.put(point).toPoint() for point in (start, (-1.0, wide * 0.4)))
    user.bot.mousePress(bench, Qt.MouseButton.LeftButton, pos=a)
    user.bot.mouseMove(bench, pos=b)
    assert any("run to a point" in e.text for e in bench.overlay.elements)
    user.bot.keyClick(bench, Qt.Key.Key_Escape)
    user.bot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=b)
    assert float(user.plan.corner.layout.spec.half_pin) == half
    assert not bench.overlay.elements


def test_practice_joints_are_kept_and_show_whether_they_get_better(user, tmp_path):
    user.go("joints")
    row = desk(user).practice
    row.file = tmp_path / "practice.json"
    user.press("Practice joint")
    assert row.told.text().startswith("No practice joint yet")
    for minutes, gap in (("60", "0.8"), ("55", "0.6"), ("50", "0,3")):
        user.bot.keyClicks(row.minutes, minutes)
        user.bot.keyClicks(row.gap, gap)
        user.press("Keep this try")
    assert row.told.text().startswith("3 practice joints: 50 min, widest gap 0.3 mm")
    user.bot.keyClicks(row.minutes, "long")
    user.press("Keep this try")
    assert "Figures, please" in row.told.text()
    row.minutes.setText("20")
    row.gap.setText("99")
    user.press("Keep this try")
    assert row.told.text() == "A gap of 0 to 10 mm."


def test_hands_are_typed_or_taken_from_practice_and_kept_with_the_project(cabinetmaker, tmp_path):
    cabinetmaker.go("joints")
    rows = desk(cabinetmaker)
    cabinetmaker.choose(rows.corners, kind(cabinetmaker, "through dovetail").id)
    assert cabinetmaker.reads_on_card("Trace the pins from the tails: of 100 corners about")
    cabinetmaker.press("Ways of working")
    cabinetmaker.type_line(rows.hands.fields[2], "9")
    assert rows.hands.sentence.text() == "From 0 to 5 mm."
    cabinetmaker.type_line(rows.hands.fields[2], "0.03")
    assert cabinetmaker.project.shop.hands.sawing == 0.03
    rows.practice.file = tmp_path / "practice.json"
    from nullah.core.joints.practice import JointTry
    from nullah.files.practice import write_joints

    write_joints(rows.practice.file, tuple(JointTry("2026-11-25", 40, 0.4, "nowhere") for _ in range(3)))
    cabinetmaker.press("From the practice joints")
    assert 0.1 < cabinetmaker.project.shop.hands.sawing < 0.4
    cabinetmaker.press("Undo")
    assert cabinetmaker.project.shop.hands.sawing == 0.03
