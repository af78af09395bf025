"""Where the desk keeps what belongs to this machine and not to a piece."""

from __future__ import annotations

from pathlib import Path


def state_folder() -> Path:
    """Return the folder where kept work, the log and the records stand."""
    from platformdirs import user_state_path

    return user_state_path("nullah")


def settings_file() -> Path:
    """Return the file of the user's settings."""
    from platformdirs import user_config_path

    return user_config_path("nullah") / "desk.ini"
