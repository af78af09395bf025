"""The project file as a schema: what stands in it, field by field.

Lengths stand as typed, with their unit. `docs/file-format.md` and the JSON Schema beside
it are made from this module by `script/schema`.
"""

from __future__ import annotations

from dataclasses import replace
from fractions import Fraction
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from nullah.core.breakdown.layout import Placement
from nullah.core.breakdown.rough import Allowances
from nullah.core.ledger import Measured, Value
from nullah.core.lengths import Length, LengthError, Marks, Slope, Unit, read_length, read_slope
from nullah.core.piece.forms import FORMS
from nullah.core.piece.own import OwnBoard, OwnJoint
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board, BoardError, Flaw, FlawKind, check_board, fitted_flaw, read_price, write_price
from nullah.core.shop import Shop
from nullah.core.wood.movement import Cut
from nullah.files.shapings import read_shaping, shaping_data

FORMAT = "nullah project"
VERSION = 2


def _a_length(text: str) -> str:
    read_length(text)
    return text


def _a_form(form: str) -> str:
    if form not in FORMS:
        raise ValueError(f"“{form}” is not a form this version knows: {', '.join(FORMS)}")
    return form


def _a_mark(text: str) -> str:
    try:
        positive = Fraction(text) > 0
    except (ValueError, ZeroDivisionError):
        positive = False
    if not positive:
        raise ValueError(f"“{text}” is not a mark on a rule")
    return text


LengthText = Annotated[str, AfterValidator(_a_length), Field(examples=["1 7/8 in", "47.5 mm"])]
MarkText = Annotated[str, AfterValidator(_a_mark), Field(examples=["1/32", "0.5"])]
ValueText = int | str
HoldText = Literal["glued", "nailed", "screwed", "screwed in slots", "held by buttons", "left dry"]


class _Strict(BaseModel):
    """Unknown fields are refused, never dropped."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class MeasuredModel(_Strict):
    """What was measured: the value, the day (such as ``2026-11-23``) and by what."""

    value: ValueText
    on: str = ""
    by: str = ""


class ShapingModel(_Strict):
    """What is taken off a board of one's own: a kind, the sides it is at, and its figures in mm."""

    kind: Literal["taper", "chamfer", "round-over", "arch", "ogee foot", "long bevel", "raised panel", "notch",
                  "traced edge", "slant"]  # fmt: skip
    sides: list[str] = []
    axis: str = ""
    figures: list[float] = []
    points: list[tuple[float, float]] = []


class OwnBoardModel(_Strict):
    """A board of one's own. `lie` is the axis of its length and of its thickness, such as ``xz``."""

    id: Annotated[str, Field(pattern=r"^own[1-9][0-9]*$")]
    name: str
    length: LengthText
    width: LengthText
    thickness: LengthText
    at: tuple[LengthText, LengthText, LengthText]
    lie: Literal["xy", "xz", "yx", "yz", "zx", "zy"]
    shows: Annotated[str, Field(pattern=r"^[lrfbut]*$")] = ""
    inside: bool = False
    shapings: list[ShapingModel] = []


class OwnJointModel(_Strict):
    """A joint of one's own: `second` enters `first`, or `first` carries the tails."""

    id: Annotated[str, Field(pattern=r"^ownjoint[1-9][0-9]*$")]
    sharing: Literal["dovetail", "let in", "mortise and tenon", "lap", "bridle", "mitre", "butt"]
    first: str
    second: str
    hold: HoldText = "glued"


class PieceModel(_Strict):
    """What is to be made. Values are lengths as typed, counts, or slopes such as ``1:7``."""

    form: Annotated[str, AfterValidator(_a_form)]
    name: str
    choices: dict[str, str] = {}
    given: dict[str, ValueText] = {}
    measured: dict[str, ValueText | MeasuredModel] = {}
    woods: dict[Literal["shown", "inside"], str] = {}
    holds: dict[str, HoldText] = {}
    own: list[OwnBoardModel] = []
    own_joints: list[OwnJointModel] = []


class FlawModel(_Strict):
    """A rectangle of a board: `from` to `to` along it, `low` to `high` across it."""

    kind: Literal["check", "split", "knot", "sap", "wane", "runout"]
    start: LengthText = Field(alias="from")
    end: LengthText = Field(alias="to")
    low: LengthText
    high: LengthText


class BoardModel(_Strict):
    """A rough board."""

    id: str
    name: str
    species: str
    length: LengthText
    width: LengthText
    thickness: LengthText
    cup: LengthText = "0 mm"
    bow: LengthText = "0 mm"
    twist: LengthText = "0 mm"
    cut: Literal["flat", "rift", "quarter"] = "flat"
    flaws: list[FlawModel] = []
    price: str = Field(default="", examples=["42.50"])


class AllowancesModel(_Strict):
    """What saw and plane take: both ends, both edges, both faces together."""

    end: LengthText
    edge: LengthText
    thickness: LengthText


class ShopModel(_Strict):
    """The tools there are."""

    chisels: list[LengthText]
    kerf: LengthText
    fine_kerf: LengthText
    narrowest_pin: LengthText


class MarksModel(_Strict):
    """The unit figures are shown in, and the smallest mark of each unit, in that unit."""

    unit: Literal["mm", "in"]
    inch_mark: MarkText = "1/32"
    mm_mark: MarkText = "1/2"


class PlacementModel(_Strict):
    """A part's place on a board: its corner nearest the board's lower left corner, in mm."""

    part: str
    board: str
    x_mm: float
    y_mm: float


class ProjectModel(_Strict):
    """A Nullah project file."""

    format: Literal["nullah project"]
    version: Literal[1, 2]
    piece: PieceModel
    boards: list[BoardModel] = []
    allowances: AllowancesModel
    shop: ShopModel
    marks: MarksModel
    layout: list[PlacementModel] = []
    cut_first: list[str] = []


# --- to and from the project ----------------------------------------------------------------------


def to_data(project: Project) -> dict[str, Any]:
    """Give a project as data for the file."""
    piece, shop, marks = project.piece, project.shop, project.marks
    return {
        "format": FORMAT,
        "version": VERSION,
        "piece": {
            "form": piece.form,
            "name": piece.name,
            "choices": dict(piece.choices),
            "given": {name: _value_data(value) for name, value in piece.given},
            "measured": {name: _measured_data(reading) for name, reading in piece.measured},
            "woods": dict(piece.woods),
            "holds": dict(piece.holds),
            "own": [_own_data(board) for board in piece.own],
            "own_joints": [joint._asdict() for joint in piece.own_joints],
        },
        "boards": [_board_data(board) for board in project.boards],
        "allowances": {
            "end": project.allowances.end.as_text(),
            "edge": project.allowances.edge.as_text(),
            "thickness": project.allowances.thickness.as_text(),
        },
        "shop": {
            "chisels": [chisel.as_text() for chisel in shop.chisels],
            "kerf": shop.kerf.as_text(),
            "fine_kerf": shop.fine_kerf.as_text(),
            "narrowest_pin": shop.narrowest_pin.as_text(),
        },
        "marks": {"unit": marks.unit.value, "inch_mark": str(marks.inch_mark), "mm_mark": str(marks.mm_mark)},
        "layout": [{"part": item.part, "board": item.board, "x_mm": item.x, "y_mm": item.y} for item in project.layout],
        "cut_first": sorted(project.cut_first),
    }


def _value_data(value: Value) -> ValueText:
    return value if isinstance(value, int) else value.as_text()


def _measured_data(reading: Measured) -> dict[str, Any]:
    return {"value": _value_data(reading.value), "on": reading.on, "by": reading.by}


def _own_data(board: OwnBoard) -> dict[str, Any]:
    length, width, thickness = (size.as_text() for size in board.sizes)
    return {
        "id": board.id,
        "name": board.name,
        "length": length,
        "width": width,
        "thickness": thickness,
        "at": [place.as_text() for place in board.at],
        "lie": board.lie,
        "shows": board.shows,
        "inside": board.inside,
        "shapings": [shaping_data(shaping) for shaping in board.shapings],
    }


def _board_data(board: Board) -> dict[str, Any]:
    sizes = ("length", "width", "thickness", "cup", "bow", "twist")
    return {
        "id": board.id,
        "name": board.name,
        "species": board.species,
        **{name: getattr(board, name).as_text() for name in sizes},
        "cut": board.cut.value,
        "price": write_price(board.price),
        "flaws": [
            {
                "kind": flaw.kind.value,
                "from": flaw.start.as_text(),
                "to": flaw.end.as_text(),
                "low": flaw.low.as_text(),
                "high": flaw.high.as_text(),
            }
            for flaw in board.flaws
        ],
    }


def from_model(model: ProjectModel) -> Project:
    """Make the project of a validated file.

    Raises
    ------
    LengthError, BoardError
        For a value or board that cannot be, with a sentence.
    """
    piece = Piece(
        model.piece.form,
        model.piece.name,
        tuple(model.piece.choices.items()),
        tuple((name, _read_value(name, text)) for name, text in model.piece.given.items()),
        tuple((name, _read_measured(name, found)) for name, found in model.piece.measured.items()),
        tuple((str(role), species) for role, species in model.piece.woods.items()),
        tuple((joint, str(hold)) for joint, hold in model.piece.holds.items()),
        tuple(_read_own(board) for board in model.piece.own),
        tuple(OwnJoint(j.id, j.sharing, j.first, j.second, j.hold) for j in model.piece.own_joints),
    )
    for what, found in (("boards", piece.own), ("joints", piece.own_joints)):
        if len({each.id for each in found}) != len(found):
            raise BoardError(f"Two {what} of one's own have the same id.")
    boards = tuple(_read_board(board) for board in model.boards)
    ids = [board.id for board in boards]
    if len(set(ids)) != len(ids):
        raise BoardError("Two boards have the same id.")
    shop, allow = model.shop, model.allowances
    return Project(
        piece=piece,
        boards=boards,
        allowances=Allowances(read_length(allow.end), read_length(allow.edge), read_length(allow.thickness)),
        shop=Shop(
            tuple(read_length(chisel) for chisel in shop.chisels),
            read_length(shop.kerf),
            read_length(shop.fine_kerf),
            read_length(shop.narrowest_pin),
        ),
        marks=Marks(Unit(model.marks.unit), Fraction(model.marks.inch_mark), Fraction(model.marks.mm_mark)),
        layout=tuple(Placement(item.part, item.board, item.x_mm, item.y_mm) for item in model.layout),
        cut_first=frozenset(model.cut_first),
    )


def _read_value(name: str, text: ValueText) -> Value:
    if isinstance(text, int):
        return text
    try:
        return _slope_or_length(text)
    except LengthError as error:
        raise LengthError(f"{name}: {error}") from error


def _read_measured(name: str, found: ValueText | MeasuredModel) -> Measured:
    if isinstance(found, MeasuredModel):
        return Measured(_read_value(name, found.value), found.on, found.by)
    return Measured(_read_value(name, found))


def _read_own(model: OwnBoardModel) -> OwnBoard:
    sizes = (read_length(model.length), read_length(model.width), read_length(model.thickness))
    at = (read_length(model.at[0]), read_length(model.at[1]), read_length(model.at[2]))
    shapings = tuple(read_shaping(s.kind, s.sides, s.axis, s.figures, s.points) for s in model.shapings)
    return OwnBoard(model.id, model.name, sizes, at, model.lie, model.shows, model.inside, shapings)


def _slope_or_length(text: str) -> Length | Slope:
    return read_slope(text) if ":" in text else read_length(text)


def _read_board(model: BoardModel) -> Board:
    sizes = {
        name: read_length(getattr(model, name)) for name in ("length", "width", "thickness", "cup", "bow", "twist")
    }
    flaws = tuple(
        Flaw(FlawKind(f.kind), read_length(f.start), read_length(f.end), read_length(f.low), read_length(f.high))
        for f in model.flaws
    )
    board = Board(model.id, model.name, model.species, **sizes, cut=Cut(model.cut), flaws=flaws,
                  price=read_price(model.price))  # fmt: skip
    check_board(board)
    return replace(board, flaws=tuple(fitted_flaw(board, flaw) for flaw in flaws))
