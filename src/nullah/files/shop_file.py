"""The file of the person's own shop: tools and habits, kept on this machine and not in a project."""

from __future__ import annotations

import json
from pathlib import Path

from nullah.core.limits import STATE_BYTES
from nullah.core.my_shop import MyShop
from nullah.files.reading import MissingError, ReadingError, keep_damaged, read_json_file
from nullah.writing import why, write_file


def read_shop(file: Path) -> MyShop | None:
    """Read the shop; None where there is none yet. What cannot be read is set aside and counts as none."""
    from pydantic import TypeAdapter, ValidationError

    from nullah.files.schema import MY_SHOP

    if not file.exists():
        return None
    try:
        found: MyShop = TypeAdapter(MY_SHOP.form).validate_python(read_json_file(file, STATE_BYTES))
    except MissingError:
        return None
    except (ReadingError, ValidationError):
        keep_damaged(file)
        return None
    return found


def write_shop(file: Path, mine: MyShop) -> str:
    """Keep the shop; give an empty text, or a sentence why it could not be kept."""
    from nullah.files.schema import MY_SHOP

    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        write_file(file, json.dumps(MY_SHOP.write(mine), indent=1, ensure_ascii=False) + "\n")
    except OSError as error:
        return f"Your shop could not be kept: {why(error)}."
    return ""
