"""What comes out on paper is read back and measured."""

import ctypes
import xml.etree.ElementTree as ET
from itertools import pairwise

import pypdfium2 as pdfium
import pytest

from nullah.core import actions
from nullah.core.drawing import Dimension, Drawing, Label, Path, Ring, Role, drawing, rectangle
from nullah.core.lengths import Unit
from nullah.core.plan import work_out
from nullah.core.sheets.page import Sheet, check_scale
from nullah.core.sheets.sheets import all_sheets, template_sheets
from nullah.demo.seed_box import seed_box
from nullah.paper.files import PaperError, picture, write_pdf, write_png, write_svg
from nullah.paper.painter import extent
from nullah.paper.scale import Scale

POINT = 25.4 / 72


@pytest.fixture(autouse=True)
def _app(qapp):
    return qapp


def pdf_lines(page):
    """Return the bounds of every stroked line in mm from the upper left corner; one path may have many."""
    height = page.get_height()
    found = []
    for item in page.get_objects(filter=[pdfium.raw.FPDF_PAGEOBJ_PATH]):
        matrix, lines = item.get_matrix(), []
        for number in range(pdfium.raw.FPDFPath_CountSegments(item)):
            segment = pdfium.raw.FPDFPath_GetPathSegment(item, number)
            x, y = ctypes.c_float(), ctypes.c_float()
            pdfium.raw.FPDFPathSegment_GetPoint(segment, x, y)
            if pdfium.raw.FPDFPathSegment_GetType(segment) == pdfium.raw.FPDF_SEGMENT_MOVETO:
                lines.append([])
            lines[-1].append(matrix.on_point(x.value, y.value))
        for points in lines:
            xs, ys = [x for x, _ in points], [y for _, y in points]
            found.append((min(xs) * POINT, (height - max(ys)) * POINT, max(xs) * POINT, (height - min(ys)) * POINT))
    return found


def test_a_page_is_a4_and_its_check_scale_is_100_mm(tmp_path):
    write_pdf([Sheet("s", "scale", drawing(check_scale(20, 40)))], tmp_path / "s.pdf")
    page = pdfium.PdfDocument(tmp_path / "s.pdf")[0]
    assert (page.get_width() * POINT, page.get_height() * POINT) == pytest.approx((210, 297), abs=0.1)
    for top, count, span in ((40, 11, 100), (49, 5, 101.6)):
        ticks = sorted(
            (box[0] + box[2]) / 2 for box in pdf_lines(page) if box[2] - box[0] < 1 and abs(box[3] - top) < 0.5
        )
        assert len(ticks) == count
        assert ticks[-1] - ticks[0] == pytest.approx(span, abs=0.05)


def test_the_template_in_the_pdf_measures_as_the_corner_does(tmp_path):
    plan = work_out(seed_box())
    write_pdf(template_sheets(plan), tmp_path / "t.pdf")
    page = pdfium.PdfDocument(tmp_path / "t.pdf")[0]
    text = page.get_textpage().get_text_range()
    for mark in plan.corner.layout.marks:
        assert f"{float(mark):.1f}" in text
    assert "16 mm" in text and "0.5 mm" in text and "40.3 mm" in text


def test_the_template_in_the_svg_measures_as_the_corner_does(tmp_path, svg_points):
    plan = work_out(seed_box())
    (sheet,) = template_sheets(plan)
    write_svg(sheet, tmp_path / "t.svg")
    width, shapes = svg_points(tmp_path / "t.svg")
    assert width == pytest.approx(210, abs=0.1)
    spans = [max(x for x, _ in shape) - min(x for x, _ in shape) for shape in shapes]
    assert any(abs(span - 100) < 0.1 for span in spans), "the check scale"
    # Each tail's edges stand at the end of the board at the heights the arithmetic gives.
    levels = {round(y, 2) for shape in shapes for _, y in shape}
    low_edge = 58 + 130
    for mark in plan.corner.layout.marks:
        assert any(abs(low_edge - float(mark) - level) < 0.1 for level in levels), float(mark)


def test_every_sheet_with_its_words_stays_on_the_page():
    for unit in Unit:
        project = seed_box()
        project = actions.show_in(project, type(project.marks)(unit))
        for sheet in all_sheets(work_out(project)):
            room = extent(sheet.drawing, Scale(10, 10))
            assert room.left() >= 0 and room.top() >= 0, sheet.name
            assert room.right() <= 10 * sheet.width_mm, sheet.name
            assert room.bottom() <= 10 * sheet.height_mm, sheet.name


def test_a_name_that_looks_like_markup_stays_a_name(tmp_path):
    project = actions.rename(seed_box(), "<b>x</b> & co")
    sheets = all_sheets(work_out(project))
    write_pdf(sheets[:1], tmp_path / "x.pdf")
    assert "<b>x</b> & co" in pdfium.PdfDocument(tmp_path / "x.pdf")[0].get_textpage().get_text_range()
    write_svg(sheets[0], tmp_path / "x.svg")
    ET.parse(tmp_path / "x.svg")


def test_all_elements_leave_ink():
    for element in (
        Path(((5, 5), (15, 15))),
        rectangle(5, 5, 10, 10),
        Label((10, 10), "word"),
        Ring((10, 10), "1"),
        Dimension((5, 15), (15, 15), "10"),
    ):
        image = picture(Drawing((element,)), 20, 20, 5)
        colours = {image.pixel(x, y) for x in range(100) for y in range(100)}
        assert len(colours) > 1, element


def test_hidden_lines_are_dashed_and_knife_lines_are_not():
    def gaps(role):
        image = picture(Drawing((Path(((0, 10), (40, 10)), role),)), 40, 20, 8)
        row = [image.pixelColor(x, 80).lightness() < 200 for x in range(320)]
        return sum(1 for one, two in pairwise(row) if one and not two)

    assert gaps(Role.HIDDEN) > 5 and gaps(Role.GAUGE) > 2
    assert gaps(Role.KNIFE) <= 1


def test_a_disk_that_refuses_is_a_sentence_and_leaves_the_old_file(tmp_path):
    sheet = Sheet("s", "s", drawing(check_scale(20, 40)))
    blocked = tmp_path / "file"
    blocked.write_text("in the way")
    for write in (
        lambda: write_pdf([sheet], blocked / "x.pdf"),
        lambda: write_svg(sheet, blocked / "x.svg"),
        lambda: write_png(sheet, blocked / "x.png"),
    ):
        with pytest.raises(PaperError, match="cannot be written"):
            write()
    assert blocked.read_text() == "in the way"
    write_png(sheet, tmp_path / "s.png")
    assert sorted(p.name for p in tmp_path.iterdir() if not p.is_dir()) == ["file", "s.png"], "nothing left beside"
