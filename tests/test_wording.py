"""Facts before words: which rooms of the core still write sentences. The list only shrinks."""

import ast
import re
from pathlib import Path

CORE = Path(__file__).parents[1] / "src" / "nullah" / "core"
LEFT = Path(__file__).with_name("sentences_left.txt")
#: Three words in a row are a sentence, or the beginning of one.
PROSE = re.compile(r"[A-Za-z’']+,? [A-Za-z’']+,? [a-z’']+")


def sentences_in(path):
    """Return how many texts of a module read as prose; docstrings and marked messages, as titles are, left out."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    marked = {
        each
        for node in ast.walk(tree)
        if isinstance(node, ast.Call) and getattr(node.func, "id", "") in ("N_", "Phrase")
        for each in node.args
    }
    told = {
        node.body[0].value
        for node in ast.walk(tree)
        if isinstance(node, ast.Module | ast.ClassDef | ast.FunctionDef)
        and node.body
        and isinstance(node.body[0], ast.Expr)
    }
    return sum(
        isinstance(node, ast.Constant)
        and isinstance(node.value, str)
        and node not in told
        and node not in marked
        and bool(PROSE.search(node.value))
        for node in ast.walk(tree)
    )


def found():
    counts = {
        str(path.relative_to(CORE)): sentences_in(path)
        for path in sorted(CORE.rglob("*.py"))
        if path.relative_to(CORE).parts[0] != "wording"
    }
    return {name: count for name, count in counts.items() if count}


def left():
    lines = (line.rsplit(" ", 1) for line in LEFT.read_text(encoding="utf-8").splitlines() if line)
    return {name: int(count) for name, count in lines}


def test_no_room_writes_more_sentences_than_it_did():
    """New sentences belong into core/wording; where some have moved there, the list is lowered."""
    now, allowed = found(), left()
    more = {name: count for name, count in now.items() if count > allowed.get(name, 0)}
    assert not more, "write these in core/wording instead"
    fewer = {name: count for name, count in allowed.items() if count > now.get(name, 0)}
    assert not fewer, f"well done: lower them in {LEFT.name}"


def test_prose_is_told_from_names(tmp_path):
    tree = 'x = "lower edge to groove"\ny = "left side"\n'
    tree += 'def f():\n    """It does all that."""\n    return f"It is so {x}."\n'
    path = tmp_path / "some_module.py"
    path.write_text(tree, encoding="utf-8")
    assert sentences_in(path) == 2
