import sys

import pytest
from PySide6.QtGui import QFont, QTextLayout

from nullah.paper.lettering import FAMILY, typeface


def glyphs(text):
    layout = QTextLayout(text, typeface(40))
    layout.beginLayout()
    layout.createLine()
    layout.endLayout()
    return [index for run in layout.glyphRuns() for index in run.glyphIndexes()]


def test_the_shipped_typeface_is_used(qapp):
    assert typeface(15).family() == FAMILY


def test_fractions_are_real_and_only_where_they_are_meant(qapp):
    assert glyphs("7/8") != glyphs("7") + glyphs("/") + glyphs("8")
    # The whole number before a fraction, and figures elsewhere, stay full size.
    assert glyphs("14 7/8")[:2] == glyphs("14")
    assert glyphs("12 × 3/4")[:2] == glyphs("12")
    assert glyphs("and/or") == [g for letter in "and/or" for g in glyphs(letter)]


def test_figures_stand_in_columns(qapp):
    from PySide6.QtGui import QFontMetricsF

    metrics = QFontMetricsF(typeface(40))
    assert len({round(metrics.horizontalAdvance(figure), 3) for figure in "0123456789"}) == 1


@pytest.mark.skipif(sys.version_info >= (3, 12), reason="None cannot be lost from Python 3.12 on")
def test_the_toolkit_gives_back_what_it_borrows(qapp):
    """One release of the toolkit lost a reference to None with every call and so ended the program."""
    font = QFont()
    before = sys.getrefcount(None)
    for _ in range(500):
        font.setPixelSize(12)
    assert sys.getrefcount(None) > before - 100
