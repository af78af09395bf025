"""work out the movement of a width across the grain."""

from __future__ import annotations

import argparse

from nullah.cli import options as read
from nullah.cli.options import RefusedError, error_words
from nullah.core.limits import quoted
from nullah.language import tr


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("--species", required=True)
    parser.add_argument("--cut", required=True)
    parser.add_argument("--width", required=True)
    parser.add_argument("--from", dest="moisture_from", required=True)
    parser.add_argument("--to", dest="moisture_to", required=True)
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with the change of width, mm."""
    from nullah.core.wood.movement import GrainCut, MoistureError, movement
    from nullah.core.wood.species import SpeciesError, find_species

    if options.cut not in [cut.value for cut in GrainCut]:
        raise RefusedError(tr("--cut: {typed} is not a cut. Use flat, quarter or rift.", typed=quoted(options.cut)))
    width = read.length(options.width, "--width")
    before, after = read.number(options.moisture_from, "--from"), read.number(options.moisture_to, "--to")
    try:
        moved = movement(find_species(options.species), GrainCut(options.cut), width, before, after)
    except (SpeciesError, MoistureError) as error:
        raise RefusedError(error_words(error)) from error
    return read.write_json(
        options.json, {"change_mm": float(moved.change), "coefficient": moved.coefficient, "source": moved.source}
    )
