"""Rules of the ledger: exact expressions over names, read once, worked out and put in words."""

from __future__ import annotations

import ast
from collections.abc import Callable, Mapping
from fractions import Fraction
from functools import lru_cache
from types import MappingProxyType


class LedgerError(ValueError):
    """The rules of a piece cannot be worked out; the message names the quantities."""


@lru_cache(maxsize=1024)
def _parsed(rule: str) -> ast.expr:
    try:
        return ast.parse(rule, mode="eval").body
    except SyntaxError as error:
        raise LedgerError(f"The rule “{rule}” cannot be read.") from error


def _dotted(node: ast.expr) -> str:
    if isinstance(node, ast.Attribute):
        return f"{_dotted(node.value)}.{node.attr}"
    if isinstance(node, ast.Name):
        return node.id
    raise LedgerError(f"A rule may not hold “{ast.unparse(node)}”.")


@lru_cache(maxsize=1024)
def names_in(rule: str) -> tuple[str, ...]:
    """Return the names that a rule uses, each once, in the order in which they stand."""
    found: list[str] = []

    def walk(node: ast.AST) -> None:
        if isinstance(node, ast.Attribute | ast.Name):
            name = _dotted(node)
            if name not in found:
                found.append(name)
            return
        children = node.args if isinstance(node, ast.Call) else list(ast.iter_child_nodes(node))
        for child in children:
            walk(child)

    walk(_parsed(rule))
    return tuple(found)


def evaluate(rule: str, look_up: Callable[[str], Fraction]) -> Fraction:
    """Work a rule out exactly; only + - * /, min, max, whole numbers and names are known."""

    def value(node: ast.expr) -> Fraction:
        match node:
            case ast.Constant(value=int() as number):
                return Fraction(number)
            case ast.UnaryOp(op=ast.USub(), operand=operand):
                return -value(operand)
            case ast.BinOp(left=left, op=ast.Add(), right=right):
                return value(left) + value(right)
            case ast.BinOp(left=left, op=ast.Sub(), right=right):
                return value(left) - value(right)
            case ast.BinOp(left=left, op=ast.Mult(), right=right):
                return value(left) * value(right)
            case ast.BinOp(left=left, op=ast.Div(), right=right):
                divisor = value(right)
                if divisor == 0:
                    raise LedgerError(f"“{rule}” divides by nothing.")
                return value(left) / divisor
            case ast.Call(func=ast.Name(id="min"), args=args):
                return min(value(arg) for arg in args)
            case ast.Call(func=ast.Name(id="max"), args=args):
                return max(value(arg) for arg in args)
            case ast.Name() | ast.Attribute():
                return look_up(_dotted(node))
            case _:
                raise LedgerError(f"A rule may not hold “{ast.unparse(node)}”.")

    return value(_parsed(rule))


class RuleWords:
    """Writes a rule with the titles of its quantities."""

    _SIGNS: Mapping[type, str] = MappingProxyType({ast.Add: "+", ast.Sub: "−", ast.Mult: "×", ast.Div: "÷"})

    def __init__(self, title: Callable[[str], str]) -> None:
        self._title = title

    def read(self, rule: str) -> str:
        """Give the rule in words."""
        return self._words(_parsed(rule), top=True)

    def _words(self, node: ast.expr, top: bool = False) -> str:
        if isinstance(node, ast.BinOp):
            left, right = self._words(node.left, top), self._words(node.right)
            sum_like = isinstance(node.op, ast.Add | ast.Sub)
            text = f"{left} {self._SIGNS[type(node.op)]} {right}"
            return f"({text})" if sum_like and not top else text
        if isinstance(node, ast.Call):
            word = "the smaller of" if _dotted(node.func) == "min" else "the larger of"
            return f"{word} {' and '.join(self._words(arg) for arg in node.args)}"
        if isinstance(node, ast.Constant):
            return str(node.value)
        if isinstance(node, ast.UnaryOp):
            return f"−{self._words(node.operand)}"
        return self._title(_dotted(node))
