"""Solids against general geometry libraries (trimesh, shapely) and closed forms.

No published source unless one is named: the reference is another program or exact geometry.
"""

import math
from fractions import Fraction

import numpy as np
import pytest
import shapely
import trimesh
from hypothesis import given, settings
from hypothesis import strategies as st
from manifold3d import Error, Manifold, Mesh
from tests.told import each_choice

from nullah.core import actions
from nullah.core.forms import FORMS
from nullah.core.lengths import Marks, Unit, mm
from nullah.core.piece.part import Axis, Box, Needs, Part, Side
from nullah.core.piece.shaping import Arch, OgeeFoot, Prism, Taper, arch_radius, bevel_degrees, ogee
from nullah.core.piece.solids import build, flat_faces, mesh_of, prism_solid, recipe
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.wood.species import find_species
from nullah.core.wood.stiffness import GRAVITY, passing_span, sag
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.solids import SolidsError, write_solids


def as_mesh(made):
    points, triangles = mesh_of(build(made))
    return trimesh.Trimesh(points, triangles, process=False)


def winding(mesh, points):
    """Return how often a closed mesh winds round each point: 1 inside, 0 outside.

    By solid angles (Van Oosterom and Strackee, IEEE Trans. Biomed. Eng. 30 (1983) 125; formula from memory).
    """
    a, b, c = (mesh.triangles[None, :, corner] - points[:, None] for corner in range(3))
    la, lb, lc = (np.linalg.norm(side, axis=2) for side in (a, b, c))
    top = np.einsum("ijk,ijk->ij", a, np.cross(b, c))
    dots = [np.einsum("ijk,ijk->ij", one, two) for one, two in ((a, b), (b, c), (c, a))]
    low = la * lb * lc + dots[0] * lc + dots[1] * la + dots[2] * lb
    return np.arctan2(top, low).sum(axis=1) / (2 * np.pi)


#: At these sizes rounding to the single precision of files would open it.
SLIDING = Project(Piece("joint", "sliding", (("joint", "sliding dovetail"),)), marks=Marks(Unit.INCH, Fraction(1, 16)))
FORMED = [Project(Piece(form)) for form in ("chest", "stand", "table", "tray", "top")]
PIECES = [seed_cabinet(), plant_stair(), SLIDING, *FORMED]


@pytest.mark.parametrize("project", PIECES, ids=lambda project: project.piece.name + project.piece.form)
def test_every_solid_is_closed_and_has_the_volume_another_library_gives(project):
    plan = work_out(project, milling=False)
    for part in plan.parts:
        made = plan.proof.recipes[part.id]
        mesh = as_mesh(made)
        assert mesh.is_watertight and mesh.is_winding_consistent, part.id
        assert mesh.volume == pytest.approx(build(made).volume(), rel=1e-9)
        assert mesh.volume <= float(part.box.volume) + 1e-6
        extents = [float(part.box.size(axis)) for axis in Axis]
        assert np.all(mesh.extents <= np.array(extents) + 1e-6)


#: Sizes at which films stayed: where mitres of unequal boards leave the face, and where two cuts share a line.
FILMED = [
    ("holder", (("corners", "mitred"),), (("ends.thickness", mm("10.2")),)),
    ("stand", (("front", "open"), ("sizing", "contents")), (("rabbet.front", mm("21.7")), ("rails.below", mm("9.5")))),
]


@pytest.mark.sampled(8)
@pytest.mark.parametrize(
    "form, chosen, given",
    FILMED + [(form, chosen, ()) for form in FORMS if form != "own" for chosen in each_choice(form)],
)
def test_a_file_in_single_precision_is_read_as_the_solid_that_was_written(form, chosen, given):
    for marks in (Marks(Unit.INCH, Fraction(1, 16)), Marks(Unit.MM, mm_mark=Fraction(1))):
        piece = Piece(form, form, choices=chosen, given=given)
        plan = work_out(Project(piece, marks=marks), milling=False, proving=False)
        parts = {part.id: part for part in plan.parts}
        for part in plan.parts:
            solid = build(recipe(part, plan.assembly.joints, parts))
            points, triangles = mesh_of(solid)
            # Corners that become one in the file are one to its reader, as to `trimesh.load`.
            corners, one = np.unique(points.astype(np.float32), axis=0, return_inverse=True)
            read = Manifold(Mesh(corners, one.reshape(-1)[triangles].astype(np.uint32)))
            assert read.status() == Error.NoError, part.id
            assert read.volume() == pytest.approx(solid.volume(), rel=2e-5), part.id


@pytest.mark.sampled(17)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
def test_no_two_solids_of_any_form_fill_the_same_space(form):
    # The proof trusts a joint that fits; here every pair of solids whose boxes meet is held to it.
    for choice in ({}, *({c.name: c.options[1][0]} for c in FORMS[form].choices)):
        plan = work_out(Project(Piece(form, choices=tuple(choice.items()))), milling=False)
        made = [(part, build(plan.proof.recipes[part.id])) for part in plan.parts]
        for index, (one, solid) in enumerate(made):
            for two, other in made[index + 1 :]:
                if one.box.overlap(two.box) is not None:
                    assert (solid ^ other).volume() < 0.05, (one.id, two.id, choice)


def test_the_wood_of_a_corner_is_shared_out_whole():
    # Tails and pins together fill the corner: by volume, and no point lies in both (trimesh).
    plan = work_out(Project(Piece("box")), milling=False)
    tail, pin = plan.part("front"), plan.part("left")
    overlap = tail.box.overlap(pin.box)
    meshes = [as_mesh(plan.proof.recipes[name]) for name in ("front", "left")]
    rng = np.random.default_rng(4)
    low, high = (np.array([float(c) for c in corner]) for corner in (overlap.low, overlap.high))
    points = low + (high - low) * rng.random((1500, 3))
    inside = [winding(mesh, points) > 0.5 for mesh in meshes]
    # The groove for the bottom is the only room that neither fills there.
    ledger = plan.ledger
    z = points[:, 2]
    groove = (z >= float(ledger["groove.height"]) - 0.1) & (
        z <= float(ledger["groove.height"] + ledger["groove.width"]) + 0.1
    )
    assert not np.any(inside[0] & inside[1])
    assert np.all((inside[0] ^ inside[1]) | groove)


@settings(max_examples=60)
@given(
    st.lists(st.tuples(st.floats(0, 100), st.floats(0, 100)), min_size=3, max_size=8),
    st.sampled_from(list(Axis)),
    st.floats(0, 50),
    st.floats(1, 80),
)
def test_a_prism_has_the_area_shapely_gives_times_its_height(points, along, low, height):
    hull = shapely.convex_hull(shapely.MultiPoint(points))
    if hull.geom_type != "Polygon" or hull.area < 1:
        return
    corners = tuple(hull.exterior.coords)[:-1]
    for ring in (corners, corners[::-1]):
        solid = prism_solid(Prism(along, ring, low, low + height))
        assert solid.volume() == pytest.approx(hull.area * height, rel=1e-4, abs=1e-3)
        bounds = solid.bounding_box()
        assert bounds[along.value] == pytest.approx(low, abs=1e-5)
        assert bounds[along.value + 3] == pytest.approx(low + height, abs=1e-5)


def test_a_notched_boards_outline_is_what_shapely_cuts():
    plan = work_out(plant_stair(), milling=False)
    solid = build(plan.proof.recipes["own1"])
    expected = shapely.box(0, 0, 360, 390) - shapely.box(-1, 130, 120, 400) - shapely.box(-1, 260, 240, 400)
    radius = arch_radius(220, 40)
    disc = shapely.Point(180, 40 - radius).buffer(radius, quad_segs=400)
    expected -= disc
    corner = shapely.box(335, 365, 360, 390) - shapely.Point(335, 365).buffer(25, quad_segs=400)
    expected -= corner
    outer = next(face for face in flat_faces(solid) if face.normal[0] < -0.99)
    drawn = shapely.Polygon([(y, z) for _, y, z in outer.loops[0]])
    assert drawn.symmetric_difference(expected).area < 4, "square millimetres, from curves drawn as polygons"


# --- closed forms ---------------------------------------------------------------------------------


@given(st.floats(10, 2000), st.floats(0.02, 0.5))
def test_an_arch_goes_through_its_ends_and_its_crown(chord, share):
    # R = c²/8h + h/2 (exact): the circle through both ends of the chord and the crown.
    rise = chord * share
    radius = arch_radius(chord, rise)
    assert math.hypot(chord / 2, radius - rise) == pytest.approx(radius)
    segment = radius**2 * math.acos(1 - rise / radius) - (radius - rise) * math.sqrt(2 * radius * rise - rise**2)
    board = Part(
        "p",
        1,
        "p",
        Box((Fraction(0),) * 3, (Fraction(2100), Fraction(20), Fraction(1200))),
        Axis.X,
        Axis.Y,
        Needs.CLEAR,
        ("", "", ""),
        "",
        shapings=(Arch(Side.UNDER, Axis.Y, chord, rise),),
    )
    cut = float(board.box.volume) - build(recipe(board, (), {})).volume()
    assert cut == pytest.approx(segment * 20, rel=0.004)


@pytest.mark.parametrize(
    ("fall", "degrees"),
    # Handbook arithmetic of a bevelled drawer bottom: 3/8 to 1/8 in, and 5/16 to 1/8 in, over 1 7/8 in (exact).
    [(3 / 8 - 1 / 8, 7.6), (5 / 16 - 1 / 8, 5.7)],
)
def test_a_bevels_angle(fall, degrees):
    assert bevel_degrees(1.875, fall) == pytest.approx(degrees, abs=0.05)
    assert bevel_degrees(18, 18 * math.tan(math.radians(22))) == pytest.approx(22)


@given(st.floats(10, 200), st.floats(5, 100))
def test_an_ogee_is_two_equal_arcs(run, rise):
    points = ogee(run, rise)
    half = len(points) // 2
    radius = (run * run + rise * rise) / (4 * rise)
    for (x, y), centre in [(p, (0, radius)) for p in points[: half + 1]] + [
        (p, (run, rise - radius)) for p in points[half:]
    ]:
        assert math.hypot(x - centre[0], y - centre[1]) == pytest.approx(radius, rel=1e-6)


def test_ogee_feet_leave_the_feet_standing():
    box = Box((Fraction(0),) * 3, (Fraction(300), Fraction(18), Fraction(100)))
    board = Part(
        "p",
        1,
        "p",
        box,
        Axis.X,
        Axis.Y,
        Needs.CLEAR,
        ("", "", ""),
        "",
        shapings=(OgeeFoot(Side.UNDER, Axis.Y, 40, 60, 35),),
    )
    solid = build(recipe(board, (), {}))
    floor = solid.slice(0.01).area()
    # At the floor stand both feet; the ogee begins level, so a hair more of it does too.
    assert 80 * 18 <= floor <= 86 * 18
    assert solid.slice(36).area() == pytest.approx(300 * 18)


def test_a_leg_tapered_from_an_inch_and_a_half_to_three_quarters():
    # 3/8 in off each of four sides (exact); a frustum of a pyramid below the start.
    big, small, length, start = 38.1, 19.05, 700.0, 100.0
    box = Box((Fraction(0),) * 3, (Fraction("38.1"), Fraction("38.1"), Fraction(700)))
    four = frozenset((Side.LEFT, Side.RIGHT, Side.FRONT, Side.BACK))
    leg = Part(
        "p",
        1,
        "p",
        box,
        Axis.Z,
        Axis.X,
        Needs.CLEAR,
        ("", "", ""),
        "",
        shapings=(Taper(four, Side.UNDER, start, (big - small) / 2),),
    )
    frustum = (length - start) / 3 * (big**2 + big * small + small**2)
    assert build(recipe(leg, (), {})).volume() == pytest.approx(frustum + start * big**2, rel=1e-6)


# --- sag ------------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("span", "load", "width", "thick"), [(900, 20, 250, 19), (600, 8, 180, 12), (1200, 40, 300, 25)]
)
def test_sag_against_the_beam_equation_integrated(span, load, width, thick):
    # EI·v'' = M(x) for a simply supported beam evenly loaded, integrated twice by the trapezoid rule.
    species = find_species("black cherry")
    w = (load / span + species.density * 1e-9 * width * thick) * GRAVITY
    stiff = species.stiffness * 1000 * width * thick**3 / 12
    x = np.linspace(0, span, 4001)
    moment = w * x * (span - x) / 2
    slope = np.concatenate([[0], np.cumsum((moment[1:] + moment[:-1]) / 2 * np.diff(x))])
    drop = np.concatenate([[0], np.cumsum((slope[1:] + slope[:-1]) / 2 * np.diff(x))])
    drop = drop - x / span * drop[-1]
    assert sag(span, load, width, thick, species) == pytest.approx(-drop.min() / stiff, rel=1e-4)


def test_the_span_that_passes_sags_a_fiftieth_of_an_inch_in_the_foot():
    # About 0.02 in per foot of span starts to show (common practice, no published source).
    species = find_species("northern red oak")
    span = passing_span(0.03, 250, 19, species)
    drop = sag(span, 0.03 * span, 250, 19, species)
    assert drop / 25.4 / (span / 304.8) == pytest.approx(0.02, rel=1e-9)


# --- files ----------------------------------------------------------------------------------------


@pytest.mark.parametrize(("ending", "scale"), [(".stl", 1.0), (".glb", 1000.0)])
def test_written_solids_are_read_back_by_a_general_reader(tmp_path, ending, scale):
    plan = work_out(seed_cabinet(), milling=False)
    write_solids(plan, tmp_path / f"cabinet{ending}")
    found = trimesh.load(tmp_path / f"cabinet{ending}")
    extents = sorted(float(c) * scale for c in found.extents)
    assert extents == pytest.approx([230, 360, 440], abs=0.01)
    wood = sum(build(made).volume() for made in plan.proof.recipes.values())
    meshes = [found] if ending == ".stl" else found.dump()
    assert sum(abs(mesh.volume) for mesh in meshes) * scale**3 == pytest.approx(wood, rel=1e-4)
    if ending == ".glb":
        assert {f"{part.number} {part.name}" for part in plan.parts} <= set(found.geometry)
        # Y is up in glTF: the cabinet's height runs along it.
        assert float(found.extents[1]) * 1000 == pytest.approx(440, abs=0.01)


def test_solids_that_cannot_be_written_say_why(tmp_path):
    plan = work_out(Project(Piece("holder")), milling=False)
    with pytest.raises(SolidsError, match=r"\.stl or \.glb"):
        write_solids(plan, tmp_path / "x.obj")
    with pytest.raises(SolidsError, match="cannot be written"):
        write_solids(plan, tmp_path / "nowhere" / "x.stl")
    nothing = work_out(Project(Piece("own")), milling=False)
    with pytest.raises(SolidsError, match="nothing to write"):
        write_solids(nothing, tmp_path / "x.stl")
    assert list(tmp_path.iterdir()) == []


def test_a_measured_thickness_changes_the_solid_as_much_as_the_sum_says():
    plan = work_out(Project(Piece("top", choices=(("ends", "none"), ("staves", "1")))), milling=False)
    before = build(plan.proof.recipes["panel"]).volume()
    after = work_out(actions.measure(plan.project, "panel.thickness", mm("20.4")), milling=False)
    assert build(after.proof.recipes["panel"]).volume() / before == pytest.approx(20.4 / 21)
    assert FORMS["top"].title.startswith("Top")
