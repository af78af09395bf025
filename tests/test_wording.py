"""Facts before words: which rooms of the core still write sentences. The list only shrinks."""

import ast
import builtins
import re
from pathlib import Path

import pytest

CORE = Path(__file__).parents[1] / "src" / "nullah" / "core"
LEFT = Path(__file__).with_name("sentences_left.txt")
#: What marks a text as a message or as a name of the catalogue, as `script/catalogue` has it.
MARKS = ("N_", "Phrase", "Form", "Choice", "Contour", "board")
#: Three words in a row are a sentence, or the beginning of one.
PROSE = re.compile(r"[A-Za-z’']+,? [A-Za-z’']+,? [a-z’']+")


def sentences_in(path, marks=MARKS):
    """Return how many texts of a module read as prose; docstrings and marked messages, as titles are, left out."""
    tree = ast.parse(path.read_text(encoding="utf-8"))
    marked = {
        each
        for node in ast.walk(tree)
        if isinstance(node, ast.Call)
        and (node.func.attr if isinstance(node.func, ast.Attribute) else getattr(node.func, "id", "")) in marks
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


@pytest.mark.dear
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


@pytest.mark.dear
def test_errors_carry_facts():
    """What a user asked for and cannot be is a fact; only builtin errors, for programmers, hold a sentence."""
    for path in sorted(CORE.rglob("*.py")):
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8"))):
            if isinstance(node, ast.Raise) and isinstance(node.exc, ast.Call):
                name = ast.unparse(node.exc.func)
                told = [each for each in node.exc.args if isinstance(each, ast.JoinedStr | ast.Constant)]
                assert not told or hasattr(builtins, name), f"{path.relative_to(CORE)}: {ast.unparse(node)}"


def test_nobody_shows_an_error_but_in_words():
    """An error that carries a fact says nothing by itself; a `RefusedError` of the command line is words."""
    house = CORE.parent
    for path in (*sorted((house / "desk").rglob("*.py")), *sorted((house / "cli").rglob("*.py"))):
        tree = ast.parse(path.read_text(encoding="utf-8"))
        for node in (each for each in ast.walk(tree) if isinstance(each, ast.ExceptHandler) and each.name):
            bare = (f"str({node.name})", f"f'{{{node.name}}}'")
            shown = [ast.unparse(each) for each in ast.walk(node) if ast.unparse(each) in bare]
            worded = ast.unparse(node.type or node) in ("Exception", "RefusedError")
            assert worded or not shown, f"{path.name}: {shown}: use error_words"


def test_desk_and_command_line_look_their_labels_up():
    """What a reader sees of them is in the catalogue; logs and the page of words are for programmers."""
    ours = (*MARKS, "tr", "tr_count", "text")
    house = CORE.parent
    paths = [path for room in ("desk", "cli") for path in sorted((house / room).rglob("*.py"))]
    left = {path.name: count for path in paths if (count := sentences_in(path, ours))}
    assert set(left) <= {"theme.py", "words.py", "shutdown.py"}
