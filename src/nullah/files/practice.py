"""The record of practice with sticks and joints: kept on this machine, not in a project."""

from __future__ import annotations

import json
from pathlib import Path

import platformdirs

from nullah.core.joints.practice import JointTry
from nullah.core.limits import STATE_BYTES
from nullah.core.milling.sighting import HARDEST, Try
from nullah.files.reading import MissingError, ReadingError, keep_damaged, read_json_file
from nullah.writing import why, write_file

#: So many of each are kept; older ones are forgotten.
MOST_KEPT = 500


def practice_file() -> Path:
    """Return where the record is kept."""
    return Path(platformdirs.user_state_dir("nullah")) / "practice.json"


def read_practice(file: Path) -> tuple[Try, ...]:
    """Read the sticks; what cannot be read is left where it is and counts as nothing practised yet."""
    try:
        return tuple(_try(each) for each in (_kept(file) or {})["sticks"])
    except (ValueError, KeyError, TypeError, OverflowError):
        return ()


def read_joints(file: Path) -> tuple[JointTry, ...]:
    """Read the practice joints; what cannot be read counts as none."""
    try:
        return tuple(
            JointTry(str(each["day"]), float(str(each["minutes"])), float(str(each["gap"])), str(each["tight"]))
            for each in (_kept(file) or {})["joints"]
        )
    except (ValueError, KeyError, TypeError, OverflowError):
        return ()


def write_practice(file: Path, tries: tuple[Try, ...]) -> str:
    """Keep the sticks; give an empty text, or a sentence why they could not be kept."""
    return _keep(file, "sticks", [each._asdict() for each in tries[-MOST_KEPT:]])


def write_joints(file: Path, tries: tuple[JointTry, ...]) -> str:
    """Keep the practice joints; give an empty text, or a sentence why they could not be kept."""
    return _keep(file, "joints", [each._asdict() for each in tries[-MOST_KEPT:]])


def _kept(file: Path) -> dict[str, list[dict[str, object]]] | None:
    """Return what stands in the file; None where it cannot be read."""
    try:
        data = read_json_file(file, STATE_BYTES)
    except MissingError:
        return {}
    except ReadingError:
        data = None
    return data if isinstance(data, dict) else None


def _keep(file: Path, key: str, rows: list[dict[str, object]]) -> str:
    kept = _kept(file)
    if kept is None:
        keep_damaged(file)
    data = {**(kept or {}), key: rows}
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        write_file(file, json.dumps(data))
    except OSError as error:
        return f"The record of practice could not be kept: {why(error)}."
    return ""


def _try(kept: dict[str, object]) -> Try:
    level = min(max(int(str(kept["level"])), 0), HARDEST)
    return Try(str(kept["day"]), level, bool(kept["right"]), abs(float(str(kept["off"]))))
