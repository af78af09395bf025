"""write every sheet and list of a project."""

from __future__ import annotations

import argparse
from datetime import datetime
from pathlib import Path

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.limits import shown
from nullah.core.wording.facts import error_words
from nullah.desk.settings import PAPER_NAMES
from nullah.language import tr


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("file", type=Path)
    parser.add_argument("--out", type=Path, required=True)
    parser.add_argument("--paper", choices=PAPER_NAMES, default="A4", help=tr("what the PDF is printed on"))


def run(options: argparse.Namespace) -> int:
    """Write the sheets; print the name of each file."""
    project = read.project(options.file)
    read.no_screen_needed()
    from nullah.desk.application import application
    from nullah.desk.bundle import write_bundle
    from nullah.paper.files import PAPERS, PaperError

    application()
    try:
        for written in write_bundle(project, options.out, PAPERS[options.paper], datetime.now()):
            print(shown(str(written.path)))
    except PaperError as error:
        raise RefusedError(error_words(error)) from error
    return 0
