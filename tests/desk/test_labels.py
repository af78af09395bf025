"""No label lies over another and none is cut off: read off what is painted, not off what was meant to be."""

import itertools
import re
from dataclasses import replace

import pytest
from PySide6.QtCore import QRectF
from PySide6.QtWidgets import QApplication, QLineEdit

from nullah.core import actions
from nullah.core.beginning import begun
from nullah.core.drawing import Anchor, Dimension, Label, Path, Ring, Role
from nullah.core.forms import FORMS
from nullah.core.label_placing import LabelBox
from nullah.core.lengths import Marks, Unit
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.refs import PieceRef
from nullah.core.sheets.page import SheetKind
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.card import worded
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_cabinet import seed_cabinet, short_of_wood
from nullah.desk.bench import Bench
from nullah.desk.shots import _views_of, labels_of, write_shots
from nullah.desk.stations.base import Chooser
from nullah.desk.text_label import TextLabel
from nullah.paper.labels import dimension_line, placed_texts
from nullah.paper.lettering import width_of
from nullah.paper.painted_text import overlaps, painted_texts, texts_of
from nullah.paper.painter import paint, paint_page
from nullah.paper.palette import INK
from nullah.paper.scale import Scale

SIZES = [(1024, 700), (1280, 800), (1920, 1080), (3840, 2160)]


def faults(texts):
    """Return what lies over what, and what is cut off."""
    pairs = [f"{one.text!r} over {other.text!r}" for one, other in overlaps(texts)]
    return pairs + [f"{text.text!r} is cut off" for text in texts if text.cut_off]


def astray(window, texts):
    """Return what is of a list or of running text and is not painted in its line."""
    bench = window.bench
    if window.place.currentWidget() is not bench:
        return []
    running = [each for each in bench.drawing.elements if isinstance(each, Label | Ring) and each.running]
    return [each.text for each in running if each.text.strip() and not any(_at(bench.scale, each, t) for t in texts)]


def _at(scale, element, text):
    """Return whether painted words are those of an element, at its height and where it begins or ends."""
    where = scale.put(element.at)
    x, y = where.x() + element.nudge_mm[0] * scale.paper, where.y() + element.nudge_mm[1] * scale.paper
    sides = (text.box.left(), text.box.center().x(), text.box.right())
    return (
        element.text.strip().endswith(text.text.strip())
        and abs(text.box.center().y() - y) < 3
        and min(abs(side - x) for side in sides) < 4
    )


def metric(texts, window):
    """Return what is shown in millimetres; chisels and bits are called by the size they were bought in."""
    plan = window.document.plan
    card = worded(STATIONS[window.station].card(plan, window.document.selection), plan.reader)
    told = [f"{each.tool} {each.figure} {each.note}" for each in card.set]
    told += [*card.mark, *(each.text for each in card.mind), *card.why]
    fields = [f"{field.text()} {field.placeholderText()}" for field in window.column.choices.findChildren(QLineEdit)]
    # And a piece may be set out to the marks of another rule.
    bought = re.compile(r"chisel|bit|drill|mortise|is set out to marks of", re.IGNORECASE)
    shown = [text.text for text in texts] + told + [field for field in fields if "″" not in field]
    return [text for text in shown if re.search(r"\d mm\b|mm[²³]|cm[²³]", text) and not bought.search(text)]


def of_form(form, unit, **choices):
    project = begun(Project(marks=Marks(unit)), form)
    for name, option in choices.items():
        project = actions.choose(project, name, option)
    return project


def crowded(number):
    """Return the sample as two columns of drawers, with so many boards and nothing laid on them."""
    sample = of_form("case", Unit.MM, columns="2", rows="4", drawers="all")
    boards = seed_cabinet().boards
    return replace(
        sample,
        boards=tuple(replace(boards[n % len(boards)], id=str(n), name=f"Ford {n}") for n in range(1, number + 1)),
    )


SAMPLES = {
    "cabinet": seed_cabinet,
    "short of wood": short_of_wood,
    "own boards": plant_stair,
    "table": lambda: of_form("table", Unit.INCH, drawer="one"),
    "case": lambda: of_form("case", Unit.MM, columns="3", drawers="all"),
    "20 boards": lambda: crowded(20),
    "60 boards": lambda: crowded(60),
}


@pytest.mark.dear
@pytest.mark.sampled(29)
@pytest.mark.parametrize(("size", "unit"), list(itertools.product(SIZES, (Unit.MM, Unit.INCH))))
@pytest.mark.parametrize("sample", SAMPLES)
def test_every_view_of_every_sample(open_window, sample, size, unit):
    window = open_window(SAMPLES[sample]())
    window.resize(*size)
    window.show_unit(unit)
    seen = 0
    for name in _views_of(window):
        for _ in range(3):
            QApplication.processEvents()
        texts = painted_texts(window.place)
        seen += len(texts)
        assert not faults(texts), name
        assert not astray(window, texts), name
        if unit is Unit.INCH:
            assert not metric(texts, window), name
    assert seen > 150


@pytest.mark.sampled(13)
@pytest.mark.parametrize("form", [form for form in FORMS if form != "own"])
@pytest.mark.parametrize("unit", [Unit.MM, Unit.INCH])
def test_every_sheet_of_every_form(qapp, form, unit):
    per_mm = 8
    for sheet in all_sheets(work_out(of_form(form, unit))):
        size = (round(sheet.width_mm * per_mm), round(sheet.height_mm * per_mm))

        def painted(painter, sheet=sheet):
            paint_page(painter, sheet.drawing, (sheet.width_mm, sheet.height_mm), per_mm)

        texts = texts_of(size, painted)
        assert not faults(texts), sheet.name
        if sheet.kind not in (SheetKind.STICK, SheetKind.TEMPLATE):
            assert not moved(sheet, texts, per_mm), sheet.name


def moved(sheet, texts, per_mm):
    """Return the lines of a sheet that are not painted where they are set: out of order they read otherwise."""
    lines = [e for e in sheet.drawing.elements if isinstance(e, Label) and e.anchor is Anchor.START and e.ref is None]
    return [line.text for line in lines if line.text.strip() and not any(_stands(line, text, per_mm) for text in texts)]


def _stands(line, text, per_mm):
    """Return whether painted words are (the end of) a line, where it is set: a box to tick is painted by itself."""
    right = line.at[0] + width_of(line.text, line.size_mm * per_mm, line.bold) / per_mm
    return (
        line.text.strip().endswith(text.text.strip())
        and abs(text.box.right() / per_mm - right) < 1
        and abs(text.box.center().y() / per_mm - line.at[1] - line.nudge_mm[1]) < 1
    )


@pytest.mark.dear
def test_the_boxes_are_those_of_the_pictures(qapp, tmp_path):
    shots = write_shots(tmp_path, (1024, 700), Unit.INCH, seed_cabinet())
    found = labels_of(shots)["views"]
    assert len(found) == len(list(tmp_path.glob("*.png"))) > 15
    labels = {view["name"]: [label["text"] for label in view["labels"]] for view in found}
    assert any(text.startswith("14 ") for text in labels["1-piece"]), "in inches, as asked"
    for view in found:
        wide, high = view["size"]
        for label in view["labels"]:
            left, top, width, height = label["box"]
            assert left >= 0 and top >= 0 and left + width <= wide + 1 and top + height <= high + 1, label


def crossing(bench):
    """Return the words that cross the outline of a part without a board."""
    outlines, on_top = [], {}
    for each in bench.drawing.elements:
        if isinstance(each, Path) and each.role is Role.HIDDEN and isinstance(each.ref, PieceRef):
            first, _, third, _ = (bench.scale.put(point) for point in each.points)
            outlines.append(QRectF(first, third).normalized())
            on_top[each.ref] = outlines[-1]
    assert outlines
    boxes = [(text.text, text.box.adjusted(1, 1, -1, -1)) for text in painted_texts(bench)]
    loose = [(text, box) for text, box in boxes if not any(outline.contains(box) for outline in on_top.values())]
    return [text for text, box in loose if any(box.intersects(outline) for outline in outlines)]


@pytest.mark.dear
@pytest.mark.sampled(29)
@pytest.mark.parametrize(("size", "boards"), list(itertools.product(SIZES[:3], (1, 3, 12))))
@pytest.mark.parametrize("form", ["box", "tray", "chest", "case", "stand", "holder", "table", "top"])
def test_no_name_crosses_the_outline_of_a_part_that_waits_for_wood(open_window, form, size, boards):
    window = open_window(replace(of_form(form, Unit.INCH), boards=crowded(boards).boards))
    window.resize(*size)
    window.show_station(2)
    for _ in range(3):
        QApplication.processEvents()
    assert not crossing(window.bench)


def test_it_would_be_noticed(qapp):
    from nullah.core.drawing import drawing

    shown = drawing(Label((10, 10), "one over"), Label((12, 10), "the other"), Label((79, 40), "half of it is gone"))

    def badly(painter):
        from nullah.paper.labels import PlacedTexts, text_of

        scale = Scale(8, 8)
        paint(
            painter, shown, scale, INK, texts=PlacedTexts({i: text_of(e, scale) for i, e in enumerate(shown.elements)})
        )

    assert len(faults(texts_of((640, 480), badly))) == 2


@pytest.mark.parametrize("form", sorted(FORMS))
def test_what_is_chosen_is_read_in_full_and_stands_clear_of_its_words(form, open_window):
    """Every option of every choice of a form, one after the other."""
    window = open_window(begun(Project(), form))
    for option in range(max((len(each.options) for each in FORMS[form].choices), default=1)):
        for box in window.column.choices.findChildren(Chooser):
            if box.isVisibleTo(window.column.choices) and option < box.count():
                box.setCurrentIndex(option)
        window.show_station(0)
        QApplication.processEvents()
        for box in window.column.choices.findChildren(Chooser):
            if box.isVisibleTo(window.column.choices):
                (words,) = box.parentWidget().findChildren(TextLabel)
                assert box.width() >= box.sizeHint().width(), (words.text(), box.currentText())
                assert not words.geometry().intersects(box.geometry()), words.text()
                assert words.width() >= words.sizeHint().width(), words.text()


@pytest.mark.parametrize("unit", (Unit.MM, Unit.INCH))
def test_a_figure_without_room_in_its_line_does_not_go_past_the_line_of_another(unit, qtbot):
    """An apron and what the taper begins below it stand in one row: neither is read as the other's."""
    bench = Bench()
    qtbot.addWidget(bench)
    plan = work_out(begun(Project(marks=Marks(unit)), "table"), milling=False, proving=False)
    bench.drawing = STATIONS[0].draw(plan, Selection())
    beyond = 0
    for high in range(360, 900, 20):
        bench.resize(780, high)
        bench.fit()
        found = placed_texts(bench.drawing, bench.scale, LabelBox(0, 0, 780, high)).of
        upright = {}
        for index, element in enumerate(bench.drawing.elements):
            if isinstance(element, Dimension):
                start, end = dimension_line(element, bench.scale)
                if abs(start.x() - end.x()) < 0.5:
                    upright[index] = round(start.x()), *sorted((start.y(), end.y()))
        for one, other in itertools.permutations(upright, 2):
            (x, top, bottom), (beside, upper, lower) = upright[one], upright[other]
            box = found[one].box()
            middle = (box.top + box.bottom) / 2
            if x == beside and abs(bottom - upper) < 0.5:
                assert middle < bottom, (high, "the upper one's figure is not below")
            if x == beside and abs(top - lower) < 0.5:
                assert middle > top, (high, "the lower one's figure is not above")
            beyond += x == beside and not top < middle < bottom
    assert beyond > 5, "most of them have no room in their line"
