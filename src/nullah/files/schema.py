"""The project file as a schema: what stands in it, field by field.

Lengths stand as typed, with their unit. `docs/file-format.md` and the JSON Schema beside
it are made from this module by `script/schema`.
"""

from __future__ import annotations

from fractions import Fraction
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from nullah.core.breakdown.wishes import Wishes
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.types import TYPES
from nullah.core.ledger import Measured, Value
from nullah.core.lengths import Length, LengthError, Marks, Slope, Unit, read_length, read_slope
from nullah.core.limits import BOARDS, BOOK_ENTRIES, COUNT, OWN_BOARDS, quoted
from nullah.core.project import Piece, Project
from nullah.core.rack.board import BoardError
from nullah.core.shop import USUAL_PLANES, Hands, Schools, Shop
from nullah.files.milling_schema import (
    FirstCutModel,
    PlaneModel,
    first_cut_data,
    plane_data,
    read_first_cut,
    read_plane,
)
from nullah.files.model import DayText, LengthText, NameText, PlaceMm, Some, Strict, ratio
from nullah.files.rack_schema import (
    AllowancesModel,
    AskModel,
    BoardModel,
    PlacementModel,
    RoomModel,
    StavesModel,
    WishesModel,
    allowances_data,
    ask_data,
    board_data,
    placement_data,
    read_allowances,
    read_ask,
    read_board,
    read_placement,
    read_resawn,
    read_room,
    read_staves,
    room_data,
    staves_data,
    wishes_data,
)
from nullah.files.shapings import read_shaping, shaping_data
from nullah.files.work_schema import (
    ClimateModel,
    EntryModel,
    TimerModel,
    WorkingModel,
    climate_data,
    entry_data,
    read_book,
    read_climate,
    read_timer,
    read_working,
    working_data,
)

FORMAT = "nullah project"
VERSION = 5


def _a_form(form: str) -> str:
    if form not in FORMS:
        raise ValueError(f"{quoted(form)} is not a form this version knows: {', '.join(FORMS)}")
    return form


def _a_mark(text: str) -> str:
    return ratio(text, Fraction(1, 1000), Fraction(10))


MarkText = Annotated[str, AfterValidator(_a_mark), Field(examples=["1/32", "0.5"])]
Count = Annotated[int, Field(ge=0, le=COUNT)]
#: A count, a length as typed, or a slope such as ``1:7``.
ValueText = Count | NameText
HoldText = Literal["glued", "nailed", "screwed", "screwed in slots", "held by buttons", "left dry"]


class MeasuredModel(Strict):
    """What was measured: the value, the day (such as ``2026-11-23``) and by what."""

    value: ValueText
    on: DayText = ""
    by: NameText = ""


class ShapingModel(Strict):
    """What is taken off a board of one's own: a kind, the sides it is at, and its figures in mm."""

    kind: Literal["taper", "chamfer", "round-over", "arch", "ogee foot", "long bevel", "raised panel", "notch",
                  "traced edge", "slant"]  # fmt: skip
    sides: Annotated[list[NameText], Some] = []
    axis: NameText = ""
    figures: Annotated[list[PlaceMm], Some] = []
    points: Annotated[list[tuple[PlaceMm, PlaceMm]], Some] = []


class OwnBoardModel(Strict):
    """A board of one's own. `lie` is the axis of its length and of its thickness, such as ``xz``."""

    id: Annotated[str, Field(pattern=r"^own[1-9][0-9]{0,8}$")]
    name: NameText
    length: LengthText
    width: LengthText
    thickness: LengthText
    at: tuple[LengthText, LengthText, LengthText]
    lie: Literal["xy", "xz", "yx", "yz", "zx", "zy"]
    shows: Annotated[str, Field(pattern=r"^[lrfbut]*$")] = ""
    inside: bool = False
    shapings: Annotated[list[ShapingModel], Field(max_length=50)] = []


def _a_joint_type(text: str) -> str:
    if text not in TYPES:
        raise ValueError(f"is no joint known here: {', '.join(TYPES)}")
    return text


JointTypeText = Annotated[str, AfterValidator(_a_joint_type), Field(json_schema_extra={"enum": list(TYPES)})]


class OwnJointModel(Strict):
    """A joint of one's own: `second` enters `first`, or `first` carries the tails."""

    id: Annotated[str, Field(pattern=r"^ownjoint[1-9][0-9]{0,8}$")]
    sharing: JointTypeText
    first: NameText
    second: NameText
    hold: HoldText = "glued"


def _a_share(text: str) -> str:
    return ratio(text, Fraction(1, 1000), Fraction(1000))


ShareText = Annotated[str, AfterValidator(_a_share), Field(examples=["8/5"])]


class PieceModel(Strict):
    """What is to be made. Values are lengths as typed, counts, or slopes such as ``1:7``."""

    form: Annotated[str, AfterValidator(_a_form)]
    name: NameText
    choices: Annotated[dict[NameText, NameText], Some] = {}
    given: Annotated[dict[NameText, ValueText], Some] = {}
    measured: Annotated[dict[NameText, ValueText | MeasuredModel], Some] = {}
    woods: dict[Literal["shown", "inside"], NameText] = {}
    holds: Annotated[dict[NameText, HoldText], Some] = {}
    own: Annotated[list[OwnBoardModel], Field(max_length=OWN_BOARDS)] = []
    own_joints: Annotated[list[OwnJointModel], Some] = []
    spacings: Annotated[dict[NameText, Annotated[list[ShareText], Field(max_length=COUNT)]], Some] = {}


class SchoolsModel(Strict):
    """How joints are made in this shop."""

    dovetail: Literal["tails first", "pins first"] = "tails first"
    waste: Literal["saw and chop", "chop only"] = "saw and chop"
    tenon: Literal["shoulders first", "cheeks first"] = "shoulders first"
    floor: Literal["router plane", "chisel"] = "router plane"


OffText = Annotated[float, Field(ge=0, le=5)]


class HandsModel(Strict):
    """How far off hands are, standard deviations in mm."""

    marking: OffText = 0.2
    tracing: OffText = 0.05
    sawing: OffText = 0.08
    planing: OffText = 0.08
    measuring: OffText = 0.1


Sizes = Annotated[list[LengthText], Field(max_length=COUNT)]


class ShopModel(Strict):
    """The tools there are."""

    chisels: Sizes
    kerf: LengthText
    fine_kerf: LengthText
    narrowest_pin: LengthText
    planes: Annotated[list[PlaneModel], Field(max_length=COUNT)] | None = None
    schools: SchoolsModel = SchoolsModel()
    hands: HandsModel = HandsModel()
    bits: Sizes | None = None
    plough_irons: Sizes | None = None
    plough_deepest: LengthText | None = None
    saw_deepest: LengthText | None = None


class MarksModel(Strict):
    """The unit figures are shown in, and the smallest mark of each unit, in that unit."""

    unit: Literal["mm", "cm", "in"]
    inch_mark: MarkText = "1/32"
    mm_mark: MarkText = "1/2"


class ProjectModel(Strict):
    """A Nullah project file."""

    format: Literal["nullah project"]
    version: Literal[1, 2, 3, 4, 5]
    piece: PieceModel
    boards: Annotated[list[BoardModel], Field(max_length=BOARDS)] = []
    allowances: AllowancesModel
    shop: ShopModel
    marks: MarksModel
    layout: Annotated[list[PlacementModel], Some] = []
    cut_first: Annotated[list[NameText], Some] = []
    first_cuts: Annotated[list[FirstCutModel], Some] = []
    lows_left: LengthText = "0 mm"
    asks: Annotated[dict[NameText, AskModel], Some] = {}
    staves: Annotated[list[StavesModel], Some] = []
    resawn: Annotated[list[tuple[NameText, NameText]], Some] = []
    wishes: WishesModel = WishesModel()
    flawed_share: Annotated[float, Field(ge=0, le=0.9)] = 0.2
    room: RoomModel = RoomModel()
    climate: ClimateModel | None = None
    finish: Literal["none", "oil or wax", "shellac", "paint or varnish"] = "oil or wax"
    working: WorkingModel | None = None
    book: Annotated[list[EntryModel], Field(max_length=BOOK_ENTRIES)] = []
    timer: TimerModel | None = None


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
            "own_joints": [_own_joint_data(joint) for joint in piece.own_joints],
            "spacings": {prefix: [str(width) for width in widths] for prefix, widths in piece.spacings},
        },
        "boards": [board_data(board) for board in project.boards],
        "allowances": allowances_data(project.allowances),
        "shop": {
            "chisels": [chisel.as_text() for chisel in shop.chisels],
            "kerf": shop.kerf.as_text(),
            "fine_kerf": shop.fine_kerf.as_text(),
            "narrowest_pin": shop.narrowest_pin.as_text(),
            "planes": [plane_data(plane) for plane in shop.planes],
            "schools": shop.schools._asdict(),
            "hands": shop.hands._asdict(),
            "bits": [bit.as_text() for bit in shop.bits],
            "plough_irons": [iron.as_text() for iron in shop.plough_irons],
            "plough_deepest": shop.plough_deepest.as_text(),
            "saw_deepest": shop.saw_deepest.as_text(),
        },
        "marks": {"unit": marks.unit.value, "inch_mark": str(marks.inch_mark), "mm_mark": str(marks.mm_mark)},
        "layout": [placement_data(item) for item in project.layout],
        "cut_first": sorted(project.cut_first),
        "first_cuts": [first_cut_data(cut) for cut in project.first_cuts],
        "lows_left": project.lows_left.as_text(),
        "asks": {part: ask_data(ask) for part, ask in project.asks},
        "staves": [staves_data(made) for made in project.staves],
        "resawn": [list(pair) for pair in project.resawn],
        "wishes": wishes_data(project.wishes),
        "flawed_share": float(project.flawed_share),
        "room": room_data(project.room),
        "climate": climate_data(project.climate),
        "finish": project.finish,
        "working": working_data(project.working),
        "book": [entry_data(entry) for entry in project.book],
        "timer": None if project.timer is None else project.timer._asdict(),
    }


def _own_joint_data(joint: OwnJoint) -> dict[str, Any]:
    return {"id": joint.id, "sharing": joint.type, "first": joint.first, "second": joint.second, "hold": joint.hold}


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
        tuple((prefix, tuple(Fraction(width) for width in widths)) for prefix, widths in model.piece.spacings.items()),
    )
    for what, found in (("boards", piece.own), ("joints", piece.own_joints)):
        if len({each.id for each in found}) != len(found):
            raise BoardError(f"Two {what} of one's own have the same id.")
    boards = tuple(read_board(board) for board in model.boards)
    ids = [board.id for board in boards]
    if len(set(ids)) != len(ids):
        raise BoardError("Two boards have the same id.")
    return Project(
        piece=piece,
        boards=boards,
        allowances=read_allowances(model.allowances),
        shop=_read_shop(model.shop),
        marks=Marks(Unit(model.marks.unit), Fraction(model.marks.inch_mark), Fraction(model.marks.mm_mark)),
        layout=tuple(read_placement(item) for item in model.layout),
        cut_first=frozenset(model.cut_first),
        first_cuts=tuple(read_first_cut(cut) for cut in model.first_cuts),
        lows_left=read_length(model.lows_left),
        asks=tuple((part, read_ask(ask)) for part, ask in model.asks.items()),
        staves=tuple(read_staves(made) for made in model.staves),
        resawn=tuple(read_resawn(pair) for pair in model.resawn),
        wishes=Wishes(model.wishes.sawing, model.wishes.value, model.wishes.risk),
        flawed_share=Fraction(str(model.flawed_share)),
        room=read_room(model.room),
        climate=read_climate(model.climate),
        finish=model.finish,
        working=read_working(model.working),
        book=read_book(model.book),
        timer=read_timer(model.timer),
    )


def _read_shop(model: ShopModel) -> Shop:
    usual = Shop()

    def sizes(texts: list[str] | None, otherwise: tuple[Length, ...]) -> tuple[Length, ...]:
        return otherwise if texts is None else tuple(read_length(text) for text in texts)

    def size(text: str | None, otherwise: Length) -> Length:
        return otherwise if text is None else read_length(text)

    return Shop(
        sizes(model.chisels, ()),
        read_length(model.kerf),
        read_length(model.fine_kerf),
        read_length(model.narrowest_pin),
        USUAL_PLANES if model.planes is None else tuple(read_plane(plane) for plane in model.planes),
        Schools(**model.schools.model_dump()),
        Hands(**model.hands.model_dump()),
        sizes(model.bits, usual.bits),
        sizes(model.plough_irons, usual.plough_irons),
        size(model.plough_deepest, usual.plough_deepest),
        size(model.saw_deepest, usual.saw_deepest),
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
