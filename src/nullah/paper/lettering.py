"""The type that ships with the program: a humanist sans with tabular figures and real fractions."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from PySide6.QtGui import QFont, QFontDatabase, QFontMetricsF

FAMILY = "Nullah Text"
_FILES = ("NullahText-Regular.ttf", "NullahText-SemiBold.ttf")


@cache
def _load() -> str:
    """Load the font files once; give the family to use (the system's if they are damaged)."""
    folder = Path(__file__).with_name("fonts")
    numbers = [QFontDatabase.addApplicationFont(str(folder / name)) for name in _FILES]
    return FAMILY if min(numbers) >= 0 else QFont().family()


def typeface(pixels: float, bold: bool = False) -> QFont:
    """Return the program's typeface.

    Parameters
    ----------
    pixels : float
        Height of type in pixels of the device.
    bold : bool
        Semibold.

    Notes
    -----
    7/8 is set as a real fraction (OpenType ``frac``); the typeface does so only where a
    slash stands between figures, so running words keep theirs. The same font is given out
    again and again: it is not to be changed.
    """
    return _font(max(1, round(pixels)), bold)


def width_of(text: str, pixels: float, bold: bool = False) -> float:
    """Return how wide a line of words is, in pixels of the device."""
    return _metrics(max(1, round(pixels)), bold).horizontalAdvance(text)


def cap_height(pixels: float, bold: bool = False) -> float:
    """Return the height of capitals and figures, in pixels of the device."""
    return _metrics(max(1, round(pixels)), bold).capHeight()


def descent(pixels: float, bold: bool = False) -> float:
    """Return how far letters reach below the line, in pixels of the device."""
    return _metrics(max(1, round(pixels)), bold).descent()


@cache
def _font(pixels: int, bold: bool) -> QFont:
    font = QFont(_load())
    font.setPixelSize(pixels)
    font.setWeight(QFont.Weight.DemiBold if bold else QFont.Weight.Normal)
    font.setFeature(QFont.Tag("frac"), 1)
    return font


@cache
def _metrics(pixels: int, bold: bool) -> QFontMetricsF:
    return QFontMetricsF(_font(pixels, bold))
