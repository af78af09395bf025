"""Piece: what is to be made, in three views with its dimensions."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Card, Mend, Remark, Setting, Weight
from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Role,
    drawing,
    grain_lines,
    line,
    rectangle,
)
from nullah.core.joints.dovetail import DovetailLayout
from nullah.core.joints.views import between_tails, sockets
from nullah.core.ledger import Ledger
from nullah.core.lengths import Direction
from nullah.core.piece.part import Axis, Part
from nullah.core.plan import Plan, corner_problem
from nullah.core.stations.season import part_movement
from nullah.core.stations.station import Hand, Station


def species_of(plan: Plan, part: Part) -> str:
    """Give the species of the board a part lies on, or of the first board."""
    board = plan.board_of(part.id)
    if board is not None:
        return board.board.species
    return plan.project.boards[0].species if plan.project.boards else ""


def _draw(plan: Plan, hand: Hand) -> Drawing:
    if plan.ledger is None or not plan.parts:
        return Drawing()
    ledger = plan.ledger
    length, width, height = (float(ledger[f"box.outside_{way}"]) for way in ("length", "width", "height"))
    gap = 0.16 * (length + width) + 24
    above = drawing(_from_above(plan, ledger, length, width))
    front = drawing(_from_front(plan, length, height)).moved(0, width + gap)
    section = drawing(_section(plan, ledger, width, height)).moved(length + gap, width + gap)
    return above + front + section


def _dimension(plan: Plan, ledger: Ledger, name: str, start: tuple[float, float], end: tuple[float, float],
               offset: float) -> Dimension:  # fmt: skip
    quantity = ledger.quantity(name)
    return Dimension(start, end, quantity.write(plan.marks), offset, quantity.origin.value, of=name)


def _from_above(plan: Plan, ledger: Ledger, length: float, width: float) -> Iterator[Element]:
    """Look down into the box; the front lies nearest, at the lower edge of the drawing."""
    tails = plan.corner.tail_boards if plan.corner else ()
    order = [plan.part("bottom"), *(plan.part(p) for p in tails), *(p for p in plan.parts if p.id not in tails)]
    for part in (p for p in order if p is not None):
        if part.id == "bottom" and part is not order[0]:
            continue
        yield from _seen(plan, part, (Axis.X, Axis.Y), width)
    end, side = float(ledger["ends.thickness"]), float(ledger["sides.thickness"])
    inner = width - side
    yield Label((length, 0), "From above", 3.0, Anchor.END, role=Role.FAINT, nudge_mm=(0, -11))
    yield _dimension(plan, ledger, "box.outside_length", (0, 0), (length, 0), 6)
    yield _dimension(plan, ledger, "box.outside_width", (0, width), (0, 0), 6)
    yield _dimension(plan, ledger, "box.inside_length", (end, inner * 0.42), (length - end, inner * 0.42), 0)
    yield _dimension(plan, ledger, "box.inside_width", (length * 0.2, inner), (length * 0.2, side), 0)
    deep = float(ledger["groove.depth"])
    yield _dimension(plan, ledger, "opening.length", (end - deep, inner * 0.93), (length - end + deep, inner * 0.93), 0)
    if "contents.length" in ledger.quantities:
        clear = float(ledger["contents.clearance"])
        x0, y0 = end + clear, side + clear
        x1, y1 = x0 + float(ledger["contents.length"]), y0 + float(ledger["contents.width"])
        yield Path(((x0, y0), (x1, y0), (x1, y1), (x0, y1)), Role.HIDDEN, closed=True)
        yield _dimension(plan, ledger, "contents.length", (x0, inner * 0.68), (x1, inner * 0.68), 0)
        yield _dimension(plan, ledger, "contents.width", (length * 0.84, y1), (length * 0.84, y0), 0)
    yield _dimension(plan, ledger, "ends.thickness", (length - end, width), (length, width), -5)
    yield _dimension(plan, ledger, "sides.thickness", (length, side), (length, 0), -5)


def _seen(plan: Plan, part: Part, axes: tuple[Axis, Axis], depth: float) -> Iterator[Element]:
    """Draw one part as seen along the third axis; the second axis runs up the drawing."""
    across, up = axes
    x, top = float(part.box.low[across.value]), depth - float(part.box.high[up.value])
    wide, high = float(part.box.size(across)), float(part.box.size(up))
    end_on = part.grain not in axes
    species = species_of(plan, part)
    yield rectangle(x, top, wide, high, fill=Fill.END_GRAIN if end_on else Fill.WOOD, species=species, of=part.id)
    if not end_on and min(wide, high) > 8:
        yield from grain_lines(x, top, wide, high, part.name, along_x=part.grain is across, of=part.id)


def _from_front(plan: Plan, length: float, height: float) -> Iterator[Element]:
    front = plan.part("front")
    if front is None:
        return
    yield from _seen(plan, front, (Axis.X, Axis.Z), height)
    if plan.corner is not None and plan.corner.layout.tail_base.mm > 0:
        tails_here = "front" in plan.corner.tail_boards
        mate = plan.part(plan.corner.pin_boards[0] if tails_here else plan.corner.tail_boards[0])
        mate_species = species_of(plan, mate) if mate else ""
        yield from _corner_on_face(plan.corner.layout, tails_here, length, height, mate_species)
    ledger = plan.ledger
    if ledger is None:
        return
    yield Label((length / 2, height), "From the front", 3.0, role=Role.FAINT, nudge_mm=(0, 5))
    low, high = float(ledger["groove.height"]), float(ledger["groove.height"] + ledger["groove.width"])
    for level in (low, high):
        yield line((0, height - level), (length, height - level), Role.HIDDEN)
    yield _dimension(plan, ledger, "box.outside_height", (0, height), (0, 0), 6)


def _corner_on_face(layout: DovetailLayout, tails_here: bool, length: float, height: float,
                    mate_species: str) -> Iterator[Element]:  # fmt: skip
    """Draw both corners as they show on a face: pins' or tails' end grain between the wood."""
    if tails_here:
        shapes = list(between_tails(layout, float(layout.spec.pin_thickness)))
    else:
        shapes = list(sockets(layout, float(layout.spec.tail_thickness)))
    for shape in shapes:
        for at, way in ((0.0, 1.0), (length, -1.0)):
            corners = tuple((at + way * inward, height - level) for inward, level in shape)
            yield Path(corners, Role.KNIFE, closed=True, fill=Fill.END_GRAIN, species=mate_species)


def _section(plan: Plan, ledger: Ledger, width: float, height: float) -> Iterator[Element]:
    """Cut across the middle: the sides end-on and the bottom in its grooves."""
    for part_id in ("front", "back", "bottom"):
        part = plan.part(part_id)
        if part is not None:
            yield from _seen(plan, part, (Axis.Y, Axis.Z), height)
    side, low = float(ledger["sides.thickness"]), float(ledger["groove.height"])
    deep, thick = float(ledger["groove.depth"]), float(ledger["groove.width"])
    for x in (side - deep, width - side):
        # The groove itself, with the room the bottom leaves in it.
        yield rectangle(x, height - low - thick, deep, thick, Role.KNIFE)
    yield Label((width / 2, height), "Across the middle", 3.0, role=Role.FAINT, nudge_mm=(0, 18))
    yield _dimension(plan, ledger, "box.inside_height", (width * 0.7, height - low - thick), (width * 0.7, 0), 0)
    if "contents.height" in ledger.quantities:
        top = height - low - thick - float(ledger["contents.height"])
        yield line((side, top), (width - side, top), Role.HIDDEN)
        yield _dimension(plan, ledger, "contents.height", (width * 0.36, height - low - thick), (width * 0.36, top), 0)
    yield _dimension(plan, ledger, "groove.height", (width, height - low), (width, height), 6)
    yield _dimension(plan, ledger, "bottom.thickness", (width, height - low), (width, height - low - thick), -6)
    yield _dimension(plan, ledger, "groove.depth", (side - deep, height), (side, height), -5)
    yield _dimension(plan, ledger, "opening.width", (side - deep, height), (width - side + deep, height), -13)


def _card(plan: Plan, hand: Hand) -> Card:
    part = plan.part(hand.part)
    settings: list[Setting] = []
    seen: set[str] = set()
    for each in plan.parts:
        if each.alike in seen:
            continue
        seen.add(each.alike)
        settings.append(_size_setting(plan, each))
    settings += to_measure(plan)
    remarks = [*plan.assembly.remarks]
    if plan.problem:
        remarks = [Remark(plan.problem, Weight.FAILS)]
    if part is not None and part.id == "bottom":
        remarks += _bottom_moves(plan)
    if not plan.parts and not remarks:
        remarks.append(Remark(corner_problem(plan), Weight.FAILS))
    return Card(plan.form.title, tuple(settings), _marks(plan), tuple(remarks), why(plan, hand))


def _size_setting(plan: Plan, part: Part) -> Setting:
    alike = [p.name for p in plan.parts if p.alike == part.alike]
    write = plan.marks.write
    figure = f"{write(part.cut_length, unit=False)} × {write(part.width, unit=False)} × {write(part.thickness)}"
    if plan.waiting(part):
        # A size that must not be cut to is never the figure one carries away.
        return Setting(_title(alike), "leave long", f"planned {figure}; measure first", of=part.quantities[0])
    note = ""
    if part.spare:
        note = f"{write(part.length)} finished, the rest is planed flush"
    return Setting(_title(alike), figure, note, of=part.quantities[0])


def _title(names: list[str]) -> str:
    return " and ".join(names).capitalize()


def _marks(plan: Plan) -> tuple[str, ...]:
    return tuple(
        f"{part.name.capitalize()}: wait. Put the sides together dry, measure from groove to groove, then cut."
        for part in plan.parts
        if plan.waiting(part)
    )


def to_measure(plan: Plan) -> tuple[Setting, ...]:
    """Give what must be measured before something may be cut, each to be clicked and entered."""
    ledger = plan.ledger
    if ledger is None:
        return ()
    names = dict.fromkeys(name for part in plan.parts for name in plan.waiting(part))
    return tuple(
        Setting(
            f"Measure {ledger.quantity(name).definition.title}",
            "not yet",
            f"planned {ledger.quantity(name).write(plan.marks)}",
            of=name,
        )
        for name in names
    )


def _bottom_moves(plan: Plan) -> tuple[Remark, ...]:
    """Say how much the bottom moves over the year, and whether its grooves leave room for that."""
    moved = part_movement(plan, "bottom")
    if moved is None or plan.ledger is None:
        return ()
    change, room = moved[0], plan.ledger.length("bottom.clearance") * 2
    fine = plan.marks.write_fine
    if change <= room:
        return (
            Remark(f"It moves about {fine(change)} over the year; the grooves leave {fine(room)}. Do not glue it."),
        )
    enough = plan.marks.to_mark(change / 2, Direction.UP)
    return (
        Remark(
            f"Solid wood this wide moves about {fine(change)} over the year; the grooves leave {fine(room)}.",
            Weight.LOOK,
            (Mend(f"Leave {plan.marks.write(enough)} at each edge", "give", "bottom.clearance", enough.as_text()),),
            of="bottom.clearance",
        ),
    )


def why(plan: Plan, hand: Hand) -> tuple[str, ...]:
    """Say where the figure pointed at comes from, and what hangs on it."""
    if plan.ledger is None or hand.quantity not in plan.ledger.quantities:
        return ()
    lines = list(plan.ledger.why(hand.quantity, plan.marks))
    hangs = plan.ledger.hangs_on(hand.quantity)
    if hangs:
        titles = [plan.ledger.quantity(name).definition.title for name in hangs]
        shown = ", ".join(titles[:6]) + (f" and {len(titles) - 6} more" if len(titles) > 6 else "")
        lines.append(f"On it hang: {shown}.")
    return tuple(lines)


def _state(plan: Plan) -> str:
    if plan.problem or not plan.parts:
        return "cannot be made yet"
    fails = sum(remark.weight is Weight.FAILS for remark in plan.assembly.remarks)
    if fails:
        return f"{fails} thing{'s' if fails > 1 else ''} to mend"
    write = plan.marks.write
    sizes = [plan.ledger.length(f"box.outside_{way}") for way in ("length", "width", "height")] if plan.ledger else []
    return " × ".join(write(size, unit=size is sizes[-1]) for size in sizes)


STATION = Station(
    "piece", "Piece", _draw, _card, _state,
    "Nothing can be drawn yet. The card says why.",
)  # fmt: skip
