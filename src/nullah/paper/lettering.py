"""The type that ships with the program: a humanist sans with tabular figures and real fractions."""

from __future__ import annotations

from functools import cache
from importlib.resources import files

from PySide6.QtGui import QFont, QFontDatabase

FAMILY = "Nullah Text"


@cache
def _load() -> str:
    """Load the font files once; give the family to use (the system's if they are damaged)."""
    folder = files("nullah.paper").joinpath("fonts")
    for name in ("NullahText-Regular.ttf", "NullahText-SemiBold.ttf"):
        QFontDatabase.addApplicationFontFromData(folder.joinpath(name).read_bytes())
    return FAMILY if FAMILY in QFontDatabase.families() else QFont().family()


def typeface(pixels: float, bold: bool = False) -> QFont:
    """Give the program's typeface.

    Parameters
    ----------
    pixels : float
        Height of type in pixels of the device.
    bold : bool
        Semibold.

    Notes
    -----
    7/8 is set as a real fraction (OpenType ``frac``); the typeface does so only where a
    slash stands between figures, so running words keep theirs.
    """
    font = QFont(_load())
    font.setPixelSize(max(1, round(pixels)))
    font.setWeight(QFont.Weight.DemiBold if bold else QFont.Weight.Normal)
    font.setFeature(QFont.Tag("frac"), 1)
    return font
