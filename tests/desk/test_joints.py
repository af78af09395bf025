"""The Joints station as a user works it."""

import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read

from nullah.core import actions
from nullah.core.joints.channel_dragging import handles
from nullah.core.joints.kinds import kinds_of
from nullah.core.joints.practice import JointTry
from nullah.core.lengths import mm
from nullah.core.piece.joint import Hold, RowChoice
from nullah.core.stations.selected_joint import selected_kind
from nullah.files.practice import practice_file, write_joints


def desk(user):
    return user.window.desk(4)


def kind(user, name):
    return next(each for each in kinds_of(user.plan.assembly) if each.name == name)


@pytest.mark.dear
def test_every_kind_of_joint_of_the_cabinet_can_be_chosen_and_is_laid_out(cabinetmaker):
    cabinetmaker.go("joints")
    for each in kinds_of(cabinetmaker.plan.assembly):
        cabinetmaker.choose(desk(cabinetmaker).corners, each.id)
        assert cabinetmaker.window.bench.drawing.elements, each.title
        assert "Mark" in cabinetmaker.card_texts(), each.title


@pytest.mark.dear
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
    assert as_read(rows.others.fields["depth"].sentence)
    assert cabinetmaker.plan.ledger["dado.depth"] == mm("4.5").mm


@pytest.mark.dear
def test_what_is_measured_leads_and_the_layout_follows(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "stopped dado").id)
    before = desk(cabinetmaker).others.fields["width"].line.text()
    cabinetmaker.window.document.do("measure", lambda p: actions.measure(p, "divider.thickness", mm("11.6")))
    assert desk(cabinetmaker).others.fields["width"].line.text() != before
    assert cabinetmaker.reads_on_card("11.6 mm")


@pytest.mark.dear
def test_ways_of_working_are_chosen_and_kept(cabinetmaker):
    cabinetmaker.go("joints")
    with cabinetmaker.in_shop() as shop:
        cabinetmaker.choose(shop.ways["dovetail"], "pins first")
    assert cabinetmaker.project.shop.schools.dovetail == "pins first"
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "through dovetail").id)
    assert cabinetmaker.reads_on_card("Stand the pins of")
    cabinetmaker.press("Undo")
    assert cabinetmaker.reads_on_card("Lay the tails of")


def test_a_joint_by_itself_is_a_piece_like_any_other(beginner):
    beginner.go("piece")
    rows = beginner.window.desk(0)
    beginner.choose(rows.form, "joint")
    beginner.choose(rows.drawn["joint"], "sliding dovetail")
    beginner.go("joints")
    assert beginner.reads_on_card("set the bevel to 1:7")
    assert [kind.name for kind in kinds_of(beginner.plan.assembly)] == ["sliding dovetail"]
    beginner.type_figure("joint.depth", "5 mm")
    assert beginner.reads_on_card("5 mm from the end")
    beginner.press("Undo")
    assert beginner.reads_on_card("7 mm from the end")


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
    assert as_read(row.told).startswith("No practice joint yet")
    for minutes, gap in (("60", "0.8"), ("55", "0.6"), ("50", "0,3")):
        user.bot.keyClicks(row.minutes, minutes)
        user.bot.keyClicks(row.gap, gap)
        user.press("Keep this try")
    assert as_read(row.told).startswith("3 practice joints: 50 min, widest gap 0.30 mm")
    user.bot.keyClicks(row.minutes, "long")
    user.press("Keep this try")
    assert "Figures, please" in as_read(row.told)
    row.minutes.setText("20")
    row.gap.setText("99")
    user.press("Keep this try")
    assert as_read(row.told) == "A gap of up to 10 mm."


@pytest.mark.dear
def test_hands_are_typed_or_taken_from_practice_and_kept_with_the_project(cabinetmaker):
    cabinetmaker.go("joints")
    rows = desk(cabinetmaker)
    cabinetmaker.choose(rows.corners, kind(cabinetmaker, "through dovetail").id)
    assert cabinetmaker.reads_on_card("Trace the pins from the tails: of 100 corners about")
    with cabinetmaker.in_shop() as shop:
        cabinetmaker.type_line(shop.hands.fields[2], "5.1")
        assert as_read(shop.hands.sentence) == "From 0 to 5 mm."
        cabinetmaker.type_line(shop.hands.fields[2], "0.03")
        assert cabinetmaker.project.shop.hands.sawing == 0.03
        write_joints(practice_file(), tuple(JointTry("2026-11-25", 40, 0.4, "nowhere") for _ in range(3)))
        cabinetmaker.press("From the practice joints")
    assert 0.1 < cabinetmaker.project.shop.hands.sawing < 0.4
    cabinetmaker.press("Undo")
    assert cabinetmaker.project.shop.hands.sawing == 0.03


# --- spacing, steps, and lines of every joint dragged -----------------------------------------------------------------


@pytest.mark.dear
def test_tails_are_spaced_as_chosen_and_as_on_a_corner_that_exists(user):
    user.go("joints")
    rows = desk(user)
    user.choose(rows.spacing.box, "wider below")
    sizes = [high - low for low, high in user.plan.corner.layout.tails]
    assert sizes[0] > sizes[-1] and user.reads_on_card("Mark 6") and not user.reads_on_card("Dividers")
    assert not rows.spacing.marks.isVisible()
    user.choose(rows.spacing.box, "match")
    user.type_in(rows.spacing.marks, "6, 26, 30, 70, 74, 94, 100 mm")
    sizes = [high - low for low, high in user.plan.corner.layout.tails]
    assert len(sizes) == 3 and sizes[1].mm == 2 * sizes[0].mm
    assert rows.spacing.box.value == "each by itself" and rows.spacing.marks.line.text() == ""
    user.choose(rows.spacing.box, "match")
    user.type_in(rows.spacing.marks, "6, 26, 80, 40, 100 mm")
    assert (
        "must grow" in as_read(rows.spacing.marks.sentence)
        and rows.spacing.marks.line.text() == "6, 26, 80, 40, 100 mm"
    )
    user.choose(rows.spacing.box, "equal")
    assert user.reads_on_card("Dividers")


def test_a_pin_of_a_row_by_hand_is_dragged_alone(user):
    user.go("joints")
    user.choose(desk(user).spacing.box, "each by itself")
    layout = user.plan.corner.layout
    edge, high = float(layout.marks[1]), float(layout.spec.width)
    user.drag((-2, high - edge), (-2, high - edge - 4))
    after = [float(high - low) for low, high in user.plan.corner.layout.tails]
    before = [float(high - low) for low, high in layout.tails]
    assert after[0] > before[0] + 2 and after[1] < before[1] - 2 and abs(after[2] - before[2]) < 1e-6
    user.press("Undo")
    assert [float(high - low) for low, high in user.plan.corner.layout.tails] == before


@pytest.mark.dear
def test_a_dados_stop_is_dragged_and_held(cabinetmaker):
    cabinetmaker.go("joints")
    dado = kind(cabinetmaker, "stopped dado")
    cabinetmaker.choose(desk(cabinetmaker).corners, dado.id)
    shown = selected_kind(cabinetmaker.plan, cabinetmaker.window.document.selection)
    (_, a, b) = next(each for each in handles(shown) if each[0].what == "stop")
    at = ((a[0] + b[0]) / 2, a[1])
    cabinetmaker.drag(at, (at[0], at[1] - 6))
    assert abs(float(cabinetmaker.plan.ledger["dado.stop"]) - 16) < 1.5
    cabinetmaker.press("Undo")
    assert cabinetmaker.plan.ledger["dado.stop"] == 10


@pytest.mark.dear
def test_the_steps_of_a_joint_are_gone_through_one_by_one(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "stopped dado").id)
    cabinetmaker.press("Step by step")
    assert cabinetmaker.reads_on_card("Step 1 of 5") and cabinetmaker.reads_on_card("Leave these lines")
    first = cabinetmaker.window.bench.drawing
    cabinetmaker.press("Next step")
    assert cabinetmaker.reads_on_card("Step 2 of 5") and cabinetmaker.window.bench.drawing != first
    for _ in range(9):
        if desk(cabinetmaker).steps.on.isEnabled():
            cabinetmaker.press("Next step")
    assert cabinetmaker.reads_on_card("Step 5 of 5")
    cabinetmaker.press("Step before")
    assert cabinetmaker.reads_on_card("Step 4 of 5")
    cabinetmaker.press("Step by step")
    assert not cabinetmaker.reads_on_card("Step 4 of 5")


@pytest.mark.dear
def test_what_a_shelf_measures_is_entered_at_its_joint(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "stopped dado").id)
    rows = desk(cabinetmaker).as_it_is
    assert rows.what.currentData()
    cabinetmaker.choose(rows.what, "divider.thickness")
    cabinetmaker.type_in(rows.field, "11.6 mm")
    reading = dict(cabinetmaker.project.piece.measured)["divider.thickness"]
    assert reading.value.text == "11.6 mm" and reading.on and reading.by == "with the caliper"
    assert cabinetmaker.reads_on_card("11.6 mm")
    cabinetmaker.type_in(rows.field, "thick")
    assert as_read(rows.field.sentence)


@pytest.mark.dear
def test_the_tools_there_are_decide_what_is_said(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "groove").id)
    with cabinetmaker.in_shop() as shop:
        cabinetmaker.type_in(shop.sets["plough_irons"], "20, 25 mm")
        assert cabinetmaker.reads_on_card("No iron of the plow enters")
        deepest = shop.figures["plough_deepest"]
        cabinetmaker.type_in(deepest, "1 mm")
        assert cabinetmaker.reads_on_card("The plow stops at 1.0 mm")
        cabinetmaker.type_in(deepest, "0.9 mm")
        assert as_read(deepest.sentence) == "From 1 mm to 100 mm."
        assert cabinetmaker.project.shop.plough_deepest.text == "1 mm"


@pytest.mark.dear
def test_what_holds_a_joint_its_nails_how_many_and_where_are_chosen(cabinetmaker):
    cabinetmaker.go("joints")
    back = next(each for each in kinds_of(cabinetmaker.plan.assembly) if each.joint.hold is Hold.NAILS)
    cabinetmaker.choose(desk(cabinetmaker).corners, back.id)
    fields = desk(cabinetmaker).fastening

    def row():
        return selected_kind(cabinetmaker.plan, cabinetmaker.window.document.selection).joint.figures

    assert fields.hold.currentData() == Hold.NAILS.value and not fields.usual.isVisible()
    assert fields.number.line.text() == str(len(row().places))
    cabinetmaker.type_in(fields.number, "4")
    cabinetmaker.type_in(fields.from_end, "30 mm")
    assert len(row().places) == 4 and row().from_end == 30
    longer = next(text for text in fields._sizes if text.startswith("25 mm"))
    cabinetmaker.choose(fields.size, longer)
    assert row().fastening.long == 25 and cabinetmaker.reads_on_card("25 mm")
    cabinetmaker.type_in(fields.from_end, "0")
    assert as_read(fields.from_end.sentence) and row().from_end == 30
    cabinetmaker.press("As usual")
    assert row().fastening.long != 25 and not fields.usual.isVisible()
    cabinetmaker.choose(fields.hold, Hold.GLUE.value)
    assert row() is None and not fields.number.isVisible()
    assert all(joint.hold is Hold.GLUE for joint in kind_of(cabinetmaker, back).all)
    cabinetmaker.press("Undo")
    assert row() is not None


def kind_of(user, one):
    return next(each for each in kinds_of(user.plan.assembly) if one.joint in each.all or each.id == one.id)


def test_a_dovetail_is_held_by_glue_and_nothing_is_chosen_there(cabinetmaker):
    cabinetmaker.go("joints")
    cabinetmaker.choose(desk(cabinetmaker).corners, kind(cabinetmaker, "through dovetail").id)
    assert not desk(cabinetmaker).fastening.hold.isVisible()


def test_nails_that_became_too_short_are_left_with_a_press_and_a_button_s_tongue_is_held_by_nothing(user):
    user.begin("Hanging rack")
    user.window.document.do("thin", lambda p: actions.give(p, "back.thickness", mm(8)))
    user.window.document.do("short", lambda p: actions.fasten(p, ("left-back", "right-back"), RowChoice(mm(10), mm(1))))
    user.go("joints")
    user.choose(desk(user).corners, next(each.id for each in kinds_of(user.plan.assembly) if each.id == "left-back"))
    fields = desk(user).fastening
    user.reach(fields.hold)
    assert fields.size.isVisible() and fields.usual.isVisible()
    user.window.document.do("thicker", lambda p: actions.give(p, "back.thickness", mm(10)))
    assert not fields.size.isVisible() and fields.usual.isVisible(), "none of that length reaches"
    user.go("piece")
    assert user.reads_on_card("10 mm long do not hold")
    user.press("Take the usual nails")
    user.go("joints")
    user.reach(fields.hold)
    assert fields.size.isVisible() and not fields.usual.isVisible()
    user.window.document.do("table", lambda p: actions.take_form(p, "table"))
    user.choose(desk(user).corners, next(each.id for each in kinds_of(user.plan.assembly) if "button" in each.id))
    assert not fields.hold.isVisible()
