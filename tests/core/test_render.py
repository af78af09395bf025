"""The shaded view: what is nearest wins, the part in hand is lit, joints open the way they go together."""

import numpy as np
import pytest

from nullah.core.piece.render import Look, Viewpoint, offsets_of, picture, scene
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.demo.seed_cabinet import seed_cabinet

LOOK = Look((1.0, 1.0, 1.0), (0.1, 0.1, 0.1), (0.0, 0.2, 0.9))
FRONT, BACK, TOP = Viewpoint(0, 0), Viewpoint(180, 0), Viewpoint(0, 90)


@pytest.fixture(scope="module")
def cabinet():
    return work_out(seed_cabinet(), milling=False)


def painted(plan, eye, opened=0.0, only="", lit=-1, size=(240, 240)):
    offsets = offsets_of(plan.parts, plan.proof.order, opened, only)
    shown = scene(plan.parts, plan.proof.recipes, offsets)
    tones = [(0.8, 0.6, 0.5)] * len(plan.parts)
    per_mm = 0.42 * size[0] / shown.reach
    return picture(shown, eye, size, per_mm, tones, LOOK, lit), shown


def seen(plan, found):
    return {plan.parts[number].id for number in np.unique(found.parts) if number >= 0}


def test_from_the_front_the_drawers_hide_what_is_behind_them(cabinet):
    found, _ = painted(cabinet, FRONT)
    ids = seen(cabinet, found)
    assert {"drawer11_front", "drawer41_front", "left", "right", "divider21"} <= ids
    behind = [i for i, part in enumerate(cabinet.parts) if part.id in ("drawer11_bottom", "back1", "back2")]
    # Through the gaps round the drawers a sliver of what is behind shows, no more.
    assert np.isin(found.parts, behind).sum() < 0.04 * (found.parts >= 0).sum()
    behind, _ = painted(cabinet, BACK)
    assert {"back1", "back2", "back3"} <= seen(cabinet, behind)
    fronts = [i for i, part in enumerate(cabinet.parts) if part.id.endswith("_front")]
    assert np.isin(behind.parts, fronts).sum() < 0.01 * (behind.parts >= 0).sum()
    above, _ = painted(cabinet, TOP)
    assert "top" in seen(cabinet, above) and "bottom" not in seen(cabinet, above)


def test_the_picture_stands_in_true_proportion(cabinet):
    found, shown = painted(cabinet, FRONT, size=(300, 300))
    rows, columns = np.nonzero(found.parts >= 0)
    per_mm = 0.42 * 300 / shown.reach
    assert (columns.max() - columns.min() + 1) / per_mm == pytest.approx(360, abs=2.5)
    assert (rows.max() - rows.min() + 1) / per_mm == pytest.approx(440, abs=2.5)
    assert np.all(found.pixels[found.parts < 0] == 255), "the ground is bare"


def test_the_part_in_hand_is_lit(cabinet):
    number = next(i for i, part in enumerate(cabinet.parts) if part.id == "drawer21_front")
    plain, _ = painted(cabinet, FRONT)
    lit, _ = painted(cabinet, FRONT, lit=number)
    there = lit.parts == number
    blue = lit.pixels[there][:, 2].astype(int) - lit.pixels[there][:, 0]
    assert np.median(blue) > 40
    assert np.array_equal(plain.pixels[~there], lit.pixels[~there])


def test_opened_every_part_moves_out_the_way_it_goes_in(cabinet):
    closed = offsets_of(cabinet.parts, cabinet.proof.order, 0.0)
    assert not closed.any()
    opened = offsets_of(cabinet.parts, cabinet.proof.order, 1.0)
    index = {part.id: number for number, part in enumerate(cabinet.parts)}
    front, box = opened[index["drawer11_front"]], opened[index["drawer11_bottom"]]
    assert front[1] < -50 and box[1] < -50, "drawers come out in front"
    assert opened[index["top"]][2] > 0 or opened[index["right"]][0] > 0
    half = offsets_of(cabinet.parts, cabinet.proof.order, 0.5)
    assert np.allclose(half * 2, opened)
    found, _ = painted(cabinet, FRONT, opened=1.0)
    apart, _ = painted(cabinet, Viewpoint(-32, 24), opened=1.0)
    assert "drawer11_left" in seen(cabinet, apart) and found.parts.max() >= 0


def test_only_the_part_in_hand_opens(cabinet):
    opened = offsets_of(cabinet.parts, cabinet.proof.order, 1.0, "back1")
    moved = {part.id for part, offset in zip(cabinet.parts, opened, strict=True) if offset.any()}
    assert moved == {"back1"}
    nobody = offsets_of(cabinet.parts, cabinet.proof.order, 1.0, "nobody")
    assert not nobody.any()


def test_turning_right_round_comes_back(cabinet):
    one, _ = painted(cabinet, Viewpoint(30, 20))
    again, _ = painted(cabinet, Viewpoint(390, 20))
    assert np.mean(one.parts != again.parts) < 0.002


def test_grain_runs_along_each_part():
    plan = work_out(Project(Piece("top", choices=(("ends", "none"), ("staves", "1")))), milling=False)
    found, _ = painted(plan, TOP, size=(400, 400))
    grey = found.pixels[..., 0].astype(float)
    inside = found.parts >= 0
    rows, columns = np.nonzero(inside)
    patch = grey[rows.min() + 6 : rows.max() - 6, columns.min() + 6 : columns.max() - 6]
    along, across = np.abs(np.diff(patch, axis=1)).mean(), np.abs(np.diff(patch, axis=0)).mean()
    assert across > 2 * along, "lines lie along the board"
