"""What belongs to the person and not to a piece: the tools there are, and the habits of working.

A project carries a copy, so that it comes out the same wherever it is opened.
"""

from __future__ import annotations

from dataclasses import fields, is_dataclass, replace

from nullah.core.bench.hours import Hours
from nullah.core.bench.working import Working
from nullah.core.breakdown.rough import Allowances
from nullah.core.lengths import Length, Unit, entered, inch, round_size, style_of
from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Project
from nullah.core.shop import Shop


class MyShop(NamedTuple):
    """The tools, what is left for saw and plane, the bench hours, and with what glue-ups are done."""

    shop: Shop = Shop()
    allowances: Allowances = Allowances()
    hours: Hours = Hours()
    clamps: int = Working().clamps
    people: int = Working().people


#: Tools as they are sold in inches (practice, no published source).
_INCH_CHISELS = ("1/8", "1/4", "3/8", "1/2", "3/4", "1")
_INCH_BITS = ("1/16", "5/64", "3/32", "1/8", "5/32", "3/16", "1/4", "5/16", "3/8", "1/2", "5/8")
_INCH_IRONS = ("1/8", "3/16", "1/4", "5/16", "3/8", "1/2")


def usual_shop(unit: Unit) -> MyShop:
    """Return the shop of somebody who thinks in a unit: its tools as they are sold, its figures as they are said in it.

    Examples
    --------
    >>> usual_shop(Unit.INCH).shop.chisels[1].mm == inch("1/4").mm
    True
    """
    usual = MyShop()
    if not style_of(unit).fractions:
        return usual

    def said(length: Length) -> Length:
        return entered(round_size(length, unit), unit)

    def sold(sizes: tuple[str, ...]) -> tuple[Length, ...]:
        return tuple(entered(inch(size), unit) for size in sizes)

    shop, left = usual.shop, usual.allowances
    planes = (plane._replace(sole=said(plane.sole), iron=said(plane.iron)) for plane in shop.planes)
    tools = replace(
        shop,
        chisels=sold(_INCH_CHISELS),
        bits=sold(_INCH_BITS),
        plough_irons=sold(_INCH_IRONS),
        planes=tuple(planes),
        kerf=said(shop.kerf),
        narrowest_pin=said(shop.narrowest_pin),
        plough_deepest=said(shop.plough_deepest),
        saw_deepest=said(shop.saw_deepest),
    )
    allowances = Allowances(said(left.end), said(left.edge), said(left.thickness), said(left.joint))
    return usual._replace(shop=tools, allowances=allowances)


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
