"""What is said of quantities: where each comes from, why rules cannot be worked out, what a figure cannot be."""

from __future__ import annotations

import ast
from collections.abc import Mapping
from types import MappingProxyType
from typing import assert_never, get_args

from nullah.core import rules
from nullah.core.catalogue import N_
from nullah.core.ledger import Ledger, Measured, Origin, Quantity, QuantityKind, Snap, Value, WrongValue, wrong_value
from nullah.core.lengths import Length
from nullah.core.reader import Reader, sentence
from nullah.core.rules import LedgerFact, dotted_name, parsed
from nullah.core.wording.worders import worders


def ledger_words(fact: LedgerFact, reader: Reader) -> str:
    """Return why the rules of a piece cannot be worked out."""
    match fact:
        case rules.RuleUnreadable(rule):
            return reader.text("The rule “{rule}” cannot be read.", rule=rule)
        case rules.RuleHolds(what):
            return reader.text("A rule may not hold “{what}”.", what=what)
        case rules.DividesByNothing(rule):
            return reader.text("“{rule}” divides by nothing.", rule=rule)
        case rules.Circle(quantities):
            return reader.text(
                "These are worked out from each other in a circle: {quantities}.", quantities=" → ".join(quantities)
            )
        case rules.NotDeclared(quantity):
            return reader.text("A rule uses “{quantity}”, which nothing declares.", quantity=quantity)
        case rules.NotGiven(quantity):
            return reader.text("{quantity} has not been given.", quantity=sentence(reader.title(quantity)))
        case rules.WrongKind(quantity, kind):
            return reader.text(
                "{quantity} is given as a figure of another kind: it is a {kind}.",
                quantity=sentence(reader.title(quantity)),
                kind=reader.text(kind),
            )
        case _:
            assert_never(fact)


def wrong_value_words(fact: WrongValue, reader: Reader) -> str:
    """Return why a figure cannot be what was typed."""
    message = (
        N_("{value} cannot be: it must be 0 or more.")
        if fact.zero
        else N_("{value} cannot be: it must be more than nothing.")
    )
    return reader.text(message, value=reader.typed(fact.value))


def refusal(name: str, kind: QuantityKind, value: Value, reader: Reader) -> str:
    """Return why a quantity cannot be given or measured as that; empty if it can."""
    wrong = wrong_value(name, kind, value)
    return wrong_value_words(wrong, reader) if wrong is not None else ""


def reading_words(reading: Measured, reader: Reader) -> str:
    """Return when something was measured and by what; empty where neither is known."""
    day = reader.text("on {day}", day=reading.on) if reading.on else ""
    return " ".join(word for word in (day, reader.text(reading.by)) if word)


def why(ledger: Ledger, name: str, reader: Reader) -> tuple[str, ...]:
    """Return the sum behind a quantity, back to what was given or measured; one sentence each."""
    return tuple(_sentence(ledger, ledger.quantity(each), reader) for each in ledger.leads_to(name))


def hanging_words(quantities: tuple[str, ...], reader: Reader) -> str:
    """Return what hangs on a quantity, in a sentence."""
    return reader.text("On it hang: {titles}.", titles=reader.listed(map(reader.title, quantities), most=6))


def _sentence(ledger: Ledger, quantity: Quantity, reader: Reader) -> str:
    definition = quantity.definition
    values = {"title": sentence(reader.title(definition.name)), "figure": quantity.write(reader.marks)}
    match quantity.origin:
        case Origin.GIVEN:
            return reader.text("{title}: {figure}, given.", **values)
        case Origin.MEASURED:
            told = reading_words(quantity.reading, reader) if quantity.reading is not None else ""
            values["told"] = f" {told}" if told else ""
            if quantity.planned is None:
                return reader.text("{title}: {figure}, measured{told}.", **values)
            return reader.text(
                "{title}: {figure}, measured{told} (planned {planned}).",
                **values,
                planned=reader.length(Length(quantity.planned)),
            )
        case Origin.OVERRULED:
            if quantity.planned is None or definition.kind is not QuantityKind.LENGTH:
                return reader.text("{title}: {figure}, overruled by you.", **values)
            return reader.text(
                "{title}: {figure}, overruled by you (it would be {planned} = {rule}).",
                **values,
                planned=reader.length(Length(quantity.planned)),
                rule=RuleWords(reader).read(definition.rule),
            )
        case Origin.WAITS:
            titles = reader.listed(reader.title(each) for each in ledger.waits_for(definition.name))
            return reader.text(
                "{title}: {figure} = {rule}; not to be cut before {measured} is measured.",
                **values,
                rule=RuleWords(reader).read(definition.rule),
                measured=titles,
            )
        case Origin.WORKED_OUT | Origin.FITTED:
            if quantity.exact is not None:
                return reader.text(
                    _PUT_ON[definition.snap],
                    **values,
                    rule=RuleWords(reader).read(definition.rule),
                    exact=reader.fine(Length(quantity.exact)),
                )
            said = reader.text("{title}: {figure} = {rule}.", **values, rule=RuleWords(reader).read(definition.rule))
            before = ledger.made_before(definition.name)
            if not before:
                return said
            titles = reader.listed(map(reader.title, before))
            return f"{said} {reader.text('It is as designed: made before {measured} is measured.', measured=titles)}"
        case _:
            assert_never(quantity.origin)


_PUT_ON = {
    Snap.NOTHING: N_("{title}: {figure} = {rule}."),
    Snap.MARK: N_("{title}: {figure}, the nearest mark to {exact} = {rule}."),
    Snap.CHISEL: N_("{title}: {figure}, the chisel nearest to {exact} = {rule}."),
    Snap.IRON: N_("{title}: {figure}, the iron nearest to {exact} = {rule}."),
    Snap.BIT: N_("{title}: {figure}, the bit nearest to {exact} = {rule}."),
    Snap.MARK_BELOW: N_("{title}: {figure}, the mark below {exact} = {rule}."),
    Snap.IRON_BELOW: N_("{title}: {figure}, the iron below {exact} = {rule}."),
    Snap.WHOLE: N_("{title}: {figure}, no fewer than {exact} = {rule}."),
}


class RuleWords:
    """Writes a rule with the titles of its quantities."""

    _SIGNS: Mapping[type, str] = MappingProxyType({ast.Add: "+", ast.Sub: "−", ast.Mult: "×", ast.Div: "÷"})

    def __init__(self, reader: Reader) -> None:
        self._reader = reader

    def read(self, rule: str) -> str:
        """Return the rule in words."""
        return self._words(parsed(rule), top=True)

    def _words(self, node: ast.expr, top: bool = False) -> str:
        if isinstance(node, ast.BinOp):
            left, right = self._words(node.left, top), self._words(node.right)
            sum_like = isinstance(node.op, ast.Add | ast.Sub)
            text = f"{left} {self._SIGNS[type(node.op)]} {right}"
            return f"({text})" if sum_like and not top else text
        if isinstance(node, ast.Call):
            message = N_("the smaller of {values}") if dotted_name(node.func) == "min" else N_("the larger of {values}")
            return self._reader.text(message, values=self._reader.listed(self._words(arg) for arg in node.args))
        if isinstance(node, ast.Constant):
            return str(node.value)
        if isinstance(node, ast.UnaryOp):
            return f"−{self._words(node.operand)}"
        return self._reader.title(dotted_name(node))


#: What says the facts of this room.
WORDERS = worders((get_args(LedgerFact), ledger_words), ((WrongValue,), wrong_value_words))
