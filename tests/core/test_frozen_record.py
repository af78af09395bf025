"""Frozen records: equal by kind and values, whole, and told from records of other kinds."""

import copy
import pickle

import pytest

from nullah.core.frozen_record import FrozenRecord
from nullah.core.refs import BoardRef, FlawRef, PartRef


def test_records_are_equal_by_kind_and_values_and_keys_of_dictionaries():
    assert PartRef("1") == PartRef(part="1") != PartRef("2")
    assert PartRef("1") != BoardRef("1") and BoardRef("1") != ("1",)
    assert {PartRef("1"): "part", BoardRef("1"): "board"} == {BoardRef("1"): "board", PartRef("1"): "part"}
    assert FlawRef(number=2, board="1") == FlawRef("1", 2) and hash(FlawRef(number=2, board="1")) == hash(
        FlawRef("1", 2)
    )


@pytest.mark.parametrize(
    ("given", "named"),
    [((), {}), (("1",), {}), (("1", 2, 3), {}), (("1",), {"board": "2", "number": 2}), (("1", 2), {"part": "3"})],
)
def test_what_is_not_given_whole_is_refused(given, named):
    with pytest.raises(TypeError, match="FlawRef takes board, number"):
        FlawRef(*given, **named)


def test_records_are_frozen_copied_and_sent_to_other_processes_as_they_are():
    ref = FlawRef("1", 2)
    for change in (lambda: setattr(ref, "number", 3), lambda: delattr(ref, "number")):
        with pytest.raises(AttributeError):
            change()
    for other in (copy.copy(ref), copy.deepcopy(ref), pickle.loads(pickle.dumps(ref))):
        assert other == ref and hash(other) == hash(ref) and repr(other) == "FlawRef(board='1', number=2)"


def test_records_are_taken_apart_by_their_fields_and_may_leave_what_has_a_value():
    class Lies(FrozenRecord):
        where: str
        turned: bool = False

    match Lies("Ford 3"):
        case Lies(where, turned):
            assert (where, turned) == ("Ford 3", False)
    assert Lies("Ford 3", True).values == ("Ford 3", True) and Lies("Ford 3") == Lies("Ford 3", False)
