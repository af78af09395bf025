"""give the moisture content at which wood settles."""

from __future__ import annotations

import argparse

from nullah.cli import options as read
from nullah.cli.options import RefusedError, error_words


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("--temperature", required=True)
    parser.add_argument("--humidity", required=True)
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with the equilibrium moisture content, per cent."""
    from nullah.core.wood.moisture import ClimateError, equilibrium_moisture

    temperature = read.number(options.temperature, "--temperature")
    humidity = read.number(options.humidity, "--humidity")
    try:
        moisture = equilibrium_moisture(temperature, humidity)
    except ClimateError as error:
        raise RefusedError(error_words(error)) from error
    return read.write_json(options.json, {"emc_percent": moisture})
