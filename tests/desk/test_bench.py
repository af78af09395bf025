"""The bench by itself, with a drawing made for the purpose."""

import pytest
from PySide6.QtCore import QPoint, QPointF, Qt

from nullah.core.drawing import Anchor, Dimension, Drawing, Fill, Label, Ring, drawing, rectangle
from nullah.core.refs import PartRef
from nullah.desk.bench import Bench, Tool

SHOWN = drawing(
    rectangle(0, 0, 400, 200, fill=Fill.WOOD, ref=PartRef("board")),
    rectangle(100, 50, 100, 100, fill=Fill.WOOD, ref=PartRef("part")),
    Label((300, 40), "a word", anchor=Anchor.START, ref=PartRef("word")),
    Ring((300, 150), "1", ref=PartRef("ring")),
    Dimension((0, 200), (400, 200), "400 mm", -6, ref=PartRef("length")),
)


class Recorder(Tool):
    """Writes down what it is told."""

    def __init__(self, takes=True):
        self.takes, self.told = takes, []

    def press(self, at, of):
        self.told.append(("press", of))
        return self.takes

    def drag(self, at):
        self.told.append(("drag", round(at[0]), round(at[1])))

    def release(self, at):
        self.told.append(("release", round(at[0]), round(at[1])))

    def cancel(self):
        self.told.append(("cancel",))

    def cursor(self, at, of):
        return Qt.CursorShape.CrossCursor if of == PartRef("part") else Qt.CursorShape.ArrowCursor


@pytest.fixture
def bench(qtbot):
    made = Bench()
    qtbot.addWidget(made)
    made.resize(800, 600)
    made.show()
    made.show_drawing(SHOWN, "Nothing here yet.", frozenset(), True)
    return made


def at(bench, x, y):
    return bench.scale.put((x, y)).toPoint()


def clicked(bench, qtbot, point):
    with qtbot.waitSignal(bench.clicked) as seen:
        qtbot.mouseClick(bench, Qt.MouseButton.LeftButton, pos=point)
    return seen.args[0]


def test_the_whole_drawing_fits_with_its_words(bench):
    from nullah.paper.painter import extent

    room = extent(SHOWN, bench.scale)
    assert room.left() >= 0 and room.top() >= 0 and room.right() <= 800 and room.bottom() <= 600
    assert room.width() > 700 or room.height() > 500, "and fills it"


def test_what_lies_on_top_is_clicked(bench, qtbot):
    assert clicked(bench, qtbot, at(bench, 150, 100)) == PartRef("part")
    assert clicked(bench, qtbot, at(bench, 50, 100)) == PartRef("board")
    assert clicked(bench, qtbot, at(bench, 310, 40)) == PartRef("word")
    assert clicked(bench, qtbot, at(bench, 300, 150)) == PartRef("ring")
    assert clicked(bench, qtbot, bench.place_of(PartRef("length")).toPoint()) == PartRef("length")
    assert clicked(bench, qtbot, QPoint(2, 2)) is None


def test_every_target_is_found_where_it_says_it_is(bench):
    for ref in bench.targets():
        assert bench.at(bench.place_of(ref)) == ref or ref == PartRef("board")
    assert bench.targets() == tuple(map(PartRef, ("board", "part", "word", "ring", "length")))


def test_a_tool_that_takes_hold_gets_the_drag(bench, qtbot):
    bench.tool = tool = Recorder()
    qtbot.mousePress(bench, Qt.MouseButton.LeftButton, pos=at(bench, 150, 100))
    qtbot.mouseMove(bench, pos=at(bench, 250, 100))
    qtbot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=at(bench, 250, 120))
    assert tool.told[0] == ("press", PartRef("part"))
    assert [told[0] for told in tool.told] == ["press", "drag", "release"]
    assert abs(tool.told[-1][1] - 250) <= 1 and abs(tool.told[-1][2] - 120) <= 1


def test_escape_gives_a_drag_up(bench, qtbot):
    bench.tool = tool = Recorder()
    qtbot.mousePress(bench, Qt.MouseButton.LeftButton, pos=at(bench, 150, 100))
    qtbot.mouseMove(bench, pos=at(bench, 250, 100))
    qtbot.keyClick(bench, Qt.Key.Key_Escape)
    qtbot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=at(bench, 250, 100))
    assert tool.told[-1] == ("cancel",)


def test_a_tool_that_does_not_take_hold_leaves_the_click(bench, qtbot):
    bench.tool = Recorder(takes=False)
    assert clicked(bench, qtbot, at(bench, 150, 100)) == PartRef("part")


def test_the_pointer_says_what_it_would_do(bench, qtbot):
    bench.tool = Recorder()
    qtbot.mouseMove(bench, pos=at(bench, 150, 100))
    assert bench.hot == PartRef("part") and bench.cursor().shape() is Qt.CursorShape.CrossCursor
    qtbot.mouseMove(bench, pos=at(bench, 50, 20))
    assert bench.hot == PartRef("board") and bench.cursor().shape() is Qt.CursorShape.ArrowCursor


def test_space_and_the_left_button_move_the_drawing(bench, qtbot):
    before = bench.scale.origin
    qtbot.keyPress(bench, Qt.Key.Key_Space)
    qtbot.mousePress(bench, Qt.MouseButton.LeftButton, pos=QPoint(100, 100))
    qtbot.mouseMove(bench, pos=QPoint(130, 90))
    qtbot.mouseRelease(bench, Qt.MouseButton.LeftButton, pos=QPoint(130, 90))
    qtbot.keyRelease(bench, Qt.Key.Key_Space)
    assert bench.scale.origin == pytest.approx((before[0] + 30, before[1] - 10))
    bench.show_drawing(SHOWN, "", frozenset(), False)
    assert bench.scale.origin != before, "a redrawn bench stays where it was put"


def test_keys_go_through_what_can_be_picked_and_take_it(bench, qtbot):
    seen = []
    bench.clicked.connect(lambda ref, _: seen.append(ref))
    for _ in range(2):
        qtbot.keyClick(bench, Qt.Key.Key_Right)
    assert bench.hot == PartRef("part")
    qtbot.keyClick(bench, Qt.Key.Key_Return)
    for _ in range(2):
        qtbot.keyClick(bench, Qt.Key.Key_Left)
    qtbot.keyClick(bench, Qt.Key.Key_Return)
    assert seen == [PartRef("part"), PartRef("length")]


def test_zoom_has_ends_and_plus_and_minus_work(bench, qtbot):
    fitted = bench.scale.per_mm
    qtbot.keyClick(bench, Qt.Key.Key_Plus)
    assert bench.scale.per_mm == pytest.approx(fitted * 1.25)
    qtbot.keyClick(bench, Qt.Key.Key_Minus)
    assert bench.scale.per_mm == pytest.approx(fitted)
    for _ in range(60):
        bench.zoom(2, QPointF(1, 1))
    assert bench.scale.per_mm == 40
    for _ in range(60):
        bench.zoom(0.5, QPointF(1, 1))
    assert bench.scale.per_mm == 0.02


def test_an_empty_bench_is_an_invitation(bench):
    before = bench.grab().toImage()
    bench.show_drawing(Drawing(), "Put a board on the rack.", frozenset(), True)
    after = bench.grab().toImage()
    assert before != after
    assert bench.accessibleDescription() == "Put a board on the rack."
    assert bench.targets() == () and bench.at(QPointF(400, 300)) is None


def test_a_bench_made_larger_fits_again(bench):
    small = bench.scale.per_mm
    bench.resize(1600, 1200)
    assert bench.scale.per_mm > small * 1.5
