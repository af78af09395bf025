"""Joint sheets with a ruler on the rendered page: every line where the solid has it, at the scale that is written."""

import re

import pytest

from nullah.core.drawing import Label
from nullah.core.joints.kinds import kinds_of
from nullah.core.plan import work_out
from nullah.core.sheets.joints import joint_sheets
from nullah.core.sheets.sheets import template_sheets
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.paper.files import write_svg

pytestmark = pytest.mark.usefixtures("qapp")


@pytest.fixture(scope="module")
def plan():
    return work_out(seed_cabinet(), milling=False, proving=False)


def scale_of(sheet):
    said = next(e.text for e in sheet.drawing.elements if isinstance(e, Label) and re.match(r"1 : |true size", e.text))
    return 1.0 if said == "true size" else 1 / float(said.split(":")[1])


def test_every_joint_of_the_cabinet_is_on_a_sheet_or_a_template(plan):
    kinds = kinds_of(plan.assembly)
    sheets, templates = list(joint_sheets(plan)), template_sheets(plan)
    assert len(sheets) == sum(not kind.corner_prefix for kind in kinds)
    assert len(templates) >= len({kind.corner_prefix for kind in kinds if kind.corner_prefix})


def test_waste_measures_on_the_page_what_it_measures_on_the_part(plan, tmp_path, svg_points):
    kinds = [kind for kind in kinds_of(plan.assembly) if not kind.corner_prefix]
    for kind, sheet in zip(kinds, joint_sheets(plan), strict=True):
        if not kind.first.cutouts:
            continue
        write_svg(sheet, tmp_path / "sheet.svg")
        _, shapes = svg_points(tmp_path / "sheet.svg")
        sizes = []
        for points in shapes:
            xs, ys = [x for x, _ in points], [y for _, y in points]
            sizes.append((max(xs) - min(xs), max(ys) - min(ys)))
        scale = scale_of(sheet)
        cut = kind.first.cutouts[0]
        # Across and through are never broken off: the end view shows them both.
        wanted = float(cut.size(2)) * scale, float(cut.size(1)) * scale
        near = [abs(wide - wanted[0]) + abs(high - wanted[1]) for wide, high in sizes]
        # The scale is written to two figures.
        assert min(near) < 0.03 * max(wanted) + 0.15, (kind.title, wanted)
