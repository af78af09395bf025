"""A card keeps its widgets: whatever was shown before, it looks as if it were the first."""

import re
from random import Random

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import QApplication, QLabel, QPushButton

from nullah.core import actions
from nullah.core.card import Setting
from nullah.core.lengths import Marks, Unit, mm
from nullah.core.plan import work_out
from nullah.core.refs import QuantityRef
from nullah.core.stations import STATIONS, Selection
from nullah.core.wording.card import WordedCard, worded
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.card import CardView
from nullah.desk.theme import dress
from nullah.paper.palette import DAY


@pytest.fixture(scope="module")
def cards():
    narrow = actions.give(seed_cabinet(), "case.outside_width", mm(60))
    plans = [work_out(project) for project in (seed_cabinet(), seed_box(), narrow)]
    return [worded(station.card(plan, Selection()), plan.reader) for plan in plans for station in STATIONS]


def shown(qtbot, cards):
    view = CardView()
    qtbot.addWidget(view)
    view.resize(318, 600)
    # Where it only just fits, a bar that is there stays, and one that is not does not come.
    view.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOn)
    view.show()
    for card in cards:
        view.show_card(card)
    QApplication.processEvents()
    return view


def as_it_looks(view):
    """Return what stands where on a card, from its head down."""
    body = view.widget()
    found = [each for kind in (QLabel, QPushButton) for each in body.findChildren(kind) if each.isVisibleTo(body)]
    places = [QRect(each.mapTo(body, QPoint()), each.size()).getRect() for each in found]
    told = [(each.text(), each.accessibleName(), each.font().pixelSize(), each.font().bold()) for each in found]
    return sorted(zip(places, told, strict=True), key=lambda each: (each[0][1], each[0][0]))


def longer(card):
    """Return a card of the same lines that say twice as much."""
    noted = tuple(each._replace(note=f"{each.note} {each.note}".strip()) for each in card.set)
    mark, why = (tuple(f"{each} {each}" for each in said) for said in (card.mark, card.why))
    return card._replace(set=noted, mark=mark, why=why)


@pytest.mark.dear
def test_it_looks_the_same_after_any_others(qtbot, cards):
    dress(QApplication.instance(), DAY)
    view = shown(qtbot, [])
    for card in Random(7).sample(cards, len(cards)):
        for said in (card, longer(card), card):
            view.show_card(said)
            QApplication.processEvents()
            again, alone = as_it_looks(view), as_it_looks(shown(qtbot, [said]))
            assert again == alone, said.title
            assert all(wide > 0 and high > 0 for (_, _, wide, high), _ in again)


def test_the_keyboard_goes_through_its_figures_from_its_head_down(qtbot):
    short = Setting("Gauge", "17 mm", ref=QuantityRef("sides.thickness"))
    long = Setting("Saw out", "440.5 × 230.5 × 17.5 mm", ref=QuantityRef("case.outside_height"))
    cards = [WordedCard("One", (short,), (), (), ()), WordedCard("Other", (long, short), (), (), ())]
    view = shown(qtbot, cards)
    buttons = [each for each in view.widget().findChildren(QPushButton) if each.isVisibleTo(view)]
    at, chain = view, []
    while len(chain) < len(buttons):
        at = at.nextInFocusChain()
        chain += [at] if at in buttons else []
    assert [each.text().replace("\u00a0", " ") for each in chain] == [long.figure, short.figure]


def test_no_figure_is_broken_on_a_card(qtbot):
    inches = actions.show_in(seed_cabinet(), Marks(unit=Unit.INCH))
    plan, whole = work_out(inches), []
    for station in STATIONS:
        view = shown(qtbot, [worded(station.card(plan, Selection()), plan.reader)])
        for _, (text, *_) in as_it_looks(view):
            assert not re.search(r"\d[ \n](\d+/\d|mm\b|in\b)", text), text
            whole += re.findall(r"\d+\u00a0\d+/\d+", text)
    assert len(whole) > 5
