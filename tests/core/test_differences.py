"""What differs between two states of a project: every field is noticed, and said in words."""

from dataclasses import fields, replace

import pytest

from nullah.core import actions
from nullah.core.bench.book import BookEntry, Event
from nullah.core.differences import Difference, Subject, differences
from nullah.core.forms.own_boards import OwnBoard
from nullah.core.ledger import Measured
from nullah.core.lengths import Marks, Unit, mm, read_length
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.reader import Reader
from nullah.core.shop import Shop
from nullah.core.wording.differences import difference_words
from nullah.demo.seed_box import seed_box

NOTE = BookEntry("2026-11-26T18:47", Event.NOTE, "x")
OWN = OwnBoard("", "ledge", (mm(300), mm(90), mm(18)), (mm(0), mm(0), mm(0)))

#: What is done, the fact that follows, and how it is said.
EACH = [
    (lambda p: actions.rename(p, "Twine"), (Subject.NAME, "", "Seed box", "Twine"), "name Seed box → Twine"),
    (lambda p: actions.choose(p, "lid", "hinged"), (Subject.CHOICE, "lid", "", "hinged"), "lid as usual → hinged"),
    (
        lambda p: actions.give(p, "contents.length", read_length("12 in")),
        (Subject.GIVEN, "contents.length", "340 mm", "12 in"), "length of the contents 340 mm → 12 in",
    ),
    (
        lambda p: actions.measure(p, "sides.thickness", Measured(read_length("15.8 mm"))),
        (Subject.MEASURED, "sides.thickness", "", "15.8 mm"), "thickness of front and back measured: not yet → 15.8 mm",
    ),
    (
        lambda p: actions.remove_board(p, p.boards[0].id), (Subject.BOARD, "1", "Ford 1", ""), "board Ford 1 removed",
    ),
    (lambda p: actions.add_own(p, OWN), (Subject.OWN_BOARD, "own1", "", "ledge"), "board ledge added"),
    (lambda p: replace(p, book=(NOTE,)), (Subject.BOOK, "", "0", "1"), "Day Book 0 → 1 entries"),
    (lambda p: replace(p, shop=Shop(kerf=mm(2))), (Subject.REST, "shop", "", ""), "tools and ways of working"),
]  # fmt: skip


@pytest.mark.parametrize(("act", "fact", "said"), EACH, ids=[each[2] for each in EACH])
def test_each_is_a_fact_and_is_said(act, fact, said):
    before = seed_box()
    after = act(before)
    assert Difference(*fact) in differences(before, after)
    assert said in difference_words(before, after, work_out(after, milling=False, proving=False).ledger, Reader())
    assert differences(after, before), "and back"


def test_the_same_in_other_words_is_a_difference_and_the_same_is_none():
    inches = actions.give(seed_box(), "contents.length", read_length("12 in"))
    metric = actions.give(seed_box(), "contents.length", read_length("304.8 mm"))
    assert differences(inches, metric) == (Difference(Subject.GIVEN, "contents.length", "12 in", "304.8 mm"),)
    assert differences(inches, inches) == ()
    assert differences(inches, replace(inches, marks=Marks(Unit.INCH))) == (), "only shown otherwise"
    assert difference_words(inches, inches, None, Reader()) == "Nothing differs."


def test_no_field_is_passed_over():
    """Whatever field of a project or piece is another, it is a difference; but what is only of the moment."""
    silent = {"marks", "timer"}
    for kind, wrap in ((Project, lambda value: value), (Piece, lambda value: replace(seed_box(), piece=value))):
        for each in fields(kind):
            if each.name in silent or each.name == "piece":
                continue
            before = seed_box() if kind is Project else seed_box().piece
            other = frozenset({"x"}) if each.name == "cut_first" else "other" if each.name == "form" else ("other",)
            if each.name in ("boards", "own", "book", "layout", "choices", "given", "measured"):
                other = ()
            now = getattr(before, each.name)
            if now == other:
                continue
            after = replace(before, **{each.name: other})
            assert differences(wrap(before), wrap(after)), each.name


def test_much_is_cut_short():
    before, after = seed_box(), seed_box()
    for name in ("contents.length", "contents.width", "contents.height", "sides.thickness", "bottom.thickness"):
        after = actions.give(after, name, mm(99))
    assert difference_words(before, after, None, Reader()).endswith("; and 1 more")
