"""Every form as it is shown and printed: views, cards, sheets, in millimetres and inches, with every part in hand."""

from dataclasses import replace

import pytest
from tests.said import said

from nullah.core import actions
from nullah.core.card import Severity
from nullah.core.drawing import Dimension, Label, Path, Role
from nullah.core.forms import FORMS
from nullah.core.lengths import Unit
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.refs import QuantityRef
from nullah.core.sheets.page import PAGE
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.fixes import fix_words
from nullah.core.work.cut_list import cut_list
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_cabinet import seed_cabinet

PIECES = {form: Project(Piece(form)) for form in FORMS if form != "own"}
PIECES |= {"stair": plant_stair(), "cabinet": seed_cabinet()}
UNITS = list(Unit)


def plan_of(name, unit):
    project = PIECES[name]
    return work_out(actions.show_in(project, replace(project.marks, unit=unit)))


def words_of(card, plan):
    """Return all words of a card."""
    found = [card.title, *card.mark, *card.why]
    found += [text for setting in card.set for text in (setting.tool, setting.figure, setting.note)]
    found += [
        text
        for remark in card.mind
        for text in (said(remark, plan), *(fix_words(fix, plan.reader) for fix in remark.fixes))
    ]
    return found


@pytest.mark.sampled(9)
@pytest.mark.parametrize("unit", UNITS, ids=lambda unit: unit.value)
@pytest.mark.parametrize("name", PIECES)
def test_every_station_tells_of_every_part(name, unit):
    plan = plan_of(name, unit)
    for part in plan.parts:
        for station in STATIONS:
            card = station.card(plan, Selection(part.id, part.quantities[0]))
            for text in words_of(card, plan):
                assert "None" not in text and "⟦" not in text and "  to" not in text, text
        first = STATIONS[0].card(plan, Selection(part.id)).set[1]
        alike = {QuantityRef(other.quantities[0]) for other in plan.parts if other.alike == part.alike}
        assert first.ref in alike, "the part in hand comes first"
    for station in STATIONS:
        assert station.state(plan) and "None" not in station.state(plan)


@pytest.mark.sampled(9)
@pytest.mark.parametrize("unit", UNITS, ids=lambda unit: unit.value)
@pytest.mark.parametrize("name", PIECES)
def test_every_sheet_stands_on_its_page(name, unit):
    plan = plan_of(name, unit)
    sheets = all_sheets(plan)
    names = [sheet.name for sheet in sheets]
    assert len(set(names)) == len(names) and names[0].startswith("cut-list")
    assert sum(each.startswith("part-") and "-page" not in each for each in names) == len(plan.parts)
    for sheet in sheets:
        left, top, right, bottom = sheet.drawing.bounds()
        assert left >= 0 and top >= 0 and right <= PAGE[0] and bottom <= PAGE[1], sheet.name
    listed = [
        element.text
        for sheet in sheets
        if sheet.name.startswith("cut-list")
        for element in sheet.drawing.elements
        if isinstance(element, Label)
    ]
    counted = [int(text.removesuffix(" ×")) for text in listed if text.endswith(" ×") and text[:-2].isdigit()]
    assert sum(counted) == len(cut_list(plan)), "every part stands on the list once"


@pytest.mark.parametrize("name", PIECES)
def test_what_is_drawn_is_inside_its_views_and_can_be_clicked(name):
    plan = plan_of(name, Unit.MM)
    drawing = STATIONS[0].draw(plan, Selection())
    titles = [element.text for element in drawing.elements if isinstance(element, Label) and element.role is Role.FAINT]
    assert titles[:2] == ["From above", "From the front"] and len(titles) == 3
    ids = {part.id for part in plan.parts}
    clickable = {element.ref.part for element in drawing.elements if isinstance(element, Path) and element.ref}
    assert clickable <= ids and len(clickable) >= min(len(ids), 4)
    for dimension in (element for element in drawing.elements if isinstance(element, Dimension)):
        (ax, ay), (bx, by) = dimension.start, dimension.end
        long = ((ax - bx) ** 2 + (ay - by) ** 2) ** 0.5
        # Drawn as long as it says: the drawing is to scale.
        assert long == pytest.approx(float(plan.ledger[dimension.ref.name]), abs=0.01), dimension.ref.name


@pytest.mark.parametrize("name", [name for name in PIECES if name not in ("stair",)])
def test_usual_cautions_stand_where_they_matter(name):
    plan = plan_of(name, Unit.MM)
    notes = " ".join(said(remark, plan) for remark in plan.remarks if remark.weight is Severity.NOTE)
    wanted = {
        "case": "fix the case to the wall",
        "cabinet": "fix the case to the wall",
        "chest": "air gap",
        "wall shelf": "the wall decides",
        "hanging rack": "the wall decides",
        "table": "does not say what it carries",
        "top": "Glue only the middle tenon",
    }
    assert wanted.get(name, "") in notes
    hinged = work_out(Project(Piece("box", choices=(("lid", "hinged"),))), milling=False)
    assert any("stay" in said(remark, hinged) and "air gap" in said(remark, hinged) for remark in hinged.remarks)
