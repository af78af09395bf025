"""Memory: what is kept by its inputs is let go when it has become much, and nothing is lost by it."""

import pytest

from nullah import memory
from nullah.core.identity import grow_old, kept_by_identity, kept_by_value, let_go
from nullah.core.plan import work_out
from nullah.demo.seed_cabinet import seed_cabinet


def test_what_is_let_go_is_worked_out_again():
    calls = []

    @kept_by_value(4)
    def by_value(number):
        calls.append(("value", number))
        return [number]

    @kept_by_identity(4)
    def by_identity(things):
        calls.append(("identity", things))
        return [things]

    things = (1, 2)
    first = by_value(7), by_identity(things)
    assert by_value(7) is first[0] and by_identity(things) is first[1] and len(calls) == 2
    let_go()
    assert (by_value(7), by_identity(things)) == first and len(calls) == 4


@pytest.mark.dear
def test_a_plan_comes_out_the_same_after_all_was_let_go():
    project = seed_cabinet()
    before = work_out(project)
    let_go()
    after = work_out(project)
    assert after.assembly == before.assembly and after.boards == before.boards and after.ledger == before.ledger


@pytest.mark.parametrize(
    ("more", "done"),
    [(memory.SOME - 1, []), (memory.SOME, ["old"]), (memory.MUCH - 1, ["old"]), (memory.MUCH, ["let go", "again"])],
)
def test_what_is_let_go_hangs_on_how_much_more_is_held(more, done, monkeypatch):
    held, seen = [1000], []
    monkeypatch.setattr("sys.getallocatedblocks", lambda: held[0])
    monkeypatch.setattr(memory, "let_go", lambda: seen.append("let go"))
    monkeypatch.setattr(memory, "grow_old", lambda: seen.append("old"))
    sparing = memory.Sparing()
    sparing.look(lambda: seen.append("again"))
    assert seen == [], "the first look only says what is needed"
    held[0] += more
    sparing.look(lambda: seen.append("again"))
    assert seen == done
    # From now on it is measured from what was held then.
    seen.clear()
    held[0] += memory.MUCH - 1
    sparing.look(lambda: seen.append("again"))
    assert seen == (["old"] if "let go" in done else ["let go", "again"])


def test_what_was_asked_for_lately_stays_while_the_rest_grows_old():
    calls = []

    @kept_by_identity(4)
    def total(numbers):
        calls.append(numbers)
        return sum(numbers)

    used, left = (1, 2), (3, 4)
    for _ in range(3):
        total(used)
        grow_old()
    assert calls == [used], "asked for between any two times"
    total(left)
    grow_old()
    total(left)
    assert calls == [used, left], "it grew old once, and was asked for again"
    grow_old()
    grow_old()
    total(left)
    assert calls == [used, left, left]


def test_no_more_is_kept_than_is_said_and_the_oldest_goes():
    calls = []

    @kept_by_identity(2)
    def total(numbers):
        calls.append(numbers)
        return sum(numbers)

    things = [(1, 2), (3, 4), (5, 6)]
    for each in things:
        total(each)
    total(things[2])
    total(things[1])
    assert calls == things
    total(things[0])
    assert calls == [*things, things[0]]
