"""What the Day Book says task by task, over all forms and choices."""

import re

import pytest
from tests.core.test_rehearsal import FORMS_MADE
from tests.told import each_choice, planned

from nullah.core import actions
from nullah.core.bench.tasks import Joining
from nullah.core.bench.trades import Trade
from nullah.core.lengths import Length
from nullah.core.operations.lines import LineKind
from nullah.core.operations.marking import Gauge
from nullah.core.operations.shaping import PlaneTaper
from nullah.core.operations.stock import Surface
from nullah.core.operations.tenons import GaugePair, SawTenon
from nullah.core.plan import work_out
from nullah.core.wording.operations import alike_operations, operation_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work.order_of_work import order_of_work

EVERY = [(form, chosen) for form in FORMS_MADE for chosen in each_choice(form)]


def tasks_of(form, chosen=()):
    plan = planned(form, chosen)
    return plan, order_of_work(plan).tasks


def told(plan, task):
    return [operation_words(alike, plan.reader) for alike in alike_operations(task.operations)]


@pytest.mark.sampled(11)
@pytest.mark.parametrize(("form", "chosen"), EVERY)
def test_what_is_glued_or_nailed_was_planed_clean_before(form, chosen):
    _, tasks = tasks_of(form, chosen)
    planed: set[str] = set()
    for task in tasks:
        planed |= set(task.parts) if task.trade is Trade.SMOOTH else set()
        lasting = {part for join in task.joins if join.how in (Joining.GLUE, Joining.NAILS) for part in join.parts}
        assert lasting <= planed, task.id


def test_what_was_joined_before_goes_in_with_what_holds_it():
    plan, tasks = tasks_of("chest")
    said = {task.id: task_title(task, plan.reader) for task in tasks}
    assert "with them small compartment's side and" in said["glue/piece/3"]
    assert "with them" not in said["glue/piece/2"]


@pytest.mark.parametrize("form", ["table", "case", "top", "stand"])
def test_frames_that_are_made_up_go_in_by_their_names_only(form):
    plan, tasks = tasks_of(form)
    assert not [title for task in tasks if "with them" in (title := task_title(task, plan.reader))]


@pytest.mark.sampled(11)
@pytest.mark.parametrize(("form", "chosen"), EVERY)
def test_every_piece_of_waste_round_a_tenon_is_told(form, chosen):
    plan, tasks = tasks_of(form, chosen)
    for sawn in (each for task in tasks for each in task.operations if isinstance(each, SawTenon)):
        words, cheeks, edges, between = operation_words([sawn], plan.reader), False, False, False
        for waste in sawn.takes:
            narrow, low, high = _narrow(waste, sawn.stock)
            inside = low > 0 and high < float(sawn.stock[narrow])
            between |= inside
            cheeks |= narrow == sawn.through and not inside
            edges |= narrow == sawn.across and not inside
        assert ("cheek" in words) == cheeks
        assert ("the edges in" in words or "outside them" in words) == edges
        assert ("between" in words) == between


def _narrow(waste, stock):
    """Return across which axis a block of waste at an end is less than the part, and from where to where, mm."""
    spans = {axis: (min(at), max(at)) for axis, at in enumerate(zip(*waste.polygon, strict=True), start=1)}
    (narrow,) = [axis for axis, (low, high) in spans.items() if high - low < float(stock[axis])]
    return narrow, *spans[narrow]


def test_lines_of_one_kind_are_told_beside_each_other():
    plan, tasks = tasks_of("tray", (("dividers", "2"),))
    (lines,) = [words for task in tasks if len(words := told(plan, task)) > 4 and "first wall" in words[0]]
    kinds = [re.split(r"\d", line)[0] for line in lines]
    assert kinds == sorted(kinds, key=kinds.index) and len(set(kinds)) < len(kinds)


@pytest.mark.parametrize("thick", [15, 18, 21, 30, 31, 45, 60])
def test_pegs_are_no_thicker_than_ten_and_leave_wood_to_the_shoulder(thick):
    plan = planned("top", ())
    plan = work_out(actions.give(plan.project, "top.thickness", Length(thick)), milling=False, proving=False)
    peg = float(plan.ledger["peg.diameter"])
    assert 0 < peg <= 10
    assert peg <= thick / 3 + 0.5 and float(plan.ledger["peg.inset"]) - peg / 2 >= 3


@pytest.mark.parametrize("chosen", list(each_choice("table")))
def test_a_table_is_gauged_from_reference_surfaces_that_no_taper_takes_away(chosen):
    _, tasks = tasks_of("table", chosen)
    framed = {part for task in tasks for part in task.parts if part.startswith("leg") or part.endswith("apron")}
    done = [each for task in tasks for each in task.operations if each.part in framed]
    from_side = {Surface.FACE_SIDE, Surface.FACE_EDGE}
    aprons = [each for each in done if isinstance(each, GaugePair) and each.part.endswith("apron")]
    assert aprons and all(each.near.origin is Surface.FACE_SIDE for each in aprons)
    ends = [each for each in done if isinstance(each, Gauge) and each.kind is LineKind.MORTISE_END]
    assert ends and all(each.setting.origin is Surface.REFERENCE_END for each in ends)
    tapered = [each for each in done if isinstance(each, PlaneTaper)]
    if ("legs", "inner") in chosen:
        assert tapered and not any(setting.origin in from_side for each in tapered for setting in each.settings)
