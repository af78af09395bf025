"""write a PNG of each main view from the sample piece."""

from __future__ import annotations

import argparse
from pathlib import Path

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.lengths import STYLES, Unit
from nullah.core.limits import quoted, read_count, shown
from nullah.core.project import Project
from nullah.core.wording.facts import error_words
from nullah.language import tr
from nullah.writing import why

#: Sides of a window that can be shown, pixels.
_LEAST, _MOST = 640, 8000


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("dir", type=Path)
    parser.add_argument("--size", default="1280x800", help=tr("of the window in pixels, such as 1280x800"))
    parser.add_argument("--units", choices=tuple(style.name for style in STYLES.values()))
    parser.add_argument("--project", type=Path, help=tr("show this project instead of the samples"))
    parser.add_argument("--labels", metavar="FILE", help=tr("write where every word on the bench is painted, as JSON"))


def run(options: argparse.Namespace) -> int:
    """Write the pictures; print the name of each file."""
    read.no_screen_needed()
    from nullah.desk.shots import labels_of, write_shots
    from nullah.paper.files import PaperError

    try:
        shots = write_shots(options.dir, _size(options.size), _unit(options.units), _project(options.project))
        for shot in shots:
            if options.labels != "-":
                print(shown(str(shot.path)))
    except PaperError as error:
        raise RefusedError(error_words(error)) from error
    except OSError as error:
        raise RefusedError(tr("{name} cannot be written: {why}.", name=options.dir, why=why(error))) from error
    if options.labels is not None:
        read.write_json(options.labels, labels_of(shots))
    return 0


def _size(text: str) -> tuple[int, int]:
    sides = [read_count(side) or 0 for side in text.split("x")]
    if len(sides) != 2 or not all(_LEAST <= side <= _MOST for side in sides):
        raise RefusedError(
            tr(
                "{typed} is not a size such as 1280x800, from {least} to {most} each way.",
                typed=quoted(text),
                least=_LEAST,
                most=_MOST,
            )
        )
    return sides[0], sides[1]


def _unit(name: str | None) -> Unit | None:
    return next((unit for unit, style in STYLES.items() if style.name == name), None)


def _project(path: Path | None) -> Project | None:
    return None if path is None else read.project(path)
