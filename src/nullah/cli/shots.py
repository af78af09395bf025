"""write a PNG of each main view from the sample piece."""

from __future__ import annotations

import argparse
from pathlib import Path

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.limits import shown
from nullah.core.wording.facts import error_words
from nullah.writing import why


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("dir", type=Path)


def run(options: argparse.Namespace) -> int:
    """Write the pictures; print the name of each file."""
    read.no_screen_needed()
    from nullah.desk.shots import write_shots
    from nullah.paper.files import PaperError

    try:
        for path in write_shots(options.dir):
            print(shown(str(path)))
    except PaperError as error:
        raise RefusedError(error_words(error)) from error
    except OSError as error:
        raise RefusedError(f"{options.dir} cannot be written: {why(error)}.") from error
    return 0
