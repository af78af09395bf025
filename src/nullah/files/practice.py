"""The record of practice with the winding sticks: kept on this machine, not in a project."""

from __future__ import annotations

import json
import os
from pathlib import Path

import platformdirs

from nullah.core.milling.sighting import HARDEST, Try

#: So many are kept; older ones are forgotten.
MOST_KEPT = 500


def practice_file() -> Path:
    """Give where the record is kept."""
    return Path(platformdirs.user_state_dir("nullah")) / "practice.json"


def read_practice(file: Path) -> tuple[Try, ...]:
    """Read the record; what cannot be read is left where it is and counts as nothing practised yet."""
    try:
        data = json.loads(file.read_text(encoding="utf-8"))
        return tuple(
            Try(
                str(each["day"]), min(max(int(each["level"]), 0), HARDEST), bool(each["right"]), abs(float(each["off"]))
            )
            for each in data["sticks"]
        )
    except (OSError, ValueError, KeyError, TypeError):
        return ()


def _try(kept: dict[str, object]) -> Try:
    level = min(max(int(str(kept["level"])), 0), HARDEST)
    return Try(str(kept["day"]), level, bool(kept["right"]), abs(float(str(kept["off"]))))


def write_practice(file: Path, tries: tuple[Try, ...]) -> str:
    """Keep the record; give an empty text, or a sentence why it could not be kept."""
    data = {"sticks": [each._asdict() for each in tries[-MOST_KEPT:]]}
    beside = file.with_suffix(".new")
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        beside.write_text(json.dumps(data), encoding="utf-8")
        os.replace(beside, file)
    except OSError as error:
        return f"The record of practice could not be kept: {error.strerror or error}."
    return ""
