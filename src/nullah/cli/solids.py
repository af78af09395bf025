"""write the solids of a project as STL or glTF, together or each by itself."""

from __future__ import annotations

import argparse
from pathlib import Path

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.wording.facts import error_words
from nullah.language import tr


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("file", type=Path)
    where = parser.add_mutually_exclusive_group(required=True)
    where.add_argument("--out", type=Path, help=tr("the piece put together, .stl or .glb"))
    where.add_argument("--parts", type=Path, help=tr("each part by itself, DIR/ID.stl, in its own frame"))


def run(options: argparse.Namespace) -> int:
    """Write the solids."""
    from nullah.core.plan import work_out
    from nullah.files.solids import SolidsError, write_parts, write_solids

    project = read.project(options.file)
    try:
        if options.parts is not None:
            write_parts(work_out(project, milling=False, proving=False), options.parts)
        else:
            write_solids(work_out(project, milling=False), options.out)
    except SolidsError as error:
        raise RefusedError(error_words(error)) from error
    return 0
