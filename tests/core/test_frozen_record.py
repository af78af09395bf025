"""Frozen records: equal by kind and values, whole, and told from records of other kinds."""

import copy
import os
import pickle
import subprocess
import sys
from collections.abc import Mapping
from dataclasses import MISSING, dataclass, fields, is_dataclass, replace
from functools import cached_property

import pytest

from nullah.core.frozen_record import FrozenRecord
from nullah.core.project import Piece, Project
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
    with pytest.raises(TypeError, match=r"^FlawRef\.__init__\(\) "):
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


class Cut(FrozenRecord):
    """A cut of a board."""

    board: str
    at: float = 0.0
    names: Mapping[str, str] = {}


class DeepCut(Cut):
    """A cut that is so deep."""

    deep: float = 3.0


@dataclass(frozen=True)
class StandardCut:
    """The same as a dataclass of the standard library."""

    board: str
    at: float = 0.0


@dataclass(frozen=True)
class StandardDeepCut(StandardCut):
    """The same below it."""

    deep: float = 3.0


@pytest.mark.parametrize(("ours", "standard"), [(Cut, StandardCut), (DeepCut, StandardDeepCut)])
@pytest.mark.parametrize(
    ("given", "named"), [(("1",), {}), (("1", 2.0), {}), ((), {"at": 2.0, "board": "1"}), (("1",), {"at": 5})]
)
def test_a_record_is_to_all_who_use_it_a_frozen_dataclass(ours, standard, given, named):
    mine, theirs = ours(*given, **named), standard(*given, **named)
    assert is_dataclass(ours) and is_dataclass(mine)
    known = [(each.name, each.type) for each in fields(standard)]
    assert [(each.name, each.type) for each in fields(ours) if each.name != "names"] == known
    usual = {each.name: each.default_factory() for each in fields(ours) if each.default_factory is not MISSING}
    assert usual.pop("names") == {}
    assert usual == {each.name: each.default for each in fields(standard) if each.default is not MISSING}
    other, their_other = replace(mine, at=7.5), replace(theirs, at=7.5)
    assert type(other) is ours and mine != other and (mine == other) == (theirs == their_other)
    for name in (each.name for each in fields(standard)):
        assert getattr(mine, name) == getattr(theirs, name) and getattr(other, name) == getattr(their_other, name)
    with pytest.raises(TypeError):
        replace(mine, ours=1)


def test_a_kind_below_another_has_fields_and_first_record_of_its_own():
    assert Cut("1", 2.0).values == ("1", 2.0, {}) and DeepCut("1", 2.0, deep=9.0).values == ("1", 2.0, {}, 9.0)
    assert DeepCut("1") != Cut("1") and repr(DeepCut("1")) == "DeepCut(board='1', at=0.0, names={}, deep=3.0)"
    with pytest.raises(TypeError):
        Cut("1", deep=9.0)


def test_a_hash_is_kept_and_not_sent_to_another_process():
    """The hash of a text is another one there: a record that brought its own would not be found by its equal."""
    piece = Piece(name="Chest")
    assert hash(piece) == hash(Piece(name="Chest")) and hash(piece) != hash(replace(piece, name="Box"))
    code = (
        "import pickle, sys; from nullah.core.project import Piece; piece = pickle.load(sys.stdin.buffer); "
        "print(hash(piece) == hash(Piece(name='Chest')), piece == Piece(name='Chest'))"
    )
    env = {**os.environ, "PYTHONHASHSEED": "12345"}
    told = subprocess.run([sys.executable, "-c", code], input=pickle.dumps(piece), capture_output=True, env=env)
    assert told.stdout.split() == [b"True", b"True"], told.stderr


def test_a_usual_value_is_the_same_for_all_and_cannot_be_changed():
    assert Project().piece is Project().piece and Project() == Project() and hash(Project()) == hash(Project())


def test_what_is_kept_beside_the_fields_does_not_count():
    class Long(FrozenRecord):
        length: float

        @cached_property
        def twice(self):
            return 2 * self.length

    known = Long(3.0)
    assert known.twice == 6.0 and vars(known) != vars(Long(3.0))
    assert known == Long(3.0) and hash(known) == hash(Long(3.0)) and known.values == (3.0,)
    assert repr(known) == repr(Long(3.0))
