"""Rules of the ledger: exact expressions over names, read once and worked out."""

from __future__ import annotations

import ast
from collections.abc import Callable

from nullah.core.errors import FactError
from nullah.core.fraction import Fraction
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_value


class RuleUnreadable(FrozenRecord):
    """A rule that is no expression."""

    rule: str


class RuleHolds(FrozenRecord):
    """A rule with something in it that no rule may hold."""

    what: str


class DividesByNothing(FrozenRecord):
    """A rule that divides by nothing."""

    rule: str


class Circle(FrozenRecord):
    """Quantities that are worked out from each other in a circle."""

    quantities: tuple[str, ...]


class NotDeclared(FrozenRecord):
    """A quantity that a rule uses and nothing declares."""

    quantity: str


class NotGiven(FrozenRecord):
    """A quantity without a rule that has not been given."""

    quantity: str


class WrongKind(FrozenRecord):
    """A figure of another kind than its quantity: a length for a number of tails."""

    quantity: str
    kind: str


LedgerFact = RuleUnreadable | RuleHolds | DividesByNothing | Circle | NotDeclared | NotGiven | WrongKind


class LedgerError(FactError):
    """The rules of a piece cannot be worked out; `fact` is why."""

    fact: LedgerFact


@kept_by_value(1024)
def parsed(rule: str) -> ast.expr:
    """Return a rule as a tree of expressions, or raise `LedgerError`."""
    try:
        return ast.parse(rule, mode="eval").body
    except SyntaxError as error:
        raise LedgerError(RuleUnreadable(rule)) from error


def dotted_name(node: ast.expr) -> str:
    """Return the name that a node of a rule stands for, such as ``bottom.length``."""
    if isinstance(node, ast.Attribute):
        return f"{dotted_name(node.value)}.{node.attr}"
    if isinstance(node, ast.Name):
        return node.id
    raise LedgerError(RuleHolds(ast.unparse(node)))


@kept_by_value(1024)
def names_in(rule: str) -> tuple[str, ...]:
    """Return the names that a rule uses, each once, in the order in which they stand."""
    found: list[str] = []

    def walk(node: ast.AST) -> None:
        if isinstance(node, ast.Attribute | ast.Name):
            name = dotted_name(node)
            if name not in found:
                found.append(name)
            return
        children = node.args if isinstance(node, ast.Call) else list(ast.iter_child_nodes(node))
        for child in children:
            walk(child)

    walk(parsed(rule))
    return tuple(found)


#: How much a name is, and what of names a rule is.
LookUp = Callable[[str], Fraction]
Worked = Callable[[LookUp], Fraction]


def evaluate(rule: str, look_up: LookUp) -> Fraction:
    """Work a rule out exactly; only + - * /, min, max, whole numbers and names are known.

    Parameters
    ----------
    rule : str
        Such as ``case.width - 2 * sides.thickness``.
    look_up : Callable[[str], Fraction]
        Gives the value of a name, mm or a count.

    Raises
    ------
    LedgerError
        For a rule that cannot be read, holds something else, or divides by nothing.
    """
    return _worked(rule)(look_up)


@kept_by_value(1024)
def _worked(rule: str) -> Worked:
    """Return a function that works a rule out: reading its tree anew takes several times as long."""

    def made(node: ast.expr) -> Worked:
        match node:
            case ast.Constant(value=int() as number):
                constant = Fraction(number)
                return lambda look_up: constant
            case ast.UnaryOp(op=ast.USub(), operand=operand):
                taken = made(operand)
                return lambda look_up: -taken(look_up)
            case ast.BinOp(left=left, op=ast.Add(), right=right):
                one, other = made(left), made(right)
                return lambda look_up: one(look_up) + other(look_up)
            case ast.BinOp(left=left, op=ast.Sub(), right=right):
                one, other = made(left), made(right)
                return lambda look_up: one(look_up) - other(look_up)
            case ast.BinOp(left=left, op=ast.Mult(), right=right):
                one, other = made(left), made(right)
                return lambda look_up: one(look_up) * other(look_up)
            case ast.BinOp(left=left, op=ast.Div(), right=right):
                return _divided(rule, made(left), made(right))
            case ast.Call(func=ast.Name(id="min"), args=args):
                several = tuple(map(made, args))
                return lambda look_up: min(each(look_up) for each in several)
            case ast.Call(func=ast.Name(id="max"), args=args):
                several = tuple(map(made, args))
                return lambda look_up: max(each(look_up) for each in several)
            case ast.Name() | ast.Attribute():
                name = dotted_name(node)
                return lambda look_up: look_up(name)
            case _:
                raise LedgerError(RuleHolds(ast.unparse(node)))

    return made(parsed(rule))


def _divided(rule: str, one: Worked, other: Worked) -> Worked:
    def worked(look_up: LookUp) -> Fraction:
        divisor = other(look_up)
        if divisor == 0:
            raise LedgerError(DividesByNothing(rule))
        return one(look_up) / divisor

    return worked
