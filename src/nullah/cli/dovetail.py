"""lay out a dovetailed corner."""

from __future__ import annotations

import argparse

from nullah.cli import options as read
from nullah.cli.options import RefusedError, error_words, fact_words
from nullah.core.lengths import LengthError, read_slope


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    for name in ("width", "tail-thickness", "pin-thickness", "tails", "half-pin", "pin", "slope"):
        parser.add_argument(f"--{name}", required=True)
    parser.add_argument("--proud", default="0mm")
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with the layout, mm; where the figures leave nothing for a tail, with the reasons and no layout."""
    from nullah.core.joints.dovetail.layout import DovetailError, DovetailFigures, lay_out, remarks
    from nullah.core.shop import Shop

    try:
        slope = read_slope(options.slope)
    except LengthError as error:
        raise RefusedError(f"--slope: {error_words(error)}") from error
    spec = DovetailFigures(
        read.length(options.width, "--width"),
        read.length(options.tail_thickness, "--tail-thickness"),
        read.length(options.pin_thickness, "--pin-thickness"),
        read.count(options.tails, "--tails", "tails"),
        read.length(options.half_pin, "--half-pin", 0),
        read.length(options.pin, "--pin", 0),
        slope,
        read.length(options.proud, "--proud", None),
    )
    try:
        layout = lay_out(spec)
    except DovetailError as error:
        raise RefusedError(error_words(error)) from error
    # A tail that narrows to nothing, or is nothing to begin with, is none.
    possible = layout.tail.mm > 0 and layout.tail_base.mm > 0
    return read.write_json(
        options.json,
        {
            "step_mm": float(layout.step) if possible else None,
            "tail_mm": float(layout.tail) if possible else None,
            "tail_base_mm": float(layout.tail_base) if possible else None,
            "pin_mm": float(spec.pin) if possible else None,
            "pin_base_mm": float(layout.pin_base) if possible else None,
            "marks_mm": [float(mark) for mark in layout.marks] if possible else None,
            "slope_degrees": slope.degrees,
            "gauge_tail_board_mm": float(layout.gauge_tail_board),
            "gauge_pin_board_mm": float(layout.gauge_pin_board),
            "warnings": [fact_words(remark.fact, read.reader()) for remark in remarks(layout, Shop())],
        },
    )
