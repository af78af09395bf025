"""The shop: the tools the user owns and how finely they mark."""

from __future__ import annotations

from enum import Enum

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length, mm
from nullah.core.named_tuple import NamedTuple


class PlaneKind(Enum):
    """What a bench plane is for, coarsest first."""

    FORE = N_("fore plane")
    JACK = N_("jack plane")
    JOINTER = N_("jointer")
    SMOOTHER = N_("smoother")


class Plane(NamedTuple):
    """A bench plane: its sole, its iron, how far the iron's corners stand back, and its usual shaving.

    `mouth` is how far from the toe the iron comes through, as a share of the sole.
    """

    kind: PlaneKind
    sole: Length
    iron: Length
    camber: Length
    shaving: Length
    mouth: float = 0.33


#: Soles, irons and shavings as they are common (practice, no published source): the coarser the
#: work, the more the iron is rounded.
USUAL_PLANES = (
    Plane(PlaneKind.FORE, mm(430), mm(50), mm("1.2"), mm("0.5")),
    Plane(PlaneKind.JACK, mm(355), mm(50), mm("0.5"), mm("0.2")),
    Plane(PlaneKind.JOINTER, mm(560), mm(60), mm("0.15"), mm("0.1")),
    Plane(PlaneKind.SMOOTHER, mm(240), mm(50), mm("0.05"), mm("0.04")),
)


#: What may be chosen of each way of working, the usual one first.
SCHOOLS = {
    "dovetail": (N_("tails first"), N_("pins first")),
    "waste": (N_("saw and chop"), N_("chop only")),
    "tenon": (N_("shoulders first"), N_("cheeks first")),
    "floor": (N_("router plane"), N_("chisel")),
}


class Schools(NamedTuple):
    """Ways of working on which good hands differ.

    `dovetail` is what is cut first, `waste` how it comes out, `tenon` what is sawn first, `floor`
    what levels a channel.
    """

    dovetail: str = SCHOOLS["dovetail"][0]
    waste: str = SCHOOLS["waste"][0]
    tenon: str = SCHOOLS["tenon"][0]
    floor: str = SCHOOLS["floor"][0]


class Hands(NamedTuple):
    """How far off a pair of hands is, standard deviations in mm: guesses for practised ones, to be replaced by records.

    `marking` a figure off a rule, `tracing` the mate with a knife, `sawing` to a line, `planing` to one,
    `measuring` an opening with a rule or calliper.
    """

    marking: float = 0.2
    tracing: float = 0.05
    sawing: float = 0.08
    planing: float = 0.08
    measuring: float = 0.1


#: Bits as they are common in a small shop (practice, no published source).
USUAL_BITS = tuple(mm(size) for size in ("1.5", "2", "2.5", "3", "4", "5", "6", "8", "10", "12", "16"))


class Shop(FrozenRecord):
    """What the shop has.

    Parameters
    ----------
    chisels : tuple of Length
        Widths owned, narrowest first.
    kerf : Length
        Of the saw that breaks boards down: 1-1.5 mm for a handsaw (common practice).
    fine_kerf : Length
        Of the saw that cuts joints: under 1 mm for a fine backsaw (common practice).
    narrowest_pin : Length
        What a knife and a chisel can still enter: about 3 mm (common practice).
    planes : tuple of Plane
        Bench planes owned.
    schools : Schools
        How joints are made here.
    hands : Hands
        How far off they are.
    bits : tuple of Length
        Diameters owned, thinnest first.
    plough_irons : tuple of Length
        Widths of the irons the plough has; none: there is no plough.
    plough_deepest, saw_deepest : Length
        How deep the plough and the fine saw can go, for its stop and its back.
    """

    chisels: tuple[Length, ...] = (mm(3), mm(6), mm(10), mm(12), mm(19), mm(25))
    kerf: Length = mm("1.5")
    fine_kerf: Length = mm("0.6")
    narrowest_pin: Length = mm(3)
    planes: tuple[Plane, ...] = USUAL_PLANES
    schools: Schools = Schools()
    hands: Hands = Hands()
    bits: tuple[Length, ...] = USUAL_BITS
    plough_irons: tuple[Length, ...] = (mm(3), mm(5), mm(6), mm(8), mm(10), mm(12))
    plough_deepest: Length = mm(16)
    saw_deepest: Length = mm(60)

    def plane(self, *kinds: PlaneKind) -> Plane | None:
        """Return the first plane owned of the kinds asked for, in the order of asking, or None."""
        owned = {plane.kind: plane for plane in reversed(self.planes)}
        return next((owned[kind] for kind in kinds if kind in owned), None)

    def chisels_for(self, room: Length) -> tuple[Length, ...]:
        """Return the widest chisel owned that enters `room` and the next smaller one; fewer where there are none.

        Parameters
        ----------
        room : Length
            Between its walls.
        """
        return tuple(sorted((chisel for chisel in self.chisels if chisel <= room), key=lambda c: -c.mm)[:2])

    def bit_for(self, hole: Length) -> Length | None:
        """Return the bit owned that is nearest to a hole and no more than 0.3 mm wider; None where none is near.

        Parameters
        ----------
        hole : Length
            Its diameter.
        """
        near = [bit for bit in self.bits if -hole.mm / 5 <= bit.mm - hole.mm <= Fraction(3, 10)]
        return min(near, key=lambda bit: abs(bit.mm - hole.mm), default=None)

    def plough_iron(self, room: Length) -> Length | None:
        """Return the widest iron of the plough that enters a groove, or None.

        Parameters
        ----------
        room : Length
            Width of the groove.
        """
        return max((iron for iron in self.plough_irons if iron <= room), key=lambda iron: iron.mm, default=None)

    def largest_chisel(self, room: Length) -> Length | None:
        """Return the widest chisel owned that enters `room`, or None.

        Parameters
        ----------
        room : Length
            Between its walls.
        """
        fitting = [chisel for chisel in self.chisels if chisel <= room]
        return max(fitting, default=None, key=lambda chisel: chisel.mm)
