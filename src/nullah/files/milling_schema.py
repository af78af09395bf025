"""Milling in the project file: bench planes, readings of a board's shape, first cuts; and the way there and back."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nullah.core.breakdown.layout import FirstCut
from nullah.core.lengths import read_length
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind
from nullah.core.shop import Plane, PlaneKind
from nullah.files.model import LengthText, NameText, PlaceMm, Strict

Place = tuple[PlaceMm, PlaceMm]


class PlaneModel(Strict):
    """A bench plane: sole, iron, how far the iron's corners stand back, its usual shaving."""

    kind: Literal["fore plane", "jack plane", "jointer", "smoother"]
    sole: LengthText
    iron: LengthText
    camber: LengthText
    shaving: LengthText
    mouth: Annotated[float, Field(gt=0.05, lt=0.95)] = 0.33


class GapModel(Strict):
    """A gap under a straightedge from `from_mm` to `to_mm`, read at `at_mm`; places in mm on the board as drawn."""

    kind: Literal["gap"] = "gap"
    face: Literal["upper", "lower"]
    from_mm: Place
    to_mm: Place
    at_mm: Place
    gap: LengthText


class WindModel(Strict):
    """What winding sticks `stick` long show that stand at `near_mm` and `far_mm` along the board."""

    kind: Literal["wind"] = "wind"
    face: Literal["upper", "lower"]
    near_mm: PlaceMm
    far_mm: PlaceMm
    stick: LengthText
    rise: LengthText


class CalliperModel(Strict):
    """A thickness at a place, in mm on the board as drawn."""

    kind: Literal["calliper"] = "calliper"
    at_mm: Place
    thickness: LengthText


ShapeModel = Annotated[GapModel | WindModel | CalliperModel, Field(discriminator="kind")]


class FirstCutModel(Strict):
    """A cut through a whole board before it is flattened, mm along it or across it."""

    board: NameText
    kind: Literal["cross", "rip"]
    at_mm: PlaceMm


# --- to data --------------------------------------------------------------------------------------


def plane_data(plane: Plane) -> dict[str, Any]:
    """Give a plane as data for the file."""
    sizes = {name: getattr(plane, name).as_text() for name in ("sole", "iron", "camber", "shaving")}
    return {"kind": plane.kind.value, **sizes, "mouth": plane.mouth}


def shape_data(reading: ShapeReading) -> dict[str, Any]:
    """Give a reading as data for the file."""
    if isinstance(reading, Calliper):
        return {"kind": "calliper", "at_mm": list(reading.at), "thickness": reading.thickness.as_text()}
    face = "upper" if reading.upper else "lower"
    if isinstance(reading, Gap):
        return {
            "kind": "gap", "face": face, "from_mm": list(reading.start), "to_mm": list(reading.end),
            "at_mm": list(reading.at), "gap": reading.gap.as_text(),
        }  # fmt: skip
    return {
        "kind": "wind", "face": face, "near_mm": reading.near, "far_mm": reading.far,
        "stick": reading.stick.as_text(), "rise": reading.rise.as_text(),
    }  # fmt: skip


def first_cut_data(cut: FirstCut) -> dict[str, Any]:
    """Give a first cut as data for the file."""
    return {"board": cut.board, "kind": "cross" if cut.crosswise else "rip", "at_mm": cut.at}


# --- from data ------------------------------------------------------------------------------------


def read_plane(model: PlaneModel) -> Plane:
    """Make the plane of a validated file."""
    sole, iron, camber, shaving = map(read_length, (model.sole, model.iron, model.camber, model.shaving))
    return Plane(PlaneKind(model.kind), sole, iron, camber, shaving, model.mouth)


def read_shape(model: GapModel | WindModel | CalliperModel) -> ShapeReading:
    """Make the reading of a validated file."""
    if isinstance(model, CalliperModel):
        return Calliper(model.at_mm, read_length(model.thickness))
    upper = model.face == "upper"
    if isinstance(model, GapModel):
        return Gap(upper, model.from_mm, model.to_mm, model.at_mm, read_length(model.gap))
    return Wind(upper, model.near_mm, model.far_mm, read_length(model.stick), read_length(model.rise))


def read_first_cut(model: FirstCutModel) -> FirstCut:
    """Make the first cut of a validated file."""
    return FirstCut(model.board, model.kind == "cross", model.at_mm)
