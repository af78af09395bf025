"""A card keeps its widgets: whatever was shown before, it looks as if it were the first."""

from random import Random

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import QApplication, QLabel, QPushButton

from nullah.core import actions
from nullah.core.lengths import mm
from nullah.core.plan import work_out
from nullah.core.stations import STATIONS, Selection
from nullah.core.wording.card import worded
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


def test_it_looks_the_same_after_any_others(qtbot, cards):
    dress(QApplication.instance(), DAY)
    order = Random(7).sample(range(len(cards)), len(cards))
    before = []
    for number in order:
        before.append(cards[number])
        again, alone = as_it_looks(shown(qtbot, before)), as_it_looks(shown(qtbot, [cards[number]]))
        assert again == alone, cards[number].title
        assert all(wide > 0 and high > 0 for (_, _, wide, high), _ in again)


def test_the_keyboard_goes_through_its_figures_from_its_head_down(qtbot, cards):
    view = shown(qtbot, [*cards, cards[0]])
    buttons = [each for each in view.widget().findChildren(QPushButton) if each.isVisibleTo(view)]
    inward = sorted(buttons, key=lambda each: (each.mapTo(view, QPoint()).y() // 20, each.mapTo(view, QPoint()).x()))
    assert len(inward) > 3
    at, chain = inward[0], []
    while len(chain) < len(inward):
        if at in buttons:
            chain.append(at)
        at = at.nextInFocusChain()
    assert [each.accessibleName() for each in chain] == [each.accessibleName() for each in inward]
