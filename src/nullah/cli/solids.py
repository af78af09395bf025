"""write the solids of a project as STL or glTF."""

from __future__ import annotations

import argparse
from pathlib import Path

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.wording.facts import error_words


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("file", type=Path)
    parser.add_argument("--out", type=Path, required=True)


def run(options: argparse.Namespace) -> int:
    """Write the solids."""
    from nullah.core.plan import work_out
    from nullah.files.solids import SolidsError, write_solids

    try:
        write_solids(work_out(read.project(options.file), milling=False), options.out)
    except SolidsError as error:
        raise RefusedError(error_words(error)) from error
    return 0
