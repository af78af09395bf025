"""The maker: puts boards into a piece and joins them, in the words a form is written in.

A board's size is always what the ledger says of its length, width and thickness, so that a
board that came out different at the bench is different in the piece, and the proof sees it.
"""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Sequence
from typing import Any

from nullah.core.card import Remark, Severity
from nullah.core.catalogue import Phrase
from nullah.core.errors import Fact
from nullah.core.fixes import Fix, Give
from nullah.core.forms.watched import Step, Watched
from nullah.core.fraction import Fraction
from nullah.core.identity import LastOfName
from nullah.core.joints.butt import BUTT
from nullah.core.joints.dovetail.joint_type import DOVETAIL
from nullah.core.joints.lap import LAP
from nullah.core.joints.let_in import LET_IN
from nullah.core.joints.mitre import MITRE
from nullah.core.joints.tenon import TENON
from nullah.core.ledger import Definition, Ledger, Value, given, ruled
from nullah.core.lengths import Length
from nullah.core.piece.facts import MustBePositive, NothingLeft
from nullah.core.piece.form import Assembly, Bearing, Fitting, Freedom, Hardware, Mover, Unit, View, ViewDimension
from nullah.core.piece.joint import Hold, Joint, JointQuantities, JointType, LaidOutBy
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.shaping import Shaping
from nullah.core.piece.space import Axis, Box, Corner, Side, sides_of
from nullah.core.refs import QuantityRef, quantity_ref
from nullah.core.rules import names_in

_ZERO = Fraction(0)
_AXES = {"x": Axis.X, "y": Axis.Y, "z": Axis.Z}


def board_sizes(
    alike: str,
    title: str,
    length: str,
    width: str,
    thickness: str | int | Value,
    fits: tuple[str, ...] = (),
    spare: str = "",
) -> tuple[Definition, ...]:
    """Declare the three sizes of equal boards; the thickness is a rule, or a figure to be given.

    Where `spare` is a rule, the ends are left so much long in all, and a fourth quantity
    says what to cut to.

    Parameters
    ----------
    alike : str
        Prefix of the names.
    title : str
        What they are called.
    length : str
        Its rule.
    width : str
        Its rule.
    thickness : str or int or Value
        Its rule, or the usual figure, mm.
    fits : tuple[str, ...]
        What must be measured before they may be cut to size.
    spare : str
        Rule of what is left long at both ends together.
    """
    thick = (
        ruled(f"{alike}.thickness", Phrase("thickness of {what}", what=title), thickness)
        if isinstance(thickness, str)
        else given(f"{alike}.thickness", Phrase("thickness of {what}", what=title), thickness)
    )
    # What a size is worked out from is what it waits for; where neither is, both wait for all of it.
    along, across = (tuple(name for name in fits if name in names_in(rule)) for rule in (length, width))
    if not along and not across:
        along = across = fits
    found = [
        ruled(f"{alike}.length", Phrase("length of {what}", what=title), length, along),
        ruled(f"{alike}.width", Phrase("width of {what}", what=title), width, across),
        thick,
    ]
    if spare:
        found.append(ruled(f"{alike}.cut_length", Phrase("cut {what} to", what=title), f"{alike}.length + {spare}"))
    return tuple(found)


#: The steps that were taken last: a figure builds anew only what hangs on it.
_TAKEN: LastOfName[Step] = LastOfName(512)


class Maker:
    """Gathers the parts and joints of a piece. `finish` gives the assembly."""

    def __init__(self, ledger: Ledger) -> None:
        self.ledger = ledger
        self._parts: dict[str, Part] = {}
        self._joints: list[Joint] = []
        self._remarks: list[Remark] = []
        self._measures: list[ViewDimension] = []
        self._movers: list[Mover] = []
        self._freedoms: list[Freedom] = []
        self._bearings: list[Bearing] = []
        self._units: list[Unit] = []
        self._fittings: list[Fitting] = []
        self._nothing: list[Remark] = []
        # What a step that is being taken looks at of parts that were put in before it; None outside of one.
        self._looked_at: dict[str, Part | None] | None = None

    @classmethod
    def going_on(cls, ledger: Ledger, assembly: Assembly) -> Maker:
        """Return a maker that goes on from an assembly."""
        maker = cls(ledger)
        maker._parts = {part.id: part for part in assembly.parts}
        maker._joints, maker._remarks = list(assembly.joints), list(assembly.remarks)
        maker._measures, maker._movers = list(assembly.measures), list(assembly.movers)
        maker._freedoms, maker._bearings = list(assembly.freedoms), list(assembly.bearings)
        maker._units, maker._fittings = list(assembly.units), list(assembly.fittings)
        return maker

    def step(self, build: Callable[..., None], *given: Hashable) -> None:
        """Take a step of building the piece; where all that it looks at is as it was, put in what it put in before.

        Parameters
        ----------
        build : callable
            A function of a module: of the maker, and of what is given.
        *given : hashables
            What else it hangs on.
        """
        if self._nothing or self._looked_at is not None:
            build(self, *given)
            return
        known = _TAKEN.found((build, given))
        if known is None or not known.fits(self.ledger, self._parts):
            self._take(build, *given)
            return
        self._parts.update((part.id, part) for part in known.parts)
        for all_there_are, more in zip(self._lists(), known.added, strict=True):
            all_there_are.extend(more)

    def _take(self, build: Callable[..., None], *given: Hashable) -> None:
        """Take a step, and keep what it looked at and what it put in."""
        ledger, before, had = self.ledger, dict(self._parts), [len(each) for each in self._lists()]
        quantities, uses, looked_at = Watched(ledger.quantities), Watched(ledger.uses), dict[str, Part | None]()
        self.ledger, self._looked_at = Ledger(quantities, uses), looked_at
        try:
            build(self, *given)
        finally:
            self.ledger, self._looked_at = ledger, None
        everything = quantities.whole or uses.whole
        if everything or self._nothing or any(self._parts[name] is not part for name, part in before.items()):
            return
        others = {name: part for name, part in looked_at.items() if part is None or name in before}
        parts = tuple(part for name, part in self._parts.items() if name not in before)
        added = [tuple(each[start:]) for each, start in zip(self._lists(), had, strict=True)]
        _TAKEN.keep((build, given), Step(len(before), quantities.seen, uses.seen, others, parts, added))

    def _lists(self) -> tuple[list[Any], ...]:
        """Return all that is put in besides parts."""
        return (
            *(self._joints, self._remarks, self._measures, self._movers),
            *(self._freedoms, self._bearings, self._units, self._fittings),
        )

    def q(self, name: str) -> Fraction:
        """Return a quantity, mm (or a count, the run of a slope, or kg)."""
        return self.ledger[name]

    def designed(self, name: str) -> Fraction:
        """Return a quantity as it was designed, mm: what lies by it is made before it can be measured."""
        quantity = self.ledger.quantity(name)
        return quantity.value if quantity.planned is None or quantity.reading is None else quantity.planned

    def count(self, name: str) -> int:
        """Return a count."""
        return int(self.ledger[name])

    def need_positive(self, *names: str) -> bool:
        """Note which of these lengths leave nothing; say whether all are more than nothing."""
        for name in names:
            quantity = self.ledger.quantity(name)
            if quantity.value > 0 or any(remark.ref == QuantityRef(name) for remark in self._nothing):
                continue
            fact = NothingLeft if quantity.entered is None else MustBePositive
            self._nothing.append(Remark(fact(name, quantity.length), Severity.FAILURE, ref=QuantityRef(name)))
        return not self._nothing

    # --- parts ---

    def board(
        self,
        part_id: str,
        name: str,
        alike: str,
        at: Sequence[Fraction | int],
        lie: str,
        *,
        shows: str = "",
        needs: Needs = Needs.CLEAR,
        role: str = "case",
        spare: Fraction = _ZERO,
        shapings: Iterable[Shaping] = (),
        group: str = "",
        own: bool = False,
        staves: int = 1,
        laminated: bool = False,
        one_face: bool = False,
        references: str = "",
    ) -> Part:
        """Put a board into the piece.

        Parameters
        ----------
        at : three numbers
            Its low corner, mm.
        lie : str
            Two letters: the axis of its length and the axis of its thickness, such as ``xz``.
        shows : str
            First letters of the sides seen on the finished piece (l r f b u t).
        staves : int
            How many it is usually glued up from.
        laminated : bool
            Whether these are strips that stand on edge.
        one_face : bool
            Whether only its face side is planed.
        references : str
            First letters of the sides from which it is measured, where that is not as usual.
        """
        grain, face = _AXES[lie[0]], _AXES[lie[1]]
        across = next(axis for axis in Axis if axis not in (grain, face))
        names = (f"{alike}.length", f"{alike}.width", f"{alike}.thickness")
        self.need_positive(*names)
        sizes = {grain: self.q(names[0]), across: self.q(names[1]), face: self.q(names[2])}
        low = (Fraction(at[0]), Fraction(at[1]), Fraction(at[2]))
        high = (low[0] + sizes[Axis.X], low[1] + sizes[Axis.Y], low[2] + sizes[Axis.Z])
        cut = f"{alike}.cut_length"
        quantities = (cut if spare and cut in self.ledger.quantities else names[0], names[1], names[2])
        part = Part(
            part_id,
            len(self._parts) + 1,
            name,
            Box(low, high),
            grain,
            face,
            needs,
            quantities,
            alike,
            role,
            spare,
            sides_of(shows),
            tuple(shapings),
            group,
            own,
            staves,
            laminated,
            one_face,
            sides_of(references),
        )
        self._parts[part_id] = part
        return part

    def part(self, part_id: str) -> Part:
        """Return a part that was put in."""
        if self._looked_at is not None:
            self._looked_at.setdefault(part_id, self._parts.get(part_id))
        return self._parts[part_id]

    def has(self, part_id: str) -> bool:
        """Return whether a part was put in."""
        if self._looked_at is not None:
            self._looked_at.setdefault(part_id, self._parts.get(part_id))
        return part_id in self._parts

    def shape(self, part_id: str, *shapings: Shaping) -> None:
        """Shape a part that was put in."""
        part = self.part(part_id)
        self._parts[part_id] = part._replace(shapings=(*part.shapings, *shapings))

    # --- joints ---

    def dovetail(
        self,
        tail: str,
        pin: str,
        prefix: str,
        groove: str = "",
        lap: Fraction = _ZERO,
        laid_out_by: LaidOutBy | None = None,
    ) -> Joint:
        """Join a corner by dovetails, and return the joint; `tail` carries the tails. `lap` as in `Tails`.

        Parameters
        ----------
        tail : str
            Id of the part that carries the tails.
        pin : str
            Id of the other.
        prefix : str
            Of the corner's figures.
        groove : str
            Prefix of a groove that runs out there.
        lap : Fraction
            Of a half-blind corner, mm; 0: through.
        laid_out_by : LaidOutBy or None
            What its place hangs on.
        """
        tails = DOVETAIL.tails(self.ledger, prefix, groove, lap)
        joint = DOVETAIL.corner(f"{tail}-{pin}", self.part(tail), self.part(pin), tails)
        joint = joint._replace(laid_out_by=laid_out_by)
        self.add(joint)
        return joint

    def add(self, joint: Joint) -> None:
        """Put a joint in, of whatever type."""
        self._joints.append(joint)

    def channel(self, host: str, side: Side, depth: Fraction, **along: tuple[Fraction, Fraction]) -> Box:
        """Return a channel sunk into a side of a part: its extent along `x`, `y`, `z`, else the part's own.

        Parameters
        ----------
        host : str
            Id of the part.
        side : Side
            It is sunk into.
        depth : Fraction
            mm.
        """
        box = self.part(host).box
        floor = box.at(side) - depth if side.high else box.at(side) + depth
        found = box.set(side.axis, *sorted((floor, box.at(side))))
        for axis, (low, high) in along.items():
            found = found.set(_AXES[axis], low, high)
        return found

    def let_in(
        self,
        host: str,
        guest: str,
        *,
        channels: Iterable[Box] = (),
        shares: Iterable[Box] = (),
        room: tuple[Fraction | int, Fraction | int, Fraction | int] = (0, 0, 0),
        runs: bool = False,
        hold: Hold = Hold.GLUE,
        names: JointQuantities = JointQuantities(),
        joint_type: JointType = LET_IN,
        glued: Fraction | None = None,
        sets_width: str = "",
        level_with: str = "",
        laid_out_by: LaidOutBy | None = None,
        held_only: tuple[Hold, ...] = (),
    ) -> Joint:
        """Let `guest` into `host`; return the joint.

        Parameters
        ----------
        host : str
            Id of the part that is cut.
        guest : str
            Id of what enters.
        channels : Iterable[Box]
            Cut into the host.
        shares : Iterable[Box]
            Of the guest that enter.
        room : tuple[Fraction or int, Fraction or int, Fraction or int]
            Along x, y and z, mm.
        runs : bool
            Whether the guest slides.
        hold : Hold
            What holds it.
        names : JointQuantities
            Of its quantities.
        joint_type : JointType
            Its type.
        glued : Fraction or None
            So much of it, mm; None: all.
        sets_width : str
            Id of what the width is taken from.
        level_with : str
            Id of what lies level with it.
        laid_out_by : LaidOutBy or None
            What its place hangs on.
        held_only : tuple[Hold, ...]
            The ways it may be held; empty: all that its type allows.
        """
        clearance: Corner = (Fraction(room[0]), Fraction(room[1]), Fraction(room[2]))
        joint = Joint(
            f"{host}-{guest}",
            joint_type,
            host,
            guest,
            hold,
            tuple(channels),
            tuple(shares),
            clearance,
            runs,
            names=names,
            glued=glued,
            sets_width=sets_width,
            level_with=level_with,
            laid_out_by=laid_out_by,
            held_only=held_only,
        )
        self._joints.append(joint)
        return joint

    def tenon(
        self,
        host: str,
        guest: str,
        tenons: Iterable[Box],
        hold: Hold = Hold.GLUE,
        room: tuple[Fraction | int, Fraction | int, Fraction | int] = (0, 0, 0),
        mortises: Iterable[Box] = (),
        names: JointQuantities = JointQuantities(),
    ) -> None:
        """Join `guest` by tenons into mortises of the same size, or as given.

        Parameters
        ----------
        host : str
            Id of the part with mortises.
        guest : str
            Id of the part with tenons.
        tenons : Iterable[Box]
            Where they are.
        hold : Hold
            What holds them.
        room : tuple[Fraction or int, Fraction or int, Fraction or int]
            In the mortise, along x, y and z, mm.
        mortises : Iterable[Box]
            Where they are larger than the tenons.
        names : JointQuantities
            Of its quantities.
        """
        self.let_in(
            host,
            guest,
            shares=tuple(tenons),
            channels=tuple(mortises),
            hold=hold,
            room=room,
            joint_type=TENON,
            names=names,
        )

    def lap(self, first: str, second: str, axis: str, hold: Hold = Hold.GLUE) -> None:
        """Halve two boards that cross: `second` keeps the half of the overlap on its own body's side."""
        self.add(LAP.halved(f"{first}-{second}", self.part(first), self.part(second), _AXES[axis], hold))

    def mitre(self, first: str, second: str, hold: Hold = Hold.GLUE) -> None:
        """Mitre two parts where they fill the same space."""
        self._joints.append(Joint(f"{first}-{second}", MITRE, first, second, hold))

    def butt(
        self,
        first: str,
        second: str,
        hold: Hold,
        names: JointQuantities = JointQuantities(),
        glued: Fraction | None = None,
        held_only: tuple[Hold, ...] = (),
    ) -> None:
        """Put two parts against each other.

        Parameters
        ----------
        first : str
            Id of one.
        second : str
            Id of the other.
        hold : Hold
            What holds them.
        names : JointQuantities
            Of its quantities.
        glued : Fraction or None
            So much of it, mm; None: all.
        held_only : tuple[Hold, ...]
            The ways they may be held; empty: any.
        """
        joint = Joint(f"{first}-{second}", BUTT, first, second, hold, names=names, glued=glued, held_only=held_only)
        self._joints.append(joint)

    # --- the rest ---

    def measure(
        self,
        quantity: str,
        view: View,
        start: Sequence[Fraction | int],
        end: Sequence[Fraction | int],
        offset: float = 6.0,
    ) -> None:
        """Show a quantity as a dimension on a view, between two places of the piece.

        Parameters
        ----------
        quantity : str
            Its name.
        view : View
            On which.
        start : Sequence[Fraction or int]
            Of the dimension, in the piece, mm.
        end : Sequence[Fraction or int]
            Of the dimension, in the piece, mm.
        offset : float
            Of its line, paper mm.
        """
        a = (Fraction(start[0]), Fraction(start[1]), Fraction(start[2]))
        b = (Fraction(end[0]), Fraction(end[1]), Fraction(end[2]))
        self._measures.append(ViewDimension(quantity, view, a, b, offset))

    def mover(
        self, name: str, group: str, way: Side, travel: Fraction, quantities: tuple[str, ...] = (), room: str = ""
    ) -> None:
        """Say that a group must come out of the finished piece; for `quantities` and `room` see `Mover`.

        Parameters
        ----------
        name : str
            What it is called.
        group : str
            Of its parts.
        way : Side
            It goes.
        travel : Fraction
            mm.
        quantities : tuple[str, ...]
            To be looked at where it cannot.
        room : str
            The quantity that sets the room round it.
        """
        self._movers.append(Mover(name, group, way, travel, quantities, room))

    def freedom(self, parts: Iterable[str], room: Fraction, quantity: str = "", shrinks: bool = False) -> None:
        """Say how much room some parts, side by side, have across their grain, to grow or to shrink.

        Parameters
        ----------
        parts : Iterable[str]
            Their ids, side by side.
        room : Fraction
            mm.
        quantity : str
            That sets it.
        shrinks : bool
            Whether it is needed to shrink.
        """
        self._freedoms.append(Freedom(tuple(parts), room, quantity, shrinks))

    def bearing(self, part: str, span: Fraction, load: Fraction, quantity: str = "") -> None:
        """Say that a part carries a load over a span.

        Parameters
        ----------
        part : str
            Its id.
        span : Fraction
            mm.
        load : Fraction
            kg.
        quantity : str
            To be looked at where it sags.
        """
        if load > 0 and span > 0:
            self._bearings.append(Bearing(part, span, load, quantity))

    def unit(self, name: str, parts: Iterable[str]) -> None:
        """Say that some parts are made up by themselves before they go in together."""
        self._units.append(Unit(name, tuple(parts)))

    def fit(self, kind: Hardware, *parts: str) -> None:
        """Say that hardware is fitted to some parts when the piece stands."""
        self._fittings.append(Fitting(kind, parts))

    def give(self, name: str, millimetres: Fraction) -> Give:
        """Offer to give a quantity another length.

        Parameters
        ----------
        name : str
            Of the quantity.
        millimetres : Fraction
            Its new value.
        """
        return Give(name, Length(millimetres))

    def remark(
        self, fact: Fact, weight: Severity = Severity.WARNING, fixes: tuple[Fix, ...] = (), quantity: str = ""
    ) -> None:
        """Say something about the piece."""
        self._remarks.append(Remark(fact, weight, fixes, quantity_ref(quantity)))

    def finish(self) -> Assembly:
        """Return the assembly; without parts, and with the reason, if any of it comes to nothing."""
        if self._nothing:
            return Assembly(remarks=tuple(self._nothing))
        return Assembly(
            tuple(self._parts.values()),
            tuple(map(self._left_to_move, self._joints)),
            tuple(self._remarks),
            tuple(self._measures),
            tuple(self._movers),
            tuple(self._freedoms),
            tuple(self._bearings),
            tuple(self._units),
            tuple(self._fittings),
        )

    def _left_to_move(self, joint: Joint) -> Joint:
        """Return a joint which nobody can glue or nail where one of its parts moves, and the other does not."""
        if joint.hold is not Hold.DRY:
            return joint
        groups = {part.group for each in (joint.first, joint.second) if (part := self._parts.get(each)) is not None}
        return joint._replace(held_only=(Hold.DRY,)) if len(groups) > 1 else joint


__all__ = ["Maker", "board_sizes"]
