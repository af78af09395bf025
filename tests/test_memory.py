"""Memory: what is kept by its inputs is let go when it has become much, and nothing is lost by it."""

import pytest

from nullah import memory
from nullah.core.identity import kept_by_identity, kept_by_value, let_go
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


@pytest.mark.parametrize(("more", "gone"), [(memory._MORE - 0.1, False), (memory._MORE, True)])
def test_it_is_let_go_once_so_much_more_is_held(more, gone, monkeypatch):
    held, done = [100.0], []
    monkeypatch.setattr(memory, "resident", lambda: held[0])
    monkeypatch.setattr(memory, "let_go", lambda: done.append("let go"))
    sparing = memory.Sparing()
    sparing.look(lambda: done.append("again"))
    assert done == [], "the first look only says what is needed"
    held[0] += more
    sparing.look(lambda: done.append("again"))
    assert done == (["let go", "again"] if gone else [])
    # From now on it is measured from what was held then.
    held[0] += memory._MORE - 0.1
    done.clear()
    sparing.look(lambda: done.append("again"))
    assert done == ([] if gone else ["let go", "again"])


def test_a_process_knows_what_it_holds():
    before = memory.resident()
    much = bytearray(b"x" * 30_000_000)
    assert memory.resident() - before > 20 and len(much) == 30_000_000
