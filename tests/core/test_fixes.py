"""Ways out: every kind has its words in every unit, and does what it says."""

from dataclasses import replace
from typing import get_args

import pytest

from nullah.core import actions
from nullah.core.apply_fix import action_of
from nullah.core.fixes import (
    CutOutFirst,
    CutThroughFirst,
    Fix,
    FollowRule,
    Give,
    GlueFromStaves,
    JoinParts,
    MakeAgain,
    MakeAllThinner,
    MoveGroove,
    SetOutTo,
    Shim,
    SlotScrews,
    StopChannel,
    TakeUsualSize,
)
from nullah.core.forms.own_boards import Offer, OwnJoint
from nullah.core.lengths import Marks, Unit, inch, mm
from nullah.core.piece.faults import Channel
from nullah.core.piece.joint import RowChoice
from nullah.core.reader import Reader
from nullah.core.wording.fixes import fix_words, why_again
from nullah.demo.seed_cabinet import seed_cabinet

READER = Reader(
    parts={"left": "left side", "own1": "board 1", "own2": "board 2"},
    titles={
        "dado.depth": "depth of the dados",
        "dado.width": "width of the dados",
        "sides.length": "length of the sides",
    },
)
#: One of each kind, with what it is called in millimetres and in inches.
EACH = {
    Give("dado.depth", inch("1/4")): (
        "Make the depth of the dados 6.4 mm", "Make the depth of the dados 0.250″",
    ),
    MoveGroove("groove.height", inch("1/2")): ("Put the groove at 12.5 mm", "Put the groove at 1/2″"),
    MakeAllThinner("sides.thickness", mm("15.5")): ("Make them all 15.5 mm thick", "Make them all 5/8″ thick"),
    FollowRule("dado.width"): ("Let the width of the dados follow again",) * 2,
    StopChannel("dados", "stopped"): ("Stop it where it would show",) * 2,
    SlotScrews("panel-batten"): ("Screw it in slots instead",) * 2,
    TakeUsualSize(mm(35), False): ("Take the usual nails",) * 2,
    CutOutFirst("4", "Ford 4"): ("Cut Ford 4 first",) * 2,
    CutThroughFirst("4", "Ford 4", True, mm("659.5")): ("Cut Ford 4 at 660 mm first", "Cut Ford 4 at 25 31/32″ first"),
    GlueFromStaves(("top",), 3): ("Make it of 3 staves",) * 2,
    GlueFromStaves(("top", "bottom"), 2): ("Make each of 2 staves",) * 2,
    JoinParts("own1", "own2", 1, Offer(OwnJoint("ownjoint1", "let in", "own1", "own2"), Channel.DADO)): (
        "board 2 into a dado in board 1",) * 2,
    Shim("column.width", mm("0.6")): ("Make it up with a shim of 0.6 mm", "Make it up with a shim of 0.024″"),
    SetOutTo(inch("1/16")): ("Set it out to 1.5 mm", "Set it out to 1/16″"),
    MakeAgain("left", "sides.length", mm("0.8")): ("Make left side again",) * 2,
}  # fmt: skip


def test_there_is_one_of_each_kind():
    assert {type(fix) for fix in EACH} == set(get_args(Fix))


@pytest.mark.parametrize("fix", EACH, ids=lambda fix: type(fix).__name__)
def test_each_has_its_words_in_both_units(fix):
    assert (fix_words(fix, READER), fix_words(fix, replace(READER, marks=Marks(Unit.INCH)))) == EACH[fix]


def test_why_a_part_is_made_again():
    fix = MakeAgain("left", "sides.length", mm("0.8"))
    assert why_again(fix, READER) == "length of the sides 0.8 mm short"
    assert why_again(fix, replace(READER, marks=Marks(Unit.INCH))) == "length of the sides 0.031″ short"


@pytest.mark.parametrize("fix", EACH, ids=lambda fix: type(fix).__name__)
def test_each_does_what_it_says_or_is_done_at_the_bench(fix):
    before = seed_cabinet()
    action = action_of(fix, Unit.MM)
    if isinstance(fix, Shim | MakeAgain):
        assert action is None
        return
    after = action(before)
    match fix:
        case Give(name, value) | MoveGroove(name, value) | MakeAllThinner(name, value):
            entry = dict(after.piece.given)[name]
            assert entry.mm == value.mm and entry.unit is Unit.MM and entry.text.endswith(" mm")
        case FollowRule(name):
            assert name not in dict(after.piece.given)
        case StopChannel(choice, option):
            assert dict(after.piece.choices)[choice] == option
        case SlotScrews(joint):
            assert dict(after.piece.holds)[joint] == "screwed in slots"
        case TakeUsualSize(long):
            chosen = actions.fasten(before, ("back-left", "back-right"), RowChoice(long, mm(2), number=5))
            other = actions.fasten(chosen, ("back-top",), RowChoice(long + mm(5), mm(2)))
            left = dict(action(other).piece.rows)
            assert left["back-left"] == left["back-right"] == RowChoice(number=5)
            assert left["back-top"].long == long + mm(5), "another size was chosen there"
        case CutOutFirst(board):
            assert board in after.cut_first
        case CutThroughFirst(board, _, crosswise, at):
            assert (after.first_cut(board).crosswise, after.first_cut(board).at) == (crosswise, float(at))
        case GlueFromStaves(parts, staves):
            assert {made.part: len(made.widths) for made in after.staves} == dict.fromkeys(parts, staves)
        case SetOutTo(mark):
            assert after.set_out.mm == mark.mm
        case JoinParts():
            assert after == before, "no such boards here: nothing happens"
