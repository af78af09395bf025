"""make a project of any form without a window."""

from __future__ import annotations

import argparse
from difflib import get_close_matches
from pathlib import Path

from nullah.cli import options as read
from nullah.cli.options import RefusedError, say
from nullah.core import actions
from nullah.core.beginning import rounded
from nullah.core.forms import FORMS
from nullah.core.ledger import Value, wrong_value
from nullah.core.lengths import STYLES, LengthError, Marks, style_of
from nullah.core.limits import MARK_LEAST, MARK_MOST, NAME_TEXT, quoted
from nullah.core.my_shop import planned_with, usual_shop
from nullah.core.piece.form import Form
from nullah.core.project import Piece, Project
from nullah.core.values import read_value
from nullah.core.wording.facts import error_words, fact_words
from nullah.language import tr


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("form")
    parser.add_argument("--choose", action="append", default=[], metavar="KEY=VALUE")
    parser.add_argument("--give", action="append", default=[], metavar="NAME=LENGTH")
    parser.add_argument("--boards", type=Path)
    parser.add_argument("--units", choices=tuple(style.name for style in STYLES.values()), default="mm")
    parser.add_argument("--mark")
    parser.add_argument("--name")
    parser.add_argument("--out", type=Path, required=True)


def run(options: argparse.Namespace) -> int:
    """Write the project; choices that do not apply are named on standard error."""
    from nullah.files.errors import ProjectFileError
    from nullah.files.project_file import write_project

    form = FORMS.get(options.form)
    if form is None:
        raise RefusedError(
            tr(
                "{typed} is not a form{instead}",
                typed=quoted(options.form),
                instead=_instead(options.form, tuple(FORMS)),
            )
        )
    choices = _choices(form, options.choose)
    given = _given(form, choices, options.give)
    name = form.title if options.name is None else options.name.strip()
    if not name or len(name) > NAME_TEXT:
        raise RefusedError(tr("--name: a name has 1 to {most} characters.", most=NAME_TEXT))
    piece = Piece(form=form.id, choices=tuple(choices.items()), given=tuple(given.items()))
    marks = _marks(options.units, options.mark)
    fresh = planned_with(Project(piece=piece, marks=marks), usual_shop(marks.unit))
    project = actions.rename(rounded(fresh), name)
    if options.boards is not None:
        project = _with_boards(project, options.boards)
    _refuse_impossible(project)
    try:
        write_project(project, options.out)
    except ProjectFileError as error:
        raise RefusedError(error_words(error)) from error
    return 0


def _pairs(words: list[str], option: str) -> list[tuple[str, str]]:
    found = []
    for word in words:
        name, equals, value = word.partition("=")
        if not equals or not name.strip():
            raise RefusedError(
                tr(
                    "{option}: {typed} is not a name and a value with = between them.",
                    option=option,
                    typed=quoted(word),
                )
            )
        found.append((name.strip(), value.strip()))
    return found


def _instead(word: str, known: tuple[str, ...]) -> str:
    """Return the end of a sentence that offers what was probably meant."""
    near = get_close_matches(word, known, 1, 0.5)
    if near:
        return tr("; did you mean {near}?", near=near[0])
    return tr(". Known are {names}.", names=", ".join(known[:12]))


def _choices(form: Form, words: list[str]) -> dict[str, str]:
    """Return what is chosen; what does not apply beside the rest is left out, and said."""
    chosen: dict[str, str] = {}
    by_name = {choice.name: choice for choice in form.choices}
    for name, value in _pairs(words, "--choose"):
        if name not in by_name:
            raise RefusedError(
                tr(
                    "A {form} has no choice {typed}{instead}",
                    form=form.id,
                    typed=quoted(name),
                    instead=_instead(name, tuple(by_name)),
                )
            )
        options = tuple(option for option, _ in by_name[name].options)
        if value not in options:
            instead = _instead(value, options)
            raise RefusedError(
                tr("--choose {name}: {typed} is no option{instead}", name=name, typed=quoted(value), instead=instead)
            )
        chosen[name] = value
    while True:
        settled = form.settled(chosen)
        idle = [name for name in chosen if not by_name[name].applies(settled)]
        if not idle:
            return chosen
        for name in idle:
            say(tr("The choice {name} does not apply here and is left out.", name=name))
            del chosen[name]


def _given(form: Form, choices: dict[str, str], words: list[str]) -> dict[str, Value]:
    definitions = {each.name: each for each in form.define(form.settled(choices))}
    given: dict[str, Value] = {}
    for name, text in _pairs(words, "--give"):
        if name not in definitions:
            instead = _instead(name, tuple(definitions))
            raise RefusedError(
                tr(
                    "A {form} has no quantity {typed} with these choices{instead}",
                    form=form.id,
                    typed=quoted(name),
                    instead=instead,
                )
            )
        kind = definitions[name].kind
        try:
            value = read_value(text, kind)
        except LengthError as error:
            raise RefusedError(f"--give {name}: {error_words(error)}") from error
        wrong = wrong_value(name, kind, value)
        if wrong is not None:
            raise RefusedError(f"--give {name}: {fact_words(wrong, read.reader())}")
        given[name] = value
    return given


def _marks(units: str, mark: str | None) -> Marks:
    """Return the unit shown and its smallest mark."""
    unit = next(unit for unit, style in STYLES.items() if style.name == units)
    if mark is None:
        return Marks(unit)
    smallest = read.length(mark, "--mark")
    if not MARK_LEAST <= smallest.mm <= MARK_MOST:
        raise RefusedError(tr("--mark: {typed} is no mark on a rule: 0.01 to 10 mm.", typed=quoted(mark)))
    marks = Marks(unit)
    return marks.with_smallest(smallest.mm / style_of(marks.style.rule).mm)


def _with_boards(project: Project, path: Path) -> Project:
    from nullah.core.rack.board import BoardError
    from nullah.core.wording.rack import passed_over_words
    from nullah.files.rack_tables import columns_passed_over, read_rack
    from nullah.files.tables import TableError

    try:
        boards, over = read_rack(path), columns_passed_over(path)
        if over:
            say(passed_over_words(over, path.name, read.reader()))
        return actions.add_boards(project, boards)
    except (TableError, BoardError) as error:
        raise RefusedError(error_words(error)) from error


def _refuse_impossible(project: Project) -> None:
    """Refuse a piece that cannot be made, with the first reason."""
    from nullah.core.card import Severity
    from nullah.core.plan import work_out

    plan = work_out(project, milling=False, proving=False)
    if plan.problem is not None:
        raise RefusedError(fact_words(plan.problem, plan.reader))
    remarks = (*plan.assembly.remarks, *(remark for corner in plan.corners for remark in corner.remarks))
    wrong = next((remark for remark in remarks if remark.weight is Severity.FAILURE), None)
    if wrong is not None:
        raise RefusedError(tr("It cannot be made: {why}", why=fact_words(wrong.fact, plan.reader)))
