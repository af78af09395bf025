"""The maker: puts boards into a piece and joins them, in the words a form is written in.

A board's size is always what the ledger says of its length, width and thickness, so that a
board that came out different at the bench is different in the piece, and the proof sees it.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from fractions import Fraction

from nullah.core.card import Remark, Weight
from nullah.core.catalogue import N_, Phrase
from nullah.core.fixes import Fix, Give
from nullah.core.ledger import Definition, Kind, Ledger, Value
from nullah.core.lengths import Length, Slope, mm
from nullah.core.piece.facts import MustBePositive, NothingLeft
from nullah.core.piece.form import Assembly, Bearing, Freedom, Measure, Mover, View
from nullah.core.piece.overlap import Hold, Joint, Names, Sharing, Tails
from nullah.core.piece.part import Needs, Part
from nullah.core.piece.shaping import Shaping
from nullah.core.piece.space import Axis, Box, Corner, Side, side_at, sides_of
from nullah.core.reader import Fact

_ZERO = Fraction(0)
_AXES = {"x": Axis.X, "y": Axis.Y, "z": Axis.Z}


def given(name: str, title: str, default: Value | str | int, kind: Kind = Kind.LENGTH) -> Definition:
    """Declare a quantity that the user gives; a bare number is mm, or a count."""
    if kind is Kind.LENGTH and not isinstance(default, Length):
        default = mm(default)  # type: ignore[arg-type]
    return Definition(name, title, default=default, kind=kind)  # type: ignore[arg-type]


def ruled(name: str, title: str, rule: str, fits: tuple[str, ...] = (), kind: Kind = Kind.LENGTH) -> Definition:
    """Declare a quantity that is worked out from others."""
    return Definition(name, title, rule, kind=kind, fits=fits)


def board_sizes(alike: str, title: str, length: str, width: str, thickness: str | int | Value,
                fits: tuple[str, ...] = (), spare: str = "") -> tuple[Definition, ...]:  # fmt: skip
    """Declare the three sizes of equal boards; the thickness is a rule, or a figure to be given.

    Where `spare` is a rule, the ends are left so much long in all, and a fourth quantity
    says what to cut to.
    """
    thick = (
        ruled(f"{alike}.thickness", Phrase("thickness of {what}", what=title), thickness)
        if isinstance(thickness, str)
        else given(f"{alike}.thickness", Phrase("thickness of {what}", what=title), thickness)
    )
    found = [
        ruled(f"{alike}.length", Phrase("length of {what}", what=title), length, fits),
        ruled(f"{alike}.width", Phrase("width of {what}", what=title), width, fits),
        thick,
    ]
    if spare:
        found.append(ruled(f"{alike}.cut_length", Phrase("cut {what} to", what=title), f"{alike}.length + {spare}"))
    return tuple(found)


def tail_sizes(
    prefix: str, tail: str, pin: str, width: str, count: int, what: str = "", pin_width: str = "6", lap: str = ""
) -> tuple[Definition, ...]:
    """Declare the figures of a dovetailed corner.

    Parameters
    ----------
    prefix : str
        Of the quantities' names.
    tail, pin, width : str
        Rules for the thickness of the tail and of the pin boards, and the width they share.
    count : int
        Number of tails, unless another is given.
    what : str
        Where they are, in words, such as ``of the drawers``.
    lap : str
        Rule for what is left of the pin board outside the tails (half-blind); none: through.
    """

    def title(message: str) -> str:
        return Phrase("{title} {where}", title=message, where=what) if what else message

    long = f"{pin} - {lap}" if lap else pin
    narrow = (
        Phrase("pin between tails {where}, at its narrow side", where=what)
        if what
        else N_("pin between tails, at its narrow side")
    )
    return (
        given(f"{prefix}.count", title(N_("number of tails")), count, Kind.COUNT),
        given(f"{prefix}.slope", title(N_("slope of the tails")), Slope(Fraction(7)), Kind.SLOPE),
        ruled(f"{prefix}.half_pin", title(N_("half-pin at each edge")), f"{tail} / 2"),
        given(f"{prefix}.pin", narrow, pin_width),
        given(f"{prefix}.proud", title(N_("end grain left proud")), "0" if lap else "0.5"),
        ruled(f"{prefix}.step", title(N_("divider step")),
              f"({width} - 2 * {prefix}.half_pin + {prefix}.pin) / {prefix}.count"),
        ruled(f"{prefix}.width", title(N_("tail at the end of its board")), f"{prefix}.step - {prefix}.pin"),
        ruled(f"{prefix}.gauge_tail_board", title(N_("gauge for the tail boards")), f"{long} + {prefix}.proud"),
        ruled(f"{prefix}.gauge_pin_board", title(N_("gauge for the pin boards")), f"{tail} + {prefix}.proud"),
    )  # fmt: skip


@dataclass
class Maker:
    """Gathers the parts and joints of a piece. `finish` gives the assembly."""

    ledger: Ledger
    _parts: dict[str, Part] = field(default_factory=dict)
    _joints: list[Joint] = field(default_factory=list)
    _remarks: list[Remark] = field(default_factory=list)
    _measures: list[Measure] = field(default_factory=list)
    _movers: list[Mover] = field(default_factory=list)
    _freedoms: list[Freedom] = field(default_factory=list)
    _bearings: list[Bearing] = field(default_factory=list)
    _nothing: list[Remark] = field(default_factory=list)

    @classmethod
    def going_on(cls, ledger: Ledger, assembly: Assembly) -> Maker:
        """Give a maker that goes on from an assembly."""
        maker = cls(ledger)
        maker._parts = {part.id: part for part in assembly.parts}
        maker._joints, maker._remarks = list(assembly.joints), list(assembly.remarks)
        maker._measures, maker._movers = list(assembly.measures), list(assembly.movers)
        maker._freedoms, maker._bearings = list(assembly.freedoms), list(assembly.bearings)
        return maker

    def q(self, name: str) -> Fraction:
        """Give a quantity, mm (or a count, or the run of a slope)."""
        return self.ledger[name]

    def count(self, name: str) -> int:
        """Give a count."""
        return int(self.ledger[name])

    def need_positive(self, *names: str) -> bool:
        """Note which of these lengths leave nothing; say whether all are more than nothing."""
        for name in names:
            quantity = self.ledger.quantity(name)
            if quantity.value > 0 or any(remark.of == name for remark in self._nothing):
                continue
            fact = NothingLeft if quantity.entered is None else MustBePositive
            self._nothing.append(Remark(fact(name, quantity.length), Weight.FAILS, of=name))
        return not self._nothing

    # --- parts ---

    def board(
        self, part_id: str, name: str, alike: str, at: Sequence[Fraction | int], lie: str, *,
        shows: str = "", needs: Needs = Needs.CLEAR, role: str = "case", spare: Fraction = _ZERO,
        shapings: Iterable[Shaping] = (), group: str = "",
    ) -> Part:  # fmt: skip
        """Put a board into the piece.

        Parameters
        ----------
        at : three numbers
            Its low corner, mm.
        lie : str
            Two letters: the axis of its length and the axis of its thickness, such as ``xz``.
        shows : str
            First letters of the sides seen on the finished piece (l r f b u t).
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
            part_id, len(self._parts) + 1, name, Box(low, high), grain, face, needs, quantities, alike, role, spare,
            sides_of(shows), tuple(shapings), group,
        )  # fmt: skip
        self._parts[part_id] = part
        return part

    def part(self, part_id: str) -> Part:
        """Give a part that was put in."""
        return self._parts[part_id]

    def has(self, part_id: str) -> bool:
        """Say whether a part was put in."""
        return part_id in self._parts

    def shape(self, part_id: str, *shapings: Shaping) -> None:
        """Shape a part that was put in."""
        part = self._parts[part_id]
        self._parts[part_id] = part._replace(shapings=(*part.shapings, *shapings))

    # --- joints ---

    def dovetail(self, tail: str, pin: str, prefix: str, groove: str = "", lap: Fraction = _ZERO) -> None:
        """Join a corner by dovetails; `tail` carries the tails. `lap` as in `Tails`."""
        q = self.q
        count = max(1, self.count(f"{prefix}.count"))
        tails = Tails(prefix, count, q(f"{prefix}.half_pin"), q(f"{prefix}.pin"), Slope(q(f"{prefix}.slope")),
                      q(f"{prefix}.proud"), groove, lap)  # fmt: skip
        self._joints.append(Joint(f"{tail}-{pin}", Sharing.DOVETAIL, tail, pin, tails=tails))

    def channel(self, host: str, side: Side, depth: Fraction, **along: tuple[Fraction, Fraction]) -> Box:
        """Give a channel sunk into a side of a part: its extent along `x`, `y`, `z`, else the part's own."""
        box = self._parts[host].box
        floor = box.at(side) - depth if side.high else box.at(side) + depth
        found = box.set(side.axis, *sorted((floor, box.at(side))))
        for axis, (low, high) in along.items():
            found = found.set(_AXES[axis], low, high)
        return found

    def let_in(
        self, host: str, guest: str, *, channels: Iterable[Box] = (), shares: Iterable[Box] = (),
        room: tuple[Fraction | int, Fraction | int, Fraction | int] = (0, 0, 0), runs: bool = False,
        hold: Hold = Hold.GLUE, names: Names = Names(), sharing: Sharing = Sharing.LET_IN,
        glued: Fraction | None = None,
    ) -> None:  # fmt: skip
        """Let `guest` into `host`."""
        clearance: Corner = (Fraction(room[0]), Fraction(room[1]), Fraction(room[2]))
        self._joints.append(
            Joint(f"{host}-{guest}", sharing, host, guest, hold, tuple(channels), tuple(shares), clearance, runs,
                  names=names, glued=glued)
        )  # fmt: skip

    def tenon(
        self, host: str, guest: str, tenons: Iterable[Box], hold: Hold = Hold.GLUE,
        room: tuple[Fraction | int, Fraction | int, Fraction | int] = (0, 0, 0), mortises: Iterable[Box] = (),
        names: Names = Names(),
    ) -> None:  # fmt: skip
        """Join `guest` by tenons into mortises of the same size, or as given."""
        self.let_in(host, guest, shares=tuple(tenons), channels=tuple(mortises), hold=hold, room=room,
                    sharing=Sharing.TENON, names=names)  # fmt: skip

    def lap(self, first: str, second: str, axis: str, hold: Hold = Hold.GLUE) -> None:
        """Halve two boards that cross: `second` keeps the half of the overlap on its own body's side."""
        one, two = self._parts[first].box, self._parts[second].box
        box = one.overlap(two)
        if box is None:
            self._joints.append(Joint(f"{first}-{second}", Sharing.LAP, first, second, hold))
            return
        along = _AXES[axis]
        middle = (box.low[along.value] + box.high[along.value]) / 2
        a = along.value
        below = two.low[a] + two.high[a] < one.low[a] + one.high[a]
        half = box.set(along, box.low[a], middle) if below else box.set(along, middle, box.high[a])
        self.let_in(first, second, channels=(half,), shares=(half,), hold=hold, sharing=Sharing.LAP)

    def mitre(self, first: str, second: str, hold: Hold = Hold.GLUE) -> None:
        """Mitre two parts where they fill the same space."""
        self._joints.append(Joint(f"{first}-{second}", Sharing.MITRE, first, second, hold))

    def butt(self, first: str, second: str, hold: Hold, names: Names = Names(), glued: Fraction | None = None) -> None:
        """Put two parts against each other."""
        self._joints.append(Joint(f"{first}-{second}", Sharing.BUTT, first, second, hold, names=names, glued=glued))

    # --- the rest ---

    def measure(self, of: str, view: View, start: Sequence[Fraction | int], end: Sequence[Fraction | int],
                offset: float = 6.0) -> None:  # fmt: skip
        """Show a quantity as a dimension on a view, between two places of the piece."""
        a = (Fraction(start[0]), Fraction(start[1]), Fraction(start[2]))
        b = (Fraction(end[0]), Fraction(end[1]), Fraction(end[2]))
        self._measures.append(Measure(of, view, a, b, offset))

    def mover(
        self, name: str, group: str, way: Side, travel: Fraction, of: tuple[str, ...] = (), room_of: str = ""
    ) -> None:
        """Say that a group must come out of the finished piece; `room_of` sets the room round it."""
        self._movers.append(Mover(name, group, way, travel, of, room_of))

    def freedom(self, parts: Iterable[str], room: Fraction, of: str = "") -> None:
        """Say how much room some parts, side by side, have across their grain."""
        self._freedoms.append(Freedom(tuple(parts), room, of))

    def bearing(self, part: str, span: Fraction, load: int, of: str = "") -> None:
        """Say that a part carries a load over a span."""
        if load > 0 and span > 0:
            self._bearings.append(Bearing(part, span, load, of))

    def give(self, name: str, millimetres: Fraction) -> Give:
        """Offer to give a quantity another length."""
        return Give(name, Length(millimetres))

    def remark(self, fact: Fact, weight: Weight = Weight.LOOK, fixes: tuple[Fix, ...] = (), of: str = "") -> None:
        """Say something about the piece."""
        self._remarks.append(Remark(fact, weight, fixes, of))

    def finish(self) -> Assembly:
        """Give the assembly; without parts, and with the reason, if any of it comes to nothing."""
        if self._nothing:
            return Assembly(remarks=tuple(self._nothing))
        return Assembly(
            tuple(self._parts.values()), tuple(self._joints), tuple(self._remarks), tuple(self._measures),
            tuple(self._movers), tuple(self._freedoms), tuple(self._bearings),
        )  # fmt: skip


__all__ = ["Maker", "board_sizes", "given", "ruled", "side_at", "tail_sizes"]
