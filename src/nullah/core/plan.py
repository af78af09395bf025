"""The plan: all that follows from a project. One function, `work_out`, pure and cheap.

Its steps keep their last results by their inputs, so a changed dimension works out only
what hangs on it.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from dataclasses import fields, replace
from enum import Enum, auto
from functools import cached_property
from types import MappingProxyType
from typing import TypeVar, cast

from nullah.core.actions import join_own
from nullah.core.bits import Bits
from nullah.core.board_plans import BoardPlan, board_plans
from nullah.core.breakdown.facts import FlatteningLeaves, NoBoards, NoWood
from nullah.core.breakdown.layout import PlacedPart, Unplaced
from nullah.core.breakdown.reasons import Taken, staves_of, why_nowhere
from nullah.core.breakdown.rough import RoughPart, Staves, as_made, asking, equal_staves, held, in_strips, rough_part
from nullah.core.card import Remark, Severity
from nullah.core.catalogue import Catalogue, Phrase
from nullah.core.errors import Fact
from nullah.core.fastening import FastenedBy, fastened, fastened_joints, held_wood, rows_of
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint, next_own_joint_id, offers, with_own
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import RecentResults, SameAgain, kept_by_identity, kept_by_value
from nullah.core.joints.dovetail.corners import Corner, corners_in_bits, lay_out_corners
from nullah.core.joints.dovetail.facts import TailFact
from nullah.core.ledger import Definition, Ledger, Origin, Snapping, work_out_ledger
from nullah.core.lengths import Direction, Length, Marks
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.form import Assembly, Form, Mover, Unit
from nullah.core.piece.joint import Hold, Joint
from nullah.core.piece.part import INSIDE, Part
from nullah.core.project import Piece, Project
from nullah.core.rack.board import Board
from nullah.core.reader import Reader
from nullah.core.rules import LedgerError
from nullah.core.season.swelling import StaveWood, WoodMoisture, moisture_now, seen_on_edge, through_year
from nullah.core.shop import Shop
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import USUAL_WOOD, SpeciesError, find_species

TYPE_CHECKING = False
if TYPE_CHECKING:  # these bring numpy and the solids: only loaded when asked for
    from nullah.core.milling.forecast import Forecast
    from nullah.core.proof.finding import Finding
    from nullah.core.proof.prove import Proof


class Stand(Enum):
    """How far a part has come, or what is in its way."""

    WRONGLY_LAID = auto()
    TOO_THIN = auto()
    DOES_NOT_FIT = auto()
    NO_WOOD = auto()
    WAITS = auto()
    MEASURED = auto()
    PLANNED = auto()

    @property
    def weight(self) -> Severity:
        """How much it matters."""
        if self in (Stand.WRONGLY_LAID, Stand.TOO_THIN, Stand.DOES_NOT_FIT):
            return Severity.FAILURE
        return Severity.WARNING if self in (Stand.NO_WOOD, Stand.WAITS) else Severity.NOTE


class LeftOver(NamedTuple):
    """Which sizes of a part are left over until something is measured."""

    long: bool = False
    wide: bool = False
    thick: bool = False


class PartState(NamedTuple):
    """Where a part stands; `short` is how much it is too thin, `over` what is left over, where that is so."""

    stand: Stand
    short: Length = Length(Fraction(0))
    over: LeftOver = LeftOver()


class Issue(Enum):
    """What may be unsettled in a plan, what stops the work first."""

    RULES = auto()
    PIECE = auto()
    MISFITS = auto()
    CORNER = auto()
    LAID_WRONGLY = auto()
    TOO_THIN = auto()
    NO_WOOD = auto()
    TO_MEASURE = auto()


class Unsettled(NamedTuple):
    """Something that is not settled yet, and in how many places."""

    issue: Issue
    number: int = 1


class Plan(FrozenRecord):
    """All output. `ledger` is None and `problem` is why if the rules cannot be worked out.

    `proof` is None as long as it was not asked for; `forecasting` says whether thicknesses are to be forecast;
    `aside` whether what takes long is worked out in another process, so that only what is known of it is told.
    """

    project: Project
    form: Form
    choices: Mapping[str, str]
    ledger: Ledger | None
    unfastened: Assembly
    rough: tuple[RoughPart, ...]
    boards: tuple[BoardPlan, ...]
    forecasting: bool
    proof: Proof | None = None
    problem: Fact | None = None
    aside: bool = False

    def with_proof(self, proof: Proof | None) -> Plan:
        """Return the same plan with what was found of its solids; what was worked out of it already is kept."""
        plan = replace(self, proof=proof)
        own = {each.name for each in fields(self)}
        vars(plan).update({name: value for name, value in vars(self).items() if name not in own})
        return plan

    @cached_property
    def assembly(self) -> Assembly:
        """The piece, with nails and screws chosen for the woods there are."""
        return fastened(self.unfastened, self._as_planned)

    @property
    def _as_planned(self) -> FastenedBy:
        """What nails and screws hang on, and what they were before anything was measured: that does not change them."""
        by = _fastened_by(self)
        return by if self.as_designed is None else by._replace(planned=rows_of(self.as_designed))

    @cached_property
    def as_designed(self) -> Assembly | None:
        """The piece as if nothing had been measured that other things are cut to; None where nothing was."""
        return None if self.unfastened_design is None else fastened(self.unfastened_design, _fastened_by(self))

    @cached_property
    def unfastened_design(self) -> Assembly | None:
        """The same without nails and screws."""
        return _designed(self.project, self.ledger, self.unfastened)

    @cached_property
    def unplaced(self) -> tuple[Unplaced, ...]:
        """The rough parts that lie on no board, and why."""
        return tuple(self._each_unplaced())

    def _each_unplaced(self) -> Iterator[Unplaced]:
        boards, kerf = self.project.boards, float(self.project.shop.kerf)
        bare = frozenset(item.board.id for item in self.boards if not item.placed)
        taken = tuple((item.board.id, _taken(item, kerf)) for item in self.boards if item.placed)
        there = _SAME_WOOD("", WoodThere(boards, bare, taken, self.forecasting))
        return (_unplaced(part, there) for part in self.rough if part.id not in self._placed)

    def bit_by_bit(self) -> Bits[None]:
        """Work out what takes long of it, and rest after every bit: what is asked afterwards is there."""
        if self.unfastened_design is not None:
            for _ in fastened_joints(self.unfastened_design, _fastened_by(self)):
                yield
        for _ in fastened_joints(self.unfastened, self._as_planned):
            yield
        known = vars(self)
        if self.ledger is not None and "corners" not in known:
            ruled = self.project.shop, self.project.marks
            known["corners"] = yield from corners_in_bits(self.ledger, self.unfastened, *ruled)
        if self.forecasting:
            from nullah.core.forecasts import forecasts_in_bits
            from nullah.core.milling.forecast import thickest_in_bits

            if "milling" not in known:
                known["milling"] = yield from forecasts_in_bits(self.project, self.unfastened, self._laid)
            for part in {part.nameless for part in self.rough if part.id not in self._placed}:
                yield from thickest_in_bits(part, self.project.boards)
        for _ in self._each_unplaced():
            yield

    @cached_property
    def corners(self) -> tuple[Corner, ...]:
        """The kinds of dovetailed corners there are."""
        if self.ledger is None:
            return ()
        return lay_out_corners(self.ledger, self.unfastened, self.project.shop, self.project.marks)

    @property
    def designed(self) -> Assembly:
        """The piece as it was before anything was measured: how it goes together does not hang on what is measured.

        What is cut to a measurement is larger or smaller than its place by as much as its place was found to be.
        """
        return self.assembly if self.as_designed is None else self.as_designed

    @cached_property
    def milling(self) -> tuple[Forecast, ...] | None:
        """The thicknesses that are forecast; None where they are not. They are worked out when they are looked at."""
        if not self.forecasting:
            return None
        from nullah.core.forecasts import forecasts

        return forecasts(self.project, self.unfastened, self._laid)

    @property
    def _laid(self) -> list[tuple[Board, tuple[PlacedPart, ...]]]:
        return [(each.board, each.placed) for each in self.boards]

    @cached_property
    def proof_key(self) -> tuple[object, ...]:
        """All that the proof of a plan hangs on: two plans for which it is equal have the same proof.

        Nails and screws follow from it too: they are not worked out to ask for a proof.
        """
        project, woods = self.project, tuple(self.woods_of(part) for part in self.parts)
        made = self.unfastened, *_fastened_by(self)
        return *made, self.unfastened_design, self.ledger, self.marks, woods, project.climate, project.finish

    @property
    def marks(self) -> Marks:
        """How figures are written."""
        return self.project.marks

    @cached_property
    def reader(self) -> Reader:
        """Whoever reads about this plan: the units in use, what its parts and quantities are called."""
        titles = (
            {}
            if self.ledger is None
            else {name: quantity.definition.title for name, quantity in self.ledger.quantities.items()}
        )
        return Reader(self.marks, {part.id: part.name for part in self.parts}, titles)

    @property
    def parts(self) -> tuple[Part, ...]:
        """The parts of the piece."""
        return self.unfastened.parts

    @property
    def corner(self) -> Corner | None:
        """The first kind of dovetailed corner, if there is one."""
        return self.corners[0] if self.corners else None

    def corner_of(self, part_id: str) -> Corner | None:
        """Return the kind of corner a part has, or the first there is."""
        having = (c for c in self.corners if part_id in (*c.tail_boards, *c.pin_boards))
        return next(having, self.corner)

    @property
    def remarks(self) -> tuple[Remark, ...]:
        """All that is said of the piece: by its form, by the proof, and of pins too fine to make."""
        found = list(self.assembly.remarks)
        if self.proof is not None:
            found += [finding.remark for finding in self.proof.findings]
        for corner in self.corners:
            found += [r for r in corner.remarks if r.weight is Severity.FAILURE or isinstance(r.fact, TailFact)]
        return tuple(found)

    @cached_property
    def staves(self) -> tuple[Staves, ...]:
        """How wide parts are glued up: as was chosen for each, else as the form has it."""
        return staves_of_parts(self.project, self.unfastened)

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What the proof found so far."""
        return self.proof.findings if self.proof is not None else ()

    @property
    def failing(self) -> int:
        """How many things keep the piece from being made."""
        return sum(remark.weight is Severity.FAILURE for remark in self.remarks)

    def species_of(self, part: Part) -> str:
        """Return the species of a part: of the board it lies on, or as chosen, or of the first board."""
        known = part.id, part.species_role
        if known not in self._species:
            board, boards = self.board_of(part.id), self.project.boards
            laid = board.board.species if board is not None else ""
            usual = boards[0].species if boards else ""
            self._species[known] = laid or chosen_wood(self.project.piece, part) or usual
        return self._species[known]

    @cached_property
    def _species(self) -> dict[tuple[str, str], str]:
        """The species that were asked for: several times for each part."""
        return {}

    def cut_of(self, part: Part) -> GrainCut:
        """Return how rings run in a part, seen on its face; flat-sawn where its board is not known, which moves most.

        Strips of a slab stand on edge, so flat-sawn ones have rings that stand on its face.
        """
        return self._cut_on(self.board_of(part.id), part)

    @staticmethod
    def _cut_on(board: BoardPlan | None, part: Part) -> GrainCut:
        if board is None:
            return GrainCut.FLAT
        cut = GrainCut(board.board.cut)
        return seen_on_edge(cut) if part.laminated else cut

    def woods_of(self, part: Part) -> tuple[StaveWood, ...]:
        """Return the wood of each stave of a part, of a whole one its only one; none where some wood is not known.

        Where no wood was chosen it is worked out as for the usual one.
        """
        pieces = self.pieces_of(part.id)
        made = next((each for each in self.staves if each.part == part.id and len(each.widths) == len(pieces)), None)
        found = []
        for number, piece in enumerate(pieces):
            board = self.board_of(piece.id)
            wood = (board.board.species if board is not None else "") or piece.wood or self.species_of(part)
            try:
                species = find_species(wood or USUAL_WOOD)
            except SpeciesError:
                return ()
            share = 1.0 if made is None else float(made.widths[number].mm / part.width.mm)
            found.append(StaveWood(share, species, self._cut_on(board, part), self._moisture_on(board)))
        return tuple(found)

    def wood_through_year(self, part: Part) -> WoodMoisture | None:
        """Return the wood of a part with its moisture now and through the year; None where it is not in the table."""
        woods = self.woods_of(part)
        return through_year(part, woods, self.project.climate, self.project.finish) if woods else None

    def part(self, part_id: str) -> Part | None:
        """Return the part of that id, if there is one."""
        return self._parts.get(part_id)

    @cached_property
    def _parts(self) -> dict[str, Part]:
        return {part.id: part for part in reversed(self.unfastened.parts)}

    def rough_part(self, part_id: str) -> RoughPart | None:
        """Return the rough part of that id, or the first that the part comes of, if there is one."""
        exact = next((rough for rough in self.rough if rough.id == part_id), None)
        return exact or next((rough for rough in self.rough if part_id in rough.parts), None)

    def pieces_of(self, part_id: str) -> tuple[RoughPart, ...]:
        """Return the rough parts that a part comes of: one, or its staves."""
        return self._pieces.get(part_id, ())

    @cached_property
    def _pieces(self) -> dict[str, tuple[RoughPart, ...]]:
        found: dict[str, list[RoughPart]] = {}
        for rough in self.rough:
            for part in rough.parts:
                found.setdefault(part, []).append(rough)
        return {part: tuple(pieces) for part, pieces in found.items()}

    @cached_property
    def _placed(self) -> frozenset[str]:
        return frozenset(item.part.id for board in self.boards for item in board.placed)

    def board_of(self, part_id: str) -> BoardPlan | None:
        """Return the board a part lies on, if it lies on one."""
        return self._lies_on.get(part_id)

    @cached_property
    def _lies_on(self) -> dict[str, BoardPlan]:
        """The board on which each part or piece lies; of the staves of a part, the first."""
        found: dict[str, BoardPlan] = {}
        for board in self.boards:
            for item in board.placed:
                for each in (item.part.id, *item.part.parts):
                    found.setdefault(each, board)
        return found

    def laid(self, part_id: str) -> bool:
        """Return whether all that a part comes of lies on boards."""
        pieces = self.pieces_of(part_id)
        return bool(pieces) and all(piece.id in self._placed for piece in pieces)

    def forecast_of(self, part_id: str) -> Forecast | None:
        """Return the thickness forecast of a part, of its staves that with least to spare."""
        found = [item for item in self.milling or () if item.part == part_id]
        return max(found, key=lambda item: item.short, default=None)

    def moisture_of(self, part_id: str) -> float:
        """Return the moisture of a part's wood today, %."""
        return self._moisture_on(self.board_of(part_id))

    def _moisture_on(self, board: BoardPlan | None) -> float:
        return moisture_now(board.board if board is not None else None, self.project.room, self.project.climate)

    def waiting(self, part: Part) -> tuple[str, ...]:
        """Return the ledger names that must be measured before this part may be cut to size."""
        if self.ledger is None:
            return ()
        names = [other for name in part.quantities for other in self.ledger.waits_for(name)]
        return tuple(dict.fromkeys(names))

    def left_over(self, part: Part) -> LeftOver:
        """Return which sizes of a part may not be cut to yet."""
        if self.ledger is None:
            return LeftOver()
        return LeftOver(*(bool(self.ledger.waits_for(name)) for name in part.quantities[:3]))

    def state_of(self, part: Part) -> PartState:
        """Return where a part stands; what stops it first comes first."""
        pieces = {piece.id for piece in self.pieces_of(part.id)}
        if any(pieces & set(board.wrong) for board in self.boards):
            return PartState(Stand.WRONGLY_LAID)
        forecast = self.forecast_of(part.id)
        if forecast is not None and forecast.short.mm > 0:
            return PartState(Stand.TOO_THIN, forecast.short)
        if any(part.id in f.parts and f.remark.weight is Severity.FAILURE for f in self.findings):
            return PartState(Stand.DOES_NOT_FIT)
        if not self.laid(part.id):
            return PartState(Stand.NO_WOOD)
        if self.waiting(part):
            return PartState(Stand.WAITS, over=self.left_over(part))
        if self.ledger is not None and any(
            self.ledger.quantity(name).origin is Origin.MEASURED for name in part.quantities
        ):
            return PartState(Stand.MEASURED)
        return PartState(Stand.PLANNED)

    def unsettled(self) -> tuple[Unsettled, ...]:
        """Return what is not settled yet, what stops the work first."""
        if self.problem is not None:
            return (Unsettled(Issue.RULES),)
        waiting = {name for part in self.parts for name in self.waiting(part)}
        counts = {
            Issue.PIECE: any(remark.weight is Severity.FAILURE for remark in self.assembly.remarks),
            Issue.MISFITS: sum(finding.remark.weight is Severity.FAILURE for finding in self.findings),
            Issue.CORNER: any(r.weight is Severity.FAILURE for corner in self.corners for r in corner.remarks),
            Issue.LAID_WRONGLY: sum(len(board.wrong) + (board.not_sawable is not None) for board in self.boards),
            Issue.TOO_THIN: len({item.part for item in self.milling or () if item.short.mm > 0}),
            Issue.NO_WOOD: len({part for item in self.unplaced for part in item.part.parts}),
            Issue.TO_MEASURE: len(waiting),
        }
        return tuple(Unsettled(issue, int(count)) for issue, count in counts.items() if count)


def work_out(project: Project, milling: bool = True, proving: bool = True, aside: bool = False) -> Plan:
    """Work out all that follows from a project.

    Parameters
    ----------
    project : Project
    milling : bool
        Whether to forecast thicknesses, which loads the numerical libraries at its first use.
    proving : bool
        Whether to put the piece together as solids, which loads those at its first use. The
        desk does that aside, with `prove_plan`.
    aside : bool
        Whether what takes long is worked out in another process.

    Returns
    -------
    Plan
        Never raises for what a user can give: what is wrong stands in the plan, in words.
    """
    form = form_of(project.piece)
    choices = form.settled(dict(project.piece.choices))
    ledger, assembly, problem = _piece(project.piece, _snapping(project), project.marks.catalogue)
    rough = _rough(project, assembly)
    boards = board_plans(project, rough)
    plan = Plan(
        project=project,
        form=form,
        choices=MappingProxyType(choices),
        ledger=ledger,
        unfastened=assembly,
        rough=rough,
        boards=boards,
        forecasting=milling,
        problem=problem,
        aside=aside,
    )
    return plan.with_proof(prove_plan(plan)) if proving else plan


#: What lies further off its plan than this was misread, or something else was measured, mm: it is not trusted.
_TRUSTED = Fraction(5)


def _designed(project: Project, ledger: Ledger | None, assembly: Assembly) -> Assembly | None:
    """Return the piece as if nothing had been measured that other things are cut to.

    None where nothing was, where it has other parts then, and where a measurement lies too far off to be trusted.
    """
    if ledger is None or not project.piece.measured:
        return None
    quantities = ledger.quantities
    cut_to = {name for each in quantities.values() for name in each.fits}
    kept = tuple(pair for pair in project.piece.measured if pair[0] not in cut_to)
    if any(
        each.planned is not None and abs(each.value - each.planned) > _TRUSTED
        for name, each in quantities.items()
        if name in cut_to
    ):
        return None
    _, designed, _ = _piece(replace(project.piece, measured=kept), _snapping(project), project.marks.catalogue)
    same = [part.id for part in designed.parts] == [part.id for part in assembly.parts]
    return designed if same and {j.id for j in designed.joints} == {j.id for j in assembly.joints} else None


def _fastened_by(plan: Plan) -> FastenedBy:
    """Return what the nails and screws of a piece hang on besides its parts and joints."""
    swing = round(plan.project.climate.swing, 1)
    woods = tuple((part.id, held_wood(plan.species_of(part), plan.cut_of(part), swing)) for part in plan.parts)
    # Nails and screws stay what they are, whatever unit is shown.
    marks = cast(Marks, _SAME_RULE("marks", plan.project.set_out_marks))
    return FastenedBy(woods, cast(Shop, _SAME_RULE("shop", plan.project.shop)), marks, plan.project.piece.rows)


#: The rule and the tools that pieces are set out with: the very same as long as they are equal.
_SAME_RULE: SameAgain[Marks | Shop] = SameAgain(2)


def chosen_wood(piece: Piece, part: Part) -> str:
    """Return the species that was chosen for a part, by whether it is seen on the finished piece; empty for any."""
    return dict(piece.woods).get(_seen(part), "")


def _seen(part: Part) -> str:
    """Return whether a part is seen on the finished piece, as woods are chosen by it."""
    return "inside" if part.species_role in INSIDE else "shown"


def form_of(piece: Piece) -> Form:
    """Return the form of a piece, with the boards of one's own in it."""
    return with_own(FORMS[piece.form], piece.own, piece.own_joints)


def prove_plan(plan: Plan, stopped: Callable[[], bool] = lambda: False) -> Proof | None:
    """Put the piece of a plan together as solids; None if there is nothing to put together.

    Raises
    ------
    StoppedError
        When `stopped`, asked now and then, says so.
    """
    if plan.ledger is None or not plan.parts:
        return None
    known = known_proof(plan)
    if known is not None:
        return known
    from nullah.core.proof.finding import ProofInput
    from nullah.core.proof.prove import prove

    woods = {part.id: wood for part in plan.parts if (wood := plan.wood_through_year(part)) is not None}
    case = ProofInput(plan.assembly, plan.ledger, plan.project.shop, plan.marks, woods, plan.designed)
    found = prove(case, stopped)
    keep_proof(plan, found)
    return found


#: What is undone is proved at once.
_PROVED: RecentResults[Proof] = RecentResults(4)
#: The pieces of those proofs, whatever they were made of.
_PROVED_PIECES: RecentResults[bool] = RecentResults(4)


def known_proof(plan: Plan) -> Proof | None:
    """Return the proof of a plan if such a piece was proved lately: that takes long."""
    # Most plans are of a piece that was not proved: that is told before the woods of all its parts are looked up.
    return _PROVED.found(plan.proof_key) if _PROVED_PIECES.found(plan.unfastened) else None


def keep_proof(plan: Plan, proof: Proof) -> None:
    """Keep what was found, here or in another process."""
    _PROVED.keep(plan.proof_key, proof)
    _PROVED_PIECES.keep(plan.unfastened, True)


def _snapping(project: Project) -> Snapping:
    """Return what free choices are put on: the marks the piece is set out to and the tools of the shop."""
    shop = project.shop
    tools = (tuple(each.mm for each in sizes) for sizes in (shop.chisels, shop.plough_irons, shop.bits))
    return Snapping(project.set_out_mark.mm, *tools)


@kept_by_value(16)
def _piece(piece: Piece, snapping: Snapping, catalogue: Catalogue) -> tuple[Ledger | None, Assembly, Fact | None]:
    form = form_of(piece)
    chosen = form.settled(dict(piece.choices))
    try:
        definitions = _defined(piece.form, tuple(chosen.items()), piece.own, piece.own_joints)
        ledger = work_out_ledger(definitions, dict(piece.given), dict(piece.measured), snapping)
    except LedgerError as error:
        return None, Assembly(remarks=(Remark(error.fact, Severity.FAILURE),)), error.fact
    assembly = form.assemble(ledger, chosen)
    holds = dict(piece.holds)
    parts = {part.id: part for part in assembly.parts}
    joints = tuple(
        _as_chosen(joint, parts.get(joint.first), parts.get(joint.second), holds.get(joint.id, ""), piece.spacings)
        for joint in assembly.joints
    )
    return ledger, _as_before("", _all_called(assembly._replace(joints=joints), catalogue)), None


@kept_by_value(16)
def _defined(
    form: str, chosen: tuple[tuple[str, str], ...], own: tuple[OwnBoard, ...], joints: tuple[OwnJoint, ...]
) -> tuple[Definition, ...]:
    """Return the quantities of a form: the very same as long as nothing else is chosen."""
    return with_own(FORMS[form], own, joints).define(dict(chosen))


@kept_by_identity(4096)
def _as_chosen(
    joint: Joint,
    first: Part | None,
    second: Part | None,
    hold: str,
    spacings: tuple[tuple[str, tuple[Fraction, ...]], ...],
) -> Joint:
    """Return a joint as it is held and spaced, and as its type has it where a part is moulded."""
    if _HOLDS.get(hold) in joint.ways_to_hold:
        joint = joint._replace(hold=_HOLDS[hold])
    joint = joint.type.spaced(joint, dict(spacings))
    return joint if first is None or second is None else joint.type.where_moulded(joint, first, second)


_HOLDS = {each.value: each for each in Hold}


Named = TypeVar("Named", Part, Mover, Unit, RoughPart)


@kept_by_identity(4096)
def _called(each: Named, catalogue: Catalogue) -> Named:
    """Return something as the reader calls it."""
    name = catalogue.text(each.name)
    return each if name == each.name else each._replace(name=name)


def _all_called(assembly: Assembly, catalogue: Catalogue) -> Assembly:
    """Return an assembly whose parts, units and movers are called as the reader calls them."""
    return assembly._replace(
        parts=tuple(_called(part, catalogue) for part in assembly.parts),
        movers=tuple(_called(mover, catalogue) for mover in assembly.movers),
        units=tuple(_called(unit, catalogue) for unit in assembly.units),
    )


#: Parts and joints of the pieces that were worked out last: what hangs on those that did not change need not be again.
_BEFORE: SameAgain[Part | Joint] = SameAgain(4096)


def _as_before(stage: str, assembly: Assembly) -> Assembly:
    """Return an assembly made of the very parts and joints there were before, as far as they are equal."""
    parts = tuple(cast(Part, _BEFORE((stage, Part, part.id), part)) for part in assembly.parts)
    joints = tuple(cast(Joint, _BEFORE((stage, Joint, joint.id), joint)) for joint in assembly.joints)
    return assembly._replace(parts=parts, joints=joints)


def join_as_offered(project: Project, first: str, second: str, index: int = 0) -> Project:
    """Join two parts by one of the joints their geometry allows, as `offers` counts them; unchanged without one.

    Parameters
    ----------
    first : str
        Id of one part.
    second : str
        Id of the other.
    index : int
        Of the offer, from 0.
    """
    plan = work_out(project, milling=False, proving=False)
    one, two = plan.part(first), plan.part(second)
    found = offers(one, two, next_own_joint_id(project.piece.own_joints)) if one is not None and two is not None else ()
    return join_own(project, found[index].joint) if index < len(found) else project


def _rough(project: Project, assembly: Assembly) -> tuple[RoughPart, ...]:
    """Return what is really sawn out, with all that was asked of its wood."""
    whole = whole_pieces(project, assembly)
    on_edge = frozenset(part.id for part in assembly.parts if part.laminated)
    staves = staves_of_parts(project, assembly)
    made = as_made(whole, staves, project.resawn, project.allowances, project.shop.kerf, on_edge)
    # A stave may ask more than its part.
    asks = dict(project.asks)
    made = tuple(asking(piece, asks.get(piece.id)) if piece.stave else piece for piece in made)
    together = Reader(project.marks).name_together
    laid = {item.part for item in project.layout}
    made = _as_first_laid(made, project)
    pieces = in_strips(made, assembly.parts, together, project.allowances, project.shop.kerf, laid)
    # The others are called as their parts, which are called as the reader calls them already.
    return tuple(
        _called(piece, project.marks.catalogue) if isinstance(piece.name, Phrase) else piece for piece in pieces
    )


def _as_first_laid(pieces: tuple[RoughPart, ...], project: Project) -> tuple[RoughPart, ...]:
    """Ask the wood of the first stave that lies on a board of all those of its part of which no wood was asked."""
    species = {board.id: board.species for board in project.boards}
    lies_on = {item.part: species.get(item.board, "") for item in project.layout}
    first: dict[str, str] = {}
    for piece in pieces:
        if piece.stave and not piece.wood and lies_on.get(piece.id):
            first.setdefault(piece.parts[0], lies_on[piece.id])
    return tuple(
        piece._replace(wood=first[piece.parts[0]])
        if piece.stave and not piece.wood and piece.parts[0] in first
        else piece
        for piece in pieces
    )


def staves_of_parts(project: Project, assembly: Assembly) -> tuple[Staves, ...]:
    """Return how parts are glued up: as was chosen for each, else as their form has it."""
    chosen = {made.part for made in project.staves}
    usual = (
        Staves(part.id, equal_staves(part.width, part.staves))
        for part in assembly.parts
        if part.staves > 1 and part.id not in chosen
    )
    return (*project.staves, *usual)


def whole_pieces(project: Project, assembly: Assembly) -> tuple[RoughPart, ...]:
    """Return the rough parts as if each was had in one piece."""
    asks, allow, woods = dict(project.asks), project.allowances, dict(project.piece.woods)
    rough = tuple(rough_part(part, allow, woods.get(_seen(part), "")) for part in assembly.parts)
    if project.piece.measured:
        _, before, _ = _piece(replace(project.piece, measured=()), _snapping(project), project.marks.catalogue)
        planned = {part.id: rough_part(part, allow, "") for part in before.parts}
        rough = tuple(held(each, planned[each.id], allow) if each.id in planned else each for each in rough)
    return tuple(asking(each, asks.get(each.id)) for each in rough)


def _taken(board_plan: BoardPlan, kerf: float) -> tuple[tuple[float, float, float, float], ...]:
    """Return what lies on a board, with the kerf round it."""
    rects = (item.rect for item in board_plan.placed)
    return tuple((rect.x - kerf, rect.y - kerf, rect.end + kerf, rect.top + kerf) for rect in rects)


class WoodThere(NamedTuple):
    """All wood that there is for parts that lie nowhere.

    `bare` are the ids of the boards on which nothing lies, `taken` is what lies on the others; `milling` says whether
    the numbers are at hand by which flattening is forecast.
    """

    boards: tuple[Board, ...]
    bare: frozenset[str]
    taken: Taken
    milling: bool


#: The very same as long as it is equal: what hangs on it is found by that.
_SAME_WOOD: SameAgain[WoodThere] = SameAgain(4)


@kept_by_identity(4096)
def _unplaced(part: RoughPart, there: WoodThere) -> Unplaced:
    """Return why a part lies nowhere; where the numbers are at hand, also that flattening leaves too little."""
    why = why_nowhere(part, there.boards, there.bare, there.taken)
    if there.milling and part.finished is not None and not isinstance(why, NoBoards | NoWood):
        from nullah.core.milling.forecast import thickest_on

        most, name = thickest_on(part, there.boards)
        if name and most < part.finished:
            return Unplaced(part, FlatteningLeaves(most, name, part.finished))
    return Unplaced(part, why, staves_of(why))


class NoneDovetailed(FrozenRecord):
    """No corner of the piece is dovetailed."""


class TailsImpossible(FrozenRecord):
    """A corner with so many tails cannot be laid out."""

    tails: int


def corner_problem(plan: Plan) -> Fact:
    """Return why there is no corner to lay out."""
    if plan.assembly.remarks and not plan.parts:
        return plan.assembly.remarks[0].fact
    prefix = next((found for joint in plan.assembly.joints if (found := joint.type.corner_prefix(joint))), "")
    if not prefix or plan.ledger is None:
        return NoneDovetailed()
    return TailsImpossible(int(plan.ledger[f"{prefix}.count"]))


def thinner_throughout(plan: Plan, part: Part) -> tuple[str, Length] | None:
    """Return the quantity to change, and the thickness every part that follows it could be had at.

    The quantity is the one that was given, on which this part's thickness hangs; the figure
    is rounded down to the mark. None if nothing is left, or no such quantity can be changed.

    Parameters
    ----------
    plan : Plan
    part : Part
        A part that is not to be had at its thickness.
    """
    if plan.ledger is None or part.laminated:
        return None
    name = _root(plan.ledger, part.quantities[2])
    reaches = [
        forecast.reach
        for other in plan.parts
        if not other.laminated
        and _root(plan.ledger, other.quantities[2]) == name
        and (forecast := plan.forecast_of(other.id)) is not None
    ]
    if not reaches:
        return None
    thinnest = plan.marks.to_mark(min(reaches), Direction.DOWN)
    return (name, thinnest) if thinnest.mm > 0 else None


def _root(ledger: Ledger, name: str) -> str:
    """Follow a quantity that simply is another one back to the one that was given."""
    quantity = ledger.quantity(name)
    while quantity.origin is Origin.WORKED_OUT and quantity.definition.rule in ledger.quantities:
        quantity = ledger.quantity(quantity.definition.rule)
    return quantity.definition.name
