"""find the thickest flat slab inside a surveyed board."""

from __future__ import annotations

import argparse
from pathlib import Path
from typing import Any

from nullah.cli import options as read
from nullah.cli.options import RefusedError
from nullah.core.wording.facts import error_words
from nullah.language import tr


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("surfaces", type=Path)
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with the slab and what it would be in halves, mm."""
    from nullah.core.milling.slab import halves_crosscut, halves_ripped, thickest_slab
    from nullah.core.milling.survey import SurveyError, from_points
    from nullah.files.tables import TableError, read_survey_points

    try:
        survey = from_points(read_survey_points(options.surfaces))
    except (TableError, SurveyError) as error:
        raise RefusedError(error_words(error)) from error
    slab = thickest_slab(survey)
    answer: dict[str, Any] = {
        "thickness_mm": slab.thickness,
        "plane": {"a": slab.a, "b": slab.b, "c": slab.c},
        "halves_crosscut_mm": list(halves_crosscut(survey)),
        "halves_ripped_mm": list(halves_ripped(survey)),
    }
    if slab.thickness == 0:
        answer["why"] = tr(
            "No flat plane lies inside the board anywhere: it is out of true by more than its thickness."
        )
    return read.write_json(options.json, answer)
