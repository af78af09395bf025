"""What belongs to the person and not to a piece: the tools there are, and the habits of working.

A project carries a copy, so that it comes out the same wherever it is opened.
"""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace
from typing import NamedTuple

from nullah.core.bench.hours import Hours
from nullah.core.bench.working import Working
from nullah.core.breakdown.rough import Allowances
from nullah.core.lengths import Length
from nullah.core.project import Project
from nullah.core.shop import Shop


class MyShop(NamedTuple):
    """The tools, what is left for saw and plane, the bench hours, and with what glue-ups are done."""

    shop: Shop = Shop()
    allowances: Allowances = Allowances()
    hours: Hours = Hours()
    clamps: int = Working().clamps
    people: int = Working().people


def shop_of(project: Project) -> MyShop:
    """Return the shop that a project is planned with."""
    working = project.working
    return MyShop(project.shop, project.allowances, working.hours, working.clamps, working.people)


def same_shop(one: MyShop, other: MyShop) -> bool:
    """Return whether two shops are the same to the last figure, however their lengths were typed."""
    return _figures(one) == _figures(other)


def _figures(value: object) -> object:
    if isinstance(value, Length):
        return value.mm
    if isinstance(value, tuple):
        return tuple(map(_figures, value))
    if is_dataclass(value):
        return tuple(_figures(getattr(value, field.name)) for field in fields(value))
    return value


def planned_with(project: Project, mine: MyShop) -> Project:
    """Return the project planned with a shop."""
    working = project.working._replace(hours=mine.hours, clamps=mine.clamps, people=mine.people)
    return replace(project, shop=mine.shop, allowances=mine.allowances, working=working)
