"""The cut list: equal parts together, named together, with their wood, and what is to be left long."""

import re
from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.same import untyped
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.bench.cutlist import grouped, price_of, short, volumes
from nullah.core.forms import FORMS
from nullah.core.ledger import Measured
from nullah.core.lengths import Marks, Unit, mm
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import BoardError, NoPrice, read_price, write_price
from nullah.core.reader import Reader
from nullah.core.work.cut_list import cut_list
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.project_file import parse_project, project_text


def title(group):
    """Return what equal parts are called together."""
    return Reader().name_together(group.names)


def groups_of(project):
    return list(grouped(cut_list(work_out(project, milling=False, proving=False))))


@pytest.mark.sampled(12)
@pytest.mark.parametrize(("form", "chosen"), [(form, chosen) for form in FORMS for chosen in each_choice(form)])
def test_left_over_is_every_size_that_a_measurement_still_changes_and_no_other(form, chosen):
    plan = planned(form, chosen)
    changed = {part.id: (False, False, False) for part in plan.parts}
    for name in {name for part in plan.parts for name in plan.waiting(part)}:
        more = plan.ledger.length(name) + mm(1)
        piece = Piece(form, form, choices=chosen, measured=((name, Measured(more)),))
        measured = work_out(Project(piece=piece), milling=False, proving=False)
        for part in measured.parts:
            sizes = zip(sizes_of(part), sizes_of(plan.part(part.id)), changed[part.id], strict=True)
            changed[part.id] = tuple(before or new != old for new, old, before in sizes)
    assert {part.id: tuple(plan.left_over(part)) for part in plan.parts} == changed


def sizes_of(part):
    return part.cut_length, part.width, part.thickness


def test_equal_parts_are_made_together():
    groups = groups_of(seed_cabinet())
    found = {title(group): group.quantity for group in groups}
    assert found["left side and right side"] == 2
    assert found["divider 1 to 3"] == 3 and found["back board 1 to 3"] == 3
    assert found["drawer 1 bottom and 3 alike"] == 4
    assert sum(found.values()) == 30
    fronts = [group for group in groups if title(group).endswith("front")]
    assert len(fronts) == 4, "stepped fronts are four sizes"
    even = groups_of(actions.choose(seed_cabinet(), "heights", "even"))
    assert any(group.quantity == 4 and title(group).startswith("drawer 1 front") for group in even)


def test_what_waits_and_what_shows_stands_in_the_row():
    rows = {row.id: row for row in cut_list(work_out(seed_cabinet(), milling=False, proving=False))}
    assert rows["drawer11_front"].waits == "width of the openings and height of row 1"
    assert rows["left"].waits == ""
    assert rows["left"].shows == ("front", "left", "top") and rows["back1"].shows == ()
    assert rows["left"].cut_length == mm(441) and rows["left"].length == mm(440), "end grain to be planed flush"
    assert rows["left"].rough_length == mm(466), "and 25 for the saw"
    assert rows["left"].species == "black cherry" and rows["back1"].species == "yellow-poplar"
    assert rows["left"].board == "Ford 1"


def test_a_part_that_was_measured_goes_its_own_way():
    project = seed_cabinet()
    for name, value in (("column.width", mm(326)), ("row1.height", mm("77.5"))):
        project = actions.measure(project, name, value)
    titles = [title(group) for group in groups_of(project) if not group.rows[0].waits]
    assert "drawer 1 front" in titles, "settled, so no longer among those that wait"


def test_volumes_are_those_of_the_boards():
    groups = groups_of(Project(Piece("top", choices=(("ends", "none"), ("staves", "2")))))
    finished, rough = volumes(groups)
    assert finished == pytest.approx(700 * 420 * 21)
    assert rough == pytest.approx(2 * 730 * 216 * 24)
    # A board foot is 144 cubic inches (exact); a cubic metre has 10⁹ mm³.
    assert Marks().write_volume(finished) == "0.0062 m³"
    inches = Marks(Unit.INCH).write_volume(144 * 25.4**3 * 2.5)
    assert inches.startswith("2.5")


def test_names_are_put_together():
    assert Reader().name_together(["rail"]) == "rail"
    assert Reader().name_together(["rail 1", "rail 2"]) == "rail 1 and 2"
    assert Reader().name_together(["a", "b", "c"]) == "a, b, and c"
    assert Reader().name_together(["a", "b", "c", "d"]) == "a and 3 alike"
    assert short("a long name of a part", 10) == "a long na…" and short("short", 10) == "short"


def test_a_boards_price_is_shared_out_by_the_area_that_is_sawn():
    unpaid = tuple(replace(board, price=Fraction(0)) for board in seed_cabinet().boards)
    project = replace(seed_cabinet(), boards=unpaid)
    assert price_of(groups_of(project)) == 0, "no price is known"
    board = project.board("3")
    project = actions.change_board(project, replace(board, price=read_price("36.00")))
    rows = {row.id: row for row in cut_list(work_out(project, milling=False, proving=False))}
    share = Fraction(361 * 227, 1240 * 236)
    assert rows["divider11"].price == 36 * share and rows["left"].price == 0
    assert price_of(groups_of(project)) == 3 * 36 * share
    assert untyped(parse_project(project_text(project), "x")) == untyped(project)


@pytest.mark.parametrize("text", ["-3", "much", "1e3", "4.555", "12345678", "4.5 €"])
def test_what_is_no_price_is_said(text):
    with pytest.raises(BoardError) as refused:
        read_price(text)
    assert refused.value.fact == NoPrice(text)


@pytest.mark.parametrize(
    ("text", "shown"), [("42", "42.00"), ("42,5", "42.50"), (" 0.05 ", "0.05"), ("0", ""), ("", "")]
)
def test_prices_are_read_and_written(text, shown):
    assert write_price(read_price(text)) == shown


@given(st.sets(st.integers(1, 30), min_size=2), st.randoms())
def test_numbers_told_in_one_are_those_that_are_meant(numbers, chance):
    names = [f"button {number}" for number in numbers]
    chance.shuffle(names)
    said = Reader().name_together(names)
    assert said.startswith("button ")
    told = set()
    for run in re.split(r", and |, | and ", said.removeprefix("button ")):
        first, _, last = run.partition(" to ")
        told |= set(range(int(first), int(last or first) + 1))
    assert told == numbers
