"""Clamps and the spreading of glue: one answer for all who ask."""

from dataclasses import replace

import pytest
from tests.said import said
from tests.told import planned

from nullah.core.bench.trades import Trade
from nullah.core.forms import FORMS
from nullah.core.lengths import mm
from nullah.core.operations.milling import GlueStaves, GlueTogether
from nullah.core.piece.facts import GluesTooLong
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.facts import fact_words
from nullah.core.work.clamping import clamps_for, row_of_clamps, spreading, staves_glue_up
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.shop_list import ClampsNeeded, shop_list


def top(staves, of="staves", glue="white glue", people=1, **given):
    chosen = tuple(sorted(FORMS["top"].settled({"of": of, "staves": str(staves), "ends": "none"}).items()))
    figures = [(name.replace("_", "."), mm(v)) for name, v in given.items()]
    if of == "slab":
        figures.append(("strips.count", staves))
    piece = Piece("top", "top", choices=chosen, given=tuple(figures))
    project = Project(piece=piece)
    working = project.working._replace(glue=glue, people=people)
    return work_out(replace(project, working=working), milling=False, proving=False)


@pytest.mark.parametrize(("long", "apart", "clamps"), [(99, 100, 1), (100, 100, 2), (700, 100, 8), (660, 200, 4)])
def test_one_row_of_clamps_spans_a_length(long, apart, clamps):
    assert row_of_clamps(long, apart) == clamps


@pytest.mark.parametrize("staves", [2, 3, 5, 9, 16])
def test_seams_do_not_multiply_clamps(staves):
    made = staves_glue_up(top(staves), top(staves).parts[0])
    assert made.clamps == row_of_clamps(float(top(staves).parts[0].cut_length), 200)
    assert sum(made.goes) == staves


def test_wide_faces_are_clamped_along_both_edges():
    thin, thick = top(6, "slab", top_thickness=75), top(6, "slab", top_thickness=76)
    one, two = (staves_glue_up(plan, plan.parts[0]).clamps for plan in (thin, thick))
    assert two == 2 * one


def test_what_is_too_much_for_the_open_time_is_glued_in_sections_and_everyone_says_so():
    for staves, of in ((5, "staves"), (16, "staves"), (4, "slab"), (12, "slab"), (16, "slab")):
        plan = top(staves, of)
        made = staves_glue_up(plan, plan.parts[0])
        glueing = [task for task in order_of_work(plan).tasks if task.id.startswith("staves/")]
        (staved,) = [each for task in glueing for each in task.operations if isinstance(each, GlueStaves)]
        joined = [each for task in glueing for each in task.operations if isinstance(each, GlueTogether)]
        assert staved.goes == len(made.goes) and len(joined) == (len(made.goes) > 1)
        assert all(each.clamps == made.clamps for each in (staved, *joined))
        card = next(station for station in STATIONS if station.id == "piece").card(plan, Selection())
        words = " ".join(said(remark, plan) for remark in card.mind)
        assert ("sections" in words) is (len(made.goes) > 1) and f"{made.clamps} clamps" in words
        clamps = next(need for need in shop_list(plan).used if isinstance(need, ClampsNeeded))
        assert clamps.number == made.clamps
        assert all(task.trade is Trade.MILL and task.waits == 12.0 for task in glueing)
    assert len(staves_glue_up(top(5), top(5).parts[0]).goes) == 1
    assert len(staves_glue_up(top(16, "slab"), top(16, "slab").parts[0]).goes) > 2


def test_a_slower_glue_or_another_pair_of_hands_makes_fewer_goes():
    def goes(**how):
        plan = top(16, "slab", **how)
        return len(staves_glue_up(plan, plan.parts[0]).goes)

    assert goes() > goes(glue="slow white glue") >= 1 and goes() > goes(people=3)
    plan = top(16, "slab")
    made = staves_glue_up(plan, plan.parts[0])
    assert not made.too_long and made.minutes <= made.open_minutes
    assert max(made.goes) - min(made.goes) <= 1


def test_a_row_of_clamps_over_both_ends_of_a_shelf_is_counted_once():
    plan = planned("case", tuple(sorted(FORMS["case"].settled({"rows": "3"}).items())))
    glued = [joint for joint in plan.assembly.joints if joint.hold.value == "glued" and joint.second == "divider11"]
    assert len(glued) == 2 and clamps_for(plan, glued) == clamps_for(plan, glued[:1])
    both = [
        joint
        for joint in plan.assembly.joints
        if joint.second in ("divider11", "divider21") and joint.hold.value == "glued"
    ]
    assert clamps_for(plan, both) == 2 * clamps_for(plan, glued)


def test_spreading_goes_by_area():
    assert spreading([10_000]) == pytest.approx(1.0) and spreading([50_000]) == pytest.approx(2.0)
    assert spreading([10_000] * 3) == pytest.approx(3 * spreading([10_000]))
    assert spreading([10_000], seams=True) < spreading([10_000]) / 2


def test_staves_that_no_goes_are_few_enough_for_are_said():
    def said_of(plan):
        card = next(station for station in STATIONS if station.id == "piece").card(plan, Selection())
        facts = (remark.fact for remark in card.mind)
        return [fact for fact in facts if isinstance(fact, GluesTooLong)]

    usual = top(5)
    assert said_of(usual) == []
    part = usual.parts[0]
    long = top(2, top_length=9000, top_thickness=120)
    made = staves_glue_up(long, long.parts[0])
    assert made.too_long and part.id == long.parts[0].id
    (found,) = said_of(long)
    assert found.minutes >= made.minutes > found.open_minutes == int(made.open_minutes)
    assert f"{found.minutes} min" in fact_words(found, long.reader)
