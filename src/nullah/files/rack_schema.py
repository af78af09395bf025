"""The rack and the breakdown in the project file: boards, flaws, readings, places, and what is asked of the wood."""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.rough import Allowances, Ask, Resawn, Staves
from nullah.core.breakdown.wishes import Wishes
from nullah.core.lengths import Length, read_length
from nullah.core.limits import COUNT, FLAWS, READINGS, SURVEY_PLACES
from nullah.core.piece.part import Needs
from nullah.core.rack.board import (
    Board,
    EdgePoint,
    Faces,
    Figure,
    Flaw,
    FlawKind,
    Reading,
    Rise,
    Surface,
    check_board,
    fitted_flaw,
    read_price,
    write_price,
)
from nullah.core.rack.drying import Room
from nullah.core.wood.movement import Cut
from nullah.files.milling_schema import ShapeModel, read_shape, shape_data
from nullah.files.model import DayText, LengthText, NameText, Percent, PlaceMm, Share, Strict


class FlawModel(Strict):
    """A rectangle of a board: `from` to `to` along it, `low` to `high` across it.

    `faces` says on which face of the board as it is drawn it is seen, `depth` how deep it goes
    from there, empty where nobody knows.
    """

    kind: Literal["check", "split", "knot", "sap", "wane", "runout"]
    start: LengthText = Field(alias="from")
    end: LengthText = Field(alias="to")
    low: LengthText
    high: LengthText
    faces: Literal["through", "upper", "lower"] = "through"
    depth: LengthText | Literal[""] = ""


class ReadingModel(Strict):
    """What a moisture meter showed on a day, in per cent."""

    day: DayText
    percent: Percent


class SurfaceModel(Strict):
    """A survey as a full grid: heights of both faces in mm; a row for each place along the board."""

    xs_mm: Annotated[list[PlaceMm], Field(min_length=2, max_length=SURVEY_PLACES)]
    ys_mm: Annotated[list[PlaceMm], Field(min_length=2, max_length=SURVEY_PLACES)]
    top_mm: list[list[PlaceMm]]
    bottom_mm: list[list[PlaceMm]]

    @model_validator(mode="after")
    def _a_full_grid(self) -> SurfaceModel:
        for places in (self.xs_mm, self.ys_mm):
            if any(after <= before for before, after in pairwise(places)):
                raise ValueError("the places of a survey must follow one another")
        if len(self.xs_mm) * len(self.ys_mm) > SURVEY_PLACES:
            raise ValueError(f"a survey may have {SURVEY_PLACES:,} places")
        for face in (self.top_mm, self.bottom_mm):
            if len(face) != len(self.xs_mm) or any(len(row) != len(self.ys_mm) for row in face):
                raise ValueError("a survey must be a full grid")
        return self


class BoardModel(Strict):
    """A rough board. `heart` is where the tree's heart lies seen on the left end: mm across and up."""

    id: Annotated[NameText, Field(min_length=1)]
    name: NameText
    species: NameText
    length: LengthText
    width: LengthText
    thickness: LengthText
    cup: LengthText = "0 mm"
    bow: LengthText = "0 mm"
    twist: LengthText = "0 mm"
    cut: Literal["flat", "rift", "quarter"] = "flat"
    flaws: Annotated[list[FlawModel], Field(max_length=FLAWS)] = []
    price: NameText = Field(default="", examples=["42.50"])
    colour: NameText = ""
    source: NameText = ""
    dressed: bool = False
    figure: Literal["plain", "straight", "figured"] = "plain"
    heart_mm: tuple[PlaceMm, PlaceMm] | None = None
    low_edge: Annotated[list[tuple[LengthText, LengthText]], Field(max_length=COUNT)] = []
    high_edge: Annotated[list[tuple[LengthText, LengthText]], Field(max_length=COUNT)] = []
    readings: Annotated[list[ReadingModel], Field(max_length=READINGS)] = []
    surface: SurfaceModel | None = None
    shape: Annotated[list[ShapeModel], Field(max_length=READINGS)] = []
    rises: Literal["unknown", "right", "left"] = "unknown"
    sawn: bool = False


class AllowancesModel(Strict):
    """What saw and plane take: both ends, both edges, both faces together; and jointing of each stave."""

    end: LengthText
    edge: LengthText
    thickness: LengthText
    joint: LengthText = "3 mm"


class PlacementModel(Strict):
    """A rough part's place on a board: its corner nearest the board's lower left corner, in mm."""

    part: NameText
    board: NameText
    x_mm: PlaceMm
    y_mm: PlaceMm
    pinned: bool = False
    flipped: bool = False
    over: bool = False


class AskModel(Strict):
    """What a part asks of its wood; empty asks nothing. Parts with one `together` come from one board."""

    needs: Literal["", "clear", "one face", "any", "hidden"] = ""
    figure: Literal["", "plain", "straight", "figured"] = ""
    rings: Literal["", "flat", "rift", "quarter"] = ""
    together: NameText = ""
    in_order: bool = False
    wood: NameText = ""


class StavesModel(Strict):
    """A part glued up from staves of these finished widths."""

    part: NameText
    widths: Annotated[list[LengthText], Field(max_length=COUNT)]
    alternate: bool = True


class WishesModel(Strict):
    """What the search weighs besides wood, each from 0 to 1."""

    sawing: Share = 0.0
    value: Share = 0.0
    risk: Share = 0.0


class RoomModel(Strict):
    """Where the piece will live: °C, %, and readings of a piece of wood that has always lived there."""

    temperature_c: Annotated[float, Field(ge=-60, le=100)] | None = None
    humidity_percent: Annotated[float, Field(ge=0, le=100)] | None = None
    reference: Annotated[list[ReadingModel], Field(max_length=READINGS)] = []


# --- to data --------------------------------------------------------------------------------------


def board_data(board: Board) -> dict[str, Any]:
    """Give a board as data for the file."""
    sizes = ("length", "width", "thickness", "cup", "bow", "twist")
    return {
        "id": board.id,
        "name": board.name,
        "species": board.species,
        **{name: getattr(board, name).as_text() for name in sizes},
        "cut": board.cut.value,
        "price": write_price(board.price),
        "flaws": [_flaw_data(flaw) for flaw in board.flaws],
        "colour": board.colour,
        "source": board.source,
        "dressed": board.dressed,
        "figure": board.figure.value,
        "heart_mm": board.heart,
        "low_edge": [[x.as_text(), y.as_text()] for x, y in board.low_edge],
        "high_edge": [[x.as_text(), y.as_text()] for x, y in board.high_edge],
        "readings": [_reading_data(reading) for reading in board.readings],
        "surface": _surface_data(board.surface),
        "shape": [shape_data(reading) for reading in board.shape],
        "rises": board.rises.value,
        "sawn": board.sawn,
    }


def _flaw_data(flaw: Flaw) -> dict[str, Any]:
    return {
        "kind": flaw.kind.value,
        "from": flaw.start.as_text(),
        "to": flaw.end.as_text(),
        "low": flaw.low.as_text(),
        "high": flaw.high.as_text(),
        "faces": flaw.faces.value,
        "depth": "" if flaw.depth is None else flaw.depth.as_text(),
    }


def _reading_data(reading: Reading) -> dict[str, Any]:
    return {"day": reading.day, "percent": float(reading.percent)}


def _surface_data(surface: Surface | None) -> dict[str, Any] | None:
    if surface is None:
        return None
    return {
        "xs_mm": list(surface.xs),
        "ys_mm": list(surface.ys),
        "top_mm": [list(row) for row in surface.top],
        "bottom_mm": [list(row) for row in surface.bottom],
    }


def allowances_data(allowances: Allowances) -> dict[str, Any]:
    """Give the allowances as data for the file."""
    return {name: getattr(allowances, name).as_text() for name in ("end", "edge", "thickness", "joint")}


def placement_data(item: Placement) -> dict[str, Any]:
    """Give a place as data for the file."""
    return {
        "part": item.part, "board": item.board, "x_mm": item.x, "y_mm": item.y,
        "pinned": item.pinned, "flipped": item.flipped, "over": item.over,
    }  # fmt: skip


def ask_data(ask: Ask) -> dict[str, Any]:
    """Give what a part asks as data for the file."""
    return {
        "needs": ask.needs.value if ask.needs else "",
        "figure": ask.figure.value if ask.figure else "",
        "rings": ask.rings.value if ask.rings else "",
        "together": ask.together,
        "in_order": ask.in_order,
        "wood": ask.wood,
    }


def staves_data(staves: Staves) -> dict[str, Any]:
    """Give staves as data for the file."""
    return {
        "part": staves.part, "widths": [width.as_text() for width in staves.widths], "alternate": staves.alternate
    }  # fmt: skip


def wishes_data(wishes: Wishes) -> dict[str, Any]:
    """Give the wishes as data for the file."""
    return {"sawing": wishes.sawing, "value": wishes.value, "risk": wishes.risk}


def room_data(room: Room) -> dict[str, Any]:
    """Give the room as data for the file."""
    return {
        "temperature_c": None if room.temperature is None else float(room.temperature),
        "humidity_percent": None if room.humidity is None else float(room.humidity),
        "reference": [_reading_data(reading) for reading in room.reference],
    }


# --- from data ------------------------------------------------------------------------------------


def read_board(model: BoardModel) -> Board:
    """Make the board of a validated file; `BoardError` for one that cannot be."""
    flaws = tuple(
        Flaw(
            FlawKind(f.kind), read_length(f.start), read_length(f.end), read_length(f.low), read_length(f.high),
            Faces(f.faces), read_length(f.depth) if f.depth else None,
        )
        for f in model.flaws
    )  # fmt: skip
    board = Board(
        model.id, model.name, model.species,
        read_length(model.length), read_length(model.width), read_length(model.thickness),
        read_length(model.cup), read_length(model.bow), read_length(model.twist),
        cut=Cut(model.cut), flaws=flaws, price=read_price(model.price), colour=model.colour, source=model.source,
        dressed=model.dressed, figure=Figure(model.figure), heart=model.heart_mm,
        low_edge=_edge(model.low_edge), high_edge=_edge(model.high_edge),
        readings=tuple(_reading(reading) for reading in model.readings), surface=_surface(model.surface),
        shape=tuple(read_shape(reading) for reading in model.shape), rises=Rise(model.rises), sawn=model.sawn,
    )  # fmt: skip
    check_board(board)
    return replace(board, flaws=tuple(fitted_flaw(board, flaw) for flaw in flaws))


def _edge(points: list[tuple[str, str]]) -> tuple[EdgePoint, ...]:
    return tuple((read_length(x), read_length(y)) for x, y in points)


def _reading(model: ReadingModel) -> Reading:
    return Reading(model.day, Fraction(str(model.percent)))


def _surface(model: SurfaceModel | None) -> Surface | None:
    if model is None:
        return None
    return Surface(
        tuple(model.xs_mm), tuple(model.ys_mm),
        tuple(tuple(row) for row in model.top_mm), tuple(tuple(row) for row in model.bottom_mm),
    )  # fmt: skip


def read_allowances(model: AllowancesModel) -> Allowances:
    """Make the allowances of a validated file."""
    return Allowances(*(read_length(text) for text in (model.end, model.edge, model.thickness, model.joint)))


def read_placement(model: PlacementModel) -> Placement:
    """Make the place of a validated file."""
    return Placement(model.part, model.board, model.x_mm, model.y_mm, model.pinned, model.flipped, model.over)


def read_ask(model: AskModel) -> Ask:
    """Make what a part asks, of a validated file."""
    return Ask(
        Needs(model.needs) if model.needs else None, Figure(model.figure) if model.figure else None,
        Cut(model.rings) if model.rings else None, model.together, model.in_order, model.wood,
    )  # fmt: skip


def read_staves(model: StavesModel) -> Staves:
    """Make the staves of a validated file."""
    widths: tuple[Length, ...] = tuple(read_length(text) for text in model.widths)
    return Staves(model.part, widths, model.alternate)


def read_resawn(pair: tuple[str, str]) -> Resawn:
    """Make a resawn pair of a validated file."""
    return Resawn(*pair)


def read_room(model: RoomModel) -> Room:
    """Make the room of a validated file."""

    def exact(value: float | None) -> Fraction | None:
        return None if value is None else Fraction(str(value))

    return Room(
        exact(model.temperature_c), exact(model.humidity_percent),
        tuple(_reading(reading) for reading in model.reference),
    )  # fmt: skip
