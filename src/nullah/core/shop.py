"""The shop: the tools the user owns and how finely they mark."""

from __future__ import annotations

from dataclasses import dataclass

from nullah.core.lengths import Length, mm


@dataclass(frozen=True, slots=True)
class Shop:
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
    """

    chisels: tuple[Length, ...] = (mm(3), mm(6), mm(10), mm(12), mm(19), mm(25))
    kerf: Length = mm("1.5")
    fine_kerf: Length = mm("0.6")
    narrowest_pin: Length = mm(3)

    def largest_chisel(self, room: Length) -> Length | None:
        """Give the widest chisel owned that enters `room`, or None."""
        fitting = [chisel for chisel in self.chisels if chisel <= room]
        return max(fitting, default=None, key=lambda chisel: chisel.mm)
