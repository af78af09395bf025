"""The piece through a year: what moves, what binds in which month, the clearance that would do, where glue may go."""

from dataclasses import replace
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st
from tests.said import said

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.fixes import Give, SlotScrews
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.kinds import kinds_of
from nullah.core.lengths import mm
from nullah.core.piece.space import Axis
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Reading
from nullah.core.rack.drying import Room
from nullah.core.reader import Reader
from nullah.core.refs import QuantityRef
from nullah.core.season.fits import Verdict
from nullah.core.season.swelling import growth
from nullah.core.stations import STATIONS
from nullah.core.stations.season import shown_fits
from nullah.core.stations.selection import JointsSelection, Selection
from nullah.core.wood.climate import MONTHS, PRESETS, USUAL, ClimateError, NotTwelveMonths, OfMonth, climate_of, year_of
from nullah.core.wood.moisture import HumidityOutside
from nullah.core.wording.facts import error_words
from nullah.core.wording.season import advice, fit_title
from nullah.core.work.seasons import room_to_leave, season_of, stock_of
from nullah.demo.seed_cabinet import seed_cabinet

SEASON = next(station for station in STATIONS if station.id == "season")


def planned(project):
    return work_out(project, milling=False, proving=False)


@pytest.fixture(scope="module")
def cabinet():
    return planned(seed_cabinet())


# --- the air ----------------------------------------------------------------------------------------------------------


def test_a_heated_house_swings_by_about_three_points():
    assert USUAL.swing == pytest.approx(3, abs=0.2)
    assert len({preset.name for preset in PRESETS}) == len(PRESETS)
    damp, dry = PRESETS[3].moisture, PRESETS[2].moisture
    assert min(damp) > max(dry)


def test_air_that_cannot_be_is_refused_with_its_month():
    months = [(20, 50)] * 12
    months[4] = (20, 105)
    with pytest.raises(ClimateError) as refused:
        climate_of("x", months)
    assert refused.value.fact == OfMonth(4, HumidityOutside(105))
    assert error_words(refused.value).startswith("May: ")
    with pytest.raises(ClimateError) as refused:
        climate_of("x", months[:5])
    assert refused.value.fact == NotTwelveMonths(5)


@given(st.floats(0.5, 400), st.sampled_from(PRESETS))
def test_wood_never_moves_beyond_its_air_and_the_slower_the_less(days, climate):
    year = year_of(climate, days)
    assert min(climate.moisture) - 1e-9 <= min(year) and max(year) <= max(climate.moisture) + 1e-9
    slower = year_of(climate, days * 2)
    assert max(slower) - min(slower) <= max(year) - min(year) + 1e-9


def test_thick_wood_lags_behind_its_air():
    quick, slow = year_of(USUAL, 1.0), year_of(USUAL, 60.0)
    assert slow.index(max(slow)) > quick.index(max(quick))


# --- what moves -------------------------------------------------------------------------------------------------------


def test_nothing_moves_along_its_grain_and_most_across_it(cabinet):
    side = cabinet.part("left")
    stock = stock_of(cabinet, "left")
    assert growth(side, stock, Axis.Z) == (0.0,) * 12
    across = growth(side, stock, Axis.Y)
    assert max(across) - min(across) == pytest.approx(
        230 * stock.species.tangential * (max(stock.year) - min(stock.year))
    )
    # A flat-sawn board moves radially in its thickness.
    through = growth(side, stock, Axis.X)
    assert max(through) - min(through) == pytest.approx(17 * stock.species.radial * (max(stock.year) - min(stock.year)))


def test_it_is_built_at_what_its_board_was_last_read_at(cabinet):
    # Ford 4, of the drawer fronts, still stood at 12 %; the room's own piece at 9.
    assert stock_of(cabinet, "drawer11_front").now == 12
    bare = seed_cabinet()
    dry = planned(actions.change_board(bare, replace(bare.board("4"), readings=())))
    assert stock_of(dry, "drawer11_front").now == 9
    nowhere = planned(Project(Piece("box")))
    assert stock_of(nowhere, "front").now == pytest.approx(sum(USUAL.moisture) / 12)


def test_what_is_wetter_than_the_room_will_ever_be_is_told(cabinet):
    texts = [said(remark, cabinet) for remark in SEASON.card(cabinet, Selection()).mind]
    assert any("Front of drawer 1 to 4 stand at 12.0\u00a0%" in text for text in texts)


def test_the_cabinet_has_room_all_year(cabinet):
    season = season_of(cabinet)
    assert {fit.verdict for fit in season.fits} == {Verdict.FITS}
    titles = [fit_title(fit, cabinet.reader) for fit in season.fits]
    assert "back board 1 to 3" in titles and "drawer 4 in its opening, in height" in titles
    assert SEASON.state(cabinet) == "moves freely all year"


def test_a_back_without_gaps_binds_in_the_damp_months_and_one_click_mends_it():
    project = actions.give(seed_cabinet(), "back.gap", mm("0.1"))
    plan = planned(actions.live_in(project, PRESETS[1]))
    fit = next(fit for fit in season_of(plan).fits if fit.quantity == "back.gap")
    assert fit.verdict is Verdict.BINDS and MONTHS[fit.tightest] in ("August", "September")
    remark = next(remark for remark in SEASON.card(plan, Selection()).mind if remark.ref == QuantityRef("back.gap"))
    assert remark.weight is Severity.FAILURE and "binds in" in said(remark, plan)
    (fix_,) = remark.fixes
    assert isinstance(fix_, Give) and fix_.quantity == "back.gap"
    mended = planned(actions.give(plan.project, "back.gap", room_to_leave(plan, season_of(plan), fit)))
    after = next(fit for fit in season_of(mended).fits if fit.quantity == "back.gap")
    assert after.verdict in (Verdict.FITS, Verdict.RATTLES) and min(after.rooms) >= 0.3 - 1e-6


@pytest.mark.parametrize("climate", PRESETS, ids=lambda climate: climate.name)
def test_the_clearance_told_is_always_enough_for_every_drawer(climate):
    project = actions.give(actions.live_in(seed_cabinet(), climate), "drawer.reveal", mm("0.1"))
    plan = planned(project)
    season = season_of(plan)
    leave = room_to_leave(plan, season, next(fit for fit in season.fits if fit.quantity == "drawer.reveal"))
    after = season_of(planned(actions.give(project, "drawer.reveal", leave)))
    for fit in after.fits:
        if fit.quantity == "drawer.reveal":
            assert min(fit.rooms) > 0.2, fit


def test_a_panel_in_a_shallow_groove_can_drop_out():
    box = Project(Piece("box", given=(("bottom.clearance", mm(6)), ("groove.depth", mm(4)))))
    fit = season_of(planned(box)).fit_of("bottom")
    assert fit.verdict is Verdict.DROPS and fit.hold < 1.5
    texts = [said(remark, box) for remark in SEASON.card(planned(box), Selection()).mind]
    assert any("can drop out" in text for text in texts)


def test_a_top_on_buttons_and_one_in_slots_are_followed_too():
    table = season_of(planned(Project(Piece("table"))))
    assert any(fit.quantity == "button.room" for fit in table.fits)
    wide = season_of(planned(Project(Piece("table", given=(("table.width", mm(1200)), ("button.room", mm(1)))))))
    assert next(fit for fit in wide.fits if fit.quantity == "button.room").verdict is Verdict.BINDS


# --- across the grain -------------------------------------------------------------------------------------------------


def crossed(hold, wide):
    boards = (
        OwnBoard("own1", "panel", (mm(400), mm(wide), mm(18)), (mm(0), mm(0), mm(0)), "xz"),
        OwnBoard("own2", "batten", (mm(wide), mm(40), mm(20)), (mm(50), mm(0), mm(18)), "yz"),
    )
    joint = OwnJoint("ownjoint1", "butt", "own1", "own2", hold)
    return planned(Project(Piece("own", own=boards, own_joints=(joint,))))


def test_a_batten_glued_across_a_wide_panel_cracks_it_and_the_mend_is_offered():
    plan = crossed("glued", 300)
    (strain,) = season_of(plan).strains
    assert strain.cracks and strain.held == 300 and strain.moving.id == "own1"
    expected = 300 * stock_of(plan, "own1").species.tangential
    by_point = max(abs(m - stock_of(plan, "own1").now) for m in stock_of(plan, "own1").year)
    assert abs(strain.moves) == pytest.approx(expected * by_point)
    assert SEASON.state(plan) == "1 would crack"
    remark = next(
        r for r in SEASON.card(plan, Selection()).mind if "across" in said(r, plan) and r.weight is Severity.FAILURE
    )
    assert isinstance(remark.fixes[0], SlotScrews)


@pytest.mark.parametrize(
    ("hold", "wide", "words"),
    [("glued", 80, "glue all of it"), ("nailed", 300, "nails bend"), ("screwed in slots", 300, "slides in its slots")],
)
def test_where_glue_may_go_is_told(hold, wide, words):
    (strain,) = season_of(crossed(hold, wide)).strains
    assert not strain.cracks and words in advice(strain, Reader())


def test_a_joint_says_what_room_the_season_leaves_in_it(cabinet):
    joints = next(station for station in STATIONS if station.id == "joints")
    back = next(kind for kind in kinds_of(cabinet.assembly) if kind.name == "rabbet")
    texts = [
        said(r, cabinet)
        for r in joints.card(cabinet, Selection(back.second.part.id, joints=JointsSelection(back.id))).mind
    ]
    assert any(
        text.startswith("Back board 1 to 3 moves freely all year: 7.2 mm of room is left in July") for text in texts
    )
    dado = next(kind for kind in kinds_of(cabinet.assembly) if kind.name == "stopped dado")
    assert not any(
        "room is left" in said(r, cabinet)
        for r in joints.card(cabinet, Selection(joints=JointsSelection(dado.id))).mind
    )


def test_joints_are_ranked_by_strain(cabinet):
    texts = [said(remark, cabinet) for remark in SEASON.card(cabinet, Selection()).mind]
    assert any(text.startswith("Most strained across the grain: ") for text in texts)
    strains = season_of(cabinet).strains
    fast = [abs(strain.moves) for strain in strains if strain.joint.hold.rigid]
    assert fast == sorted(fast, reverse=True) and len(fast) > 5


# --- the station ------------------------------------------------------------------------------------------------------


def test_what_lies_dry_is_not_called_strained():
    box = planned(Project(Piece("box")))
    texts = [said(remark, box) for remark in SEASON.card(box, Selection()).mind]
    assert not any("strained" in text and "left dry" in text for text in texts)
    assert any(strain.joint.hold.value == "left dry" for strain in season_of(box).strains)


def test_every_form_can_be_looked_at_through_the_year():
    for form in FORMS:
        plan = planned(Project(Piece(form, form)))
        drawing, card = SEASON.draw(plan, Selection()), SEASON.card(plan, Selection())
        assert bool(drawing.elements) is bool(plan.parts) and card.mind and SEASON.state(plan), form


def test_a_changed_room_changes_what_it_is_built_at():
    room = Room(reference=(Reading("2026-01-01", Fraction(14)),))
    plan = planned(Project(Piece("box"), room=room))
    assert stock_of(plan, "front").now == 14


def test_equal_parts_with_as_much_room_stand_together():
    chosen = FORMS["case"].settled({"rows": "5", "dividers": "frame"})
    plan = planned(Project(Piece("case", choices=tuple(chosen.items()))))
    season = season_of(plan)
    panels = [part.id for part in plan.parts if part.id.endswith("_panel")]
    assert len(panels) == 4
    told = [fit for fit in shown_fits(season) if set(fit.parts) & set(panels)]
    across = [fit for fit in told if set(fit.parts) >= set(panels)]
    assert across and len(told) == len({(fit.quantity, fit.verdict) for fit in told}), "each told once, of all"
    assert fit_title(across[0], plan.reader) == "dust panel of divider 1 to 4"
    sizes = [min(fit.rooms) for fit in season.fits if set(fit.parts) <= set(panels)]
    assert min(min(fit.rooms) for fit in told) == min(sizes), "the worst is not lost"
