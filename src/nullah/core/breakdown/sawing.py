"""What sawing costs: minutes by the metre, the thickness and the hardness of the wood."""

from __future__ import annotations

from nullah.core.named_tuple import NamedTuple

#: Hardness that the rates below are for, N (of the order of black cherry).
_USUAL_HARDNESS = 4200.0
#: Thickness that the rates below are for, mm.
_USUAL_THICKNESS = 25.0


class Sawing(NamedTuple):
    """How sawing goes: minutes for a metre of 25 mm cherry, and for marking and starting a cut.

    The default rates are guesses from common practice, without a published source. A rip is
    slow because it is long, and because its line must be struck the whole way.

    Examples
    --------
    >>> round(Sawing().minutes(True, 200), 2), round(Sawing().minutes(False, 1200), 2)
    (1.0, 5.2)
    """

    cross_by_metre: float = 2.5
    rip_by_metre: float = 3.5
    cross_start: float = 0.5
    rip_start: float = 1.0
    #: Wood worth keeping counts as so many minutes by the square metre.
    kept_by_square_metre: float = 12.0
    thickness: float = _USUAL_THICKNESS
    hardness: float = _USUAL_HARDNESS

    @property
    def load(self) -> float:
        """How much heavier this wood saws than 25 mm cherry."""
        return self.thickness / _USUAL_THICKNESS * (0.5 + 0.5 * self.hardness / _USUAL_HARDNESS)

    def minutes(self, cross: bool, length: float) -> float:
        """Return the minutes of one cut of a length in mm.

        Parameters
        ----------
        cross : bool
            Whether it is a crosscut.
        length : float
            mm.
        """
        by_metre, start = (self.cross_by_metre, self.cross_start) if cross else (self.rip_by_metre, self.rip_start)
        return start + by_metre * self.load * length / 1000

    def kept(self, length: float, width: float) -> float:
        """Return what an offcut is worth in minutes: nothing for stubs and slivers.

        Parameters
        ----------
        length : float
            mm.
        width : float
            mm.
        """
        return self.kept_by_square_metre * length * width * 1e-6 if worth_keeping(length, width) else 0.0


def worth_keeping(length: float, width: float) -> bool:
    """Return whether an offcut of this size (mm) is kept: shorter ones and slivers are firewood (common practice).

    Parameters
    ----------
    length : float
        mm.
    width : float
        mm.
    """
    return length >= 200 and width >= 40
