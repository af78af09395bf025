"""open the desk on the sample piece."""

from __future__ import annotations

import argparse
import gc
import os
import sys
from pathlib import Path

from nullah.cli.options import RefusedError
from nullah.language import tr


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options: there are none."""


def run(options: argparse.Namespace) -> int:
    """Open the desk on the sample piece."""
    return open_desk(None, demo=True)


def open_desk(file: Path | None, demo: bool = False) -> int:
    """Open the desk, on a file, the sample or a new piece."""
    if not _has_screen():
        raise RefusedError(
            tr(
                "There is no screen to open the desk on (neither DISPLAY nor WAYLAND_DISPLAY is set). "
                "“nullah sheets” and “nullah shots” need none."
            )
        )
    # Nothing that is loaded now is ever let go: the collector would look through it for nothing.
    gc.disable()
    from nullah.desk.last_view import show_last_view

    seen = show_last_view(file, demo)
    from nullah.desk.start import open_desk as start

    return start(file, demo, seen)


def _has_screen() -> bool:
    return not sys.platform.startswith("linux") or any(
        os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")
    )
