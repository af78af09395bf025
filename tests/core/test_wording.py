"""Every fact there is can be said, in every unit, with nothing left open in its sentence."""

from collections.abc import Mapping
from enum import Enum
from types import NoneType, UnionType
from typing import Any, Union, get_args, get_origin, get_type_hints

import pytest
from tests.told import every_operation

from nullah.core.card import Numbered
from nullah.core.errors import Fact
from nullah.core.forms.own_boards import OwnJoint
from nullah.core.fraction import Fraction
from nullah.core.joints.cautions import NoChiselAsWide, NoIronEnters
from nullah.core.lengths import Length, Marks, NoLength, Slope, Unit, mm
from nullah.core.operations.operation import Operation
from nullah.core.operations.settings import OfTool
from nullah.core.piece.facts import SetOutElsewhere
from nullah.core.piece.faults import NothingReaches, Repeated
from nullah.core.piece.joint import Joint
from nullah.core.piece.part import Part
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.reader import Reader
from nullah.core.season.swelling import Year
from nullah.core.wording import facts
from nullah.core.wording.facts import all_worders, fact_words

UNITS = list(Unit)
KINDS = sorted(all_worders(), key=lambda kind: f"{kind.__module__}.{kind.__name__}")


_MADE = {
    OwnJoint: OwnJoint("ownjoint1", "butt", "own1", "own2"),
    Year: (0.4, -0.2, *(0.1,) * 10), Fraction: Fraction(1, 2),
    Part: next(iter(work_out(Project(), milling=False, proving=False).parts)),
    Joint: next(iter(work_out(Project(), milling=False, proving=False).assembly.joints)),
}  # fmt: skip


def samples(annotation):
    """Yield values of a type: every member of an enumeration and every kind of a union, one of the rest."""
    plain = {str: "left side", int: 3, float: 2.5, Length: mm("12.7"), Slope: Slope(Fraction(7)), NoneType: None}
    if annotation in plain:
        yield plain[annotation]
    elif annotation is bool:
        yield from (True, False)
    elif annotation == Fact:
        yield "It is so."
    elif annotation is Operation:
        # What a tool is bought in stays in its own unit.
        yield from (each for each in every_operation() if not any(isinstance(s.origin, OfTool) for s in each.settings))
    elif annotation in _MADE:
        yield _MADE[annotation]
    elif get_origin(annotation) in (Union, UnionType):
        for each in get_args(annotation):
            yield from samples(each)
    elif get_origin(annotation) is tuple:
        parts = get_args(annotation)
        if parts[-1] is Ellipsis:
            one = next(samples(parts[0]))
            yield from ((one,), (one, one), (one,) * 6)
        else:
            yield tuple(next(samples(part)) for part in parts)
    elif issubclass(annotation, Enum):
        yield from annotation
    else:
        yield from facts_of(annotation)


def facts_of(kind):
    """Return facts of a kind in which every field takes each of its samples once."""
    if issubclass(kind, Enum):
        return list(kind)
    hints: Mapping[str, Any] = get_type_hints(kind)
    choices = {name: list(samples(hints[name])) for name in kind.__match_args__}
    most = max((len(each) for each in choices.values()), default=1)
    return [kind(**{name: each[n % len(each)] for name, each in choices.items()}) for n in range(most)]


#: What names sizes in the units that they are sold in, or that may be typed.
IN_ANY_UNIT = (SetOutElsewhere, NoIronEnters, NoChiselAsWide, NoLength, NothingReaches)


def test_the_module_that_says_a_fact_is_found_by_the_fact_alone(monkeypatch):
    for kind in KINDS:
        monkeypatch.setattr(facts, "_WORDERS", dict[type, object]())
        if kind not in (Repeated, Numbered):
            assert facts._worder(kind) is not None


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.__name__)
@pytest.mark.parametrize("unit", UNITS, ids=lambda unit: unit.value)
def test_every_fact_is_said_whole_in_every_unit(kind, unit):
    reader = Reader(Marks(unit))
    for fact in facts_of(kind):
        text = fact_words(fact, reader)
        assert text and not set("{}⟦⟧<>") & set(text) and "None" not in text and "  " not in text.removeprefix("3  "), (
            text
        )
        # The mark a piece is set out to stays in its own unit, and a tool is called as it was bought.
        assert unit is Unit.MM or kind in IN_ANY_UNIT or " mm" not in text, text
