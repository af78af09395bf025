"""Another language: sheets of paper, names and orders of work hold nothing that a catalogue cannot reach."""

from dataclasses import replace
from datetime import datetime

import pytest
from tests.lettered import Lettered, bare, not_in_the_catalogue

from nullah.core.drawing import Dimension, Label, Ring
from nullah.core.forms import FORMS
from nullah.core.lengths import Marks, Unit
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wording.card import worded
from nullah.demo.seed_cabinet import seed_cabinet

NOW = datetime(2026, 12, 5, 9, 30)


def told(project):
    """Return what stands bare on the sheets of a project, each with one place where it does."""
    plan = work_out(replace(project, marks=replace(project.marks, catalogue=Lettered())))
    for station in STATIONS:
        station.draw(plan, Selection())
        worded(station.card(plan, Selection()), plan.reader)
    texts = [(part.id, part.name) for part in plan.parts]
    for sheet in all_sheets(plan, NOW):
        said = [each.text for each in sheet.drawing.elements if isinstance(each, Label | Dimension | Ring)]
        texts += [(f"{sheet.name}: {text}", text) for text in (sheet.title, sheet.of, *said)]
    return {bare(text): where for where, text in texts if bare(text)}


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", list(FORMS))
def test_the_sheets_of_every_form_speak_the_language(form):
    assert not told(Project(Piece(form, name="1")))
    assert not not_in_the_catalogue()


@pytest.mark.sampled(3)
@pytest.mark.parametrize("form", ["case", "table"])
def test_sheets_in_inches_speak_the_language(form):
    assert not told(Project(Piece(form, name="1"), marks=Marks(Unit.INCH)))


@pytest.mark.dear
def test_the_sheets_of_the_sample_speak_the_language():
    assert not told(seed_cabinet())
    assert not not_in_the_catalogue()
