"""The command line: the same core in a terminal, for scripts and for checking."""

from __future__ import annotations

import argparse
import os
import sys
from collections.abc import Sequence
from importlib import import_module
from pathlib import Path
from typing import NoReturn

from nullah.cli.options import RefusedError, say
from nullah.core.limits import quoted
from nullah.files.catalogues import catalogue_for
from nullah.language import speak, tr
from nullah.memory import collect_seldom

#: What can be asked for, each a module of this package with `add` and `run`.
COMMANDS = (
    "demo",
    "sheets",
    "work",
    "rehearse",
    "solids",
    "shots",
    "forms",
    "new",
    "breakdown",
    "slab",
    "dovetail",
    "move",
    "emc",
)


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        raise RefusedError(f"{message[:1].upper()}{message[1:]}." if not message.endswith(".") else message)


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; gives the exit status."""
    words = list(sys.argv[1:] if arguments is None else arguments)
    speak(catalogue_for(os.environ))
    collect_seldom()
    try:
        if words[:1] == ["--version"]:
            from importlib import metadata

            print(f"nullah {metadata.version('nullah')}")
            return 0
        if words and (words[0] in COMMANDS or words[0].startswith("-")):
            options = _parser(words[0]).parse_args(words)
            answer: int = options.run(options)
            # What is written only when the program ends could fail unseen.
            sys.stdout.flush()
            return answer
        return _open_desk(words)
    except RefusedError as refused:
        say(str(refused))
        return 2
    except BrokenPipeError:
        # Whoever read has enough; there is nobody to tell.
        _drop_output()
        return 0
    except OSError as error:
        _drop_output()
        say(tr("The answer cannot be written: {why}.", why=error.strerror or error))
        return 2
    except KeyboardInterrupt:
        return 130


def _drop_output() -> None:
    """Point standard output at nothing, so that what it still holds fails no second time."""
    nothing = os.open(os.devnull, os.O_WRONLY)
    os.dup2(nothing, sys.stdout.fileno())
    os.close(nothing)


def _open_desk(words: list[str]) -> int:
    if len(words) > 1 or (words and not _a_file(words[0])):
        first, near = words[0], _nearest(words[0])
        if len(words) > 1 and _a_file(first):
            raise RefusedError(tr("One project at a time: {count} were named.", count=len(words)))
        instead = tr("Did you mean “nullah {near}”?", near=near) if near else tr("“nullah --help” lists the commands.")
        raise RefusedError(
            tr("{typed} is neither a command nor a file here. {instead}", typed=quoted(first), instead=instead)
        )
    from nullah.cli.demo import open_desk

    return open_desk(Path(words[0]) if words else None)


def _a_file(word: str) -> bool:
    return "/" in word or "." in word or Path(word).exists()


def _nearest(word: str) -> str:
    """Return the command that a word is nearest to, or nothing."""
    from difflib import get_close_matches

    return next(iter(get_close_matches(word.lower(), COMMANDS, 1, 0.6)), "")


def _parser(wanted: str) -> _Parser:
    """Return the parser; only the command that is wanted is loaded, all of them for the help."""
    parser = _Parser(
        prog="nullah", description=tr("A desk for the hand-tool woodworker. Without a command: open the desk.")
    )
    parser.add_argument("--version", action="store_true", help=tr("print the version"))
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)
    for name in COMMANDS if wanted not in COMMANDS else (wanted,):
        module = import_module(f"nullah.cli.{name}")
        text = tr(str(module.__doc__).splitlines()[0].rstrip("."))
        made = commands.add_parser(name, help=text, description=text)
        module.add(made)
        made.set_defaults(run=module.run)
    return parser
