"""Units are known in one place: elsewhere nobody asks which is shown, and figures are written by `Marks`."""

import ast
import re
from dataclasses import replace
from functools import cache
from pathlib import Path

import pytest
from tests.told import each_choice, operations_of, planned, planned_in_inches

from nullah.core import actions
from nullah.core.drawing import Dimension, Label
from nullah.core.forms import FORMS
from nullah.core.lengths import STYLES, Length, Marks, Unit, mm, read_length
from nullah.core.plan import work_out
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import JointsSelection, Selection
from nullah.core.wording.card import worded
from nullah.core.wording.operations import operation_words
from nullah.core.wording.shop_list import shop_list_words
from nullah.core.work.shop_list import shop_list
from nullah.demo.seed_cabinet import seed_cabinet

SOURCE = Path(__file__).parents[1] / "src" / "nullah"
LEFT = Path(__file__).with_name("units_left.txt")
#: A unit of length, area or volume at the end of a figure, in a text that is not for a programmer.
WRITTEN = re.compile(r"(^|[ \d}])(mm|cm|m³|m²|cm³|dm²|″)([ .,;:)]|$)")
#: Rooms that turn figures into words, hold units themselves, or speak of paper and pixels.
FREE = ("core/lengths", "core/wording", "paper", "core/sheets/page.py")


@cache
def modules():
    names = {path: str(path.relative_to(SOURCE)) for path in sorted(SOURCE.rglob("*.py"))}
    return [
        (name, ast.parse(path.read_text(encoding="utf-8"))) for path, name in names.items() if not name.startswith(FREE)
    ]


def docstrings(tree):
    return {
        node.body[0].value
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }


@pytest.mark.dear
def test_nobody_else_asks_which_unit_is_shown():
    asking = set()
    for name, tree in modules():
        for node in ast.walk(tree):
            if isinstance(node, ast.Compare) and any(
                isinstance(each, ast.Name) and each.id == "Unit" for each in ast.walk(node)
            ):
                asking.add(f"{name}:{node.lineno}")
    assert not asking


@pytest.mark.dear
def test_fewer_and_fewer_rooms_write_a_unit_themselves():
    found = {}
    for name, tree in modules():
        told = docstrings(tree)
        count = sum(
            isinstance(node, ast.Constant)
            and isinstance(node.value, str)
            and node not in told
            and bool(WRITTEN.search(node.value))
            for node in ast.walk(tree)
        )
        if count:
            found[name] = count
    lines = (line.rsplit(" ", 1) for line in LEFT.read_text(encoding="utf-8").splitlines())
    allowed = {name: int(count) for name, count in lines}
    assert found == allowed, "write figures with Marks; where some do now, lower the list"


@pytest.mark.parametrize("unit", list(Unit), ids=lambda unit: unit.value)
def test_what_is_written_in_a_unit_is_read_back_as_the_same_length(unit):
    marks = Marks(unit)
    for length in (mm("0.5"), mm("19.05"), mm(340), mm("1219.2")):
        to_mark = marks.to_mark(length)
        assert (
            read_length(marks.write(length), unit).mm
            == to_mark.mm
            == read_length(marks.write(length, unit=False), unit).mm
        )
        assert abs((to_mark - length).mm) <= marks.smallest.mm / 2
        fine = read_length(marks.write_fine(length), unit)
        assert abs((fine - length).mm) <= STYLES[unit].mm / 10 ** STYLES[unit].fine / 2
        setting = marks.to_setting(length)
        assert read_length(marks.write_setting(length), unit).mm == setting.mm


@pytest.mark.parametrize("unit", list(Unit), ids=lambda unit: unit.value)
def test_every_unit_has_marks_that_its_rule_has(unit):
    for mark, text in STYLES[unit].marks:
        marks = Marks(unit).with_smallest(mark)
        assert marks.rule_mark == mark and read_length(text).mm == marks.smallest.mm
        other = next(each for each in Unit if STYLES[each].rule is not STYLES[unit].rule)
        assert replace(marks, unit=other).smallest == Marks(other).smallest, "the other rule keeps its own"


@pytest.mark.dear
def test_centimetres_are_shown_at_every_station_and_no_millimetres_beside_them():
    project = actions.show_in(seed_cabinet(), replace(Marks(), unit=Unit.CM))
    plan = work_out(project)
    texts = []
    for station in STATIONS:
        selection = Selection(part=plan.parts[0].id)
        texts += [each.text for each in station.draw(plan, selection).elements if isinstance(each, Dimension | Label)]
        card = worded(station.card(plan, selection), plan.reader)
        # A chisel is called by the size it was bought in.
        texts += [f"{each.figure} {each.note}" for each in card.set if not each.tool.startswith("Chisel")]
        texts += [each.text for each in card.mind]
    assert any(re.search(r"\d cm\b", text) for text in texts)
    assert not [text for text in texts if re.search(r"\d mm\b", text)]


def told(plan):
    """Yield all that is told of a piece: its operations, what is needed, and drawings and cards of every joint."""
    for part in plan.parts:
        yield from (operation_words([each], plan.reader) for each in operations_of(plan, part) or ())
    for _, needs in shop_list_words(shop_list(plan), plan.reader):
        # Glue and oil are sold by weight and volume.
        yield from (f"{need.what}: {need.much}" for need in needs)
    shown = [Selection(part=part.id) for part in plan.parts]
    shown += [Selection(joints=JointsSelection(joint.id)) for joint in plan.assembly.joints]
    for station in STATIONS:
        for selection in shown if station.title in ("Piece", "Joints", "Season") else ():
            yield from (e.text for e in station.draw(plan, selection).elements if isinstance(e, Dimension | Label))
            card = worded(station.card(plan, selection), plan.reader)
            yield from (f"{each.tool}: {each.figure} {each.note}" for each in card.set)
            yield from (*card.mark, *(each.text for each in card.mind), *card.why)


@pytest.mark.dear
@pytest.mark.parametrize(
    ("form", "chosen"), [(form, chosen) for form in FORMS if form != "own" for chosen in each_choice(form)]
)
def test_a_piece_is_told_in_the_unit_it_was_begun_in_and_in_no_other(form, chosen):
    inches, millimetres = list(told(planned_in_inches(form, chosen))), list(told(planned(form, chosen)))
    assert any("″" in text for text in inches) and any(" mm" in text for text in millimetres)
    assert not [text for text in inches if re.search(r"\d.?(mm|cm)\b", text)]
    assert not [text for text in millimetres if "″" in text]


def test_a_bare_number_is_in_the_unit_shown_and_what_was_typed_in_another_comes_back_as_typed():
    assert read_length("34", Unit.CM).mm == 340 and read_length("34 cm").unit is Unit.CM
    assert Marks(Unit.CM).write(Length(mm(345).mm)) == "34.5 cm"
    assert Marks(Unit.MM).write_to_edit(read_length("34 cm")) == "34 cm"
