"""Joints by themselves at the Joints station: every part in three views, cut from its solid."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from nullah.core.card import Card, Remark, Severity
from nullah.core.drawing import Anchor, Drawing, Element, Label, Role, drawing
from nullah.core.joints.bench import AtBench
from nullah.core.joints.kinds import kinds_of
from nullah.core.joints.made_up import FAMILIES, JointError, StandaloneJoint, make_up
from nullah.core.joints.types import told_of
from nullah.core.lengths import from_float
from nullah.core.piece.form import Assembly, View
from nullah.core.piece.part import Part
from nullah.core.piece.sight import hidden, painted, plane_of, seen
from nullah.core.piece.solids import Recipe, recipe
from nullah.core.plan import USUAL_WOOD, Plan
from nullah.core.stations.selection import Selection
from nullah.core.wood.species import find_species
from nullah.core.wording.operations import operation_settings, step_words
from nullah.core.work.bench_work import group_steps

_WOOD = ("black cherry", "yellow-poplar", "black walnut")
_GAP = 40.0
_TITLES = {View.ABOVE: "above", View.FRONT: "front", View.SECTION: "side"}


def selected_made(selection: Selection) -> tuple[str, tuple[float, ...]] | None:
    """Return the family and the figures of the joint by itself that is in hand; None where it is one of the piece."""
    family, figures = selection.joints.family, selection.joints.figures
    if family not in FAMILIES:
        return None
    usual = tuple(value for _, value in FAMILIES[family].figures)
    return family, figures if len(figures) == len(usual) else usual


def _made(selection: Selection) -> StandaloneJoint | str:
    found = selected_made(selection)
    if found is None:
        return "There is no such joint."
    try:
        return make_up(*found)
    except JointError as error:
        return str(error)


def draw_made(selection: Selection) -> Drawing:
    """Draw every part of it in three views, beside each other."""
    made, found = _made(selection), selected_made(selection)
    title = FAMILIES[found[0]].title if found is not None else ""
    heading = Label((0, 0), title, 3.6, Anchor.START, bold=True, nudge_mm=(0, -16))
    if isinstance(made, str):
        return drawing(heading, Label((0, 0), made, 3.2, Anchor.START, Role.WARN))
    parts = {part.id: part for part in made.assembly.parts}
    recipes = {part.id: recipe(part, made.assembly.joints, parts) for part in made.assembly.parts}
    x, shown = 0.0, drawing(heading)
    for number, part in enumerate(made.assembly.parts):
        views, wide = _three_views(part, recipes, _WOOD[number % len(_WOOD)])
        shown += views.moved(x, 0)
        x += wide + 2 * _GAP
    return shown + _together(made.assembly, recipes).moved(x, 0)


def _three_views(part: Part, recipes: dict[str, Recipe], wood: str) -> tuple[Drawing, float]:
    """Draw one part from above, below that from the front, and beside that from the side; give how wide that is."""
    planes = {view: plane_of((part,), view, False) for view in View}
    (long, deep), (beside, _) = planes[View.ABOVE].size, planes[View.SECTION].size
    places = {View.ABOVE: (0.0, 0.0), View.FRONT: (0.0, deep + _GAP), View.SECTION: (long + _GAP, deep + _GAP)}
    shown = drawing(Label((0, 0), part.name, 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, -5)))
    for view, plane in planes.items():
        faces = seen(plane, (part,), recipes)
        elements: Iterator[Element] = painted(faces, lambda _: wood)
        view_of = drawing(elements, hidden(plane, (part,), faces))
        _, high = plane.size
        words = Label((0, high), _TITLES[view], 2.8, Anchor.START, Role.FAINT, nudge_mm=(0, 3))
        shown += (view_of + drawing(words)).moved(*places[view])
    return shown, long + _GAP + beside


def _together(assembly: Assembly, recipes: dict[str, Recipe]) -> Drawing:
    """Draw all parts put together, from the front."""
    woods = {part.id: _WOOD[number % len(_WOOD)] for number, part in enumerate(assembly.parts)}
    plane = plane_of(assembly.parts, View.FRONT, False)
    faces = seen(plane, assembly.parts, recipes)
    view = drawing(painted(faces, lambda part: woods[part.id]), hidden(plane, assembly.parts, faces))
    return view + drawing(Label((0, 0), "together, front", 3.0, Anchor.START, Role.FAINT, nudge_mm=(0, -5)))


def made_card(plan: Plan, selection: Selection) -> Card:
    """Return how a joint by itself is made, in the shop there is."""
    made, found = _made(selection), selected_made(selection)
    title = FAMILIES[found[0]].title if found is not None else "Joints"
    if isinstance(made, str):
        return Card(title, mind=(Remark(made, Severity.FAILURE),))
    told = made.told
    if told is None:
        kind = kinds_of(made.assembly)[0]
        told = told_of(AtBench(kind, plan.marks, plan.project.shop))
    if told is None:
        return Card(title)
    remarks = (*told.remarks, *_season_room(plan, *found)) if found is not None else told.remarks
    reader = replace(plan.reader, parts={part.id: part.name for part in made.assembly.parts})
    kind = kinds_of(made.assembly)[0]
    by_type = group_steps(made.assembly, kind, plan.marks, plan.project.shop) if made.told is None else None
    steps = told.steps if by_type is None else by_type
    settings = operation_settings([each for step in steps for each in step.operations], reader) or told.settings
    return Card(title, settings, tuple(step_words(step, reader) for step in steps), remarks, told.why)


def _season_room(plan: Plan, family: str, figures: tuple[float, ...]) -> Iterator[Remark]:
    """Say what room the season asks of a joint that holds a wide panel, in the piece's own wood and room."""
    names = [name for name, _ in FAMILIES[family].figures]
    if "moves" not in names:
        return
    species = find_species(next((wood for part in plan.parts if (wood := plan.species_of(part))), USUAL_WOOD))
    climate = plan.project.climate
    change = figures[0] * species.tangential * climate.swing
    least = plan.marks.write_fine(from_float(round(change, 1)))
    short = figures[names.index("moves")] < change - 0.05
    yield Remark(
        f"{plan.marks.write(from_float(figures[0]))} of {species.name}, flat-sawn, move {least} over the year of a "
        f"{climate.name}: " + ("give it at least that." if short else "there is room for it."),
        Severity.WARNING if short else Severity.NOTE,
    )
