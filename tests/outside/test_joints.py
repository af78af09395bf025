"""Joints against solids, closed forms and published formulas.

The lines laid out on every mate are held against the faces of its solid, which another module cuts; fasteners
against the formulas in pounds and inches; chances against the normal distribution.
"""

import math
from fractions import Fraction

import numpy as np
import pytest
from manifold3d import Manifold
from scipy.stats import norm

from nullah.core.forms import FORMS
from nullah.core.joints.cutouts import axes_of, subtract
from nullah.core.joints.fasteners import nail_withdrawal, screw_withdrawal
from nullah.core.joints.kinds import kinds_of
from nullah.core.joints.tenon import TENON
from nullah.core.joints.tolerance import CHEEK_GIVES, SHOWS, box, dovetail, opening
from nullah.core.lengths import Length, from_float
from nullah.core.piece.solids import build, mesh_of, recipe
from nullah.core.piece.space import Axis, Box
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Hands
from nullah.demo.seed_cabinet import seed_cabinet

PIECES = {form: Project(piece=Piece(form, form)) for form in FORMS if form != "own"} | {"cabinet": seed_cabinet()}
DOVETAILED = [name for name, piece in PIECES.items() if work_out(piece, milling=False, proving=False).corners]


def solid_of(part, assembly):
    """The solid of a part, in the piece."""
    joints = [joint for joint in assembly.joints if part.id in (joint.first, joint.second)]
    return build(recipe(part, joints, {each.id: each for each in assembly.parts}))


def points_of(part, assembly):
    """The corners of a part's solid, in the piece."""
    return np.asarray(mesh_of(solid_of(part, assembly))[0])


def corners_of(part, assembly):
    """The corners of a part's solid, in its own measures: along, across, through."""
    order = [axis.value for axis in axes_of(part)]
    return points_of(part, assembly)[:, order] - np.array([float(part.box.low[axis]) for axis in order])


@pytest.mark.parametrize("name", PIECES)
def test_every_line_laid_out_is_a_face_of_the_solid(name):
    assembly = work_out(PIECES[name], milling=False, proving=False).assembly
    checked = 0
    for kind in kinds_of(assembly):
        for mate in (kind.first, kind.second):
            solid = corners_of(mate.part, assembly)
            for cut in mate.cutouts:
                inside = [(way, at) for way in range(3) for at in cut[way] if 0 < at < mate.sizes[way]]
                for way, at in inside:
                    there = np.abs(solid[:, way] - float(at)).min() < 0.001
                    assert there or no_wood_beside(mate.part, assembly, cut, way, at), (name, kind.title, way, at)
                checked += len(inside)
    assert checked or not any(kind.first.cutouts for kind in kinds_of(assembly))


def no_wood_beside(part, assembly, cut, way, at, thin=0.01):
    """Whether another joint takes the wood beyond a face of a cutout away, so that its line may not be left."""
    order = [axis.value for axis in axes_of(part)]
    low, high = [0.0] * 3, [0.0] * 3
    for each, axis in enumerate(order):
        low[axis], high[axis] = (float(place) + float(part.box.low[axis]) for place in cut[each])
    axis, beyond = order[way], at == cut[way][1]
    low[axis], high[axis] = (high[axis], high[axis] + thin) if beyond else (low[axis] - thin, low[axis])
    slab = Manifold.cube([b - a for a, b in zip(low, high, strict=True)]).translate(low)
    return (slab ^ solid_of(part, assembly)).volume() < 1e-6


@pytest.mark.parametrize("name", PIECES)
def test_what_both_mates_lose_of_their_overlap_is_all_of_it_once(name):
    # The overlap belongs to one or the other: what the first loses and what the second loses fill it, less what is
    # planned as clearance.
    assembly = work_out(PIECES[name], milling=False, proving=False).assembly
    for kind in kinds_of(assembly):
        overlap = kind.first.part.box.overlap(kind.second.part.box)
        if overlap is None or not (kind.first.cutouts or kind.second.cutouts):
            continue
        volume = sum(
            math.prod(float(cut.size(way)) for way in range(3))
            for mate in (kind.first, kind.second)
            for cut in mate.cutouts
        )
        assert volume >= float(overlap.volume) * 0.999


def test_subtraction_against_volumes():
    chance = np.random.default_rng(1)
    for _ in range(40):
        low = chance.integers(0, 8, (5, 3))
        size = chance.integers(1, 8, (5, 3))
        boxes = [
            Box(tuple(map(Fraction, map(int, a))), tuple(map(Fraction, map(int, a + b))))
            for a, b in zip(low, size, strict=True)
        ]
        left = subtract(boxes[0], boxes[1:])
        cells = np.zeros((16, 16, 16), dtype=int)
        for each in left:
            cells[tuple(slice(int(each.low[axis.value]), int(each.high[axis.value])) for axis in Axis)] += 1
        wanted = np.zeros_like(cells)
        for number, each in enumerate(boxes):
            spot = tuple(slice(int(each.low[axis.value]), int(each.high[axis.value])) for axis in Axis)
            wanted[spot] = number == 0
        assert (cells == wanted).all()


# --- fasteners: Wood Handbook (FPL-GTR-282), chapter 8, from memory -----------------------------------------------


def test_withdrawal_in_newtons_is_that_in_pounds():
    pound, inch = 4.4482216, 25.4
    # p = 7850 G^2.5 D L and 15700 G^2 D L, in pounds with D and L in inches.
    for gravity in (0.35, 0.5, 0.65):
        nails = 7850 * gravity**2.5 * (2.5 / inch) * (30 / inch) * pound
        screws = 15700 * gravity**2 * (4 / inch) * (25 / inch) * pound
        assert nail_withdrawal(gravity, 2.5, 30) == pytest.approx(nails, rel=2e-3)
        assert screw_withdrawal(gravity, 4, 25) == pytest.approx(screws, rel=2e-3)


# --- chances ------------------------------------------------------------------------------------------------------


def test_one_tail_against_the_normal_distribution():
    hands = Hands()
    sd = math.hypot(hands.tracing, hands.sawing)
    tight = 1 - (1 - norm.cdf((-CHEEK_GIVES + 0.02) / sd)) ** 2
    found = dovetail(1, hands, 200_000).traced
    assert found.tight == pytest.approx(tight, abs=0.01)
    none = (norm.cdf((SHOWS + 0.02) / sd) - norm.cdf((-CHEEK_GIVES + 0.02) / sd)) ** 2
    assert found.good == pytest.approx(none, abs=0.01)


def test_the_trade_knows_what_is_better():
    # Common practice, no published source: pins are traced from tails, bottoms cut to the opening that is there.
    assert dovetail(4).far_better
    assert opening(300).traced.good > opening(300).drawing.good
    assert opening(900).drawing.good < opening(100).drawing.good
    corners, bottom = box((300, 180), 4)
    assert corners.traced.good > corners.drawing.good and bottom.traced.good > bottom.drawing.good


def test_perfect_hands_leave_nothing_to_fit():
    sure = Hands(0, 0, 0, 0, 0)
    assert dovetail(5, sure, 1000).drawing.good == 1 and opening(400, sure, 0.5, trials=1000).traced.good == 1


MITRED = Project(piece=Piece("joint", "mitre", choices=(("joint", "mitre"),), given=(("joint_key.count", 0),)))


@pytest.mark.parametrize("name", [*PIECES, "mitre"])
def test_a_mitre_s_line_is_an_edge_of_the_solid(name):
    assembly = work_out(PIECES.get(name, MITRED), milling=False, proving=False).assembly
    for kind in kinds_of(assembly):
        for mate in (kind.first, kind.second):
            tenoned = any(
                joint.type is TENON and mate.part.id in (joint.first, joint.second) for joint in assembly.joints
            )
            if mate.slope is None or tenoned:
                continue  # of tenons that meet in a leg only what their cheeks leave is mitred
            solid, way = corners_of(mate.part, assembly), 1 if mate.slope.on_face else 2
            (end, outer), _, (back, inner) = ((float(a), float(b)) for a, b in mate.slope.corners)
            for along, other in ((end, outer), (back, inner)):
                off = np.hypot(solid[:, 0] - along, solid[:, way] - other)
                assert off.min() < 0.001, (name, kind.title, along, other)


@pytest.mark.parametrize("name", DOVETAILED)
def test_the_lines_of_a_dovetail_are_edges_of_both_solids(name):
    plan = work_out(PIECES[name], milling=False, proving=False)
    for joint in plan.assembly.joints:
        corner = next((each for each in plan.corners if each.prefix == joint.type.corner_prefix(joint)), None)
        if corner is None:
            continue
        tail, pin = plan.part(joint.first), plan.part(joint.second)
        overlap = tail.box.overlap(pin.box)
        across = next(axis for axis in Axis if axis not in (tail.grain, tail.face))
        lines = {
            (depth, float(edge))
            for depth in (0.0, float(overlap.size(tail.grain)))
            for pair in corner.layout.tails_at(from_float(depth) + Length(tail.spare / 2))
            for edge in pair
        }
        # Both boards hold the same cheeks: the tails' own, and the walls of the sockets in the pin board.
        at_low_end = overlap.low[tail.grain.value] == tail.box.low[tail.grain.value]
        for part in (tail, pin):
            solid = points_of(part, plan.assembly)
            for depth, edge in lines:
                end = overlap.low[tail.grain.value] if at_low_end else overlap.high[tail.grain.value]
                along = float(end) + (depth if at_low_end else -depth)
                off = np.hypot(
                    solid[:, tail.grain.value] - along, solid[:, across.value] - float(overlap.low[across.value]) - edge
                )
                assert off.min() < 0.001, (name, part.name, depth, edge)
