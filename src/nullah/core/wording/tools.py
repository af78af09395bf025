"""What tools are set to, surfaces, parts and ends in a sentence about an operation."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Sequence

from nullah.core.catalogue import N_
from nullah.core.lengths import Length, Slope, write_bought
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import ByMate, ByMeasure, ByStepping, OfLine, OfMate, OfTool, Origin, ToolSetting
from nullah.core.operations.stock import Surface
from nullah.core.reader import Reader

#: Surfaces as they are called in a sentence.
_SURFACES = {
    Surface.REFERENCE_END: N_("reference end"),
    Surface.FAR_END: N_("far end"),
    Surface.FACE_EDGE: N_("face edge"),
    Surface.OTHER_EDGE: N_("other edge"),
    Surface.FACE_SIDE: N_("face side"),
    Surface.OTHER_FACE: N_("other face"),
}


def figure_words(setting: ToolSetting, reader: Reader) -> str:
    """Return what a setting is set to: to the mark what a rule sets, finer what the mate or stepping does."""
    if setting.slope is not None:
        return Slope(setting.slope).as_text()
    if setting.value is None:
        return reader.part(setting.origin.part) if isinstance(setting.origin, OfMate) else ""
    length = Length(setting.value)
    if isinstance(setting.origin, OfTool) and setting.origin.bought is not None:
        return write_bought(setting.origin.bought)
    # What a rule sets stands on its marks; what does not was set by a mate, by stepping, or left proud.
    return reader.length(length) if reader.marks.to_mark(length) == length else reader.fine(length)


def surface_words(surface: Surface, reader: Reader) -> str:
    """Return what a surface is called."""
    return reader.text(_SURFACES[surface])


def view_words(surface: Surface, behind: bool, reader: Reader) -> str:
    """Return what a view of a part shows: a surface, or the one `behind`, as if the wood were glass."""
    name = surface_words(surface, reader)
    return reader.text("{surface}, seen through the wood", surface=name) if behind else name


def settings_note(settings: Iterable[ToolSetting], reader: Reader) -> str:
    """Return where settings of one figure are measured from, and what sets them, for the card."""
    settings = tuple(settings)
    mates = dict.fromkeys(each.by.part for each in settings if isinstance(each.by, ByMate))
    notes = [reader.text("set to {mate}", mate=reader.together(mates))] if mates else []
    notes += dict.fromkeys(_note(each, reader) for each in settings if not isinstance(each.by, ByMate))
    return reader.listed(filter(None, notes))


def _note(setting: ToolSetting, reader: Reader) -> str:
    if isinstance(setting.by, ByMeasure):
        return reader.text("as measured: {quantity}", quantity=reader.title(setting.by.quantity))
    if isinstance(setting.by, ByStepping):
        return reader.text("stepped off")
    if setting.slope is not None:
        return reader.text("{degrees}° from square", degrees=f"{Slope(setting.slope).degrees:.1f}")
    match setting.origin:
        case Surface():
            return reader.text("from the {surface}", surface=surface_words(setting.origin, reader))
        case OfLine(kind=kind):
            return reader.text("from the {line}", line=reader.text(kind))
        case _:
            return ""


def parts_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return what the parts are called together."""
    return reader.together(dict.fromkeys(each.part for each in alike))


def where_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return at which ends of which parts."""
    ends: dict[str, set[Surface]] = {}
    for each in alike:
        if (end := getattr(each, "end", None)) is not None:
            ends.setdefault(each.part, set()).add(end)
    if not ends:
        return parts_words(alike, reader)
    # Of some both ends, of others only the one or the other.
    parts_of: dict[frozenset[Surface], list[str]] = {}
    for part, its in ends.items():
        parts_of.setdefault(frozenset(its), []).append(part)
    return reader.listed(_ends_of(its, reader.together(parts), reader) for its, parts in parts_of.items())


def _ends_of(ends: frozenset[Surface], parts: str, reader: Reader) -> str:
    if len(ends) == 2:
        return reader.text("both ends of {parts}", parts=parts)
    (end,) = ends
    return reader.text("the {end} of {parts}", end=surface_words(end, reader), parts=parts)


def mates_words(alike: Sequence[Operation], reader: Reader) -> str:
    """Return what the other parts are called that set or are traced."""
    found: dict[str, None] = {}
    for each in alike:
        for setting in each.settings:
            if isinstance(setting.by, ByMate):
                found[setting.by.part] = None
            if isinstance(setting.origin, OfMate):
                found[setting.origin.part] = None
    return reader.together(found) if found else ""


def ends_words(surfaces: Collection[Origin], reader: Reader) -> str:
    """Return what a surface is called; both ends together."""
    if len(surfaces) > 1:
        return reader.text("end, at either end")
    (one,) = surfaces
    return surface_words(one, reader) if isinstance(one, Surface) else ""


def origin_words(setting: ToolSetting, reader: Reader) -> str:
    """Return the surface a setting is measured from; nothing for what is not."""
    return surface_words(setting.origin, reader) if isinstance(setting.origin, Surface) else ""
