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


@pytest.mark.parametrize("much", [memory.MUCH, memory.MUCH_BESIDE])
def test_what_is_let_go_hangs_on_how_much_more_is_held(much, monkeypatch):
    held, seen = [100_000], []
    monkeypatch.setattr("sys.getallocatedblocks", lambda: held[0])
    monkeypatch.setattr(memory, "let_go", lambda: seen.append("let go"))
    monkeypatch.setattr(memory, "grow_old", lambda: seen.append("old"))
    sparing = memory.Sparing(much)

    def looked(now, rests=True):
        seen.clear()
        held[0] = now
        sparing.look((lambda: seen.append("again")) if rests else None)
        return list(seen)

    assert looked(100_000) == [], "the first look only says what is needed"
    some, most = int(100_000 * memory.SOME), 100_000 + int(100_000 * much)
    assert looked(99_999 + some) == []
    assert looked(100_000 + some) == ["old"]
    assert looked(99_999 + 2 * some) == [], "not again before as much more is held"
    assert looked(100_000 + 2 * some, rests=False) == (["old"])
    assert looked(most, rests=False) in ([], ["old"]), "all is let go only at rest"
    assert "let go" not in looked(most - 1)
    assert looked(most) == ["let go", "again"]
    # From now on it is measured from what was held then.
    assert looked(most + int(most * much) - 1) == ["old"]
    assert looked(most + int(most * much) + 1) == ["let go", "again"]


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
