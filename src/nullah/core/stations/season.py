"""Season: how the piece will move through the year. Says what it will do; the work is still to come."""

from __future__ import annotations

from nullah.core.bench.cutlist import together
from nullah.core.card import Card, Remark, Setting
from nullah.core.drawing import Drawing
from nullah.core.lengths import Length
from nullah.core.plan import Plan
from nullah.core.stations.station import Hand, Station
from nullah.core.wood.movement import movement
from nullah.core.wood.species import SpeciesError, find_species

#: A heated home between its dry and its damp months, % MC: a swing of about 3 points (common practice).
_DRY, _DAMP = 7.0, 10.0


def part_movement(plan: Plan, part_id: str) -> tuple[Length, str] | None:
    """Give how much a part's width changes over the year, and its species; None where no wood is known."""
    part = plan.part(part_id)
    if part is None or not plan.species_of(part):
        return None
    try:
        species = find_species(plan.species_of(part))
    except SpeciesError:
        return None
    return movement(species, plan.cut_of(part), part.width, _DRY, _DAMP).change, species.name


def _draw(plan: Plan, hand: Hand) -> Drawing:
    return Drawing()


def _card(plan: Plan, hand: Hand) -> Card:
    settings = []
    seen: set[str] = set()
    for part in plan.parts:
        if part.alike in seen:
            continue
        seen.add(part.alike)
        moved = part_movement(plan, part.id)
        if moved is not None:
            change, species = moved
            settings.append(
                Setting(part.name.capitalize(), plan.marks.write_fine(change),
                        f"{species}, {plan.marks.write(part.width)} wide, from {_DRY:g} to {_DAMP:g} %")
            )  # fmt: skip
    return Card(
        "Width over the year",
        set=tuple(settings),
        mind=_mind(plan),
        why=("Change = width × coefficient × change in moisture (Wood Handbook, ch. 13; coefficients from memory).",),
    )


def _mind(plan: Plan) -> tuple[Remark, ...]:
    """Say what must be left free to move."""
    names = [part.name for freedom in plan.assembly.freedoms for part in plan.parts if part.id in freedom.parts]
    free = f" {together(names).capitalize()} must be free to: never glue them in." if names else ""
    return (Remark(f"Along the grain nothing moves.{free}"),)


STATION = Station(
    "season", "Season", _draw, _card, lambda plan: "still to come",
    "Here the piece will stand through a year in its room: what swells, what binds, in which month, "
    "and the clearance to leave. Until then the card tells how much each width moves.",
)  # fmt: skip
