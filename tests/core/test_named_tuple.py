"""Our named tuples do what those of the standard library do."""

import copy
import inspect
import pickle
import typing

import pytest

from nullah.core import named_tuple


def kinds(base):
    """Return a kind of tuple, one with a method and defaults, and one below it, all below `base`."""

    class Spot(base):
        x: float
        y: float

    class Named(base):
        name: str
        x: float = 1.0
        y: float = 2.0

        @property
        def far(self):
            return self.x + self.y

    class Below(Named):
        def twice(self):
            return self.far * 2

    class Least(Below):
        pass

    return Spot, Named, Below, Least


Ours = kinds(named_tuple.NamedTuple)
Theirs = kinds(typing.NamedTuple)
both = pytest.mark.parametrize(("ours", "theirs"), list(zip(Ours, Theirs, strict=True)))

Sent = Ours[1]
Sent.__qualname__ = "Sent"

GIVEN = [(), ("a",), ("a", 5), (4.0, 5.0), ("a", 5, 6), ("a", 5, 6, 7)]
NAMED = [{}, {"name": "b"}, {"y": 7.0}, {"x": 3.0, "y": 7.0}, {"z": 1}]


def outcome(work):
    try:
        return work()
    except TypeError:
        return TypeError


def as_plain(found):
    return found if found is TypeError else (tuple(found), found._asdict(), repr(found), hash(found), len(found))


@both
@pytest.mark.parametrize("given", GIVEN)
@pytest.mark.parametrize("named", NAMED, ids=str)
def test_they_take_and_refuse_the_same(ours, theirs, given, named):
    mine, other = (outcome(lambda kind=kind: kind(*given, **named)) for kind in (ours, theirs))
    assert as_plain(mine) == as_plain(other)
    if mine is not TypeError:
        assert mine == other == tuple(mine)
        assert as_plain(mine._replace(y=9.0)) == as_plain(other._replace(y=9.0))
        assert all(getattr(mine, name) == getattr(other, name) for name in ours._fields)


@both
def test_their_kinds_say_the_same_of_themselves(ours, theirs):
    for of_kind in ("_fields", "_field_defaults", "__match_args__", "__name__"):
        assert getattr(ours, of_kind) == getattr(theirs, of_kind)
    assert issubclass(ours, tuple)
    taken, wanted = (
        [(each.name, each.kind, each.default) for each in inspect.signature(kind).parameters.values()]
        for kind in (ours, theirs)
    )
    assert taken == wanted


def test_a_kind_below_another_has_its_fields_and_its_own_ways():
    assert [kind("a", 2.0, 3.0).twice() for kind in (Ours[2], Ours[3])] == [10.0, 10.0]


def test_a_tuple_cannot_be_changed_and_holds_nothing_besides():
    spot = Ours[0](1.0, 2.0)
    for name in ("x", "z"):
        with pytest.raises(AttributeError):
            setattr(spot, name, 3.0)
    with pytest.raises(TypeError):
        spot._replace(z=3.0)
    with pytest.raises(TypeError):
        Ours[0]._make([1.0])
    assert Ours[0]._make([1.0, 2.0]) == spot


def test_it_is_copied_sent_and_taken_apart():
    there = Sent("a", 5.0)
    assert pickle.loads(pickle.dumps(there)) == copy.deepcopy(there) == there
    assert type(pickle.loads(pickle.dumps(there))) is Sent
    match there:
        case Sent(name, x, y=y):
            assert (name, x, y) == ("a", 5.0, 2.0)
        case _:
            pytest.fail("it is not taken apart")
