"""A channel's lines taken in the hand: its wall, its stop, its floor, and how far they go."""

import pytest

from nullah.core.joints.channel_dragging import channel_dragged, handle_at, handles
from nullah.core.joints.dragged import Held, KeptOut
from nullah.core.joints.kinds import kinds_of
from nullah.core.joints.mate_views import edge_view_from
from nullah.core.plan import work_out
from nullah.core.reader import Reader
from nullah.core.wording.dragging import held_words
from nullah.demo.seed_cabinet import seed_cabinet


@pytest.fixture(scope="module")
def kinds():
    return {kind.name: kind for kind in kinds_of(work_out(seed_cabinet(), milling=False, proving=False).assembly)}


def handle(kind, what):
    return next((h, a, b) for h, a, b in handles(kind) if h.what == what)


def middle(a, b):
    return ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)


@pytest.mark.parametrize("what", ["width", "stop", "depth"])
def test_a_line_is_found_where_it_is_drawn_and_left_there_it_is_what_it_was(kinds, what):
    dado = kinds["stopped dado"]
    found, a, b = handle(dado, what)
    at = middle(a, b)
    assert handle_at(dado, at, 1.0) == found
    cut = dado.first.cutouts[0]
    was = {"width": cut.size(0), "stop": cut.across[0], "depth": cut.size(2)}[what]
    came = channel_dragged(dado, found, at)
    assert came.value.mm == pytest.approx(was, abs=0.051) and came.held is None and came.figure == found.name


def test_nothing_is_taken_away_from_the_lines(kinds):
    assert handle_at(kinds["stopped dado"], (-500.0, -500.0), 3.0) is None
    dovetail = next(kind for name, kind in kinds.items() if "dovetail" in name)
    assert handles(dovetail) == ()


def test_a_floor_goes_no_deeper_than_the_board_bears(kinds):
    dado = kinds["stopped dado"]
    found, a, b = handle(dado, "depth")
    top = edge_view_from(dado.first)
    came = channel_dragged(dado, found, (middle(a, b)[0], top + 200))
    assert came.value.mm == dado.first.sizes.through - 3 and came.held is Held.BREAKS_UNDER
    assert channel_dragged(dado, found, (0, top)).held is Held.HOLDS_NOTHING


def test_a_wall_stops_where_its_mate_would_not_enter_or_would_rattle(kinds):
    dado = kinds["stopped dado"]
    found, a, _ = handle(dado, "width")
    x0 = a[0] - float(dado.first.cutouts[0].size(0))
    wide = channel_dragged(dado, found, (x0 + 900, a[1]))
    assert wide.held is Held.RATTLES
    assert channel_dragged(dado, found, (x0 - 50, a[1])).held


def test_a_groove_is_widened_across_the_grain(kinds):
    groove = kinds["groove"]
    found, a, b = handle(groove, "width")
    assert found.upright
    x, y = middle(a, b)
    wider = channel_dragged(groove, found, (x, y - 1.0))
    assert wider.value.mm == pytest.approx(groove.first.cutouts[0].size(1) + 1, abs=0.051)


def test_a_stop_leaves_a_channel(kinds):
    dado = kinds["stopped dado"]
    found, a, b = handle(dado, "stop")
    came = channel_dragged(dado, found, (middle(a, b)[0], -900))
    assert came.held is Held.NOTHING_LEFT and came.value.mm == dado.first.cutouts[0].across[1] - 20


def test_every_reason_to_go_no_further_is_said():
    said = [held_words(each, Reader(parts={"left": "left side"})) for each in (*Held, KeptOut("left"))]
    assert len(set(said)) == len(said) and all(each.endswith(".") for each in said)
    assert said[-1] == "The left side would not enter."
