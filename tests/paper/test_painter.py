import pytest
from PySide6.QtCore import Qt
from PySide6.QtGui import QColor, QImage, QPainter

from nullah.core.drawing import Anchor, Dimension, Drawing, Fill, Label, Path, Ring, drawing, rectangle
from nullah.core.refs import PartRef
from nullah.paper.labels import dimension_line, text_of
from nullah.paper.painter import extent, paint
from nullah.paper.palette import DAY, INK, NIGHT
from nullah.paper.scale import Scale


@pytest.fixture(autouse=True)
def _app(qapp):
    return qapp


def painted(shown, palette=INK, **how):
    image = QImage(200, 200, QImage.Format.Format_ARGB32)
    image.fill(QColor(palette.ground))
    painter = QPainter(image)
    paint(painter, shown, Scale(2, 2), palette, **how)
    # Whoever paints next must find the painter as it was: no brush left behind.
    assert painter.brush().style() is Qt.BrushStyle.NoBrush
    painter.end()
    return image


def test_a_scale_puts_points_there_and_back():
    scale = Scale(3.5, 4, (10, -20))
    at = scale.put((7, 9))
    assert scale.back(at.x(), at.y()) == pytest.approx((7, 9))


def test_a_dimension_writes_between_its_ticks_or_beyond():
    wide = Dimension((0, 0), (80, 0), "80 mm")
    narrow = Dimension((0, 0), (4, 0), "4 mm")
    scale = Scale(2, 2)
    a, b = dimension_line(wide, scale)
    assert a.y() == b.y() == -14, "to the left of its direction, 7 mm of paper off"
    assert text_of(wide, scale).middle[0] == pytest.approx((a.x() + b.x()) / 2)
    assert text_of(narrow, scale).box().left >= 8


def test_upright_figures_read_from_the_right():
    scale = Scale(2, 2)
    for start, end in (((0, 0), (0, 80)), ((0, 80), (0, 0))):
        assert text_of(Dimension(start, end, "80"), scale).angle == pytest.approx(-90)
    for start, end in (((0, 0), (80, 0)), ((80, 0), (0, 0))):
        assert text_of(Dimension(start, end, "80"), scale).angle % 360 == pytest.approx(0)


def test_the_state_of_a_dimension_is_a_sign_and_not_colour_alone():
    signs = {
        state: text_of(Dimension((0, 0), (80, 0), "80", state=state), Scale(2, 2)).words
        for state in ("given", "measured", "overruled", "wait for a measurement")
    }
    assert len(set(signs.values())) == 4


def test_the_room_of_a_drawing_takes_in_words_rings_and_dimensions():
    scale = Scale(1, 4)
    plain = extent(drawing(rectangle(0, 0, 50, 50)), scale)
    assert (plain.width(), plain.height()) == (50, 50)
    for element in (
        Label((50, 25), "a long label", anchor=Anchor.START),
        Ring((50, 25), "1"),
        Dimension((50, 50), (50, 0), "50", -9),
    ):
        room = extent(drawing(rectangle(0, 0, 50, 50), element), scale)
        assert room.right() > 55, element
    assert extent(Drawing(), scale).isEmpty()


def test_what_is_in_hand_is_lit_and_what_is_pointed_at_is_outlined():
    part = drawing(rectangle(10, 10, 80, 80, fill=Fill.WOOD, species="cherry", ref=PartRef("front")))
    plain, lit = painted(part, DAY), painted(part, DAY, lit=frozenset({PartRef("front")}))
    assert plain.pixel(100, 100) != lit.pixel(100, 100)
    other = painted(part, DAY, lit=frozenset({PartRef("back")}))
    assert other.pixel(100, 100) == plain.pixel(100, 100)
    hot = painted(part, DAY, hot=PartRef("front"))
    assert QColor(hot.pixel(100, 20)).name() != QColor(plain.pixel(100, 20)).name()


def test_species_are_told_apart_and_an_unknown_one_is_still_wood():
    tones = {
        painted(drawing(rectangle(0, 0, 90, 90, fill=Fill.WOOD, species=name)), NIGHT).pixel(90, 90)
        for name in ("black walnut", "sugar maple", "black cherry", "driftwood")
    }
    assert len(tones) == 4


def test_waste_is_hatched_and_wood_is_not():
    def inks(fill):
        image = painted(drawing(rectangle(5, 5, 90, 90, fill=fill, species="cherry")))
        return len({image.pixel(x, y) for x in range(40, 160) for y in range(40, 160)})

    assert inks(Fill.WOOD) == 1 < inks(Fill.WASTE)


def test_nothing_is_painted_for_nothing():
    empty = painted(Drawing())
    assert {empty.pixel(x, 100) for x in range(200)} == {empty.pixel(0, 0)}
    assert painted(drawing(Path(()), Dimension((5, 5), (5, 5), "0"))).size().width() == 200
