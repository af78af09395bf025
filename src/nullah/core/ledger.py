"""The ledger: quantities that know why.

Every dimension of a piece is *given*, *worked out* from others by an exact rule, or
*measured*; a measurement overrules and flows on. A quantity may *fit* others: it has a
value to plan with, but none to cut to until those have been measured.

The ledger answers four questions: what is it now (`quantity`), why (`leads_to`), what hangs on
it (`hangs_on`), and what is it waiting for (`waits_for`).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from enum import Enum
from functools import partial
from types import MappingProxyType

from nullah.core.catalogue import N_
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import LastOfName, kept_by_identity
from nullah.core.lengths import Entry, Length, Marks, Slope, Weight, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.rules import Circle, LedgerError, NotDeclared, NotGiven, WrongKind, evaluate, names_in

#: What a person may give or measure: a length, a count, a slope, a weight.
Value = Length | int | Slope | Weight


class QuantityKind(Enum):
    """What sort of figure a quantity is."""

    LENGTH = N_("length")
    COUNT = N_("count")
    SLOPE = N_("slope")
    WEIGHT = N_("weight")


class Origin(Enum):
    """Where a figure comes from; the value is what the desk shows."""

    GIVEN = N_("given")
    WORKED_OUT = N_("worked out")
    OVERRULED = N_("overruled")
    MEASURED = N_("measured")
    WAITS = N_("wait for a measurement")
    FITTED = N_("fitted")


class Measured(NamedTuple):
    """What was measured at the bench: the value, the day (ISO, ``2026-11-23``), and by what (``with the rule``)."""

    value: Value
    on: str = ""
    by: str = ""


class Change(NamedTuple):
    """A quantity that is another figure after something was given or measured."""

    name: str
    before: Quantity
    after: Quantity


class Snap(Enum):
    """What a figure that nobody typed is put on."""

    NOTHING = "nothing"
    MARK = "mark"
    CHISEL = "chisel"
    IRON = "iron"
    BIT = "bit"
    #: What leaves enough only where it is no more: the next mark or iron below.
    MARK_BELOW = "mark below"
    IRON_BELOW = "iron below"
    #: A count: no fewer than what its rule makes of it.
    WHOLE = "whole"


class Snapping(NamedTuple):
    """What there is to put figures on, mm: the smallest mark of the rule, chisels, the plough's irons, bits.

    Examples
    --------
    >>> there = Snapping(Fraction(1, 2), chisels=(Fraction(6), Fraction(10)))
    >>> there.snapped(Fraction(20, 3), Snap.MARK), there.snapped(Fraction(20, 3), Snap.CHISEL)
    (Fraction(13, 2), Fraction(6, 1))
    >>> there.snapped(Fraction(35, 6), Snap.MARK), there.snapped(Fraction(35, 6), Snap.MARK_BELOW)
    (Fraction(6, 1), Fraction(11, 2))
    """

    mark: Fraction
    chisels: tuple[Fraction, ...] = ()
    irons: tuple[Fraction, ...] = ()
    bits: tuple[Fraction, ...] = ()

    def snapped(self, value: Fraction, to: Snap) -> Fraction:
        """Return the nearest figure that a hand can set; never nothing of something.

        Parameters
        ----------
        value : Fraction
            mm.
        to : Snap
            What it is put on.
        """
        sizes = {Snap.CHISEL: self.chisels, Snap.BIT: self.bits}
        tools = self.irons if to in (Snap.IRON, Snap.IRON_BELOW) else sizes.get(to, ())
        below = to in (Snap.MARK_BELOW, Snap.IRON_BELOW)
        if to is Snap.NOTHING or value <= 0:
            return value
        if tools and below:
            return max((size for size in tools if size <= value), default=min(tools))
        if tools:
            return min(tools, key=lambda size: (abs(size - value), size))
        return max(math.floor(value / self.mark + (0 if below else Fraction(1, 2))), 1) * self.mark


class Definition(NamedTuple):
    """One quantity a form declares.

    Parameters
    ----------
    name : str
        Dotted, such as ``bottom.length``.
    title : str
        In the trade's words, such as ``length of the bottom``.
    rule : str
        Exact expression over other names (``+ - * /``, ``min``, ``max``, whole numbers), in
        millimetres for lengths. Empty: must be given.
    default : Value, optional
        What is given when the user has given nothing.
    fits : tuple of str
        Names that must be measured before this one may be cut to.
    snap : Snap
        What it is put on where nobody typed it: a free choice that is set by a rule or a tool. All
        that follows uses that figure.
    """

    name: str
    title: str
    rule: str = ""
    default: Value | None = None
    kind: QuantityKind = QuantityKind.LENGTH
    fits: tuple[str, ...] = ()
    snap: Snap = Snap.NOTHING


def given(
    name: str, title: str, default: Value | str | int, kind: QuantityKind = QuantityKind.LENGTH, snap: Snap = Snap.MARK
) -> Definition:
    """Declare a quantity that the user gives; a bare number is mm, a count, or kg.

    The usual length is put on the rule's marks: gaps, clearances and hardware as it is bought are not.

    Parameters
    ----------
    name : str
        Its id.
    title : str
        What it is called.
    default : Value or str or int
        A length, a rule, or mm, a count or kg.
    kind : QuantityKind
        What sort of figure.
    snap : Snap
        What the usual one is put on.
    """
    if kind is not QuantityKind.LENGTH:
        return Definition(name, title, default=default, kind=kind)  # type: ignore[arg-type]
    length = default if isinstance(default, Length) else mm(default)  # type: ignore[arg-type]
    return Definition(name, title, default=length, snap=snap)


def ruled(
    name: str,
    title: str,
    rule: str,
    fits: tuple[str, ...] = (),
    kind: QuantityKind = QuantityKind.LENGTH,
    snap: Snap = Snap.NOTHING,
) -> Definition:
    """Declare a quantity that is worked out from others; where it is a free choice, put on what `snap` says."""
    return Definition(name, title, rule, kind=kind, fits=fits, snap=snap)


class Quantity(NamedTuple):
    """A figure and where it comes from. `value` is in mm, a count, the run of a slope, or kg.

    `exact` is what its rule makes of it, where that was put on a mark or a tool. `fits` are the names that must be
    measured before it may be cut to: those its definition declares, and those of all that it is worked out from.
    """

    definition: Definition
    value: Fraction
    origin: Origin
    entered: Value | None = None
    planned: Fraction | None = None
    reading: Measured | None = None
    exact: Fraction | None = None
    fits: tuple[str, ...] = ()

    @property
    def length(self) -> Length:
        """The value as a length, as typed where it was typed."""
        return self.entered if isinstance(self.entered, Length) else Length(self.value)

    def write_to_edit(self, marks: Marks, unit: bool = True) -> str:
        """Return what a field for it is to hold: what was typed, in its own unit and words; else to the mark.

        Where not `unit`, the unit is left out if it is the one shown.
        """
        typed = isinstance(self.entered, Entry) and (unit or self.entered.unit is not marks.unit)
        return marks.write_to_edit(self.length) if typed else self.write(marks, unit)

    def write(self, marks: Marks, unit: bool = True) -> str:
        """Write the value as people at the bench read it; on drawings without its unit."""
        if self.definition.kind is QuantityKind.COUNT:
            return str(self.value)
        if self.definition.kind is QuantityKind.SLOPE:
            return Slope(self.value).as_text()
        if self.definition.kind is QuantityKind.WEIGHT:
            if isinstance(self.entered, Weight) and self.entered.text.endswith(marks.style.weight.suffix):
                return self.entered.text
            return marks.write_weight(float(self.value))
        return marks.write_entered(self.length, unit)


class Ledger(FrozenRecord):
    """All quantities of a piece, worked out. Made by `work_out_ledger`. `uses` are the names that each rule uses."""

    quantities: Mapping[str, Quantity]
    uses: Mapping[str, tuple[str, ...]]

    def __getitem__(self, name: str) -> Fraction:
        return self.quantities[name].value

    def quantity(self, name: str) -> Quantity:
        """Return the quantity of that name, or raise `KeyError`."""
        return self.quantities[name]

    def length(self, name: str) -> Length:
        """Return the value to plan with, as a length."""
        return self.quantities[name].length

    def waits_for(self, name: str) -> tuple[str, ...]:
        """Return the names that must be measured before `name` may be cut to; empty if none."""
        quantity = self.quantities[name]
        if quantity.origin is not Origin.WAITS:
            return ()
        return tuple(other for other in quantity.fits if self.quantities[other].origin is not Origin.MEASURED)

    def made_before(self, name: str) -> tuple[str, ...]:
        """Return what a quantity is worked out from as it was designed: it is made before that is measured."""
        if self.quantities[name].fits:
            return ()
        cut_to = {each for quantity in self.quantities.values() for each in quantity.definition.fits}
        uses = (each for each in self.uses.get(name, ()) if each in cut_to)
        return tuple(each for each in uses if self.quantities[each].origin is Origin.MEASURED)

    def hangs_on(self, name: str) -> tuple[str, ...]:
        """Return every name that changes when `name` does, in the order of the form."""
        touched = {name}
        found = True
        while found:
            more = {n for n, uses in self.uses.items() if n not in touched and touched & set(uses)}
            found = bool(more)
            touched |= more
        return tuple(n for n in self.quantities if n in touched and n != name)

    def changes(self, after: Ledger) -> tuple[Change, ...]:
        """Return what is another figure, or settled another way, in a later ledger; in the order of the form."""
        return tuple(
            Change(name, self.quantities[name], quantity)
            for name, quantity in after.quantities.items()
            if name in self.quantities
            and (self.quantities[name].value, self.quantities[name].origin) != (quantity.value, quantity.origin)
        )

    def leads_to(self, name: str) -> tuple[str, ...]:
        """Return a quantity and, each once, all it was worked out from, back to what was given or measured."""
        found: dict[str, None] = {}

        def follow(current: str) -> None:
            if current not in found:
                found[current] = None
                for used in self.uses[current]:
                    follow(used)

        follow(name)
        return tuple(found)


def work_out_ledger(
    definitions: tuple[Definition, ...],
    given: Mapping[str, Value],
    measured: Mapping[str, Value | Measured],
    snapping: Snapping | None = None,
) -> Ledger:
    """Work out every quantity.

    What is measured to cut other things to it changes only those, and what is worked out from them: all else is made
    by then, as designed.

    Parameters
    ----------
    definitions : tuple of Definition
        What the form declares.
    given, measured : mapping of name to value
        What the user gave (which overrules a rule) and what was measured (which overrules both,
        and may say when and by what).
        Names that no definition knows are passed over: they belong to another choice of the form.
    snapping : Snapping, optional
        What free choices are put on; None leaves them as they are.

    Raises
    ------
    LedgerError
        For rules that use each other in a circle, use an unknown name, or divide by nothing.

    Examples
    --------
    >>> rules = (Definition("side", "the side"), Definition("all", "all round", "4 * side"))
    >>> work_out_ledger(rules, {"side": Length(Fraction(5))}, {})["all"]
    Fraction(20, 1)
    """
    cut_to = {name for definition in definitions for name in definition.fits}
    left = {name: value for name, value in measured.items() if name not in cut_to}
    designed = work_out_ledger(definitions, given, left, snapping) if len(left) < len(measured) else None
    return _Settling(definitions, given, measured, snapping, designed).ledger()


class _Settling:
    """Settles the quantities of a piece, each once; those on which nothing hangs that changed are as they were."""

    def __init__(
        self,
        definitions: tuple[Definition, ...],
        given: Mapping[str, Value],
        measured: Mapping[str, Value | Measured],
        snapping: Snapping | None,
        designed: Ledger | None,
    ) -> None:
        self._by_name = {definition.name: definition for definition in definitions}
        self._given, self._measured, self._snapping, self._designed = given, measured, snapping, designed
        self._uses: dict[str, tuple[str, ...]] = {
            d.name: () if _replaced(d, given, measured) else names_in(d.rule) for d in definitions
        }
        self._run = _Run(definitions, given, measured, snapping)
        self._values: dict[str, Quantity] = self._run.untouched(_LAST_RUN.found(designed is None))
        self._under_way: list[str] = []

    def ledger(self) -> Ledger:
        """Settle all of them, and return them in the order of the form."""
        for name in self._by_name:
            self._settle(name)
        in_order = {name: self._values[name] for name in self._by_name}
        found = Ledger(MappingProxyType(in_order), MappingProxyType(self._uses))
        _LAST_RUN.keep(self._designed is None, (self._run, found))
        return found

    def _settle(self, name: str) -> Fraction:
        if name in self._values:
            return self._values[name].value
        if name in self._under_way:
            raise LedgerError(Circle((*self._under_way[self._under_way.index(name) :], name)))
        if name not in self._by_name:
            raise LedgerError(NotDeclared(name))
        self._under_way.append(name)
        try:
            for used in self._uses[name]:
                self._settle(used)
            self._values[name] = self._as_designed(self._by_name[name])
        finally:
            self._under_way.pop()
        return self._values[name].value

    def _as_designed(self, definition: Definition) -> Quantity:
        """Return a quantity as it was designed, where it waits for nothing that is measured."""
        # What is cut to something waits for that, which comes after all that this waits for.
        inherited = tuple(each for used in self._uses[definition.name] for each in self._values[used].fits)
        fits = () if _replaced(definition, self._given, self._measured) else definition.fits or inherited
        if self._designed is not None and not fits and definition.name not in self._measured:
            return self._designed.quantities[definition.name]
        return self._as_before(definition, tuple(dict.fromkeys(fits)))

    def _as_before(self, definition: Definition, fits: tuple[str, ...]) -> Quantity:
        """Return the very quantity there was before, where all that it hangs on is as it was."""
        name = definition.name
        key = name, self._designed is None
        known = _SETTLED.found(key)
        if known is not None and known.quantity.definition is not definition:
            known = None
        inputs = (
            *(self._snapping, self._given.get(name), self._measured.get(name)),
            *(other in self._measured for other in fits),
        )
        used = tuple(self._values[each] for each in self._uses[name])
        # What a rule would make of it that is overruled hangs on more than what it uses.
        overruled = bool(definition.rule) and _replaced(definition, self._given, self._measured)
        if known is not None and not overruled and known.inputs == inputs and _very_same(known.used, used):
            return known.quantity
        quantity = self._worked_out(definition, fits)
        if known is not None and known.quantity == quantity:
            quantity = known.quantity
        _SETTLED.keep(key, _Settled(inputs, used, quantity))
        return quantity

    def _worked_out(self, definition: Definition, fits: tuple[str, ...]) -> Quantity:
        name, given, measured, snapping = definition.name, self._given, self._measured, self._snapping
        for value in (given.get(name), measured.get(name)):
            _refuse_other_kind(definition, value)

        def free(value: Fraction) -> Fraction:
            if definition.snap is Snap.WHOLE:
                return Fraction(math.ceil(value))
            return snapping.snapped(value, definition.snap) if snapping else value

        planned = _planned(definition, given, self._settle)
        put = planned if planned is None or name in given else free(planned)
        would_be = partial(_would_be, definition, self._settle, free)
        quantity = _settled(definition, given, measured, put, would_be, fits)
        return quantity if put == planned else quantity._replace(exact=planned)


class _Run(NamedTuple):
    """All that the quantities of a piece hang on."""

    definitions: tuple[Definition, ...]
    given: Mapping[str, Value]
    measured: Mapping[str, Value | Measured]
    snapping: Snapping | None

    def untouched(self, last: tuple[_Run, Ledger] | None) -> dict[str, Quantity]:
        """Return the quantities of the last run that hang on nothing that changed: most of hundreds."""
        if last is None:
            return {}
        run, settled = last
        if run.definitions is not self.definitions or (run.snapping, run.measured) != (self.snapping, self.measured):
            return {}
        touched = {name for name in {*run.given, *self.given} if run.given.get(name) != self.given.get(name)}
        used_by, to_follow = _used_by(self.definitions), list(touched)
        while to_follow:
            more = used_by.get(to_follow.pop(), frozenset()) - touched
            touched |= more
            to_follow += more
        return {name: quantity for name, quantity in settled.quantities.items() if name not in touched}


@kept_by_identity(4)
def _used_by(definitions: tuple[Definition, ...]) -> dict[str, frozenset[str]]:
    """Return which quantities have a name in their rule. One that is overruled tells what its rule would make of it."""
    found: dict[str, set[str]] = {}
    for definition in definitions:
        for name in names_in(definition.rule) if definition.rule else ():
            found.setdefault(name, set()).add(definition.name)
    return {name: frozenset(users) for name, users in found.items()}


#: The last run and what came of it, as designed and as measured.
_LAST_RUN: LastOfName[tuple[_Run, Ledger]] = LastOfName(2)


class _Settled(NamedTuple):
    """A quantity, what it was settled by besides other quantities, and those that its rule uses."""

    inputs: tuple[object, ...]
    used: tuple[Quantity, ...]
    quantity: Quantity


def _very_same(some: tuple[Quantity, ...], others: tuple[Quantity, ...]) -> bool:
    return len(some) == len(others) and all(one is other for one, other in zip(some, others, strict=True))


#: The quantities that were settled last, as designed and as measured: a figure settles only what hangs on it.
_SETTLED: LastOfName[_Settled] = LastOfName(4096)

#: A bare number is a load in kg: so older files have it, and so forms say what is usual.
_TYPES = {
    QuantityKind.LENGTH: Length,
    QuantityKind.COUNT: int,
    QuantityKind.SLOPE: Slope,
    QuantityKind.WEIGHT: Weight | int,
}


def _refuse_other_kind(definition: Definition, value: Value | Measured | None) -> None:
    """Raise `LedgerError` for a figure of another kind than its quantity; a file may hold one."""
    figure = value.value if isinstance(value, Measured) else value
    if figure is not None and not isinstance(figure, _TYPES[definition.kind]):
        raise LedgerError(WrongKind(definition.name, definition.kind.value))


def _replaced(definition: Definition, given: Mapping[str, Value], measured: Mapping[str, Value | Measured]) -> bool:
    return definition.name in measured or definition.name in given or not definition.rule


def _planned(definition: Definition, given: Mapping[str, Value], settle: Callable[[str], Fraction]) -> Fraction | None:
    """Return the value that would stand without a measurement, or None if nothing gives one."""
    entered = given.get(definition.name)
    if entered is not None:
        return as_fraction(entered)
    if definition.rule:
        return evaluate(definition.rule, settle)
    return as_fraction(definition.default) if definition.default is not None else None


def _settled(
    definition: Definition,
    given: Mapping[str, Value],
    measured: Mapping[str, Value | Measured],
    planned: Fraction | None,
    would_be: Callable[[], Fraction | None],
    fits: tuple[str, ...],
) -> Quantity:
    name = definition.name
    if name in measured:
        found = measured[name]
        reading = found if isinstance(found, Measured) else Measured(found)
        return Quantity(definition, as_fraction(reading.value), Origin.MEASURED, reading.value, planned, reading)
    if planned is None:
        raise LedgerError(NotGiven(name))
    if name in given:
        if not definition.rule:
            return Quantity(definition, planned, Origin.GIVEN, given[name])
        return Quantity(definition, planned, Origin.OVERRULED, given[name], would_be())
    if not definition.rule:
        usual = definition.default
        return Quantity(definition, planned, Origin.GIVEN, usual if usual and as_fraction(usual) == planned else None)
    if fits:
        settled = all(other in measured for other in fits)
        return Quantity(definition, planned, Origin.FITTED if settled else Origin.WAITS, fits=fits)
    return Quantity(definition, planned, Origin.WORKED_OUT)


def _would_be(
    definition: Definition, settle: Callable[[str], Fraction], free: Callable[[Fraction], Fraction]
) -> Fraction | None:
    """Return what an overruled quantity's rule would make of it; None where that cannot be said now."""
    try:
        return free(evaluate(definition.rule, settle))
    except LedgerError:
        return None


def as_fraction(value: Value) -> Fraction:
    """Return the bare number: mm of a length, a count, the run of a slope, kg of a weight."""
    if isinstance(value, Length):
        return value.mm
    if isinstance(value, Slope):
        return value.run
    if isinstance(value, Weight):
        return value.kilograms
    return Fraction(value)


class WrongValue(FrozenRecord):
    """A length that cannot be what it was given for; `zero` says whether 0 could."""

    value: Length
    zero: bool


def wrong_value(name: str, kind: QuantityKind, value: Value) -> WrongValue | None:
    """Return why a figure cannot be, or None: no length of a piece is zero or less, but these may be."""
    if kind is not QuantityKind.LENGTH or not isinstance(value, Length) or name.endswith(_ANY):
        return None
    may_be_nothing = name.endswith(_NOTHING)
    if value.mm < 0 or (value.mm == 0 and not may_be_nothing):
        return WrongValue(value, may_be_nothing)
    return None


# Figures that may be anything, and those that may be nothing, by the end of their name.
_ANY = ("proud", "lid.over", ".x", ".y", ".z")
_NOTHING = (
    "clearance",
    "half_pin",
    ".pin",
    "setback",
    "gap",
    "reveal",
    "drop",
    "step",
    "over",
    "shift",
    "taper",
    "chamfer",
    "radius",
    "rise",
    "notch",
    "stop",
    "splay",
)
